-- The packages that came along are a folder like any other; what was to be read of them is read by its sync.
UPDATE libraries SET kind = 'folder' WHERE kind = 'packages';
UPDATE jobs SET kind = 'sync-library', payload = '{"libraryId":"open-collection"}' WHERE kind = 'read-library';
