-- A run led by eye says so, and how sure its peak is (± K); empty where thermocouples were set up.
ALTER TABLE run ADD COLUMN no_probe_k DOUBLE PRECISION;
