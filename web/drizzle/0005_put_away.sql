ALTER TABLE "jobs" ADD COLUMN "put_away" text;--> statement-breakpoint
ALTER TABLE "wirings" ADD COLUMN "put_away" text;--> statement-breakpoint
CREATE INDEX "jobs_machine" ON "jobs" USING btree ("machine");--> statement-breakpoint
ALTER TABLE "jobs" ADD CONSTRAINT "jobs_put_away" CHECK ("jobs"."put_away" in ('archived', 'deleted'));--> statement-breakpoint
ALTER TABLE "wirings" ADD CONSTRAINT "wirings_put_away" CHECK ("wirings"."put_away" in ('archived', 'deleted'));