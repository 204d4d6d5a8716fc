-- Faces of a brief shown to somebody outside by a link: which, until when, and what came back.
CREATE TABLE shares (
  share_id TEXT PRIMARY KEY,
  brief_id TEXT NOT NULL REFERENCES briefs(brief_id),
  token TEXT NOT NULL UNIQUE,           -- the right to look, in the address of the page
  kept TEXT NOT NULL,                   -- JSON list of faces: style, location, features
  may_comment INTEGER NOT NULL,
  created_at TEXT NOT NULL,
  expires_at TEXT NOT NULL,
  ended_at TEXT                         -- NULL: not ended by hand
) STRICT;
CREATE INDEX shares_by_brief ON shares(brief_id, created_at);

CREATE TABLE share_answers (
  answer_id INTEGER PRIMARY KEY,
  share_id TEXT NOT NULL REFERENCES shares(share_id),
  name TEXT NOT NULL,                   -- as whoever answered gave it
  style_id TEXT NOT NULL,
  chosen INTEGER,
  comment TEXT,
  at TEXT NOT NULL
) STRICT;
CREATE INDEX answers_by_share ON share_answers(share_id, answer_id);
