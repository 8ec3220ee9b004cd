import { z } from "zod";
import { Role } from "@/ui/roles";

export type Asked<T> =
  { readonly ok: true; readonly body: T } | { readonly ok: false; readonly code: string; readonly seconds: number };

export const SessionAnswer = z.object({ user: z.object({ id: z.string(), name: z.string(), role: Role }) }).nullable();
export const Anything = z.unknown();
const Refusal = z.object({ code: z.string(), seconds: z.number().optional() });
const OurRefusal = z.object({ issues: z.array(z.object({ code: z.string() })).min(1) });

/** What the sign-in library says, in our words. */
const THEIR_CODES: Readonly<Record<string, string>> = {
  INVALID_USERNAME_OR_PASSWORD: "sign-in.wrong",
  INVALID_USERNAME: "sign-in.wrong",
  USERNAME_TOO_SHORT: "sign-in.wrong",
  USERNAME_TOO_LONG: "sign-in.wrong",
  INVALID_PASSWORD: "sign-in.old-password-wrong",
  PASSWORD_TOO_SHORT: "sign-in.password-short",
  PASSWORD_TOO_LONG: "sign-in.password-long",
  UNAUTHORIZED: "sign-in.needed",
  PASSKEY_NOT_FOUND: "sign-in.passkey-unknown",
  AUTHENTICATION_FAILED: "sign-in.passkey-unknown",
};

/** Asks a route of the sign-in: GET without a body, else POST. */
export async function askAuth<T>(path: string, body: unknown, schema: z.ZodType<T>): Promise<Asked<T>> {
  try {
    const response = await fetch(
      `/api/auth/${path}`,
      body === undefined
        ? { cache: "no-store" }
        : { method: "POST", headers: { "Content-Type": "application/json" }, body: JSON.stringify(body) },
    );
    const answer: unknown = await response.json();
    if (response.ok) {
      const read = schema.safeParse(answer);
      return read.success ? { ok: true, body: read.data } : refused("server.answer-not-understood");
    }
    const theirs = Refusal.safeParse(answer);
    if (theirs.success) return refused(THEIR_CODES[theirs.data.code] ?? theirs.data.code, theirs.data.seconds);
    const ours = OurRefusal.safeParse(answer);
    return refused(ours.success ? ours.data.issues[0]!.code : "server.database-gone");
  } catch {
    return refused("server.database-gone");
  }
}
const refused = (code: string, seconds = 0) => ({ ok: false, code, seconds }) as const;

const TEXTS: Readonly<Record<string, string>> = {
  "sign-in.wrong": "The sign-in name or the password is wrong.",
  "sign-in.old-password-wrong": "The old password is wrong.",
  "sign-in.code-wrong": "This code is wrong, used already, or too old. Ask an administrator for a new invitation.",
  "sign-in.pin-wrong": "The PIN is wrong, or this device needs your password first.",
  "sign-in.pin-easy": "Choose 4 to 8 digits that are harder to guess: no row like 1234, no year.",
  "sign-in.password-short": "Choose a password of at least 12 characters.",
  "sign-in.password-long": "Choose a password of at most 128 characters.",
  "sign-in.password-easy":
    "This password is easy to guess. Several words that do not belong together are hard to guess.",
  "sign-in.disabled": "This person may not sign in any more. Ask an administrator.",
  "sign-in.needed": "You are signed out. Sign in again.",
  "sign-in.needs-password": "You signed in with a PIN. Sign in with your password or passkey to change this.",
  "sign-in.passkey-unknown": "This passkey is not known here. Sign in with your password, then add it on My account.",
  "sign-in.passkey-stopped": "The passkey was not used. Try again, or sign in with your password.",
  "sign-in.passkey-by-number": "Passkeys need a name in the address, such as localhost, instead of a number.",
  "server.database-gone": "The server cannot be reached. Try again in a moment.",
  "server.starting": "The server is starting. Try again in a moment.",
};
const MINUTE_S = 60;
export function authText(code: string, seconds = 0): string {
  if (code === "sign-in.locked") {
    const minutes = Math.ceil(seconds / MINUTE_S);
    if (minutes > MINUTE_S) return "Too many wrong PINs. Sign in with your password on this device.";
    return `Too many wrong tries. Wait ${minutes} min, then try again.`;
  }
  return TEXTS[code] ?? "That did not work. Try again.";
}
