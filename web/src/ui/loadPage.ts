/** Opens a page anew from the server: who is signed in has changed, and nothing of before may be shown. */
export const loadPage = (address: string): void => location.assign(address);
