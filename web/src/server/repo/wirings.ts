import { and, count, desc, eq, isNull, max, sql } from "drizzle-orm";
import { Chart, chartOf, completeWiring, emptyChart, type Wiring } from "@radicula/core";
import { z } from "zod";
import { database, type Db } from "../db/connection";
import { predictWhenQuiet } from "../answerAhead";
import { jobs, photos, revisions, wirings, type PutAway } from "../db/schema";
import { readChartRow, readWiringRow } from "./rows";

type Tx = Pick<Db, "insert" | "select" | "update">;
export const WiringId = z.uuid();

export interface WiringSummary {
  readonly id: string;
  readonly name: string;
  readonly machineType: string;
  readonly revision: number;
  readonly jobs: number;
  readonly rows: number;
  readonly changedAt: string;
  readonly putAway: PutAway | null;
  readonly found: readonly string[];
}
export interface LibraryWiring {
  readonly id: string;
  readonly draft: Chart;
  readonly draftSeq: number;
  readonly revisions: readonly RevisionSummary[];
  readonly photos: readonly PhotoInfo[];
}
export interface RevisionSummary {
  readonly number: number;
  readonly note: string;
  readonly at: string;
  readonly draftSeq: number;
}
export interface PhotoInfo {
  readonly id: string;
  readonly connector: string;
  readonly width: number;
  readonly height: number;
}

/** Wirings to choose from, newest change first. */
export const wiringChoices = () =>
  database()
    .select({ id: wirings.id, name: wirings.name, machineType: wirings.machineType })
    .from(wirings)
    .where(isNull(wirings.putAway))
    .orderBy(desc(wirings.changedAt));

/** Takes a wiring out of the library, or puts it back; jobs keep theirs. @returns false where there is none */
export async function putWiringAway(id: string, where: PutAway | null): Promise<boolean> {
  const changed = await database()
    .update(wirings)
    .set({ putAway: where })
    .where(eq(wirings.id, id))
    .returning({ id: wirings.id });
  return changed.length > 0;
}

/**
 * Every wiring whose chart holds all the words, with the places where they stand; all of them where none are given.
 * @param away those archived or deleted, instead of those in the library
 */
export async function listWirings(words = "", away?: PutAway): Promise<WiringSummary[]> {
  const db = database();
  const wanted = words.trim().toLowerCase().split(/\s+/).filter(Boolean);
  // the database leaves out those that cannot hold the words; only the others are opened
  const holds = wanted.map(
    (w) =>
      sql`lower(${wirings.draft}::text) like ${`%${JSON.stringify(w)
        .slice(1, -1)
        .replace(/[\\%_]/g, (c) => `\\${c}`)}%`}`,
  );
  const [rows, newest, used] = await Promise.all([
    db
      .select({
        id: wirings.id,
        name: wirings.name,
        machineType: wirings.machineType,
        changedAt: wirings.changedAt,
        lines: sql<number>`jsonb_array_length(${wirings.draft}->'rows')`,
        putAway: wirings.putAway,
        draft: wanted.length ? wirings.draft : sql<null>`null`,
      })
      .from(wirings)
      .where(and(...holds, away ? eq(wirings.putAway, away) : isNull(wirings.putAway)))
      .orderBy(desc(wirings.changedAt)),
    db
      .select({ id: revisions.wiringId, number: max(revisions.number) })
      .from(revisions)
      .groupBy(revisions.wiringId),
    db.select({ id: jobs.wiringId, number: count() }).from(jobs).groupBy(jobs.wiringId),
  ]);
  const revisionOf = new Map(newest.map((r) => [r.id, r.number ?? 0]));
  const jobsOf = new Map(used.map((r) => [r.id, r.number]));
  return rows.flatMap((r) => {
    const chart = wanted.length ? Chart.safeParse(r.draft) : undefined;
    const hits = chart === undefined ? [] : chart.success ? searchChart(chart.data, wanted) : undefined;
    return hits
      ? [
          {
            id: r.id,
            name: r.name,
            machineType: r.machineType,
            revision: revisionOf.get(r.id) ?? 0,
            jobs: jobsOf.get(r.id) ?? 0,
            rows: r.lines,
            changedAt: r.changedAt.toISOString(),
            putAway: r.putAway,
            found: hits,
          },
        ]
      : [];
  });
}

/** Where the words stand in a chart, six places at most. @returns undefined where one of them stands nowhere */
export function searchChart(chart: Chart, words: readonly string[]): string[] | undefined {
  if (words.length === 0) return [];
  const lines: string[] = [
    `${chart.name} ${chart.machineType}`.trim(),
    ...chart.parts.map((p) => [p.id, p.name, p.partNumber, p.place].filter(Boolean).join(" · ")),
    ...chart.connectors.map((c) => [c.id, c.name, c.partNumber, c.place].filter(Boolean).join(" · ")),
    ...chart.codes.map((c) => [c.id, c.title].filter(Boolean).join(" · ")),
    ...chart.rows.map((r) => [r.connector, r.cavity, r.colour, r.function, r.goesTo].filter(Boolean).join(" · ")),
  ];
  const all = lines.join("\n").toLowerCase();
  if (!words.every((w) => all.includes(w))) return undefined;
  return [
    ...new Set(
      lines
        .filter((l) => words.every((w) => l.toLowerCase().includes(w)))
        .concat(lines.filter((l) => words.some((w) => l.toLowerCase().includes(w)))),
    ),
  ].slice(0, 6);
}

