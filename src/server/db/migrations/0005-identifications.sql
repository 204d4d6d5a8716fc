-- Identifications that are kept with a brief: the picture as it came (in the store), how it was framed and read, what came of it.
-- A table of this name was made for some days and never written to.
DROP TABLE IF EXISTS identifications;
CREATE TABLE identifications (
  identification_id TEXT PRIMARY KEY,
  brief_id TEXT NOT NULL REFERENCES briefs(brief_id),
  name TEXT NOT NULL,                   -- of the picture's file
  sha256 TEXT NOT NULL,                 -- the picture
  type TEXT NOT NULL,                   -- its media type
  state TEXT NOT NULL,                  -- JSON: frame, corners, text, result
  saved_at TEXT NOT NULL,
  removed_at TEXT
) STRICT;
CREATE INDEX identifications_by_brief ON identifications(brief_id, removed_at);
