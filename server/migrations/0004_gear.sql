CREATE TABLE "gear_item" (
	"id" uuid PRIMARY KEY NOT NULL,
	"label" text NOT NULL,
	"body" jsonb NOT NULL,
	"version" integer NOT NULL
);
--> statement-breakpoint
CREATE INDEX "splice_fact_gear" ON "splice_fact" USING btree ("seq") WHERE ("splice_fact"."kind" in ('calibration', 'gear-event', 'weather', 'went-on')
    or ("splice_fact"."kind" = 'attempt' and "splice_fact"."body" -> 'gear' is not null)
    or ("splice_fact"."kind" = 'correction' and "splice_fact"."body" -> 'result' = 'null'::jsonb));