/** What a request says of where it comes from and goes to. */
export interface Caller {
  readonly method: string;
  readonly host: string | null;
  readonly origin: string | null;
  /** the browser's own word on it: same-origin, same-site, cross-site, none */
  readonly site: string | null;
  readonly isApi: boolean;
}
export type Refusal = "method" | "host" | "origin";

const METHODS: ReadonlySet<string> = new Set(["GET", "HEAD", "POST", "PUT", "DELETE"]);
const READS: ReadonlySet<string> = new Set(["GET", "HEAD"]);
const LOOPBACK = /^(?:localhost|127\.0\.0\.1|\[::1\])(?::\d{1,5})?$/;

/**
 * Whether a request may come in. A name that is not ours is refused, as a page anywhere can have its own name point
 * here; and so is what a page of another origin sends, or reads of our data.
 * @param names that the server answers to besides loopback, in small letters, with their ports
 */
export function refusalOf(caller: Caller, names: readonly string[]): Refusal | undefined {
  if (!METHODS.has(caller.method)) return "method";
  const host = caller.host?.toLowerCase();
  if (host === undefined || !(LOOPBACK.test(host) || names.includes(host))) return "host";
  const isRead = READS.has(caller.method);
  if (!isRead && caller.origin !== null && !/^https?:\/\//.test(caller.origin)) return "origin"; // "null" too
  if (!isRead && caller.origin !== null && new URL(caller.origin).host.toLowerCase() !== host) return "origin";
  const isForeign = caller.site === "cross-site" || caller.site === "same-site";
  return isForeign && (caller.isApi || !isRead) ? "origin" : undefined;
}

/** What a page may load and run: only what comes from here; scripts only those that carry the page's own nonce. */
export const contentPolicy = (nonce: string): string =>
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
