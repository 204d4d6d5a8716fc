-- What libraries say of a family in a word or two. They count like the words that the user says of it, unless the user denies them.
CREATE TABLE keywords (
  library_id TEXT NOT NULL REFERENCES libraries(library_id),
  publication_id TEXT NOT NULL,
  family_id TEXT NOT NULL,
  keyword TEXT NOT NULL,
  PRIMARY KEY (library_id, publication_id, family_id, keyword)
) STRICT;
CREATE INDEX keywords_by_family ON keywords(family_id);
CREATE INDEX keywords_by_keyword ON keywords(keyword);
CREATE INDEX tags_by_tag ON tags(tag);
