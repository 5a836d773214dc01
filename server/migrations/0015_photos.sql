-- Pictures of photos, by the fact that says that one was taken.
CREATE TABLE "picture" (
	"id" uuid PRIMARY KEY NOT NULL,
	"project_id" uuid NOT NULL,
	"whole" "bytea" NOT NULL,
	"small" "bytea" NOT NULL,
	"sha256" text NOT NULL,
	"width" integer NOT NULL,
	"height" integer NOT NULL,
	"received_at" timestamp (3) with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "picture" ADD CONSTRAINT "picture_project_id_line_project_id_fk" FOREIGN KEY ("project_id") REFERENCES "public"."line_project"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "picture_project" ON "picture" USING btree ("project_id");