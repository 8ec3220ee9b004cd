import { heldBands, heldByWork, lessonWeight } from "@radicula/core";
import Link from "next/link";
import { FindForm } from "@/features/site/FindForm";
import { SiteHead } from "@/features/site/SiteHead";
import type { KeptLesson } from "@/server/repo/lessons";
import board from "../board/Board.module.css";
import { AddLessons } from "./AddLessons";
import { HowOftenHeld } from "./HowOftenHeld";
import { LessonRow } from "./LessonRow";
import styles from "./Notebook.module.css";
import { t } from "@/messages";

/** So many are shown at once; the rest is found by words. */
const SHOWN = 100;

/** Closed jobs as lessons: what was found, what helped, whether it held, and which of them count in new jobs. */
export function NotebookPage({ lessons, find }: { readonly lessons: readonly KeptLesson[]; readonly find: string }) {
  const list = lessons.map((kept) => kept.lesson);
  const counting = list.filter((l) => lessonWeight(l) > 0).length;
  return (
    <div className={board.page}>
      <SiteHead here="notebook" />
      <main id="content">
        <div className={board.title}>
          <h1>{t("notebook.notebook")}</h1>
          <span className={board.actions}>
            <AddLessons />
            {lessons.length ? (
              <a className={styles.save} href="/api/notebook" download>
                {t("notebook.saveAsAFile")}
              </a>
            ) : null}
          </span>
        </div>
        <p className={styles.says}>
          {lessons.length === 0
            ? t("notebook.everyJobThatIsClosedAfter")
            : t("notebook.ofThemInNewJobsOn", {
                jobs: jobs(lessons.length),
                counting,
              })}{" "}
          <Link href="/settings">{t("notebook.changeThisForTheWorkshop")}</Link>
        </p>
        <FindForm
          path="/notebook"
          find={find}
          says={t("notebook.findAMachineACodeA")}
          label={t("notebook.findLessons")}
          isFiltered={find !== ""}
        >
          {null}
        </FindForm>
        {lessons.length === 0 ? (
          <p className={board.empty}>{find ? t("notebook.noLessonHolds", { find }) : t("notebook.nothingYet")}</p>
        ) : (
          <>
            <HowOftenHeld bands={heldBands(list)} work={heldByWork(list)} />
            <ul className={board.list}>
              {lessons.slice(0, SHOWN).map((kept) => (
                <LessonRow key={kept.lesson.id} {...kept} />
              ))}
            </ul>
            {lessons.length > SHOWN ? (
              <p className="muted">
                {t("notebook.olderOnesAreNotShownFind", { lessonsCount: lessons.length - SHOWN })}
              </p>
            ) : null}
          </>
        )}
      </main>
    </div>
  );
}
const jobs = (n: number) => t("notebook.closedJobs", { n });
