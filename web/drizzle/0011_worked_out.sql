CREATE TABLE "worked_out" (
	"key" text PRIMARY KEY NOT NULL,
	"kind" text NOT NULL,
	"body" "bytea" NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE INDEX "worked_out_at" ON "worked_out" USING btree ("kind","at");