import { z } from "zod";
import { Role } from "@/ui/roles";
import { t } from "@/messages";
import { worded } from "@radicula/core/words";

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

const TEXTS: Readonly<Record<string, string>> = worded(() => ({
  "sign-in.wrong": t("people.theSignInNameOrThe"),
  "sign-in.old-password-wrong": t("people.theOldPasswordIsWrong"),
  "sign-in.code-wrong": t("people.thisCodeIsWrongUsedAlready"),
  "sign-in.pin-wrong": t("people.thePinIsWrongOrThis"),
  "sign-in.pin-easy": t("people.choose4To8DigitsThat"),
  "sign-in.password-short": t("people.chooseAPasswordOfAtLeast"),
  "sign-in.password-long": t("people.chooseAPasswordOfAtMost"),
  "sign-in.password-easy": t("people.thisPasswordIsEasyToGuess"),
  "sign-in.disabled": t("people.thisPersonMayNotSignIn"),
  "sign-in.needed": t("people.youAreSignedOutSignIn"),
  "sign-in.needs-password": t("people.youSignedInWithAPin2"),
  "sign-in.passkey-unknown": t("people.thisPasskeyIsNotKnownHere"),
  "sign-in.passkey-stopped": t("people.thePasskeyWasNotUsedTry"),
  "sign-in.passkey-by-number": t("people.passkeysNeedANameInThe"),
  "server.database-gone": t("people.theServerCannotBeReachedTry"),
  "server.starting": t("people.theServerIsStartingTryAgain"),
}));
const MINUTE_S = 60;
export function authText(code: string, seconds = 0): string {
  if (code === "sign-in.locked") {
    const minutes = Math.ceil(seconds / MINUTE_S);
    if (minutes > MINUTE_S) return t("people.tooManyWrongPinsSignIn");
    return t("people.tooManyWrongTriesWaitMin", { minutes });
  }
  return TEXTS[code] ?? t("people.thatDidNotWorkTryAgain");
}
