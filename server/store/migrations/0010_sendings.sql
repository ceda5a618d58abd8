CREATE TABLE "given_back" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"response_id" uuid NOT NULL,
	"from_turn" text NOT NULL,
	"to_turn" text NOT NULL,
	"remark" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "responses" ADD COLUMN "sending_digest" text;--> statement-breakpoint
ALTER TABLE "turns" ADD COLUMN "sending_key" text;--> statement-breakpoint
ALTER TABLE "turns" ADD COLUMN "sending_digest" text;--> statement-breakpoint
ALTER TABLE "turns" ADD COLUMN "next_turn" text;--> statement-breakpoint
ALTER TABLE "given_back" ADD CONSTRAINT "given_back_response_id_responses_id_fk" FOREIGN KEY ("response_id") REFERENCES "public"."responses"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "given_back_response" ON "given_back" USING btree ("response_id","at");