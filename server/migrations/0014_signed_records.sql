-- Records as they were when somebody signed them.
CREATE TABLE "handover_signed" (
	"id" uuid PRIMARY KEY NOT NULL,
	"project_id" uuid NOT NULL,
	"closure_id" uuid,
	"sha256" text NOT NULL,
	"document" text NOT NULL,
	"signed_at" timestamp (3) with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "handover_signed" ADD CONSTRAINT "handover_signed_project_id_line_project_id_fk" FOREIGN KEY ("project_id") REFERENCES "public"."line_project"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "handover_signed_project" ON "handover_signed" USING btree ("project_id");--> statement-breakpoint
CREATE INDEX "handover_signed_sha256" ON "handover_signed" USING btree ("sha256");