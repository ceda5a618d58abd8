CREATE TABLE "payments" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"response_id" uuid NOT NULL,
	"amount" text NOT NULL,
	"currency" text NOT NULL,
	"title" text NOT NULL,
	"state" text DEFAULT 'open' NOT NULL,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "payments_response_id_unique" UNIQUE("response_id")
);
--> statement-breakpoint
ALTER TABLE "responses" ADD COLUMN "unpaid" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "outside_world" ADD COLUMN "payments" text DEFAULT 'takes' NOT NULL;--> statement-breakpoint
ALTER TABLE "payments" ADD CONSTRAINT "payments_response_id_responses_id_fk" FOREIGN KEY ("response_id") REFERENCES "public"."responses"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "payments_changed" ON "payments" USING btree ("changed_at");