import "@testing-library/jest-dom";

// antd asks for these; jsdom has neither
class Observer { observe() {} unobserve() {} disconnect() {} }
Object.assign(globalThis, { ResizeObserver: globalThis.ResizeObserver ?? Observer });
if (typeof window !== "undefined" && !window.matchMedia) Object.assign(window, { matchMedia: (media: string) => ({ media, matches: false, addEventListener() {}, removeEventListener() {}, addListener() {}, removeListener() {} }) });
