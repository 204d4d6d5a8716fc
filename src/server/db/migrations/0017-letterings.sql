-- Letterings of a brief. Every state of a document is kept as a step, so that undo and redo are steps back and forth: `place` is the one in force.
CREATE TABLE letterings (
  lettering_id TEXT PRIMARY KEY,
  brief_id TEXT NOT NULL REFERENCES briefs (brief_id),
  name TEXT NOT NULL,
  place INTEGER NOT NULL,
  version INTEGER NOT NULL DEFAULT 1,
  created_at TEXT NOT NULL,
  changed_at TEXT NOT NULL,
  deleted_at TEXT
) STRICT;
CREATE INDEX letterings_brief ON letterings (brief_id);
CREATE TABLE lettering_steps (
  lettering_id TEXT NOT NULL REFERENCES letterings (lettering_id) ON DELETE CASCADE,
  place INTEGER NOT NULL,
  document TEXT NOT NULL,
  at TEXT NOT NULL,
  PRIMARY KEY (lettering_id, place)
) STRICT, WITHOUT ROWID;
