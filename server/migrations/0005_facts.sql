CREATE TABLE "database_identity" (
	"epoch" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "fact" (
	"id" uuid PRIMARY KEY NOT NULL,
	"project_id" uuid NOT NULL,
	"seq" bigint NOT NULL,
	"closure_id" uuid,
	"kind" text NOT NULL,
	"v" integer NOT NULL,
	"body" jsonb NOT NULL,
	"understood" boolean NOT NULL,
	"concerns_gear" boolean NOT NULL,
	"tx" bigint DEFAULT pg_current_xact_id()::text::bigint NOT NULL,
	"received_at" timestamp (3) with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "server_day" (
	"n" bigserial PRIMARY KEY NOT NULL,
	"day" date NOT NULL,
	CONSTRAINT "server_day_day_unique" UNIQUE("day")
);
--> statement-breakpoint
CREATE TABLE "tombstone" (
	"kind" text NOT NULL,
	"id" uuid NOT NULL,
	"version" integer NOT NULL,
	CONSTRAINT "tombstone_kind_id_pk" PRIMARY KEY("kind","id")
);
--> statement-breakpoint
ALTER TABLE "line_project" ADD COLUMN "line_version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "line_project" ADD COLUMN "revision" bigint DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "line_project" ADD COLUMN "last_seq" bigint DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "line_project" ADD COLUMN "deleted_on" bigint;--> statement-breakpoint
ALTER TABLE "line_project" ADD COLUMN "importing" text;--> statement-breakpoint
ALTER TABLE "line_project" ADD COLUMN "importing_at" timestamp (3) with time zone;--> statement-breakpoint
ALTER TABLE "line_project" ADD COLUMN "shown_tx" bigint DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "fact" ADD CONSTRAINT "fact_project_id_line_project_id_fk" FOREIGN KEY ("project_id") REFERENCES "public"."line_project"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fact" ADD CONSTRAINT "fact_closure_id_plan_closure_id_fk" FOREIGN KEY ("closure_id") REFERENCES "public"."plan_closure"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "fact_project_seq" ON "fact" USING btree ("project_id","seq");--> statement-breakpoint
CREATE INDEX "fact_closure" ON "fact" USING btree ("closure_id","seq");--> statement-breakpoint
CREATE INDEX "fact_gear" ON "fact" USING btree ("tx") WHERE "fact"."concerns_gear";--> statement-breakpoint
CREATE INDEX "fact_not_understood" ON "fact" USING btree ("id") WHERE not "fact"."understood";--> statement-breakpoint
-- Two closures at one site could be stored before. Each keeps its place on the route: the later one gets a site of its own there.
INSERT INTO "line_site" ("id", "project_id", "name", "kind", "chainage_m", "placement", "branch_from")
SELECT ('01900000-0000-7000-8000-' || left(md5(c."id"::text), 12))::uuid, s."project_id", left(s."name", 70) || ' (second)', s."kind", s."chainage_m", s."placement", s."branch_from"
FROM "plan_closure" c JOIN "line_site" s ON s."id" = c."site_id"
WHERE EXISTS (SELECT 1 FROM "plan_closure" o WHERE o."site_id" = c."site_id" AND o."id" < c."id");--> statement-breakpoint
UPDATE "plan_closure" c SET "site_id" = ('01900000-0000-7000-8000-' || left(md5(c."id"::text), 12))::uuid
WHERE EXISTS (SELECT 1 FROM "line_site" s WHERE s."id" = ('01900000-0000-7000-8000-' || left(md5(c."id"::text), 12))::uuid);--> statement-breakpoint
-- As they were written; the server brings them up when it starts.
INSERT INTO "fact" ("id", "project_id", "seq", "closure_id", "kind", "v", "body", "understood", "concerns_gear", "tx", "received_at")
SELECT "id", "project_id", row_number() OVER (PARTITION BY "project_id" ORDER BY "seq"), "closure_id", "kind", 1, "body", false, false, 0, "received_at"
FROM "splice_fact";--> statement-breakpoint
UPDATE "line_project" p SET "last_seq" = coalesce((SELECT max(f."seq") FROM "fact" f WHERE f."project_id" = p."id"), 0);--> statement-breakpoint
UPDATE "line_project" SET "deleted_on" = 0 WHERE "deleted_at" IS NOT NULL;--> statement-breakpoint
INSERT INTO "database_identity" DEFAULT VALUES;--> statement-breakpoint
CREATE UNIQUE INDEX "plan_closure_site" ON "plan_closure" USING btree ("site_id");