CREATE TABLE "person_counts" (
	"form_id" uuid NOT NULL,
	"user_id" uuid NOT NULL,
	"taken" integer NOT NULL,
	CONSTRAINT "person_counts_form_id_user_id_pk" PRIMARY KEY("form_id","user_id")
);
--> statement-breakpoint
CREATE TABLE "ways" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"form_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"token" text NOT NULL,
	"name" text NOT NULL,
	"address" text DEFAULT '' NOT NULL,
	"values" jsonb NOT NULL,
	"most" integer,
	"taken" integer DEFAULT 0 NOT NULL,
	"closed_at" timestamp with time zone,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"posted_at" timestamp with time zone,
	"reminded_at" timestamp with time zone,
	CONSTRAINT "ways_token_unique" UNIQUE("token")
);
--> statement-breakpoint
ALTER TABLE "openings" ADD COLUMN "code" text;--> statement-breakpoint
ALTER TABLE "openings" ADD COLUMN "passphrase_hash" text;--> statement-breakpoint
ALTER TABLE "responses" ADD COLUMN "way_id" uuid;--> statement-breakpoint
ALTER TABLE "responses" ADD COLUMN "user_id" uuid;--> statement-breakpoint
ALTER TABLE "person_counts" ADD CONSTRAINT "person_counts_form_id_forms_id_fk" FOREIGN KEY ("form_id") REFERENCES "public"."forms"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "person_counts" ADD CONSTRAINT "person_counts_user_id_users_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."users"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "ways" ADD CONSTRAINT "ways_form_id_forms_id_fk" FOREIGN KEY ("form_id") REFERENCES "public"."forms"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "ways_form" ON "ways" USING btree ("form_id","kind");--> statement-breakpoint
CREATE UNIQUE INDEX "ways_address" ON "ways" USING btree ("form_id","address") WHERE address <> '';--> statement-breakpoint
ALTER TABLE "responses" ADD CONSTRAINT "responses_way_id_ways_id_fk" FOREIGN KEY ("way_id") REFERENCES "public"."ways"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "responses" ADD CONSTRAINT "responses_user_id_users_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."users"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "responses_way" ON "responses" USING btree ("way_id");--> statement-breakpoint
ALTER TABLE "openings" ADD CONSTRAINT "openings_code_unique" UNIQUE("code");