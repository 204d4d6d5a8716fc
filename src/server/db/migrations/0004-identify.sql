-- Identifying: settings of variable fonts with signatures of their own, identifications kept with a brief.
CREATE TABLE signed_instances (
  style_id TEXT NOT NULL REFERENCES styles(style_id) ON DELETE CASCADE,
  coordinates TEXT NOT NULL,            -- JSON axis tag → value
  signature BLOB NOT NULL,
  PRIMARY KEY (style_id, coordinates)
) STRICT;

-- The picture lies in the store under its SHA-256; the answer is kept as it was given, so that it can be read again at once.
CREATE TABLE identifications (
  identification_id TEXT PRIMARY KEY,
  brief_id TEXT NOT NULL REFERENCES briefs(brief_id) ON DELETE CASCADE,
  name TEXT NOT NULL,                   -- of the picture's file
  picture_sha256 TEXT NOT NULL,
  asked TEXT NOT NULL,                  -- JSON: text, box or corners
  answer TEXT NOT NULL,                 -- JSON Identification
  saved_at TEXT NOT NULL
) STRICT;
CREATE INDEX identifications_of_brief ON identifications(brief_id, saved_at);
