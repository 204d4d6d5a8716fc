-- One file may be several styles: a trial that two shops offer, a copy under another library. The table is made again without its
-- unique digest (foreign keys are off while migrations run, and checked after).
CREATE TABLE styles_again (
  style_id TEXT PRIMARY KEY,
  seq INTEGER NOT NULL,
  family_id TEXT NOT NULL,
  family TEXT NOT NULL,
  style TEXT NOT NULL,
  library_id TEXT NOT NULL REFERENCES libraries(library_id),
  sha256 TEXT NOT NULL,
  sfnt_sha256 TEXT NOT NULL,
  format TEXT NOT NULL,
  names TEXT NOT NULL,
  facts TEXT NOT NULL,
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
  added_at TEXT NOT NULL,
  owned INTEGER NOT NULL DEFAULT 1,
  offer TEXT,
  hidden INTEGER NOT NULL DEFAULT 0,
  notes TEXT NOT NULL DEFAULT '{}',
  vox TEXT,
  moods TEXT NOT NULL DEFAULT '[]',
  verdicts TEXT NOT NULL DEFAULT '{}'
) STRICT;
INSERT INTO styles_again SELECT style_id, seq, family_id, family, style, library_id, sha256, sfnt_sha256, format, names, facts, traits, kinds,
  treatments, coverage, axes, instances, features, health, rights, pipeline_version, added_at, owned, offer, hidden, notes, vox, moods, verdicts
  FROM styles;
DROP TABLE styles;
ALTER TABLE styles_again RENAME TO styles;
CREATE INDEX styles_by_seq ON styles(seq);
CREATE INDEX styles_by_family ON styles(family_id);
CREATE INDEX styles_by_sha ON styles(sha256, owned);
CREATE INDEX styles_by_library ON styles(library_id, hidden, owned, family_id, style_id);
CREATE INDEX styles_shown ON styles(hidden, family_id);

-- Jobs that end the program are set aside, not begun for ever; rate is told by the process that works.
ALTER TABLE jobs ADD COLUMN crashes INTEGER NOT NULL DEFAULT 0;   -- times it ended the program since it last got on
ALTER TABLE jobs ADD COLUMN rate REAL;                            -- per second over the last stretch, while it runs
ALTER TABLE jobs ADD COLUMN code TEXT;                            -- of why it failed

-- The index that pictures are compared with is brought up to date by its own count: tags and terms do not move it.
CREATE TABLE counters (name TEXT PRIMARY KEY, value INTEGER NOT NULL) STRICT, WITHOUT ROWID;
INSERT INTO counters VALUES ('signatures', 1);
ALTER TABLE signatures ADD COLUMN seq INTEGER NOT NULL DEFAULT 1;
CREATE INDEX signatures_by_seq ON signatures(seq);
CREATE TRIGGER signatures_added AFTER INSERT ON signatures BEGIN
  UPDATE counters SET value = value + 1 WHERE name = 'signatures';
  UPDATE signatures SET seq = (SELECT value FROM counters WHERE name = 'signatures') WHERE style_id = NEW.style_id;
END;
CREATE TRIGGER signatures_changed AFTER UPDATE OF signature ON signatures BEGIN
  UPDATE counters SET value = value + 1 WHERE name = 'signatures';
  UPDATE signatures SET seq = (SELECT value FROM counters WHERE name = 'signatures') WHERE style_id = NEW.style_id;
END;
CREATE TRIGGER signatures_of_changed_styles AFTER UPDATE OF hidden, sfnt_sha256 ON styles
WHEN NEW.hidden IS NOT OLD.hidden OR NEW.sfnt_sha256 IS NOT OLD.sfnt_sha256 BEGIN
  UPDATE counters SET value = value + 1 WHERE name = 'signatures';
  UPDATE signatures SET seq = (SELECT value FROM counters WHERE name = 'signatures') WHERE style_id = NEW.style_id;
END;

-- Styles with the letters of another one: a renamed copy stays a style of its own, and both say so. Kept once, the lower id first.
CREATE TABLE same_letters (
  style_id TEXT NOT NULL REFERENCES styles(style_id) ON DELETE CASCADE,
  other_id TEXT NOT NULL REFERENCES styles(style_id) ON DELETE CASCADE,
  PRIMARY KEY (style_id, other_id),
  CHECK (style_id < other_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX same_letters_by_other ON same_letters(other_id);
-- Files that were merged under another name are parted by a job, which reads them: once.
INSERT INTO meta VALUES ('part-copies', 'waiting');

-- In whose name an order is placed.
ALTER TABLE orders ADD COLUMN holder TEXT;
