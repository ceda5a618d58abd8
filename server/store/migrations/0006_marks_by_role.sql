-- Format 2: the designers' marks of list rows are named by what they say (core/form/upgrade.ts does the same for files).
-- In the text of jsonb a quote inside a text is escaped, so only real marks are met.
UPDATE "forms" SET "draft" = jsonb_set(replace(replace(replace(replace("draft"::text, '"mark": "woad"', '"mark": "note"'), '"mark": "weld"', '"mark": "check"'), '"mark": "madder"', '"mark": "problem"'), '"mark": "verdigris"', '"mark": "done"')::jsonb, '{tobbin}', '2');
--> statement-breakpoint
UPDATE "forms" SET "begun" = jsonb_set(replace(replace(replace(replace("begun"::text, '"mark": "woad"', '"mark": "note"'), '"mark": "weld"', '"mark": "check"'), '"mark": "madder"', '"mark": "problem"'), '"mark": "verdigris"', '"mark": "done"')::jsonb, '{tobbin}', '2') WHERE "begun" IS NOT NULL;
--> statement-breakpoint
UPDATE "releases" SET "definition" = jsonb_set(replace(replace(replace(replace("definition"::text, '"mark": "woad"', '"mark": "note"'), '"mark": "weld"', '"mark": "check"'), '"mark": "madder"', '"mark": "problem"'), '"mark": "verdigris"', '"mark": "done"')::jsonb, '{tobbin}', '2');
--> statement-breakpoint
UPDATE "shared_lists" SET "list" = replace(replace(replace(replace("list"::text, '"mark": "woad"', '"mark": "note"'), '"mark": "weld"', '"mark": "check"'), '"mark": "madder"', '"mark": "problem"'), '"mark": "verdigris"', '"mark": "done"')::jsonb;
--> statement-breakpoint
UPDATE "changes" SET "edits" = replace(replace(replace(replace("edits"::text, '"mark": "woad"', '"mark": "note"'), '"mark": "weld"', '"mark": "check"'), '"mark": "madder"', '"mark": "problem"'), '"mark": "verdigris"', '"mark": "done"')::jsonb;
--> statement-breakpoint
UPDATE "changes" SET "edits" = regexp_replace("edits"::text, '"tobbin": 1([,}])', '"tobbin": 2\1', 'g')::jsonb WHERE "edits"::text LIKE '%"tobbin": 1%';
