/** The browser's store of pages that open without the server: the board, and jobs. */
export const PAGES_CACHE = "radicula-pages";
const KEPT = /^\/(?:job\/[^/]+)?$/;
/** @param path of an address */
export const isKeptPage = (path: string): boolean => KEPT.test(path);
