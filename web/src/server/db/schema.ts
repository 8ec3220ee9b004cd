import { boolean, integer, jsonb, pgTable, primaryKey, text, timestamp, uniqueIndex, uuid } from "drizzle-orm/pg-core";

/** A job: the machine, the complaint and the wiring it uses. Everything else is its logbook. */
export const jobs = pgTable("jobs", {
  id: uuid("id").primaryKey().defaultRandom(),
  title: text("title").notNull(),
  machine: text("machine"),
  complaint: text("complaint"),
  wiring: jsonb("wiring").notNull(),
  /** a simulated machine to practise on: fault, ohm, seed; never sent to the browser */
  hidden: jsonb("hidden"),
  demo: boolean("demo").notNull().default(false),
  createdAt: timestamp("created_at", { withTimezone: true }).notNull().defaultNow(),
});

/** The logbook: append-only, numbered from 1 within its job. No row is ever changed. */
export const entries = pgTable("entries", {
  jobId: uuid("job_id").notNull().references(() => jobs.id, { onDelete: "cascade" }),
  seq: integer("seq").notNull(),
  /** entries sent together; a batch sent twice is kept once */
  batch: uuid("batch").notNull(),
  body: jsonb("body").notNull(),
  savedAt: timestamp("saved_at", { withTimezone: true }).notNull().defaultNow(),
}, (t) => [primaryKey({ columns: [t.jobId, t.seq] }), uniqueIndex("entries_batch").on(t.jobId, t.batch, t.seq)]);

/** What was done once, for example loading the demo. */
export const done = pgTable("done", { what: text("what").primaryKey(), at: timestamp("at", { withTimezone: true }).notNull().defaultNow() });
