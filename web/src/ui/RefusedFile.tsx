import type { Issue } from "@radicula/core";
import { say } from "@/messages/issues";
import styles from "./RefusedFile.module.css";
import { t } from "@/messages";

export interface FileRefusal {
  readonly file: string;
  readonly issues: readonly Issue[];
}
/** As many reasons as are read before one goes back to the file. Product judgement. */
const MOST = 12;

/** Why a file was not taken, reason by reason, each with its place. */
export function RefusedFile({ file, issues }: FileRefusal) {
  return (
    <div role="alert" className={styles.refused}>
      <b>{t("ui.wasNotTakenNothingWasSaved", { file })}</b>
      <ul>
        {issues.slice(0, MOST).map((issue, i) => {
          const { text, place } = say(issue);
          return (
            <li key={i}>
              {place ? (
                <>
                  <code>{place}</code>:{" "}
                </>
              ) : null}
              {text}
            </li>
          );
        })}
      </ul>
      {issues.length > MOST ? <p>{t("ui.andMore", { issuesCount: issues.length - MOST })}</p> : null}
    </div>
  );
}