/** Has the first job on a wiring find what its faults would show, once nobody changes it. */
const predictLater = (id: string) =>
  predictWhenQuiet(id, async () => {
    const [row] = await database().select({ draft: wirings.draft }).from(wirings).where(eq(wirings.id, id));
    return row && completeWiring(readChartRow(row.draft));
  });

export async function createWiring(draft: Chart, db: Tx = database()): Promise<string> {
  const [row] = await db
    .insert(wirings)
    .values({ name: draft.name || "unnamed wiring", machineType: draft.machineType, draft, draftSeq: 1 })
    .returning({ id: wirings.id });
  if (!row) throw new Error("the database took the wiring but did not say its id");
  predictLater(row.id);
  return row.id;
}

export async function findWiring(id: string): Promise<LibraryWiring | undefined> {
  const db = database();
  const [row] = await db
    .select({ draft: wirings.draft, draftSeq: wirings.draftSeq })
    .from(wirings)
    .where(eq(wirings.id, id));
  if (!row) return undefined;
  const [list, pictures] = await Promise.all([
    db
      .select({ number: revisions.number, note: revisions.note, at: revisions.at, draftSeq: revisions.draftSeq })
      .from(revisions)
      .where(eq(revisions.wiringId, id))
      .orderBy(desc(revisions.number)),
    db
      .select({ id: photos.id, connector: photos.connector, width: photos.width, height: photos.height })
      .from(photos)
      .where(eq(photos.wiringId, id))
      .orderBy(photos.at),
  ]);
  return {
    id,
    draft: readChartRow(row.draft),
    draftSeq: row.draftSeq,
    revisions: list.map((r) => ({ ...r, at: r.at.toISOString() })),
    photos: pictures,
  };
}

export type DraftSaved =
  | { readonly status: "saved"; readonly seq: number }
  | { readonly status: "stale"; readonly seq: number }
  | { readonly status: "gone" };
/** Saves the draft, unless another window has saved since `seq`. */
export async function saveDraft(id: string, seq: number, draft: Chart): Promise<DraftSaved> {
  const saved = await database().transaction(async (tx): Promise<DraftSaved> => {
    const [row] = await tx.select({ seq: wirings.draftSeq }).from(wirings).where(eq(wirings.id, id)).for("update");
    if (!row) return { status: "gone" };
    if (row.seq !== seq) return { status: "stale", seq: row.seq };
    await tx
      .update(wirings)
      .set({
        draft,
        draftSeq: seq + 1,
        name: draft.name || "unnamed wiring",
        machineType: draft.machineType,
        changedAt: new Date(),
      })
      .where(eq(wirings.id, id));
    return { status: "saved", seq: seq + 1 };
  });
  if (saved.status === "saved") predictLater(id);
  return saved;
}

/**
 * Freezes the draft as the next revision, wires that it leaves out at sensors and actuators assumed; the newest one is
 * given back where nothing has changed since.
 */
export async function freezeRevision(
  id: string,
  note = "",
  db: Pick<Db, "transaction"> = database(),
): Promise<{ number: number; wiring: Wiring } | undefined> {
  return db.transaction(async (tx) => {
    const [row] = await tx
      .select({ draft: wirings.draft, seq: wirings.draftSeq })
      .from(wirings)
      .where(eq(wirings.id, id))
      .for("update");
    if (!row) return undefined;
    const [newest] = await tx
      .select()
      .from(revisions)
      .where(eq(revisions.wiringId, id))
      .orderBy(desc(revisions.number))
      .limit(1);
    if (newest && newest.draftSeq === row.seq) return { number: newest.number, wiring: readWiringRow(newest.wiring) };
    const chart = readChartRow(row.draft);
    const wiring = completeWiring(chart);
    const number = (newest?.number ?? 0) + 1;
    await tx.insert(revisions).values({ wiringId: id, number, chart, wiring, draftSeq: row.seq, note });
    return { number, wiring };
  });
}

export async function findRevision(
  id: string,
  number: number,
): Promise<{ readonly chart: Chart; readonly wiring: Wiring } | undefined> {
  const [row] = await database()
    .select({ chart: revisions.chart, wiring: revisions.wiring })
    .from(revisions)
    .where(and(eq(revisions.wiringId, id), eq(revisions.number, number)));
  return row ? { chart: readChartRow(row.chart), wiring: readWiringRow(row.wiring) } : undefined;
}

/**
 * Puts a wiring that came with a case into the library, unless the newest revision of one there says the same.
 * @returns where it stands
 */
export async function keepWiring(
  wiring: Wiring,
  db: Pick<Db, "select" | "insert" | "update" | "transaction">,
): Promise<{ wiringId: string; revision: number }> {
  const known = await db
    .select({ id: revisions.wiringId, number: revisions.number })
    .from(revisions)
    .where(sql`${revisions.wiring} = ${JSON.stringify(wiring)}::jsonb`)
    .limit(1);
  if (known[0]) return { wiringId: known[0].id, revision: known[0].number };
  const chart = chartOf(wiring);
  const wiringId = await createWiring(chart, db);
  // the document itself is the first revision: its order of wires is kept
  await db.insert(revisions).values({ wiringId, number: 1, chart, wiring, draftSeq: 1, note: "as opened" });
  return { wiringId, revision: 1 };
}

export const blankChart = (name: string, machineType: string, nominalVolt: 12 | 24): Chart => ({
  ...emptyChart(name, nominalVolt),
  machineType,
});
