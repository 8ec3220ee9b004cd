CREATE TABLE "lessons" (
	"id" text PRIMARY KEY NOT NULL,
	"job_id" uuid,
	"lesson" jsonb NOT NULL,
	"used" boolean DEFAULT true NOT NULL,
	"note" text DEFAULT '' NOT NULL
);
--> statement-breakpoint
ALTER TABLE "lessons" ADD CONSTRAINT "lessons_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "lessons_job" ON "lessons" USING btree ("job_id");--> statement-breakpoint
-- closed jobs of before teach too: their summaries are made anew as the server starts, and lessons with them
UPDATE "jobs" SET "summary" = NULL WHERE "summary" ->> 'closed' = 'true' OR "summary" ->> 'back' = 'true' OR "summary" ->> 'repaired' = 'true';
