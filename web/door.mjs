// Who may come in: looked at before anything of a request is read.

const METHODS = new Set(["GET", "HEAD", "POST", "PUT", "DELETE"]);
/** No address of ours is a tenth as long. */
const LONGEST_ADDRESS = 4000;
const READS = new Set(["GET", "HEAD"]);
const LOOPBACK = /^(?:localhost|127\.0\.0\.1|\[::1\])(?::\d{1,5})?$/;

/**
 * Why a request is not let in: status and words, or nothing. A name that is not ours is refused, as a page anywhere can
 * have its own name point here; and so is what a page of another origin sends, or reads of our data.
 * @param {import("node:http").IncomingMessage} request
 * @param {readonly string[]} names that the server answers to besides loopback, in small letters, with their ports
 * @returns {{ readonly status: number, readonly text: string } | undefined}
 */
export function refusalOf({ method = "", url = "", headers }, names) {
  if (!METHODS.has(method)) return { status: 405, text: "This is not done here." };
  if (url.length > LONGEST_ADDRESS) return { status: 414, text: "This address is too long." };
  if (!isReadable(url)) return { status: 400, text: "This address does not read." };
  const host = headers.host?.toLowerCase() ?? "";
  if (!LOOPBACK.test(host) && !names.includes(host))
    return { status: 421, text: "This server does not answer to that name. Names are set with RADICULA_HOSTS." };
  const isRead = READS.has(method);
  const site = headers["sec-fetch-site"];
  const isForeign = site === "cross-site" || site === "same-site";
  const isOurs = isRead || headers.origin === undefined || hostOf(headers.origin) === host;
  if (!isOurs || (isForeign && (!isRead || url.startsWith("/api/"))))
    return { status: 403, text: "Pages of other sites may not do this." };
  return undefined;
}
/** @param {string} origin */
function hostOf(origin) {
  try {
    return /^https?:\/\//.test(origin) ? new URL(origin).host.toLowerCase() : undefined;
  } catch {
    return undefined;
  }
}
/** @param {string} url */
function isReadable(url) {
  try {
    return !decodeURIComponent(url.split("?", 1)[0] ?? "").includes("\0");
  } catch {
    return false;
  }
}

/**
 * What a page may load and run: only what comes from here; scripts only those that carry the page's own nonce.
 * @param {string} nonce
 */
export const contentPolicy = (nonce) =>
  [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'`,
    // components write their styles as they appear
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' blob: data:",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join("; ");
