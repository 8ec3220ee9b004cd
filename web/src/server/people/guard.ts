import type { IncomingHttpHeaders } from "node:http";
import { readiness } from "../readiness";
import { authFor } from "./auth";
import { Role } from "@/ui/roles";
import { isAtLeast, ORIGIN_HEADER, personHeader } from "./signedIn";

/** What the door does with a request: let it in, as whom; refuse it; or send it to the sign-in page. */
export type GuardAnswer =
  | { readonly do: "let"; readonly person?: string }
  | { readonly do: "refuse"; readonly status: number; readonly code: string }
  | { readonly do: "ask" };

/**
 * Open to who is not signed in: the way in, a report shared by a signed address, and what tells whether the server
 * lives.
 */
const OPEN = [
  /^\/shared\/[\w.-]+$/,
  /^\/sign-in$/,
  /^\/invitation$/,
  /^\/api\/auth\//,
  /^\/api\/health(?:\/live)?$/,
  /^\/_next\/static\//,
];
const OPEN_FILES = new Set(["/icon.svg", "/manifest.webmanifest", "/favicon.ico", "/elk-worker.min.js", "/sw.js"]);
/** What takes more than a reader to read, and more than a technician to do. */
const OF_LEADS = /^\/(?:api\/)?(?:people|settings)(?:\/|$)/;
const READS = new Set(["GET", "HEAD"]);

/** @param url path and query, as the request has it */
export async function guard(method: string, url: string, headers: IncomingHttpHeaders): Promise<GuardAnswer> {
  const path = new URL(url, "http://here").pathname;
  if (OPEN.some((o) => o.test(path)) || OPEN_FILES.has(path)) return { do: "let" };
  if (!readiness().isReady) return { do: "refuse", status: 503, code: "server.starting" };
  const auth = await authFor(String(headers[ORIGIN_HEADER]));
  const found = await auth.api.getSession({
    headers: new Headers({ cookie: headers.cookie ?? "" }),
    query: { disableRefresh: true },
  });
  if (!found || found.user.isDisabled) return { do: "ask" };
  const role = Role.parse(found.user.role);
  if (OF_LEADS.test(path) && !isAtLeast(role, "lead"))
    return { do: "refuse", status: 403, code: "sign-in.not-allowed" };
  // a new invitation is a way to a new password, also to one's own
  if (OF_LEADS.test(path) && !READS.has(method) && found.session.way === "pin")
    return { do: "refuse", status: 403, code: "sign-in.needs-password" };
  if (!READS.has(method) && !isAtLeast(role, "technician"))
    return { do: "refuse", status: 403, code: "sign-in.may-only-read" };
  return { do: "let", person: personHeader({ id: found.user.id, name: found.user.name, role }) };
}
