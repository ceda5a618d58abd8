CREATE TABLE "sealed_files" (
	"hash" text PRIMARY KEY NOT NULL,
	"document_id" uuid NOT NULL,
	"signed" jsonb NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "signatures" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"document_id" uuid NOT NULL,
	"turn" text NOT NULL,
	"name" text NOT NULL,
	"role" text NOT NULL,
	"place" text NOT NULL,
	"drawn" text,
	"who" text NOT NULL,
	"signed_at" timestamp with time zone DEFAULT now() NOT NULL,
	"voided_at" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "documents" ADD COLUMN "unsigned" "bytea";--> statement-breakpoint
ALTER TABLE "documents" ADD COLUMN "told" text;--> statement-breakpoint
ALTER TABLE "documents" ADD COLUMN "signed" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "sealed_files" ADD CONSTRAINT "sealed_files_document_id_documents_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."documents"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "signatures" ADD CONSTRAINT "signatures_document_id_documents_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."documents"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "sealed_files_document" ON "sealed_files" USING btree ("document_id");--> statement-breakpoint
CREATE INDEX "signatures_document" ON "signatures" USING btree ("document_id");