"use client";
import type { SaveState } from "./session/logbookSync";
import { readingValue } from "@radicula/core/words";
import type { Entry } from "@radicula/core";
import { capital } from "@/ui/text";
import { say } from "@/messages/issues";
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
  const text =
    state.status === "waiting"
      ? "Not saved yet: the database cannot be reached. " +
        `${state.count === 1 ? "What you logged is" : `The ${state.count} entries you logged are`} kept on this ` +
        "device and saved in order as soon as it is back. Go on working."
      : state.status === "joined"
        ? `Another window logged ${state.others === 1 ? "an entry" : `${state.others} entries`} meanwhile. ` +
          `${capital(what(state.ours))} ${what(state.ours) === MANY ? "stand" : "stands"} after ` +
          `${state.others === 1 ? "it" : "them"}: look at what is new, and take back what no longer holds.`
        : `Not taken: ${state.codes.map((c) => say(c).text).join(" ")} ${what(state.givenBack)} is still in the box.`;
  return (
    <div className={styles.alert} role="alert">
      <span>{text}</span>
      {state.status === "waiting" ? null : (
        <button type="button" className="link" onClick={onDismiss}>
          Understood
        </button>
      )}
    </div>
  );
}

const MANY = "your entries";
function what(entries: readonly Entry[]): string {
  const reading = entries.length > 2 ? undefined : entries.find((e) => e.type === "reading");
  if (reading?.type === "reading")
    return "your reading " + `${reading.values.map((v) => readingValue(reading, v)).join(" · ")}`;
  return entries.length > 1 ? MANY : "your entry";
}
