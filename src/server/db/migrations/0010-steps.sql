-- The version of the brief that a step led to: what was done elsewhere in between is undone in its order.
ALTER TABLE brief_steps ADD COLUMN version INTEGER NOT NULL DEFAULT 0;
