CREATE TABLE "acceptances" (
	"form_id" uuid NOT NULL,
	"key" text NOT NULL,
	"basis" text NOT NULL,
	"reason" text NOT NULL,
	"by" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "acceptances_form_id_key_pk" PRIMARY KEY("form_id","key")
);
--> statement-breakpoint
ALTER TABLE "acceptances" ADD CONSTRAINT "acceptances_form_id_forms_id_fk" FOREIGN KEY ("form_id") REFERENCES "public"."forms"("id") ON DELETE cascade ON UPDATE no action;