import { issue } from "@radicula/core";
import { answering, jsonBody, refuse } from "@/server/answers";
import { env } from "@/env";
import { authFor } from "@/server/people/auth";
import { ORIGIN_HEADER } from "@/server/people/signedIn";

export const dynamic = "force-dynamic";

/** What of the sign-in library is open: all else it could do is not. */
const READ = new Set([
  "/get-session",
  "/device/people",
  "/ways",
  "/passkey/generate-authenticate-options",
  "/passkey/generate-register-options",
  "/callback/company",
  "/error",
]);
const WRITTEN = new Set([
  "/sign-in/username",
  "/sign-in/social",
  "/sign-out",
  "/change-password",
  "/invitation/accept",
  "/recover",
  "/pin/switch",
  "/pin/set",
  "/recovery-codes/new",
  "/passkey/verify-registration",
  "/passkey/verify-authentication",
  "/passkey/delete-passkey",
]);
const LIMIT = 20_000;

const handle = (request: Request, open: ReadonlySet<string>) =>
  answering(async () => {
    const url = new URL(request.url);
    const path = url.pathname.replace(/^\/api\/auth/, "");
    if (env().RADICULA_SIGN_IN === "off" || !open.has(path)) return refuse(404, [issue("sign-in.no-such-way")]);
    const headers = new Headers(request.headers);
    const origin = headers.get(ORIGIN_HEADER) ?? url.origin;
    let body: string | undefined;
    if (request.method !== "GET") {
      const sent = await jsonBody(request, LIMIT);
      if (!sent.ok) return sent.refused;
      body = sent.text;
      headers.delete("content-length");
    }
    const auth = await authFor(origin);
    const asked = new Request(`${origin}${url.pathname}${url.search}`, {
      method: request.method,
      headers,
      ...(body === undefined ? {} : { body }),
    });
    return auth.handler(asked);
  });
export const GET = (request: Request) => handle(request, READ);
export const POST = (request: Request) => handle(request, WRITTEN);
