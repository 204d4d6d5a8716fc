-- Briefs carry a version and their steps, for undo and redo that reach over reloads; faces are kept as they were seen.
ALTER TABLE briefs ADD COLUMN version INTEGER NOT NULL DEFAULT 1;

CREATE TABLE brief_steps (
  step_id INTEGER PRIMARY KEY,
  brief_id TEXT NOT NULL REFERENCES briefs(brief_id),
  at TEXT NOT NULL,
  by_whom TEXT NOT NULL,                -- the tab or person that did it
  summary TEXT NOT NULL,
  merges TEXT NOT NULL,                 -- steps of one kind in a row become one: typing in a line
  before TEXT NOT NULL,                 -- JSON: what changed, as it was
  after TEXT NOT NULL,                  -- JSON: the same, as it became
  undone INTEGER NOT NULL DEFAULT 0
) STRICT;
CREATE INDEX brief_steps_by_brief ON brief_steps(brief_id, undone, step_id);

CREATE TABLE kept_again (
  brief_id TEXT NOT NULL REFERENCES briefs(brief_id),
  kept_id TEXT NOT NULL,
  style_id TEXT NOT NULL REFERENCES styles(style_id) ON DELETE CASCADE,
  location TEXT NOT NULL DEFAULT '{}',  -- JSON axis tag → value; empty: at its defaults
  features TEXT NOT NULL DEFAULT '{}',  -- JSON OpenType tag → value
  role TEXT NOT NULL DEFAULT '',
  note TEXT NOT NULL DEFAULT '',
  favourite INTEGER NOT NULL DEFAULT 0,
  place INTEGER NOT NULL,
  kept_at TEXT NOT NULL,
  PRIMARY KEY (brief_id, kept_id)
) STRICT;
INSERT INTO kept_again (brief_id, kept_id, style_id, role, note, favourite, place, kept_at)
  SELECT brief_id, 'k_' || substr(style_id, 3), style_id, role, note, favourite, place, kept_at FROM kept;
DROP TABLE kept;
ALTER TABLE kept_again RENAME TO kept;
