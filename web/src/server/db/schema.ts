import { sql } from "drizzle-orm";
import {
  boolean,
  check,
  customType,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uniqueIndex,
  uuid,
  type AnyPgColumn,
} from "drizzle-orm/pg-core";

/** Taken off the board or out of the library: kept whole, found again, put back. */
export const PUT_AWAY = ["archived", "deleted"] as const;
export type PutAway = (typeof PUT_AWAY)[number];
const putAway = () => text("put_away", { enum: PUT_AWAY });
const isPutAwayWord = (column: AnyPgColumn) => sql`${column} in ('archived', 'deleted')`;

const bytea = customType<{ data: Buffer }>({ dataType: () => "bytea" });

/** A wiring of the library: the pin chart people work on, and whether it has changed since the newest revision. */
export const wirings = pgTable(
  "wirings",
  {
    id: uuid("id").primaryKey().defaultRandom(),
    name: text("name").notNull(),
    machineType: text("machine_type").notNull().default(""),
    draft: jsonb("draft").notNull(),
    /** counts saves of the draft, so that two windows never overwrite each other unseen */
    draftSeq: integer("draft_seq").notNull().default(0),
    createdAt: timestamp("created_at", { withTimezone: true }).notNull().defaultNow(),
    changedAt: timestamp("changed_at", { withTimezone: true }).notNull().defaultNow(),
    putAway: putAway(),
  },
  (t) => [check("wirings_put_away", isPutAwayWord(t.putAway))],
);

/** A frozen state of a wiring. Jobs point at one; no row is ever changed. */
export const revisions = pgTable(
  "revisions",
  {
    wiringId: uuid("wiring_id")
      .notNull()
      .references(() => wirings.id, { onDelete: "cascade" }),
    number: integer("number").notNull(),
    chart: jsonb("chart").notNull(),
    wiring: jsonb("wiring").notNull(),
    /** the draft it was made of, by `draftSeq` */
    draftSeq: integer("draft_seq").notNull(),
    note: text("note").notNull().default(""),
    at: timestamp("at", { withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.wiringId, t.number] })],
);

