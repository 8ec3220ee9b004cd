"use client";
import type { SaveState } from "./session/logbookSync";
import { readingValue, worded } from "@radicula/core/words";
import type { Entry } from "@radicula/core";
import { capital } from "@/ui/text";
import styles from "./Case.module.css";
import { t } from "@/messages";

/** One quiet word in the head of the page: whether the database has everything. */
export function SavedWord({ state }: { readonly state: SaveState }) {
  return (
    <span className={styles.saved} role="status">
      {state.status === "saved" || (state.status === "joined" && state.done)
        ? t("job.saved")
        : state.status === "saving" || state.status === "joined"
          ? t("job.saving")
          : t("job.notSaved")}
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
          {t("job.understood")}
        </button>
      )}
    </div>
  );
}

const WHY_WAITING = worded(() => ({
  "no-answer": t("job.theDatabaseCannotBeReached"),
  "another-database": t("job.anotherDatabaseAnswersHereThanThe"),
  "no-such-job": t("job.theDatabaseDoesNotHaveThis"),
  "signed-out": t("job.youAreSignedOut"),
  "of-another": t("job.anotherPersonIsSignedInNow"),
  "may-only-read": t("job.yourRoleIsToReadOnly"),
}));
const WHAT_TO_DO = worded(() => ({
  "no-answer": t("job.goOnWorking"),
  "another-database": t("job.nothingIsLostAskWhoeverKeeps"),
  "no-such-job": t("job.nothingIsLostAskWhoeverKeeps"),
  "signed-out": t("job.signInAgainAtTheTop"),
  "of-another": t("job.whoWroteItHasToSign"),
  "may-only-read": t("job.nothingIsLostAskAnAdministrator"),
}));
function waitingText({ count, why, isKept }: Extract<SaveState, { status: "waiting" }>): string {
  if (!isKept) return t("job.thisDeviceKeepsNothingNow", { count });
  return t("job.notSavedYetKeptOnThis", { why: WHY_WAITING[why], count, whatToDo: WHAT_TO_DO[why] });
}
function joinedText({ others, ours }: Extract<SaveState, { status: "joined" }>): string {
  const { text, count } = what(ours);
  return t("job.anotherWindowLoggedMeanwhile", { others, what: capital(text), count });
}

function what(entries: readonly Entry[]): { readonly text: string; readonly count: number } {
  const reading = entries.length > 2 ? undefined : entries.find((e) => e.type === "reading");
  if (reading?.type === "reading")
    return {
      text: t("job.yourReading", { values: reading.values.map((v) => readingValue(reading, v)).join(" · ") }),
      count: 1,
    };
  const count = entries.length > 1 ? 2 : 1;
  return { text: t("job.yourEntry", { count }), count };
}
