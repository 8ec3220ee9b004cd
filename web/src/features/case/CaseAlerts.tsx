"use client";
import { Button } from "antd";
import { useState } from "react";
import { say } from "@/messages/issues";
import { Done, post } from "@/ui/send";
import styles from "./Case.module.css";
import { NotTaken } from "./NotTaken";
import { Remarks } from "./Remarks";
import { SaveNote } from "./SaveNote";
import { useCase } from "./session/caseContext";
import { t } from "@/messages";

/** What has to be said before anything else: what is not saved, what stopped, a newer drawing, remarks on readings. */
export function CaseAlerts() {
  const { log, computed, analysis, write, sheets } = useCase();
  return (
    <>
      <SaveNote state={log.state} onDismiss={log.dismiss} />
      <NotTaken />
      {computed.failed ? (
        <div className={styles.alert} role="alert">
          {say({ code: computed.failed, path: [], params: {} }).text}
        </div>
      ) : null}
      <PutAway />
      <NewerRevision />
      {analysis ? (
        <Remarks
          remarks={analysis.remarks.filter((r) => r.code !== "remark.meter-not-proven")}
          onEntry={(e) => write.append([e])}
          onName={() => sheets.open("name")}
        />
      ) : null}
    </>
  );
}

/** A job that is off the board still opens by its address. */
function PutAway() {
  const { job } = useCase();
  const [refused, setRefused] = useState<string | undefined>(undefined);
  if (!job.putAway) return null;
  const putBack = async () => {
    const done = await post(`/api/jobs/${job.id}/away`, { where: null }, Done);
    if (done.ok) window.location.reload();
    else setRefused(done.issues.map((i) => say(i).text).join(" "));
  };
  return (
    <div className={styles.alert} role="status">
      <span>{refused ?? t("job.thisJobIsItIsNot", { putAway: job.putAway })}</span>
      <Button size="small" onClick={() => void putBack()}>
        {t("job.putBack")}
      </Button>
    </div>
  );
}

function NewerRevision() {
  const { job } = useCase();
  const [refused, setRefused] = useState<string | undefined>(undefined);
  const moveOn = async () => {
    const moved = await post(`/api/jobs/${job.id}/revision`, {}, Done);
    if (moved.ok) window.location.reload();
    else setRefused(moved.issues.map((i) => say(i).text).join(" "));
  };
  return (
    <>
      {job.library && job.library.newest > job.library.revision ? (
        <div className={styles.alert} role="status">
          <span>
            {t("job.theWiringHasARevisionThis", { newest: job.library.newest, revision: job.library.revision })}
          </span>
          <Button size="small" onClick={() => void moveOn()}>
            {t("job.updateToTheLatestDrawing")}
          </Button>
        </div>
      ) : null}
      {refused ? (
        <div className={styles.alert} role="alert">
          {refused}
        </div>
      ) : null}
    </>
  );
}
