CREATE TABLE "predictions" (
	"key" text PRIMARY KEY NOT NULL,
	"body" "bytea" NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE INDEX "predictions_at" ON "predictions" USING btree ("at");