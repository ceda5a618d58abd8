CREATE TABLE "retentions" (
	"form_id" uuid PRIMARY KEY NOT NULL,
	"months" integer NOT NULL,
	"act" text NOT NULL
);
--> statement-breakpoint
ALTER TABLE "responses" ADD COLUMN "stripped_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "retentions" ADD CONSTRAINT "retentions_form_id_forms_id_fk" FOREIGN KEY ("form_id") REFERENCES "public"."forms"("id") ON DELETE cascade ON UPDATE no action;