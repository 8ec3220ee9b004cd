import { desc, eq, isNull, ne, or, sql } from "drizzle-orm";
import { isFound, learnFrom, Lesson, lessonOf, type Entry, type LearnedEntry, type Wiring } from "@radicula/core";
import { database, type Db } from "../db/connection";
import { jobs, lessons } from "../db/schema";
import { wiringOf } from "./jobWirings";
import { workshopSettings } from "./workshop";

/** A lesson, and the job it is of where that is here. */
export interface KeptLesson {
  readonly lesson: Lesson;
  readonly jobId: string | null;
}

/** Writes the lesson of a job anew from its logbook, or takes it out where it teaches nothing any more. */
export async function keepLesson(
  id: string,
  log: readonly Entry[],
  tx: Pick<Db, "select" | "insert" | "delete">,
): Promise<void> {
  if (!log.some((e) => e.type === "closed")) return void (await tx.delete(lessons).where(eq(lessons.jobId, id)));
  const [job] = await tx
    .select({
      title: jobs.title,
      machine: jobs.machine,
      complaint: jobs.complaint,
      wiringId: jobs.wiringId,
      revision: jobs.revision,
      practice: sql<boolean>`${jobs.hidden} is not null`,
    })
    .from(jobs)
    .where(eq(jobs.id, id));
  // what was hidden on purpose says nothing of what fails
  const wiring = job && !job.practice ? await wiringOf({ id, ...job }, tx) : undefined;
  const lesson =
    job && wiring
      ? lessonOf(id, {
          title: job.title,
          ...(job.machine ? { machine: job.machine } : {}),
          ...(job.complaint ? { complaint: job.complaint } : {}),
          wiring,
          entries: [...log],
        })
      : undefined;
  if (!lesson) return void (await tx.delete(lessons).where(eq(lessons.jobId, id)));
  await tx
    .insert(lessons)
    .values({ id, jobId: id, lesson })
    .onConflictDoUpdate({ target: lessons.id, set: { lesson, jobId: id } });
}

/** Lessons in which every word is found, the latest first; those of deleted jobs are left out. */
export async function listLessons(find = "", db: Pick<Db, "select"> = database()): Promise<KeptLesson[]> {
  const rows = await db
    .select({ lesson: lessons.lesson, used: lessons.used, note: lessons.note, jobId: lessons.jobId })
    .from(lessons)
    .leftJoin(jobs, eq(jobs.id, lessons.jobId))
    .where(or(isNull(jobs.putAway), ne(jobs.putAway, "deleted")))
    .orderBy(desc(sql`${lessons.lesson} ->> 'closed'`), lessons.id)
    .limit(MOST_LESSONS);
  return rows
    .flatMap(({ lesson, used, note, jobId }) => {
      const read = Lesson.safeParse(lesson);
      return read.success ? [{ lesson: { ...read.data, used, note }, jobId }] : [];
    })
    .filter((kept) => isFound(kept.lesson, find));
}
/** So many are read and counted, the latest. */
const MOST_LESSONS = 5000;

/** What the notebook teaches a job on this wiring now. */
export async function learnedFor(
  wiring: Wiring,
  db: Pick<Db, "select"> = database(),
): Promise<LearnedEntry | undefined> {
  const lessons = (await listLessons("", db)).map((kept) => kept.lesson);
  return learnFrom(lessons, wiring, new Date().toISOString());
}
/** The same for a new job, where the workshop wants it from the start. */
export async function learnedAtStart(wiring: Wiring, db: Pick<Db, "select">): Promise<LearnedEntry | undefined> {
  return (await workshopSettings(db)).useLessons ? learnedFor(wiring, db) : undefined;
}

/** Says whether a lesson counts, and what is to be added to it. @returns false where there is no such lesson */
export async function changeLesson(
  id: string,
  change: { readonly used?: boolean | undefined; readonly note?: string | undefined },
): Promise<boolean> {
  const set = {
    ...(change.used === undefined ? {} : { used: change.used }),
    ...(change.note === undefined ? {} : { note: change.note }),
  };
  const changed = await database().update(lessons).set(set).where(eq(lessons.id, id)).returning({ id: lessons.id });
  return changed.length > 0;
}

/** Takes in lessons of another workshop; those of jobs that are here already are left as they are. */
export async function addLessons(list: readonly Lesson[], db: Pick<Db, "insert"> = database()): Promise<number> {
  let added = 0;
  for (let i = 0; i < list.length; i += AT_ONCE) {
    const rows = list.slice(i, i + AT_ONCE).map((l) => ({ id: l.id, lesson: l, used: l.used, note: l.note }));
    added += (await db.insert(lessons).values(rows).onConflictDoNothing().returning({ id: lessons.id })).length;
  }
  return added;
}
const AT_ONCE = 500;
