CREATE TABLE "openings" (
	"form_id" uuid PRIMARY KEY NOT NULL,
	"token" text NOT NULL,
	"settings" jsonb NOT NULL,
	CONSTRAINT "openings_token_unique" UNIQUE("token")
);
--> statement-breakpoint
ALTER TABLE "releases" ADD COLUMN "withdrawn_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "response_counts" ADD COLUMN "standing" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "openings" ADD CONSTRAINT "openings_form_id_forms_id_fk" FOREIGN KEY ("form_id") REFERENCES "public"."forms"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
INSERT INTO "openings" ("form_id", "token", "settings")
	SELECT "id", replace(gen_random_uuid()::text, '-', ''), '{}' FROM "forms";--> statement-breakpoint
UPDATE "response_counts" SET "standing" = (
	SELECT count(*) FROM "responses" JOIN "releases" ON "releases"."id" = "responses"."release_id"
	WHERE "releases"."form_id" = "response_counts"."form_id" AND "responses"."withdrawn_at" IS NULL);
