CREATE TABLE "messages" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"response_id" uuid,
	"to" text NOT NULL,
	"subject" text NOT NULL,
	"text" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "turns" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"response_id" uuid NOT NULL,
	"turn" text NOT NULL,
	"token" text NOT NULL,
	"to" jsonb NOT NULL,
	"opened_at" timestamp with time zone DEFAULT now() NOT NULL,
	"handed_off_at" timestamp with time zone,
	"remark" text,
	CONSTRAINT "turns_token_unique" UNIQUE("token")
);
--> statement-breakpoint
ALTER TABLE "responses" ADD COLUMN "turn" text;--> statement-breakpoint
ALTER TABLE "messages" ADD CONSTRAINT "messages_response_id_responses_id_fk" FOREIGN KEY ("response_id") REFERENCES "public"."responses"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "turns" ADD CONSTRAINT "turns_response_id_responses_id_fk" FOREIGN KEY ("response_id") REFERENCES "public"."responses"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "messages_at" ON "messages" USING btree ("at");--> statement-breakpoint
CREATE INDEX "turns_response" ON "turns" USING btree ("response_id","opened_at");