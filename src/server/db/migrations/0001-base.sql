-- Everything the first slice keeps. Files lie in the content-addressed store beside the database; rows point to them by SHA-256.
CREATE TABLE meta (key TEXT PRIMARY KEY, value TEXT NOT NULL) STRICT;

CREATE TABLE libraries (
  library_id TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  kind TEXT NOT NULL,
  added_at TEXT NOT NULL
) STRICT;

CREATE TABLE styles (
  style_id TEXT PRIMARY KEY,
  seq INTEGER NOT NULL,                 -- grows with every insert or change: what caches ask for
  family_id TEXT NOT NULL,
  family TEXT NOT NULL,
  style TEXT NOT NULL,
  library_id TEXT NOT NULL REFERENCES libraries(library_id),
  sha256 TEXT NOT NULL UNIQUE,          -- the file as it came
  sfnt_sha256 TEXT NOT NULL,            -- the bare font as the shaper reads it
  format TEXT NOT NULL,
  names TEXT NOT NULL,
  facts TEXT NOT NULL,                  -- unitsPerEm, glyph count, line metrics, foundry, designer, version
  traits TEXT NOT NULL,
  kinds TEXT NOT NULL,
  treatments TEXT NOT NULL,
  coverage TEXT NOT NULL,
  axes TEXT NOT NULL,
  instances TEXT NOT NULL,
  features TEXT NOT NULL,
  health TEXT NOT NULL,
  rights TEXT NOT NULL,
  pipeline_version INTEGER NOT NULL,
  added_at TEXT NOT NULL
) STRICT;
CREATE INDEX styles_by_seq ON styles(seq);
CREATE INDEX styles_by_family ON styles(family_id);

CREATE TABLE signatures (
  style_id TEXT PRIMARY KEY REFERENCES styles(style_id) ON DELETE CASCADE,
  signature BLOB NOT NULL
) STRICT;

CREATE TABLE provenance (
  style_id TEXT NOT NULL REFERENCES styles(style_id) ON DELETE CASCADE,
  library_id TEXT NOT NULL,
  path TEXT NOT NULL,
  sha256 TEXT NOT NULL,
  imported_at TEXT NOT NULL,
  PRIMARY KEY (style_id, library_id, path)
) STRICT;
CREATE INDEX provenance_by_path ON provenance(library_id, path);

CREATE TABLE briefs (
  brief_id TEXT PRIMARY KEY,
  fields TEXT NOT NULL,
  created_at TEXT NOT NULL,
  changed_at TEXT NOT NULL,
  deleted_at TEXT
) STRICT;

CREATE TABLE kept (
  brief_id TEXT NOT NULL REFERENCES briefs(brief_id),
  style_id TEXT NOT NULL REFERENCES styles(style_id) ON DELETE CASCADE,
  role TEXT NOT NULL DEFAULT '',
  note TEXT NOT NULL DEFAULT '',
  favourite INTEGER NOT NULL DEFAULT 0,
  place INTEGER NOT NULL,
  kept_at TEXT NOT NULL,
  PRIMARY KEY (brief_id, style_id)
) STRICT;

CREATE TABLE set_aside (
  brief_id TEXT NOT NULL REFERENCES briefs(brief_id),
  style_id TEXT NOT NULL REFERENCES styles(style_id) ON DELETE CASCADE,
  at TEXT NOT NULL,
  PRIMARY KEY (brief_id, style_id)
) STRICT;

CREATE TABLE jobs (
  job_id TEXT PRIMARY KEY,
  kind TEXT NOT NULL,
  title TEXT NOT NULL,
  state TEXT NOT NULL,
  payload TEXT NOT NULL,
  done INTEGER NOT NULL DEFAULT 0,
  total INTEGER NOT NULL DEFAULT 0,
  failed INTEGER NOT NULL DEFAULT 0,
  message TEXT,
  brief_id TEXT,
  file_path TEXT,
  created_at TEXT NOT NULL,
  changed_at TEXT NOT NULL
) STRICT;

CREATE TABLE import_items (
  job_id TEXT NOT NULL REFERENCES jobs(job_id),
  path TEXT NOT NULL,
  name TEXT NOT NULL,
  outcome TEXT NOT NULL,
  code TEXT,
  reason TEXT,
  style_id TEXT,
  PRIMARY KEY (job_id, path)
) STRICT;
