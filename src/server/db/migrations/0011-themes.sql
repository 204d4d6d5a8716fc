-- What was said here of words: how much of each look they have.
CREATE TABLE theme_corrections (
  phrase TEXT PRIMARY KEY,
  looks TEXT NOT NULL,
  changed_at TEXT NOT NULL
) STRICT;
