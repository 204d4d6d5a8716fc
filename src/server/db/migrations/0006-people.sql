-- Questions put to a desk of other designers about a kept identification, and their answers.
CREATE TABLE questions (
  question_id TEXT PRIMARY KEY,
  identification_id TEXT NOT NULL REFERENCES identifications(identification_id),
  asked_at TEXT NOT NULL,
  state TEXT NOT NULL,                  -- not-sent, waiting, closed, withdrawn
  fault TEXT                            -- why it was not sent, or could not be asked after
) STRICT;
CREATE INDEX questions_by_identification ON questions(identification_id, asked_at);

CREATE TABLE answers (
  question_id TEXT NOT NULL REFERENCES questions(question_id),
  answer_id TEXT NOT NULL,              -- the desk's own
  by_whom TEXT NOT NULL,
  family TEXT NOT NULL,
  style TEXT,
  words TEXT NOT NULL,
  at TEXT NOT NULL,
  PRIMARY KEY (question_id, answer_id)
) STRICT;
