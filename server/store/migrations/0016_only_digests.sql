ALTER TABLE "given_back" DISABLE ROW LEVEL SECURITY;--> statement-breakpoint
DROP TABLE "given_back" CASCADE;--> statement-breakpoint
ALTER TABLE "turns" DROP CONSTRAINT "turns_token_unique";--> statement-breakpoint
ALTER TABLE "turns" DROP COLUMN "token";