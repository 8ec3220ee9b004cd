CREATE TABLE "standing_answers" (
	"job_id" uuid PRIMARY KEY NOT NULL,
	"engine" text NOT NULL,
	"entries" integer NOT NULL,
	"body" "bytea" NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "standing_answers" ADD CONSTRAINT "standing_answers_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE cascade ON UPDATE no action;