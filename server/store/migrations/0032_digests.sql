ALTER TABLE "views" ADD COLUMN "digest" jsonb;--> statement-breakpoint
ALTER TABLE "views" ADD COLUMN "digested_at" timestamp with time zone;