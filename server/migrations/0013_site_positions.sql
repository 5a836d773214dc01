-- Where a site is, where that is known. Facts of owners' answers may name who answered from now on.
ALTER TABLE "line_site" ADD COLUMN "position" jsonb;--> statement-breakpoint
-- They are read again at the start, and brought up.
UPDATE "fact" SET "understood" = false WHERE "kind" = 'owner-answer' AND "v" < 3;
