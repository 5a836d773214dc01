-- Where a site is, where that is known. Facts of owners' answers may name who answered from now on.
ALTER TABLE "line_site" ADD COLUMN "position" jsonb;