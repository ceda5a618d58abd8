ALTER TABLE "responses" ADD COLUMN "people" jsonb;--> statement-breakpoint
ALTER TABLE "teams" ADD COLUMN "former_names" jsonb DEFAULT '[]'::jsonb NOT NULL;