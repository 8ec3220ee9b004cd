// Who may come in: looked at before anything of a request is read.

const METHODS = new Set(["GET", "HEAD", "POST", "PUT", "DELETE"]);
/** No address of ours is a tenth as long. */
const LONGEST_ADDRESS = 4000;
/** Where a company's own sign-in leads back to. */
const COMES_BACK = "/api/auth/callback/";
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
  const isPage = !url.startsWith("/api/") || url.startsWith(COMES_BACK);
  if (!isOurs || (isForeign && !(isRead && isPage)))
    return { status: 403, text: "Pages of other sites may not do this." };
  return undefined;
}

/** Headers that only the door writes, for the handlers behind it. */
const OURS = ["radicula-person", "radicula-address", "radicula-origin"];
/**
 * Where a request comes from and how: what a proxy of ours says of it is believed, what anybody else says is not.
 * @param {import("node:http").IncomingMessage} request
 * @param {{ readonly tls: unknown, readonly proxies: ReadonlySet<string> }} set
 */
export function originOf({ headers, socket }, { tls, proxies }) {
  const from = (socket.remoteAddress ?? "").replace(/^::ffff:/, "");
  const isProxied = proxies.has(from);
  const last = isProxied
    ? String(headers["x-forwarded-for"] ?? "")
        .split(",")
        .at(-1)
        ?.trim()
    : undefined;
  const isSecure = Boolean(tls) || (isProxied && headers["x-forwarded-proto"] === "https");
  return { address: last || from, isSecure, origin: `${isSecure ? "https" : "http"}://${headers.host}`.toLowerCase() };
}
/**
 * @param {import("node:http").IncomingMessage} request
 * @param {{ readonly address: string, readonly origin: string }} from
 */
export function withOurHeaders(request, { address, origin }) {
  for (const name of OURS) delete request.headers[name];
  request.headers["radicula-address"] = address;
  request.headers["radicula-origin"] = origin;
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
  // one form only of each address: the guard and what lies behind it must read the same
  if (!url.startsWith("/") || url.startsWith("//") || url.includes("\\")) return false;
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
    // the letters of the program stand in its style sheet
    "font-src 'self' data:",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join("; ");

/** What the reader of words in pictures may do in its worker: run from here, compiled code too, and load from here. */
export const readerPolicy = "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; connect-src 'self'";
