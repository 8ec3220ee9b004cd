"use client";
import type { SaveState } from "./session/logbookSync";
import { readingValue } from "@radicula/core/words";
import type { Entry } from "@radicula/core";
import { capital } from "@/ui/text";
import styles from "./Case.module.css";

/** One quiet word in the head of the page: whether the database has everything. */
export function SavedWord({ state }: { readonly state: SaveState }) {
  return (
    <span className={styles.saved} role="status">
      {state.status === "saved" || (state.status === "joined" && state.done)
        ? "Saved"
        : state.status === "saving" || state.status === "joined"
          ? "Saving…"
          : "Not saved"}
    </span>
  );
}

/**
 * Says where the logbook stands when it is not simply saved: on its way, kept here, or written by somebody else first.
 */
export function SaveNote({ state, onDismiss }: { readonly state: SaveState; readonly onDismiss: () => void }) {
  if (state.status === "saved" || state.status === "saving") return null;
  return (
    <div className={styles.alert} role="alert">
      <span>{state.status === "waiting" ? waitingText(state) : joinedText(state)}</span>
      {state.status === "waiting" ? null : (
        <button type="button" className="link" onClick={onDismiss}>
          Understood
        </button>
      )}
    </div>
  );
}

const WHY_WAITING = {
  "no-answer": "the database cannot be reached",
  "another-database": "another database answers here than the one this page was opened from",
  "no-such-job": "the database does not have this job",
  "signed-out": "you are signed out",
  "of-another": "another person is signed in now",
  "may-only-read": "your role is to read only",
} as const;
const ASK = "Nothing is lost. Ask whoever keeps the server.";
const WHAT_TO_DO = {
  "no-answer": "Go on working.",
  "another-database": ASK,
  "no-such-job": ASK,
  "signed-out": "Sign in again, at the top of the page.",
  "of-another": "Who wrote it has to sign in again, at the top of the page.",
  "may-only-read": "Nothing is lost. Ask an administrator to change your role.",
} as const;
function waitingText({ count, why, isKept }: Extract<SaveState, { status: "waiting" }>): string {
  const logged = count === 1 ? "What you logged is" : `The ${count} entries you logged are`;
  if (!isKept)
    return (
      `This device keeps nothing now: ${logged.toLowerCase()} in this window only. Do not close it. Free some space ` +
      "on the device, or wait until it says Saved."
    );
  return (
    `Not saved yet: ${WHY_WAITING[why]}. ${logged} kept on this device and saved in order as soon as it is back. ` +
    WHAT_TO_DO[why]
  );
}
function joinedText({ others, ours }: Extract<SaveState, { status: "joined" }>): string {
  return (
    `Another window logged ${others === 1 ? "an entry" : `${others} entries`} meanwhile. ` +
    `${capital(what(ours))} ${what(ours) === MANY ? "stand" : "stands"} after ` +
    `${others === 1 ? "it" : "them"}: look at what is new, and take back what no longer holds.`
  );
}

const MANY = "your entries";
function what(entries: readonly Entry[]): string {
  const reading = entries.length > 2 ? undefined : entries.find((e) => e.type === "reading");
  if (reading?.type === "reading")
    return "your reading " + `${reading.values.map((v) => readingValue(reading, v)).join(" · ")}`;
  return entries.length > 1 ? MANY : "your entry";
}
