ALTER TABLE "responses" ADD COLUMN "touched_by" bigint DEFAULT 0 NOT NULL;--> statement-breakpoint
CREATE INDEX "responses_touched" ON "responses" USING btree ("release_id","touched_by");--> statement-breakpoint
CREATE FUNCTION touch_response() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	NEW.touched_by := pg_current_xact_id()::text::bigint;
	RETURN NEW;
END
$$;--> statement-breakpoint
CREATE TRIGGER responses_touched BEFORE INSERT OR UPDATE ON responses FOR EACH ROW EXECUTE FUNCTION touch_response();
