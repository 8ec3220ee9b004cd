CREATE TABLE "identity" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "entries" ADD COLUMN "hash" "bytea";--> statement-breakpoint
CREATE INDEX "entries_saved" ON "entries" USING btree ("saved_at");--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "entry_count" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
INSERT INTO "identity" DEFAULT VALUES;--> statement-breakpoint
-- what an entry's hash is taken over: the hash of the entry before it, and all of its own columns
CREATE FUNCTION entry_hash(previous bytea, job uuid, seq integer, batch uuid, body jsonb, saved timestamptz)
RETURNS bytea LANGUAGE sql IMMUTABLE PARALLEL SAFE AS $$
  SELECT sha256(coalesce(previous, ''::bytea) || convert_to(
    job::text || ' ' || seq::text || ' ' || batch::text || ' ' ||
    (extract(epoch FROM saved) * 1000000)::bigint::text || ' ' || body::text, 'UTF8'))
$$;--> statement-breakpoint
CREATE FUNCTION chain_entry() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
  before record;
BEGIN
  SELECT e.seq, e.hash INTO before FROM entries e WHERE e.job_id = NEW.job_id ORDER BY e.seq DESC LIMIT 1;
  IF NEW.seq <> coalesce(before.seq, 0) + 1 THEN
    RAISE EXCEPTION 'entry % of job % does not follow entry %', NEW.seq, NEW.job_id, coalesce(before.seq, 0)
      USING ERRCODE = 'serialization_failure';
  END IF;
  NEW.hash := entry_hash(before.hash, NEW.job_id, NEW.seq, NEW.batch, NEW.body, NEW.saved_at);
  RETURN NEW;
END $$;--> statement-breakpoint
CREATE FUNCTION count_entries() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  UPDATE jobs SET entry_count = added.last
    FROM (SELECT job_id, max(seq) AS last FROM fresh GROUP BY job_id) added
    WHERE jobs.id = added.job_id AND jobs.entry_count < added.last;
  PERFORM pg_notify('radicula_entries', job_id || ' ' || max(seq)) FROM fresh GROUP BY job_id;
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION 'the logbook is append-only: % on % is refused', TG_OP, TG_TABLE_NAME
    USING ERRCODE = 'insufficient_privilege';
END $$;--> statement-breakpoint
-- entries of before, in order
DO $$
DECLARE
  e record;
  previous bytea;
  job uuid;
BEGIN
  FOR e IN SELECT * FROM entries ORDER BY job_id, seq LOOP
    IF job IS DISTINCT FROM e.job_id THEN previous := NULL; job := e.job_id; END IF;
    previous := entry_hash(previous, e.job_id, e.seq, e.batch, e.body, e.saved_at);
    UPDATE entries SET hash = previous WHERE job_id = e.job_id AND seq = e.seq;
  END LOOP;
  UPDATE jobs SET entry_count = coalesce((SELECT max(seq) FROM entries WHERE job_id = jobs.id), 0);
END $$;--> statement-breakpoint
CREATE TRIGGER entries_chain BEFORE INSERT ON entries FOR EACH ROW EXECUTE FUNCTION chain_entry();--> statement-breakpoint
CREATE TRIGGER entries_count AFTER INSERT ON entries REFERENCING NEW TABLE AS fresh
  FOR EACH STATEMENT EXECUTE FUNCTION count_entries();--> statement-breakpoint
CREATE TRIGGER entries_kept BEFORE UPDATE OR DELETE ON entries FOR EACH ROW EXECUTE FUNCTION refuse_change();--> statement-breakpoint
CREATE TRIGGER entries_not_emptied BEFORE TRUNCATE ON entries FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
