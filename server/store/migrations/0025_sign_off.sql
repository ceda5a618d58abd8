ALTER TABLE "openings" ADD COLUMN "approval" jsonb;--> statement-breakpoint
ALTER TABLE "releases" ADD COLUMN "asked_by" uuid;--> statement-breakpoint
ALTER TABLE "releases" ADD COLUMN "note" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "releases" ADD COLUMN "tally" jsonb;--> statement-breakpoint
ALTER TABLE "releases" ADD CONSTRAINT "releases_asked_by_users_id_fk" FOREIGN KEY ("asked_by") REFERENCES "public"."users"("id") ON DELETE set null ON UPDATE no action;