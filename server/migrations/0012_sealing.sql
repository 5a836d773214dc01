-- How a closure is closed, as its maker says.
ALTER TABLE "plan_closure" ADD COLUMN "sealing" jsonb;