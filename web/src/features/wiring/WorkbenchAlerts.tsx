"use client";
import { issueText } from "@radicula/core/words";
import { Button } from "antd";
import { say } from "@/messages/issues";
import type { Bench } from "./useBench";
import styles from "./Workbench.module.css";

/** What stands between somebody's typing and a saved wiring. */
export function WorkbenchAlerts({ bench }: { readonly bench: Bench }) {
  const { draft, aside, showAside, dropTheAside, leftOut, setLeftOut, refused } = bench;
  return (
    <>
      {draft.state === "stale" ? (
        <div className={styles.alert} role="alert">
          Somebody changed this wiring in another window. Yours is kept on this device.{" "}
          <Button size="small" onClick={() => window.location.reload()}>
            Show theirs
          </Button>
          <Button size="small" onClick={draft.overwrite}>
            Keep mine
          </Button>
        </div>
      ) : null}
      {aside ? (
        <div className={styles.alert} role="alert">
          On an earlier visit {aside.rows.length === 1 ? "one line" : `${aside.rows.length} lines`} could not be saved,
          and somebody has changed the wiring since.{" "}
          <Button size="small" onClick={showAside}>
            Show those
          </Button>
          <Button size="small" onClick={dropTheAside}>
            Not wanted
          </Button>
        </div>
      ) : null}
      {leftOut.length ? (
        <div className={styles.alert} role="status">
          {leftOut.map((i) => issueText(i)).join(" ")}{" "}
          <Button size="small" onClick={() => setLeftOut([])}>
            Understood
          </Button>
        </div>
      ) : null}
      {refused.length ? (
        <div className={styles.alert} role="alert">
          {refused.map((i) => say(i).text).join(" ")}
        </div>
      ) : null}
    </>
  );
}
