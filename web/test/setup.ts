import "@testing-library/jest-dom";
import { TextDecoder } from "node:util";
import { MessageChannel } from "node:worker_threads";

// antd asks for these; jsdom has neither
class Observer {
  observe() {}
  unobserve() {}
  disconnect() {}
}
Object.assign(globalThis, { ResizeObserver: globalThis.ResizeObserver ?? Observer, TextDecoder });
const channels: MessageChannel[] = [];
class Channel extends MessageChannel {
  constructor() {
    super();
    channels.push(this);
  }
}
if (!("MessageChannel" in globalThis)) Object.assign(globalThis, { MessageChannel: Channel });
afterAll(() => {
  for (const c of channels) {
    c.port1.close();
    c.port2.close();
  }
}); // or the process would not end
if (typeof window !== "undefined" && !window.matchMedia)
  Object.assign(window, {
    matchMedia: (media: string) => ({
      media,
      matches: false,
      addEventListener() {},
      removeEventListener() {},
      addListener() {},
      removeListener() {},
    }),
  });
if (typeof window !== "undefined") {
  const real = window.getComputedStyle.bind(window);
  // jsdom has no pseudo elements, and says so each time it is asked
  window.getComputedStyle = (element) => real(element);
}
