CREATE TABLE "kept_answers" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"release_id" uuid NOT NULL,
	"hash" text NOT NULL,
	"sending_key" text NOT NULL,
	"kept" jsonb NOT NULL,
	"saved_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "kept_answers_hash_unique" UNIQUE("hash")
);
--> statement-breakpoint
ALTER TABLE "kept_answers" ADD CONSTRAINT "kept_answers_release_id_releases_id_fk" FOREIGN KEY ("release_id") REFERENCES "public"."releases"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "kept_answers_sending" ON "kept_answers" USING btree ("release_id","sending_key");--> statement-breakpoint
CREATE INDEX "kept_answers_saved" ON "kept_answers" USING btree ("saved_at");