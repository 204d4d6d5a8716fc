-- Identifying: settings of variable fonts with signatures of their own.
CREATE TABLE signed_instances (
  style_id TEXT NOT NULL REFERENCES styles(style_id) ON DELETE CASCADE,
  coordinates TEXT NOT NULL,            -- JSON axis tag → value
  signature BLOB NOT NULL,
  PRIMARY KEY (style_id, coordinates)
) STRICT;
