CREATE TABLE "photos" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"wiring_id" uuid NOT NULL,
	"connector" text NOT NULL,
	"jpeg" "bytea" NOT NULL,
	"width" integer NOT NULL,
	"height" integer NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "revisions" (
	"wiring_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"chart" jsonb NOT NULL,
	"wiring" jsonb NOT NULL,
	"draft_seq" integer NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "revisions_wiring_id_number_pk" PRIMARY KEY("wiring_id","number")
);
--> statement-breakpoint
CREATE TABLE "wirings" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"name" text NOT NULL,
	"machine_type" text DEFAULT '' NOT NULL,
	"draft" jsonb NOT NULL,
	"draft_seq" integer DEFAULT 0 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "wiring_id" uuid;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "revision" integer;--> statement-breakpoint
ALTER TABLE "photos" ADD CONSTRAINT "photos_wiring_id_wirings_id_fk" FOREIGN KEY ("wiring_id") REFERENCES "public"."wirings"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "revisions" ADD CONSTRAINT "revisions_wiring_id_wirings_id_fk" FOREIGN KEY ("wiring_id") REFERENCES "public"."wirings"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "photos_at" ON "photos" USING btree ("wiring_id","connector");--> statement-breakpoint
ALTER TABLE "jobs" ADD CONSTRAINT "jobs_wiring_id_wirings_id_fk" FOREIGN KEY ("wiring_id") REFERENCES "public"."wirings"("id") ON DELETE set null ON UPDATE no action;