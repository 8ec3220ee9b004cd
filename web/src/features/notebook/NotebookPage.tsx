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
          <h1>Notebook</h1>
          <span className={board.actions}>
            <AddLessons />
            {lessons.length ? (
              <a className={styles.save} href="/api/notebook" download>
                Save as a file
              </a>
            ) : null}
          </span>
        </div>
        <p className={styles.says}>
          {lessons.length === 0
            ? "Every job that is closed after a repair stands here, and counts in new jobs on the same wiring."
            : `${jobs(lessons.length)}. ${counting} of them ${counting === 1 ? "counts" : "count"} in new jobs on ` +
              "the same wiring: what helped before is suspected earlier. Practice jobs never count."}{" "}
          <Link href="/settings">Change this for the workshop</Link>
        </p>
        <FindForm
          path="/notebook"
          find={find}
          says="Find a machine, a code, a splice, a cause"
          label="Find lessons"
          isFiltered={find !== ""}
        >
          {null}
        </FindForm>
        {lessons.length === 0 ? (
          <p className={board.empty}>{find ? `No lesson holds "${find}".` : "Nothing yet."}</p>
        ) : (
          <>
            <HowOftenHeld bands={heldBands(list)} work={heldByWork(list)} />
            <ul className={board.list}>
              {lessons.slice(0, SHOWN).map((kept) => (
                <LessonRow key={kept.lesson.id} {...kept} />
              ))}
            </ul>
            {lessons.length > SHOWN ? (
              <p className="muted">{lessons.length - SHOWN} older ones are not shown. Find them by a word.</p>
            ) : null}
          </>
        )}
      </main>
    </div>
  );
}
const jobs = (n: number) => (n === 1 ? "1 closed job" : `${n} closed jobs`);
