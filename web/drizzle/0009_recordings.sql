CREATE TABLE "recording_parts" (
	"recording_id" uuid NOT NULL,
	"part" integer NOT NULL,
	"bytes" "bytea" NOT NULL,
	CONSTRAINT "recording_parts_recording_id_part_pk" PRIMARY KEY("recording_id","part")
);
--> statement-breakpoint
CREATE TABLE "recordings" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"job_id" uuid NOT NULL,
	"name" text NOT NULL,
	"reading" jsonb NOT NULL,
	"bytes" integer NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "recording_parts" ADD CONSTRAINT "recording_parts_recording_id_recordings_id_fk" FOREIGN KEY ("recording_id") REFERENCES "public"."recordings"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "recordings" ADD CONSTRAINT "recordings_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "recordings_job" ON "recordings" USING btree ("job_id");