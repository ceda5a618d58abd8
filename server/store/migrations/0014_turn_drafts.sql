ALTER TABLE "turns" ADD COLUMN "given_back_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "turns" ADD COLUMN "pointed" jsonb;--> statement-breakpoint
ALTER TABLE "turns" ADD COLUMN "draft" jsonb;--> statement-breakpoint
ALTER TABLE "turns" ADD COLUMN "draft_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "turns" ADD COLUMN "draft_seat" text;--> statement-breakpoint
ALTER TABLE "turns" ADD COLUMN "draft_key" text;