CREATE TABLE "shared_lists" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"code" text NOT NULL,
	"title" text NOT NULL,
	"list" jsonb NOT NULL,
	"row_count" integer NOT NULL,
	"revision" integer DEFAULT 1 NOT NULL,
	"saved_by" uuid,
	"saved_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "shared_lists_code_unique" UNIQUE("code")
);
--> statement-breakpoint
ALTER TABLE "shared_lists" ADD CONSTRAINT "shared_lists_saved_by_users_id_fk" FOREIGN KEY ("saved_by") REFERENCES "public"."users"("id") ON DELETE no action ON UPDATE no action;