"use client";
import { Lesson, LearnedEntry, type Entry, type Feed } from "@radicula/core";
import { becameText, causeText, workText } from "@radicula/core/words";
import { Switch } from "antd";
import Link from "next/link";
import { useEffect, useState } from "react";
import { z } from "zod";
import { say } from "@/messages/issues";
import { get, type Posted } from "@/ui/send";
import { Sheet } from "../Sheet";
import { now } from "../session/useCaseSession";
import styles from "./Before.module.css";

const Before = z.object({
  alike: z.array(
    z.object({
      lesson: Lesson,
      jobId: z.string().nullable(),
      alike: z.number(),
      isSameWiring: z.boolean(),
    }),
  ),
  learned: LearnedEntry.nullable(),
});
type Before = z.infer<typeof Before>;

interface Props {
  readonly open: boolean;
  readonly jobId: string;
  readonly practice: boolean;
  /** the entry by which earlier jobs count here, where one stands */
  readonly learned: { readonly number: number; readonly entry: LearnedEntry } | undefined;
  /** a repair was logged: lessons count only up to it */
  readonly isRepaired: boolean;
  /** what the lessons change, where they count and it is worked out */
  readonly feeds: readonly Feed[];
  readonly onLog: (entry: Entry) => void;
  readonly onClose: () => void;
}

/** Earlier jobs like this one, what helped then, and whether they count here. */
export function BeforeSheet({ open, jobId, practice, learned, isRepaired, feeds, onLog, onClose }: Props) {
  const [found, setFound] = useState<Posted<Before> | undefined>(undefined);
  useEffect(() => {
    if (!open) return;
    let here = true;
    void get(`/api/jobs/${jobId}/before`, Before).then((f) => here && setFound(f));
    return () => {
      here = false;
    };
  }, [open, jobId]);
  const offered = found?.ok ? found.body.learned : null;
  const count = learned?.entry.lessons ?? offered?.lessons ?? 0;
  return (
    <Sheet open={open} title="Seen before" onClose={onClose} width={720}>
      {practice ? (
        <p>
          This is a practice job. What was hidden on purpose is not in the notebook, and real jobs do not count here.
        </p>
      ) : count > 0 ? (
        <section className={styles.counts}>
          <label>
            <Switch
              checked={learned !== undefined}
              disabled={isRepaired || (!learned && !offered)}
              onChange={(on) => {
                if (on && offered) onLog({ ...offered, at: now() });
                else if (learned) onLog({ type: "undo", at: now(), target: learned.number });
              }}
            />
            {count === 1 ? "1 closed job" : `${count} closed jobs`} of this wiring{" "}
            {learned ? (count === 1 ? "counts here" : "count here") : "can count here"}
          </label>
          {isRepaired ? <p className="muted">After a repair this is not changed any more.</p> : null}
          {learned && feeds.length ? (
            <p className="muted">
              How likely each place is now, against no lessons: {feeds.map(timesText).join(" · ")}.
            </p>
          ) : null}
        </section>
      ) : null}
      {found === undefined ? (
        <p className="muted">Looking in the notebook…</p>
      ) : !found.ok ? (
        <p role="alert">{found.issues.map((i) => say(i).text).join(" ")}</p>
      ) : (
        <Alike alike={found.body.alike} practice={practice} />
      )}
      <p>
        <Link href="/notebook">Open the notebook</Link>
      </p>
    </Sheet>
  );
}

function Alike({ alike, practice }: { readonly alike: Before["alike"]; readonly practice: boolean }) {
  if (alike.length === 0) return practice ? null : <p>No closed job has codes like these.</p>;
  return (
    <ul className={styles.list}>
      {alike.map(({ lesson, jobId, alike: share, isSameWiring }) => (
        <li key={lesson.id}>
          <b>{jobId ? <Link href={`/job/${jobId}`}>{causeText(lesson)}</Link> : causeText(lesson)}</b>
          {lesson.repairs.length && lesson.found ? (
            <span>
              {lesson.held === "cameBack" ? "Did not last" : "What helped"}: {workText(lesson.repairs)}
            </span>
          ) : null}
          <span className="muted">
            {lesson.closed} · {becameText(lesson)} · {share === 1 ? "the same codes" : codesText(share)}
            {isSameWiring ? "" : ` · on ${lesson.machine ?? lesson.wiring}`}
          </span>
          {lesson.note ? <span>{lesson.note}</span> : null}
        </li>
      ))}
    </ul>
  );
}
const timesText = ({ at, factor }: Feed) =>
  `${at.length ? at.join(" and ") : "all else"} ${Number(factor.toPrecision(2))} times`;
const codesText = (share: number) => `${Math.round(100 * share)} % of the codes`;
