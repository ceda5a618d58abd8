CREATE FUNCTION words_of(answers jsonb, people jsonb) RETURNS text LANGUAGE sql IMMUTABLE PARALLEL SAFE AS $$
	SELECT lower(string_agg(value #>> '{}', E'\n'))
	FROM (
		SELECT jsonb_path_query(answers, '$.** ? (@.type() == "string" || @.type() == "number")') AS value
		UNION ALL
		SELECT jsonb_path_query(people, '$.*[*].label') AS value
	) AS found
$$;--> statement-breakpoint
CREATE TABLE "trays" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"form_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"name" text NOT NULL,
	"tells" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "views" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"form_id" uuid NOT NULL,
	"user_id" uuid NOT NULL,
	"name" text NOT NULL,
	"is_shared" boolean DEFAULT false NOT NULL,
	"settings" jsonb NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "responses" ADD COLUMN "tray_id" uuid;--> statement-breakpoint
ALTER TABLE "responses" ADD COLUMN "binned_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "responses" ADD COLUMN "turn_before" text;--> statement-breakpoint
ALTER TABLE "responses" ADD COLUMN "words" text GENERATED ALWAYS AS (words_of(answers, people)) STORED;--> statement-breakpoint
ALTER TABLE "trays" ADD CONSTRAINT "trays_form_id_forms_id_fk" FOREIGN KEY ("form_id") REFERENCES "public"."forms"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "views" ADD CONSTRAINT "views_form_id_forms_id_fk" FOREIGN KEY ("form_id") REFERENCES "public"."forms"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "views" ADD CONSTRAINT "views_user_id_users_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."users"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "trays_form" ON "trays" USING btree ("form_id","position");--> statement-breakpoint
CREATE INDEX "views_form" ON "views" USING btree ("form_id");--> statement-breakpoint
ALTER TABLE "responses" ADD CONSTRAINT "responses_tray_id_trays_id_fk" FOREIGN KEY ("tray_id") REFERENCES "public"."trays"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "responses_tray" ON "responses" USING btree ("tray_id");