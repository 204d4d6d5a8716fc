-- Faces of a brief ordered two by two: what was asked and chosen, from which the order is worked out again.
CREATE TABLE rounds (
  round_id TEXT PRIMARY KEY,
  brief_id TEXT NOT NULL REFERENCES briefs(brief_id),
  style_ids TEXT NOT NULL,              -- JSON list, in the order in which they were given
  text TEXT NOT NULL,
  begun_at TEXT NOT NULL
) STRICT;
CREATE INDEX rounds_by_brief ON rounds(brief_id, begun_at);

CREATE TABLE round_choices (
  round_id TEXT NOT NULL REFERENCES rounds(round_id),
  place INTEGER NOT NULL,               -- 0, 1, 2 … in the order of asking
  left_id TEXT NOT NULL,
  right_id TEXT NOT NULL,
  chosen_id TEXT,                       -- NULL: neither is better
  chosen_at TEXT NOT NULL,
  PRIMARY KEY (round_id, place)
) STRICT;

-- Who decided what for a brief, when and why; goes along in the hand-over.
CREATE TABLE decisions (
  decision_id INTEGER PRIMARY KEY,
  brief_id TEXT NOT NULL REFERENCES briefs(brief_id),
  at TEXT NOT NULL,
  by_whom TEXT NOT NULL,
  says TEXT NOT NULL
) STRICT;
CREATE INDEX decisions_by_brief ON decisions(brief_id, decision_id);
