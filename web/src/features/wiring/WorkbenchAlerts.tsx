"use client";
import { issueText } from "@radicula/core/words";
import { Button } from "antd";
import { say } from "@/messages/issues";
import type { Bench } from "./useBench";
import styles from "./Workbench.module.css";
import { t } from "@/messages";

/** What stands between somebody's typing and a saved wiring. */
export function WorkbenchAlerts({ bench }: { readonly bench: Bench }) {
  const { draft, aside, showAside, dropTheAside, leftOut, setLeftOut, refused } = bench;
  return (
    <>
      {draft.state === "stale" ? (
        <div className={styles.alert} role="alert">
          {t("wiring.somebodyChangedThisWiringInAnother")}{" "}
          <Button size="small" onClick={() => window.location.reload()}>
            {t("wiring.showTheirs")}
          </Button>
          <Button size="small" onClick={draft.overwrite}>
            {t("wiring.keepMine")}
          </Button>
        </div>
      ) : null}
      {aside ? (
        <div className={styles.alert} role="alert">
          {t("wiring.onAnEarlierVisitCouldNot", {
            count: aside.rows.length,
          })}{" "}
          <Button size="small" onClick={showAside}>
            {t("wiring.showThose")}
          </Button>
          <Button size="small" onClick={dropTheAside}>
            {t("wiring.notWanted")}
          </Button>
        </div>
      ) : null}
      {leftOut.length ? (
        <div className={styles.alert} role="status">
          {leftOut.map((i) => issueText(i)).join(" ")}{" "}
          <Button size="small" onClick={() => setLeftOut([])}>
            {t("wiring.understood")}
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
