CREATE TABLE "response_counts" (
	"form_id" uuid PRIMARY KEY NOT NULL,
	"taken" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "response_events" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"response_id" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"kind" text NOT NULL,
	"turn" text NOT NULL,
	"who" text DEFAULT '' NOT NULL,
	"details" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "turn_links" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"turn_id" uuid NOT NULL,
	"hash" text NOT NULL,
	"address" text,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"expires_at" timestamp with time zone,
	"revoked_at" timestamp with time zone,
	CONSTRAINT "turn_links_hash_unique" UNIQUE("hash")
);
--> statement-breakpoint
ALTER TABLE "responses" ADD COLUMN "number" integer;--> statement-breakpoint
UPDATE "responses" SET "number" = "counted"."number" FROM (
	SELECT "responses"."id", row_number() OVER (PARTITION BY "releases"."form_id" ORDER BY "responses"."sent_at", "responses"."id") AS "number"
	FROM "responses" JOIN "releases" ON "releases"."id" = "responses"."release_id"
) AS "counted" WHERE "counted"."id" = "responses"."id";--> statement-breakpoint
ALTER TABLE "responses" ALTER COLUMN "number" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "responses" ADD COLUMN "withdrawn_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "turns" ADD COLUMN "due_on" date;--> statement-breakpoint
ALTER TABLE "turns" ADD COLUMN "notices" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "turns" ADD COLUMN "notice_on" date;--> statement-breakpoint
ALTER TABLE "response_counts" ADD CONSTRAINT "response_counts_form_id_forms_id_fk" FOREIGN KEY ("form_id") REFERENCES "public"."forms"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "response_events" ADD CONSTRAINT "response_events_response_id_responses_id_fk" FOREIGN KEY ("response_id") REFERENCES "public"."responses"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "turn_links" ADD CONSTRAINT "turn_links_turn_id_turns_id_fk" FOREIGN KEY ("turn_id") REFERENCES "public"."turns"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "response_events_response" ON "response_events" USING btree ("response_id","at");--> statement-breakpoint
CREATE INDEX "turn_links_turn" ON "turn_links" USING btree ("turn_id");--> statement-breakpoint
CREATE INDEX "turns_notice" ON "turns" USING btree ("notice_on");--> statement-breakpoint
INSERT INTO "response_counts" ("form_id", "taken")
	SELECT "releases"."form_id", max("responses"."number")
	FROM "responses" JOIN "releases" ON "releases"."id" = "responses"."release_id" GROUP BY "releases"."form_id";--> statement-breakpoint
INSERT INTO "turn_links" ("turn_id", "hash", "made_at")
	SELECT "id", translate(rtrim(encode(sha256(convert_to("token", 'UTF8')), 'base64'), '='), '+/', '-_'), "opened_at" FROM "turns";--> statement-breakpoint
INSERT INTO "response_events" ("response_id", "at", "kind", "turn", "details")
	SELECT "response_id", "handed_off_at", 'sent', "turn", jsonb_build_object('target', "next_turn") FROM "turns" WHERE "handed_off_at" IS NOT NULL;--> statement-breakpoint
INSERT INTO "response_events" ("response_id", "at", "kind", "turn", "details")
	SELECT "response_id", "at", 'returned', "from_turn", jsonb_build_object('target', "to_turn", 'remark', "remark") FROM "given_back";
