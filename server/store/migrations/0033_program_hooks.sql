CREATE TABLE "program_hooks" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"form_id" uuid NOT NULL,
	"key_id" uuid NOT NULL,
	"on" text NOT NULL,
	"address" text NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "program_hooks" ADD CONSTRAINT "program_hooks_form_id_forms_id_fk" FOREIGN KEY ("form_id") REFERENCES "public"."forms"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "program_hooks" ADD CONSTRAINT "program_hooks_key_id_access_keys_id_fk" FOREIGN KEY ("key_id") REFERENCES "public"."access_keys"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "program_hooks_form" ON "program_hooks" USING btree ("form_id");--> statement-breakpoint
CREATE INDEX "program_hooks_key" ON "program_hooks" USING btree ("key_id");