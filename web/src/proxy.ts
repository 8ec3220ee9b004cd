import { NextResponse, type NextRequest } from "next/server";
import { env } from "@/env";
import { isSaveable } from "@/server/saveable";
import { contentPolicy, refusalOf } from "@/server/door";

const WORDS = {
  method: [405, "This is not done here."],
  host: [421, "This server does not answer to that name. Names are set with RADICULA_HOSTS."],
  origin: [403, "Pages of other sites may not do this."],
} as const;

/** Every request comes by here first. */
export function proxy(request: NextRequest): Response {
  const { headers, method, nextUrl } = request;
  if (!isReadable(nextUrl.pathname)) return plain(400, "This address does not read.");
  const refusal = refusalOf(
    {
      method,
      host: headers.get("host"),
      origin: headers.get("origin"),
      site: headers.get("sec-fetch-site"),
      isApi: nextUrl.pathname.startsWith("/api/"),
    },
    env().RADICULA_HOSTS,
  );
  if (refusal) {
    const [status, text] = WORDS[refusal];
    console.error(`refused (${refusal}): ${method} ${nextUrl.pathname.slice(0, 80)}`);
    return plain(status, text);
  }
  if (nextUrl.pathname.startsWith("/api/")) return NextResponse.next();
  const policy = contentPolicy(Buffer.from(crypto.randomUUID()).toString("base64"));
  // Next.js reads the nonce for its own scripts from here
  const inner = new Headers(headers);
  inner.set("Content-Security-Policy", policy);
  const response = NextResponse.next({ request: { headers: inner } });
  response.headers.set("Content-Security-Policy", policy);
  if (headers.get("x-forwarded-proto") === "https")
    response.headers.set("Strict-Transport-Security", "max-age=31536000");
  return response;
}

const plain = (status: number, text: string) =>
  new Response(text, { status, headers: { "Content-Type": "text/plain", "Cache-Control": "no-store" } });
function isReadable(path: string): boolean {
  try {
    return isSaveable(decodeURIComponent(path));
  } catch {
    return false;
  }
}

/** Files of the build carry nothing of anybody's, and are as many as a page has parts. */
export const config = { matcher: ["/((?!_next/static|icon.svg).*)"] };
