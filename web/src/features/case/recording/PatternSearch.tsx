"use client";
import { patternText } from "@radicula/core/words";
import { Button, Input } from "antd";
import { useState } from "react";
import { say } from "@/messages/issues";
import type { PatternFound } from "@/workers/recording.worker";
import styles from "./Recording.module.css";
import type { OpenRecording } from "./useRecording";
import { t } from "@/messages";

/** Looks in every channel for levels and times in order: how a sensor wakes up, or a module answers. */
export function PatternSearch({ recording }: { readonly recording: OpenRecording }) {
  const { worker, channels } = recording;
  const [text, setText] = useState("");
  const [found, setFound] = useState<PatternFound | undefined>(undefined);
  const look = () => {
    void worker.pattern(text).then(setFound, () => setFound(undefined));
  };
  return (
    <details>
      <summary>{t("recording.lookForAPattern")}</summary>
      <p className="muted">{t("recording.howAPatternIsWritten")}</p>
      <div className={styles.row}>
        <Input
          aria-label={t("recording.pattern")}
          value={text}
          maxLength={400}
          onChange={(e) => {
            setText(e.target.value);
            setFound(undefined);
          }}
          onPressEnter={look}
          style={{ maxWidth: 420 }}
        />
        <Button disabled={text.trim() === ""} onClick={look}>
          {t("recording.look")}
        </Button>
      </div>
      <div role="status">
        {found?.ok === false ? found.issues.map((i) => <p key={i.code}>{say(i).text}</p>) : null}
        {found?.ok
          ? found.found.map((f, i) => <p key={channels[i]!.name}>{patternText(channels[i]!.name, f, found.steps)}</p>)
          : null}
      </div>
    </details>
  );
}
