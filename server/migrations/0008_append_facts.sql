-- Appends facts to a project, as server/src/factStore.ts says. A function, so that its plans are made once for each connection: planning was most
-- of what storing a reading took.
CREATE FUNCTION "append_facts"("project" uuid, "given" jsonb, "received" timestamp with time zone)
RETURNS TABLE ("fact_id" uuid, "fact_seq" bigint) LANGUAGE plpgsql AS $$
DECLARE
  last bigint;
  appended bigint;
BEGIN
  SELECT p.last_seq INTO last FROM line_project p WHERE p.id = project AND p.importing IS NULL FOR UPDATE;
  IF NOT FOUND THEN
    RETURN;
  END IF;
  RETURN QUERY
    INSERT INTO fact (id, project_id, seq, closure_id, kind, v, body, understood, concerns_gear, received_at)
    SELECT g.id, project, last + row_number() OVER (ORDER BY g.place), g."closureId", g.kind, g.v, g.body,
      g.understood, g."concernsGear", received
    FROM jsonb_to_recordset(given)
      AS g(place int, id uuid, "closureId" uuid, kind text, v int, body jsonb, understood boolean, "concernsGear" boolean)
    WHERE NOT EXISTS (SELECT FROM fact f WHERE f.id = g.id)
      AND (g."closureId" IS NULL
        OR EXISTS (SELECT FROM plan_closure c WHERE c.id = g."closureId" AND c.project_id = project))
    RETURNING fact.id, fact.seq;
  GET DIAGNOSTICS appended = ROW_COUNT;
  UPDATE line_project SET last_seq = last_seq + appended WHERE line_project.id = project;
END
$$;
