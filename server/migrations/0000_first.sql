CREATE TABLE "line_cable" (
	"id" uuid PRIMARY KEY NOT NULL,
	"project_id" uuid NOT NULL,
	"label" text NOT NULL,
	"scheme_id" text NOT NULL,
	"construction" jsonb NOT NULL,
	"site_ids" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "line_project" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"units" text NOT NULL,
	"limits" jsonb NOT NULL,
	"window" jsonb,
	"version" integer NOT NULL,
	"created_at" timestamp (3) with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "line_site" (
	"id" uuid PRIMARY KEY NOT NULL,
	"project_id" uuid NOT NULL,
	"name" text NOT NULL,
	"kind" text NOT NULL,
	"chainage_m" double precision NOT NULL,
	"placement" text
);
--> statement-breakpoint
CREATE TABLE "plan_closure" (
	"id" uuid PRIMARY KEY NOT NULL,
	"project_id" uuid NOT NULL,
	"site_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"entries" jsonb NOT NULL,
	"trays" jsonb NOT NULL,
	"splice_order" jsonb NOT NULL,
	"version" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "splice_fact" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seq" bigserial NOT NULL,
	"project_id" uuid NOT NULL,
	"closure_id" uuid NOT NULL,
	"splice_id" text NOT NULL,
	"kind" text NOT NULL,
	"body" jsonb NOT NULL,
	"received_at" timestamp (3) with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "line_cable" ADD CONSTRAINT "line_cable_project_id_line_project_id_fk" FOREIGN KEY ("project_id") REFERENCES "public"."line_project"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "line_site" ADD CONSTRAINT "line_site_project_id_line_project_id_fk" FOREIGN KEY ("project_id") REFERENCES "public"."line_project"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan_closure" ADD CONSTRAINT "plan_closure_project_id_line_project_id_fk" FOREIGN KEY ("project_id") REFERENCES "public"."line_project"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan_closure" ADD CONSTRAINT "plan_closure_site_id_line_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."line_site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "splice_fact" ADD CONSTRAINT "splice_fact_project_id_line_project_id_fk" FOREIGN KEY ("project_id") REFERENCES "public"."line_project"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "splice_fact" ADD CONSTRAINT "splice_fact_closure_id_plan_closure_id_fk" FOREIGN KEY ("closure_id") REFERENCES "public"."plan_closure"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "line_cable_project" ON "line_cable" USING btree ("project_id");--> statement-breakpoint
CREATE INDEX "line_site_project" ON "line_site" USING btree ("project_id");--> statement-breakpoint
CREATE INDEX "plan_closure_project" ON "plan_closure" USING btree ("project_id");--> statement-breakpoint
CREATE INDEX "splice_fact_closure" ON "splice_fact" USING btree ("closure_id","seq");