CREATE TABLE "looks" (
	"name" text PRIMARY KEY NOT NULL,
	"look" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "workspace" (
	"id" integer PRIMARY KEY DEFAULT 1 NOT NULL,
	"name" text DEFAULT '' NOT NULL,
	"address" text DEFAULT '' NOT NULL
);
