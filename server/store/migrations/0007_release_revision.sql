ALTER TABLE "releases" ADD COLUMN "revision" integer;--> statement-breakpoint
UPDATE "releases" SET "revision" = coalesce(
  (SELECT max("changes"."revision") FROM "changes" WHERE "changes"."form_id" = "releases"."form_id" AND "changes"."at" <= "releases"."released_at"),
  0
);
