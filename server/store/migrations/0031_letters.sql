ALTER TABLE "outside_world" ALTER COLUMN "hooks" SET DEFAULT 'takes';--> statement-breakpoint
ALTER TABLE "messages" ADD COLUMN "attachments" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "messages" ADD COLUMN "state" text DEFAULT 'sent' NOT NULL;--> statement-breakpoint
ALTER TABLE "messages" ADD COLUMN "due_at" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
ALTER TABLE "messages" ADD COLUMN "tries" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "messages" ADD COLUMN "said" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "outside_world" ADD COLUMN "bounces" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
CREATE INDEX "messages_response" ON "messages" USING btree ("response_id");--> statement-breakpoint
CREATE INDEX "messages_due" ON "messages" USING btree ("due_at") WHERE state = 'waiting';