// What the handlers of jobs are given, by kind, as the queue keeps it.

/** Files that were uploaded, and where they lie until they are read. */
export type ImportPayload = { libraryId: string; folder: string; files: { name: string; saved: string }[] };
export type SyncPayload = { libraryId: string };
