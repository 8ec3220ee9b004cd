CREATE TABLE "page_tiles" (
	"page_id" uuid NOT NULL,
	"level" integer NOT NULL,
	"x" integer NOT NULL,
	"y" integer NOT NULL,
	"jpeg" "bytea" NOT NULL,
	CONSTRAINT "page_tiles_page_id_level_x_y_pk" PRIMARY KEY("page_id","level","x","y")
);
--> statement-breakpoint
CREATE TABLE "pages" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"wiring_id" uuid NOT NULL,
	"hash" text NOT NULL,
	"width" integer NOT NULL,
	"height" integer NOT NULL,
	"content" jsonb,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "page_tiles" ADD CONSTRAINT "page_tiles_page_id_pages_id_fk" FOREIGN KEY ("page_id") REFERENCES "public"."pages"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pages" ADD CONSTRAINT "pages_wiring_id_wirings_id_fk" FOREIGN KEY ("wiring_id") REFERENCES "public"."wirings"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "pages_wiring_hash" ON "pages" USING btree ("wiring_id","hash");