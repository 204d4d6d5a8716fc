-- The packages that came along are a folder like any other; what was to be read of them is read by its sync.
UPDATE libraries SET kind = 'folder' WHERE kind = 'packages';
UPDATE jobs SET kind = 'sync-library', payload = '{"libraryId":"open-collection"}' WHERE kind = 'read-library';

-- Which stage of the pipeline a style was read with in which version, in place of one number for all of them.
CREATE TABLE style_stages (
  style_id TEXT NOT NULL REFERENCES styles(style_id) ON DELETE CASCADE,
  stage TEXT NOT NULL,
  version INTEGER NOT NULL,
  PRIMARY KEY (style_id, stage)
) STRICT, WITHOUT ROWID;
-- The number had a place of 64 for each of opened, measured, classified, signed and indexed. Numbers of before (sums) tell nothing.
INSERT INTO style_stages
  SELECT style_id, stage, version FROM (
    SELECT style_id, 'opened' AS stage, pipeline_version / 16777216 AS version, pipeline_version FROM styles
    UNION ALL SELECT style_id, 'measured', (pipeline_version / 262144) % 64, pipeline_version FROM styles
    UNION ALL SELECT style_id, 'classified', (pipeline_version / 4096) % 64, pipeline_version FROM styles
    UNION ALL SELECT style_id, 'described', (pipeline_version / 64) % 64, pipeline_version FROM styles
    UNION ALL SELECT style_id, 'fingerprinted', 1, pipeline_version FROM styles
    UNION ALL SELECT style_id, 'checked', 1, pipeline_version FROM styles
    UNION ALL SELECT style_id, 'varied', 1, pipeline_version FROM styles
  ) WHERE pipeline_version >= 16777216 AND pipeline_version % 64 = 2;
ALTER TABLE styles DROP COLUMN pipeline_version;
