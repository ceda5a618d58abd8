CREATE TABLE "page_steps" (
	"release_id" uuid NOT NULL,
	"section" text NOT NULL,
	"reached" integer DEFAULT 0 NOT NULL,
	"went_on" integer DEFAULT 0 NOT NULL,
	"within_15" integer DEFAULT 0 NOT NULL,
	"within_60" integer DEFAULT 0 NOT NULL,
	"within_180" integer DEFAULT 0 NOT NULL,
	"within_600" integer DEFAULT 0 NOT NULL,
	"longer" integer DEFAULT 0 NOT NULL,
	CONSTRAINT "page_steps_release_id_section_pk" PRIMARY KEY("release_id","section")
);
--> statement-breakpoint
ALTER TABLE "page_steps" ADD CONSTRAINT "page_steps_release_id_releases_id_fk" FOREIGN KEY ("release_id") REFERENCES "public"."releases"("id") ON DELETE cascade ON UPDATE no action;