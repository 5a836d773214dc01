CREATE TABLE "plan_model" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"body" jsonb NOT NULL,
	"version" integer NOT NULL
);
--> statement-breakpoint
ALTER TABLE "line_cable" ADD COLUMN "own_scheme" jsonb;--> statement-breakpoint
ALTER TABLE "line_cable" ADD COLUMN "fiber_type" text;--> statement-breakpoint
ALTER TABLE "line_cable" ADD COLUMN "mode_field_um" double precision;--> statement-breakpoint
ALTER TABLE "line_cable" ADD COLUMN "group_index" double precision;--> statement-breakpoint
ALTER TABLE "line_cable" ADD COLUMN "diameter_mm" double precision;--> statement-breakpoint
ALTER TABLE "line_cable" ADD COLUMN "excess" double precision;--> statement-breakpoint
ALTER TABLE "line_cable" ADD COLUMN "sheath_marks" jsonb;--> statement-breakpoint
ALTER TABLE "line_cable" ADD COLUMN "live" jsonb;--> statement-breakpoint
ALTER TABLE "line_site" ADD COLUMN "branch_from" uuid;--> statement-breakpoint
ALTER TABLE "plan_closure" ADD COLUMN "model" text;--> statement-breakpoint
ALTER TABLE "plan_closure" ADD COLUMN "ports" jsonb;--> statement-breakpoint
ALTER TABLE "plan_closure" ADD COLUMN "lengths" jsonb;--> statement-breakpoint
ALTER TABLE "plan_closure" ADD COLUMN "test_pressure_kpa" double precision;--> statement-breakpoint
ALTER TABLE "plan_closure" ADD COLUMN "sleeve_length_mm" integer;--> statement-breakpoint
ALTER TABLE "plan_closure" ADD COLUMN "spare_slots" integer;--> statement-breakpoint
ALTER TABLE "plan_closure" ADD COLUMN "pins" jsonb;