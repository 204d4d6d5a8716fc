-- Kept faces stand in groups.
ALTER TABLE kept ADD COLUMN group_name TEXT NOT NULL DEFAULT '';
