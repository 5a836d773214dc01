ALTER TABLE "splice_fact" ALTER COLUMN "splice_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "plan_closure" ADD COLUMN "parts" jsonb;