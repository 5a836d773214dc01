-- A reading that was corrected counts for its machine as it was in truth. To readers who are past them, these are as new as today.
UPDATE "fact" SET "concerns_gear" = true, "tx" = pg_current_xact_id()::text::bigint
  WHERE "kind" = 'correction' AND "understood" AND NOT "concerns_gear";
