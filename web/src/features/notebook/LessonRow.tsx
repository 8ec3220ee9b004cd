"use client";
import { lessonWeight } from "@radicula/core";
import { becameText, causeText, workText } from "@radicula/core/words";
import { Button, Input, Switch } from "antd";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState } from "react";
import type { KeptLesson } from "@/server/repo/lessons";
import { say } from "@/messages/issues";
import { Done, put } from "@/ui/send";
import styles from "./Notebook.module.css";
import { t } from "@/messages";

/** One lesson: where it comes from, what it says, and whether it counts. */
export function LessonRow({ lesson, jobId }: KeptLesson) {
  const router = useRouter();
  const [used, setUsed] = useState(lesson.used);
  const [note, setNote] = useState<string | undefined>(undefined);
  const [said, setSaid] = useState("");
  const change = async (part: { used?: boolean; note?: string }) => {
    const kept = await put(`/api/notebook/${encodeURIComponent(lesson.id)}`, part, Done);
    setSaid(kept.ok ? "" : kept.issues.map((i) => say(i).text).join(" "));
    if (kept.ok) router.refresh();
    return kept.ok;
  };
  const teaches = lessonWeight({ ...lesson, used: true }) > 0;
  const helped = workText(lesson.repairs);
  return (
    <li className={styles.lesson}>
      <span className={styles.of}>
        <b>{lesson.machine ?? lesson.wiring}</b>
        <span className="muted">
          {lesson.closed}
          {lesson.minutes ? t("notebook.min", { minutes: lesson.minutes }) : ""}
        </span>
      </span>
      <span className={styles.what}>
        {jobId ? (
          <Link href={`/job/${jobId}`} className={styles.cause}>
            {causeText(lesson)}
          </Link>
        ) : (
          <span className={styles.cause}>{causeText(lesson)}</span>
        )}
        {helped && lesson.found ? (
          <span>
            {lesson.held === "cameBack" ? t("notebook.didNotLast") : t("notebook.whatHelped")}: {helped}
          </span>
        ) : null}
        <span className={`mono ${styles.codes}`}>{lesson.codes.join(" ")}</span>
        {note === undefined ? (
          <>
            {lesson.note ? <span className={styles.note}>{lesson.note}</span> : null}
            <button type="button" className="link" onClick={() => setNote(lesson.note)}>
              {lesson.note ? t("notebook.changeTheNote") : t("notebook.addANote")}
            </button>
          </>
        ) : (
          <form
            className={styles.noteForm}
            onSubmit={(e) => {
              e.preventDefault();
              void change({ note: note.trim() }).then((ok) => ok && setNote(undefined));
            }}
          >
            <Input.TextArea
              aria-label={t("notebook.note")}
              autoFocus
              rows={2}
              maxLength={2000}
              value={note}
              onChange={(e) => setNote(e.target.value)}
            />
            <Button htmlType="submit" type="primary">
              {t("notebook.saveTheNote")}
            </Button>
            <Button onClick={() => setNote(undefined)}>{t("notebook.leaveIt")}</Button>
          </form>
        )}
        {said ? <span role="alert">{said}</span> : null}
      </span>
      <span className={styles.became}>
        <span>{becameText(lesson)}</span>
        {teaches ? (
          <label className={styles.counts}>
            <Switch
              checked={used}
              onChange={(on) => {
                setUsed(on);
                void change({ used: on }).then((ok) => ok || setUsed(!on));
              }}
            />
            {used ? t("notebook.countsInNewJobs") : t("notebook.doesNotCount")}
          </label>
        ) : (
          <span className="muted">
            {t("notebook.doesNotCount2", {
              why: lesson.held === "cameBack" ? t("notebook.itCameBack") : t("notebook.notRepaired"),
            })}
          </span>
        )}
      </span>
    </li>
  );
}
