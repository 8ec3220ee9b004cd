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
import { t } from "@/messages";

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
    <Sheet open={open} title={t("before.seenBefore")} onClose={onClose} width={720}>
      {practice ? (
        <p>{t("before.thisIsAPracticeJobWhat")}</p>
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
            {learned ? t("before.jobsCountHere", { count }) : t("before.jobsCanCountHere", { count })}
          </label>
          {isRepaired ? <p className="muted">{t("before.afterARepairThisIsNot")}</p> : null}
          {learned && feeds.length ? (
            <p className="muted">{t("before.howLikelyEachPlaceIsNow", { feeds: feeds.map(timesText).join(" · ") })}</p>
          ) : null}
        </section>
      ) : null}
      {found === undefined ? (
        <p className="muted">{t("before.lookingInTheNotebook")}</p>
      ) : !found.ok ? (
        <p role="alert">{found.issues.map((i) => say(i).text).join(" ")}</p>
      ) : (
        <Alike alike={found.body.alike} practice={practice} />
      )}
      <p>
        <Link href="/notebook">{t("before.openTheNotebook")}</Link>
      </p>
    </Sheet>
  );
}

function Alike({ alike, practice }: { readonly alike: Before["alike"]; readonly practice: boolean }) {
  if (alike.length === 0) return practice ? null : <p>{t("before.noClosedJobHasCodesLike")}</p>;
  return (
    <ul className={styles.list}>
      {alike.map(({ lesson, jobId, alike: share, isSameWiring }) => (
        <li key={lesson.id}>
          <b>{jobId ? <Link href={`/job/${jobId}`}>{causeText(lesson)}</Link> : causeText(lesson)}</b>
          {lesson.repairs.length && lesson.found ? (
            <span>
              {lesson.held === "cameBack" ? t("before.didNotLast") : t("before.whatHelped")}: {workText(lesson.repairs)}
            </span>
          ) : null}
          <span className="muted">
            {lesson.closed} · {becameText(lesson)} · {share === 1 ? t("before.theSameCodes") : codesText(share)}
            {isSameWiring ? "" : t("before.on", { machine: lesson.machine ?? lesson.wiring })}
          </span>
          {lesson.note ? <span>{lesson.note}</span> : null}
        </li>
      ))}
    </ul>
  );
}
const timesText = ({ at, factor }: Feed) =>
  t("before.times", {
    what: at.length ? at.join(t("before.andJoin")) : t("before.allElse"),
    factor: Number(factor.toPrecision(2)),
  });
const codesText = (share: number) => t("before.ofTheCodes", { share: Math.round(100 * share) });
