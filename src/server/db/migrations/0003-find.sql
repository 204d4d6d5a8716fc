-- Finding: notes beside measures, classes and words of a style, verdicts without their quotes, tags of the user, saved searches,
-- passes through many faces, the picture of a brief.
ALTER TABLE styles ADD COLUMN notes TEXT NOT NULL DEFAULT '{}';      -- MeasureNotes: confidence, reasons for null, reach of axes
ALTER TABLE styles ADD COLUMN vox TEXT;                              -- JSON VoxGuess
ALTER TABLE styles ADD COLUMN moods TEXT NOT NULL DEFAULT '[]';      -- JSON MoodGuess[]
ALTER TABLE styles ADD COLUMN verdicts TEXT NOT NULL DEFAULT '{}';   -- JSON use → verdict, as in rights: what the wall needs of it
UPDATE styles SET verdicts = (
  SELECT json_group_object(key, json_extract(value, '$.verdict')) FROM json_each(styles.rights, '$.verdicts')
) WHERE json_type(rights, '$.verdicts') = 'object';

-- Words that the user says of a family (holds = 1) or takes away from what was measured (holds = 0).
CREATE TABLE tags (
  family_id TEXT NOT NULL,
  tag TEXT NOT NULL,
  holds INTEGER NOT NULL,
  at TEXT NOT NULL,
  PRIMARY KEY (family_id, tag)
) STRICT;

CREATE TABLE saved_searches (
  search_id TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  address TEXT NOT NULL,                -- query string of the find view, without the brief
  saved_at TEXT NOT NULL
) STRICT;

-- One way through many faces: the faces in their order, fixed when it begins, and a mark for each that was decided.
CREATE TABLE passes (
  pass_id TEXT PRIMARY KEY,
  brief_id TEXT NOT NULL REFERENCES briefs(brief_id),
  title TEXT NOT NULL,
  question TEXT NOT NULL,               -- query string that found the faces
  style_ids TEXT NOT NULL,              -- JSON
  begun_at TEXT NOT NULL,
  ended_at TEXT
) STRICT;
CREATE INDEX passes_by_brief ON passes(brief_id);

CREATE TABLE pass_marks (
  pass_id TEXT NOT NULL REFERENCES passes(pass_id) ON DELETE CASCADE,
  place INTEGER NOT NULL,
  style_id TEXT NOT NULL,
  mark TEXT NOT NULL,                   -- kept, aside, left
  was TEXT NOT NULL,                    -- JSON: what was kept or set aside before, for undo
  at TEXT NOT NULL,
  PRIMARY KEY (pass_id, place)
) STRICT;

CREATE TABLE brief_pictures (
  brief_id TEXT PRIMARY KEY REFERENCES briefs(brief_id),
  sha256 TEXT NOT NULL,
  width_px INTEGER NOT NULL,
  height_px INTEGER NOT NULL,
  name TEXT NOT NULL,
  added_at TEXT NOT NULL
) STRICT;

-- Counting a library's styles must not read whole rows, which are long.
DROP INDEX styles_by_library;
CREATE INDEX styles_by_library ON styles(library_id, hidden, owned, family_id, style_id);
CREATE INDEX styles_shown ON styles(hidden, family_id);
