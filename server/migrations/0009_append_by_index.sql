-- The plans of append_facts are kept, and the first was made while there were few facts: then reading them all costs less than asking an index, and
-- it went on reading them all when there were thousands.
ALTER FUNCTION "append_facts"(uuid, jsonb, timestamp with time zone)
  SET enable_seqscan = off SET enable_hashjoin = off SET enable_mergejoin = off;