/** Where a connector is, as a picture: decoded and written anew, so nothing of the camera is kept. */
export const photos = pgTable(
  "photos",
  {
    id: uuid("id").primaryKey().defaultRandom(),
    wiringId: uuid("wiring_id")
      .notNull()
      .references(() => wirings.id, { onDelete: "cascade" }),
    connector: text("connector").notNull(),
    jpeg: bytea("jpeg").notNull(),
    width: integer("width").notNull(),
    height: integer("height").notNull(),
    at: timestamp("at", { withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [index("photos_at").on(t.wiringId, t.connector)],
);

/** A page of a drawing: what stands on it besides its picture, which is kept in tiles. */
export const pages = pgTable(
  "pages",
  {
    id: uuid("id").primaryKey().defaultRandom(),
    wiringId: uuid("wiring_id")
      .notNull()
      .references(() => wirings.id, { onDelete: "cascade" }),
    /** of the picture as it came: the same page is kept once */
    hash: text("hash").notNull(),
    width: integer("width").notNull(),
    height: integer("height").notNull(),
    /** words and strokes; none for a picture that nobody read */
    content: jsonb("content"),
    at: timestamp("at", { withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [uniqueIndex("pages_wiring_hash").on(t.wiringId, t.hash)],
);
/** The picture of a page, each level half as large as the next, in tiles. */
export const pageTiles = pgTable(
  "page_tiles",
  {
    pageId: uuid("page_id")
      .notNull()
      .references(() => pages.id, { onDelete: "cascade" }),
    level: integer("level").notNull(),
    x: integer("x").notNull(),
    y: integer("y").notNull(),
    jpeg: bytea("jpeg").notNull(),
  },
  (t) => [primaryKey({ columns: [t.pageId, t.level, t.x, t.y] })],
);

/** A job: the machine, the complaint and the wiring it uses. Everything else is its logbook. */
export const jobs = pgTable(
  "jobs",
  {
    id: uuid("id").primaryKey().defaultRandom(),
    title: text("title").notNull(),
    machine: text("machine"),
    complaint: text("complaint"),
    wiring: jsonb("wiring").notNull(),
    /**
     * the revision of the library's wiring that `wiring` is; none for a case opened from a file whose wiring was left
     * there
     */
    wiringId: uuid("wiring_id").references(() => wirings.id, { onDelete: "set null" }),
    revision: integer("revision"),
    /** a simulated machine to practise on: fault, ohm, seed; told once the job is closed */
    hidden: jsonb("hidden"),
    demo: boolean("demo").notNull().default(false),
    /** what the board shows of the logbook, written anew with every entry; none until the first or after an upgrade */
    summary: jsonb("summary"),
    /** how many entries its logbook has ever had: written by the database itself */
    entryCount: integer("entry_count").notNull().default(0),
    createdAt: timestamp("created_at", { withTimezone: true }).notNull().defaultNow(),
    putAway: putAway(),
  },
  (t) => [check("jobs_put_away", isPutAwayWord(t.putAway)), index("jobs_machine").on(t.machine)],
);

/**
 * The logbook: append-only, numbered from 1 within its job. The database refuses to change or remove a row, and chains
 * each to the one before it.
 */
export const entries = pgTable(
  "entries",
  {
    jobId: uuid("job_id")
      .notNull()
      .references(() => jobs.id, { onDelete: "cascade" }),
    seq: integer("seq").notNull(),
    /** entries sent together; a batch sent twice is kept once */
    batch: uuid("batch").notNull(),
    body: jsonb("body").notNull(),
    savedAt: timestamp("saved_at", { withTimezone: true }).notNull().defaultNow(),
    /** over this entry and the hash of the one before it: written by the database itself */
    hash: bytea("hash"),
  },
  (t) => [
    primaryKey({ columns: [t.jobId, t.seq] }),
    uniqueIndex("entries_batch").on(t.jobId, t.batch, t.seq),
    index("entries_saved").on(t.savedAt),
  ],
);

/** What an instrument recorded for an entry of a logbook: the file as it came, compressed, in parts. */
export const recordings = pgTable(
  "recordings",
  {
    id: uuid("id").primaryKey().defaultRandom(),
    jobId: uuid("job_id")
      .notNull()
      .references(() => jobs.id, { onDelete: "cascade" }),
    name: text("name").notNull(),
    /** how it is to be read: seconds between samples, volts of full scale; where the file does not tell */
    reading: jsonb("reading").notNull(),
    bytes: integer("bytes").notNull(),
    at: timestamp("at", { withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [index("recordings_job").on(t.jobId)],
);
export const recordingParts = pgTable(
  "recording_parts",
  {
    recordingId: uuid("recording_id")
      .notNull()
      .references(() => recordings.id, { onDelete: "cascade" }),
    part: integer("part").notNull(),
    bytes: bytea("bytes").notNull(),
  },
  (t) => [primaryKey({ columns: [t.recordingId, t.part] })],
);

/** What was done once, for example loading the demo. */
export const done = pgTable("done", {
  what: text("what").primaryKey(),
  at: timestamp("at", { withTimezone: true }).notNull().defaultNow(),
});

/**
 * The notebook: what closed jobs teach, written anew from their logbooks, and lessons taken in from files. Whether one
 * counts, and what was added to it, is said by people.
 */
export const lessons = pgTable(
  "lessons",
  {
    /** of the job, as it is here or where the lesson came from */
    id: text("id").primaryKey(),
    jobId: uuid("job_id").references(() => jobs.id, { onDelete: "set null" }),
    lesson: jsonb("lesson").notNull(),
    used: boolean("used").notNull().default(true),
    note: text("note").notNull().default(""),
  },
  (t) => [uniqueIndex("lessons_job").on(t.jobId)],
);

/**
 * The whole answer to a job's logbook, to be shown at once while it is worked out anew. Nothing rests on it: it holds
 * for one engine and one length of the logbook, which only grows.
 */
export const standingAnswers = pgTable("standing_answers", {
  jobId: uuid("job_id")
    .primaryKey()
    .references(() => jobs.id, { onDelete: "cascade" }),
  engine: text("engine").notNull(),
  /** of how many entries */
  entries: integer("entries").notNull(),
  body: bytea("body").notNull(),
  at: timestamp("at", { withTimezone: true }).notNull().defaultNow(),
});

/** Predictions of a machine (`core/src/prediction/kept.ts`), and places on a drawn map (ELK). */
export const WORKED_OUT = ["predictions", "layout"] as const;
/**
 * What takes long to work out and hangs on nothing but what it was worked out from, by a digest of that. Nothing rests
 * on it: emptied, it is worked out again.
 */
export const workedOut = pgTable(
  "worked_out",
  {
    key: text("key").primaryKey(),
    kind: text("kind", { enum: WORKED_OUT }).notNull(),
    /** compressed with gzip */
    body: bytea("body").notNull(),
    at: timestamp("at", { withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [index("worked_out_at").on(t.kind, t.at)],
);

/** What the workshop puts on its reports. One row. */
export const workshop = pgTable(
  "workshop",
  { one: boolean("one").primaryKey().default(true), settings: jsonb("settings").notNull() },
  (t) => [check("workshop_one_row", sql`${t.one}`)],
);

/** Which database this is: kept through backups and moves, so that a device knows what it talks to. One row. */
export const identity = pgTable("identity", {
  id: uuid("id").primaryKey().defaultRandom(),
  at: timestamp("at", { withTimezone: true }).notNull().defaultNow(),
  /** signs the cookies of all servers on this database */
  secret: text("secret")
    .notNull()
    .default(sql`gen_random_uuid()::text || gen_random_uuid()::text`),
});
