-- The other files of a style that came cut by character: their characters count as the style's own.
CREATE TABLE parts (
  style_id TEXT NOT NULL REFERENCES styles(style_id) ON DELETE CASCADE,
  sha256 TEXT NOT NULL,
  sfnt_sha256 TEXT NOT NULL,
  format TEXT NOT NULL,
  path TEXT NOT NULL,
  coverage TEXT NOT NULL,
  added_at TEXT NOT NULL,
  PRIMARY KEY (style_id, sha256)
) STRICT;
CREATE INDEX parts_by_sha ON parts(sha256);
ALTER TABLE styles ADD COLUMN parts INTEGER NOT NULL DEFAULT 0;
