CREATE TABLE "workshop" (
	"one" boolean PRIMARY KEY DEFAULT true NOT NULL,
	"settings" jsonb NOT NULL,
	CONSTRAINT "workshop_one_row" CHECK ("workshop"."one")
);
