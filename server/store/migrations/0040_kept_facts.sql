CREATE SCHEMA "derived";
--> statement-breakpoint
CREATE TABLE "derived"."fact_pieces" (
	"form_id" uuid NOT NULL,
	"set_id" uuid NOT NULL,
	"key" text NOT NULL,
	"bytes" "bytea" NOT NULL,
	"written_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "fact_pieces_set_id_key_pk" PRIMARY KEY("set_id","key")
);
--> statement-breakpoint
CREATE TABLE "derived"."fact_sets" (
	"form_id" uuid PRIMARY KEY NOT NULL,
	"cleared" integer DEFAULT 0 NOT NULL,
	"set_id" uuid,
	"made_from" text DEFAULT '' NOT NULL,
	"up_to" bigint
);
--> statement-breakpoint
ALTER TABLE "derived"."fact_pieces" ADD CONSTRAINT "fact_pieces_form_id_fact_sets_form_id_fk" FOREIGN KEY ("form_id") REFERENCES "derived"."fact_sets"("form_id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "derived"."fact_sets" ADD CONSTRAINT "fact_sets_form_id_forms_id_fk" FOREIGN KEY ("form_id") REFERENCES "public"."forms"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "fact_pieces_form" ON "derived"."fact_pieces" USING btree ("form_id");--> statement-breakpoint
CREATE FUNCTION clear_facts() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
	form uuid := (SELECT form_id FROM releases WHERE id = OLD.release_id);
BEGIN
	UPDATE derived.fact_sets SET cleared = cleared + 1, set_id = NULL WHERE form_id = form;
	DELETE FROM derived.fact_pieces WHERE form_id = form;
	RETURN NULL;
END
$$;--> statement-breakpoint
CREATE TRIGGER responses_deleted AFTER DELETE ON responses FOR EACH ROW EXECUTE FUNCTION clear_facts();--> statement-breakpoint
CREATE TRIGGER responses_stripped AFTER UPDATE OF stripped_at ON responses FOR EACH ROW EXECUTE FUNCTION clear_facts();
