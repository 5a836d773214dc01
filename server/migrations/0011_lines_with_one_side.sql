-- A line of an order may have one side from now on: its fibers end in connectors. Nothing is changed here; a Cordel that expects two sides refuses this database with words.
SELECT 1;
