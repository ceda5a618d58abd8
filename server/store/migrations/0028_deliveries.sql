CREATE TABLE "delivery_runs" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"form_id" uuid NOT NULL,
	"response_id" uuid NOT NULL,
	"delivery" text NOT NULL,
	"title" text NOT NULL,
	"depth" integer DEFAULT 0 NOT NULL,
	"state" text DEFAULT 'waiting' NOT NULL,
	"due_at" timestamp with time zone DEFAULT now() NOT NULL,
	"tries" integer DEFAULT 0 NOT NULL,
	"said" text DEFAULT '' NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"done_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "hook_keys" (
	"form_id" uuid PRIMARY KEY NOT NULL,
	"secret" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "outside_world" (
	"id" boolean PRIMARY KEY DEFAULT true NOT NULL,
	"hooks" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "received_hooks" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"address" text NOT NULL,
	"signature" text NOT NULL,
	"body" text NOT NULL,
	"answered" integer NOT NULL
);
--> statement-breakpoint
ALTER TABLE "delivery_runs" ADD CONSTRAINT "delivery_runs_form_id_forms_id_fk" FOREIGN KEY ("form_id") REFERENCES "public"."forms"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "delivery_runs" ADD CONSTRAINT "delivery_runs_response_id_responses_id_fk" FOREIGN KEY ("response_id") REFERENCES "public"."responses"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "hook_keys" ADD CONSTRAINT "hook_keys_form_id_forms_id_fk" FOREIGN KEY ("form_id") REFERENCES "public"."forms"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "delivery_runs_due" ON "delivery_runs" USING btree ("state","due_at");--> statement-breakpoint
CREATE INDEX "delivery_runs_form" ON "delivery_runs" USING btree ("form_id","made_at");--> statement-breakpoint
CREATE INDEX "delivery_runs_response" ON "delivery_runs" USING btree ("response_id");--> statement-breakpoint
CREATE INDEX "received_hooks_at" ON "received_hooks" USING btree ("at");