/** The browser's store of pages that open without the server. */
export const PAGES_CACHE = "radicula-pages";
