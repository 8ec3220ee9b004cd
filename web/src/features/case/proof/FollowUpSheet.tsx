"use client";
import { FOLLOW_UP_RESULTS, type FollowedUpEntry } from "@radicula/core";
import { FOLLOW_UP_WORDS } from "@radicula/core/words";
import { Button, Input } from "antd";
import { useState } from "react";
import { Sheet } from "../Sheet";
import styles from "./Proof.module.css";
import { t } from "@/messages";

/** Weeks later: one tap for whether it held. A return opens the job again, with all it knew. */
export function FollowUpSheet({
  open,
  onLog,
  onClose,
}: {
  readonly open: boolean;
  readonly onLog: (entry: FollowedUpEntry) => void;
  readonly onClose: () => void;
}) {
  const [note, setNote] = useState("");
  return (
    <Sheet open={open} onClose={onClose} title={t("proof.didTheRepairHold")} width={520} keeps>
      <div className={styles.form}>
        <label>
          {t("proof.note")}
          <Input.TextArea rows={2} maxLength={2000} value={note} onChange={(e) => setNote(e.target.value)} />
        </label>
        {FOLLOW_UP_RESULTS.map((result) => (
          <Button
            key={result}
            size="large"
            type={result === "stillGood" ? "primary" : "default"}
            onClick={() =>
              onLog({
                type: "followedUp",
                at: new Date().toISOString(),
                result,
                ...(note.trim() ? { note: note.trim() } : {}),
              })
            }
          >
            {FOLLOW_UP_WORDS[result]}
          </Button>
        ))}
      </div>
    </Sheet>
  );
}
