-- Libraries that are reached over HTTP or watched on disk; faces not yet owned; alternatives of a style; what users add and buy; the log.
ALTER TABLE libraries ADD COLUMN url TEXT;                            -- catalogue address or folder
ALTER TABLE libraries ADD COLUMN state TEXT NOT NULL DEFAULT 'connected';  -- connected, paused, removed
ALTER TABLE libraries ADD COLUMN synced_at TEXT;
ALTER TABLE libraries ADD COLUMN fault TEXT;                          -- JSON { code, message, at } of the last sync that failed
ALTER TABLE libraries ADD COLUMN sync_cursor TEXT;                    -- page at which an interrupted sync goes on

ALTER TABLE styles ADD COLUMN owned INTEGER NOT NULL DEFAULT 1;       -- 0: only a trial of it is here
ALTER TABLE styles ADD COLUMN offer TEXT;                             -- JSON: what the library offers of it
ALTER TABLE styles ADD COLUMN hidden INTEGER NOT NULL DEFAULT 0;      -- 1: its library was removed; the row stays for what refers to it

-- The view of libraries counts each one's styles again and again.
CREATE INDEX styles_by_library ON styles(library_id);

-- What a sync saw of a catalogue: a publication whose digest is the same need not be fetched again.
CREATE TABLE publications (
  library_id TEXT NOT NULL REFERENCES libraries(library_id),
  publication_id TEXT NOT NULL,
  digest TEXT NOT NULL,
  title TEXT NOT NULL,
  outcome TEXT NOT NULL,                -- taken, or the code of why not
  detail TEXT,
  seen_at TEXT NOT NULL,
  PRIMARY KEY (library_id, publication_id)
) STRICT;

-- Other files of the same style: the less rich format, or the same outlines under another name.
CREATE TABLE alternatives (
  style_id TEXT NOT NULL REFERENCES styles(style_id) ON DELETE CASCADE,
  sha256 TEXT NOT NULL,
  format TEXT NOT NULL,
  name TEXT NOT NULL,
  added_at TEXT NOT NULL,
  PRIMARY KEY (style_id, sha256)
) STRICT;
CREATE INDEX alternatives_by_sha ON alternatives(sha256);

-- Widths and boxes of the usual characters: two files of one style are found by it whatever their format or name.
CREATE TABLE outline_prints (
  style_id TEXT PRIMARY KEY REFERENCES styles(style_id) ON DELETE CASCADE,
  print_key TEXT NOT NULL,
  print BLOB NOT NULL
) STRICT;
CREATE INDEX outline_prints_by_key ON outline_prints(print_key);

-- What users add to a style's rights record, receipts among it.
CREATE TABLE evidence (
  evidence_id TEXT PRIMARY KEY,
  style_id TEXT NOT NULL REFERENCES styles(style_id) ON DELETE CASCADE,
  kind TEXT NOT NULL,
  source TEXT NOT NULL,
  text TEXT NOT NULL,
  note TEXT NOT NULL,
  added_at TEXT NOT NULL,
  removed_at TEXT
) STRICT;
CREATE INDEX evidence_by_style ON evidence(style_id);

-- The log: what happened to which style, library or order, and when. Only ever added to.
CREATE TABLE changes (
  change_id INTEGER PRIMARY KEY,
  at TEXT NOT NULL,
  what TEXT NOT NULL,
  style_id TEXT,
  library_id TEXT,
  says TEXT NOT NULL
) STRICT;
CREATE INDEX changes_by_style ON changes(style_id);

CREATE TABLE basket (
  style_id TEXT PRIMARY KEY REFERENCES styles(style_id) ON DELETE CASCADE,
  library_id TEXT NOT NULL,
  uses TEXT NOT NULL,
  added_at TEXT NOT NULL
) STRICT;

CREATE TABLE orders (
  order_id TEXT PRIMARY KEY,
  library_id TEXT NOT NULL,
  state TEXT NOT NULL,                  -- placed, delivered, failed
  lines TEXT NOT NULL,
  total_cents INTEGER NOT NULL,
  currency TEXT NOT NULL,
  receipt TEXT,
  placed_at TEXT NOT NULL
) STRICT;
