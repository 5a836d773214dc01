-- What the nights of a project are planned from; null where nobody planned any.
ALTER TABLE "line_project" ADD COLUMN "nights" jsonb;
