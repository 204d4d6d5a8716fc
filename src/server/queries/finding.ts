// In SQL: tags of families, saved searches, how often faces are kept, passes and their marks.
import type { Db } from "../db/open";

type TagRow = { familyId: string; tag: string; holds: boolean };
export function listTags(db: Db, familyId?: string): TagRow[] {
  const select = `SELECT family_id AS familyId, tag, holds FROM tags ${familyId ? "WHERE family_id = ?" : ""} ORDER BY tag`;
  return db
    .prepare<string[], { familyId: string; tag: string; holds: number }>(select)
    .all(...(familyId ? [familyId] : []))
    .map((t) => ({ ...t, holds: t.holds === 1 }));
}

/** Rows of families count as changed. */
const touchFamilies = (db: Db, familyIds: readonly string[]) =>
  db
    .prepare(
      `UPDATE styles SET seq = (SELECT max(seq) + 1 FROM styles)
       WHERE family_id IN (SELECT value FROM json_each(?))`,
    )
    .run(JSON.stringify(familyIds));

/** holds null: what was said is taken back. Rows of the family count as changed. */
export function putTag(db: Db, familyId: string, tag: string, holds: boolean | null, at: string) {
  db.transaction(() => {
    if (holds === null) db.prepare("DELETE FROM tags WHERE family_id = ? AND tag = ?").run(familyId, tag);
    else
      db.prepare(
        "INSERT INTO tags VALUES (?, ?, ?, ?) ON CONFLICT(family_id, tag) DO UPDATE SET holds = excluded.holds, at = excluded.at",
      ).run(familyId, tag, holds ? 1 : 0, at);
    touchFamilies(db, [familyId]);
  })();
}

type KeywordRow = { familyId: string; keyword: string; libraryId: string };
/** What libraries say of families. */
export function listKeywords(db: Db, familyId?: string): KeywordRow[] {
  const select = `SELECT DISTINCT family_id AS familyId, keyword, library_id AS libraryId FROM keywords
    ${familyId ? "WHERE family_id = ?" : ""} ORDER BY keyword, library_id`;
  return db.prepare<string[], KeywordRow>(select).all(...(familyId ? [familyId] : []));
}

/** Whether a word is said of any family: by the user, or by a library and not denied by the user. */
export const isSaid = (db: Db, word: string): boolean =>
  db
    .prepare<[string, string], { is: number }>(
      `SELECT EXISTS (SELECT 1 FROM tags WHERE tag = ? AND holds = 1) OR EXISTS (
         SELECT 1 FROM keywords k WHERE k.keyword = ? AND NOT EXISTS (
           SELECT 1 FROM tags t WHERE t.family_id = k.family_id AND t.tag = k.keyword AND t.holds = 0)) AS "is"`,
    )
    .get(word, word)!.is === 1;

type FamilyOf = { familyId: string };
/** What a publication says of the families in it, in place of what it said before. Rows of those where that differs count as changed. */
export function putKeywords(
  db: Db,
  { libraryId, publicationId }: { libraryId: string; publicationId: string },
  styleIds: readonly string[],
  keywords: readonly string[],
) {
  const families = "SELECT family_id FROM styles WHERE style_id IN (SELECT value FROM json_each(@styleIds))";
  const given = {
    libraryId,
    publicationId,
    styleIds: JSON.stringify(styleIds),
    keywords: JSON.stringify(keywords),
  };
  db.transaction(() => {
    const removed = db
      .prepare<typeof given, FamilyOf>(
        `DELETE FROM keywords WHERE library_id = @libraryId AND publication_id = @publicationId AND NOT (
           family_id IN (${families}) AND keyword IN (SELECT value FROM json_each(@keywords)))
         RETURNING family_id AS familyId`,
      )
      .all(given);
    const added = db
      .prepare<typeof given, FamilyOf>(
        `INSERT OR IGNORE INTO keywords SELECT @libraryId, @publicationId, f.family_id, k.value
         FROM (${families}) f, json_each(@keywords) k WHERE true
         RETURNING family_id AS familyId`,
      )
      .all(given);
    const changed = [...removed, ...added].map((f) => f.familyId);
    if (changed.length) touchFamilies(db, changed);
  })();
}

/** What a library said of families is forgotten with it. */
export function forgetKeywords(db: Db, libraryId: string) {
  const gone = db
    .prepare<[string], FamilyOf>("DELETE FROM keywords WHERE library_id = ? RETURNING family_id AS familyId")
    .all(libraryId);
  touchFamilies(
    db,
    gone.map((f) => f.familyId),
  );
}

export const countKept = (db: Db): Map<string, number> =>
  new Map(
    db
      .prepare<[], { styleId: string; n: number }>(
        "SELECT style_id AS styleId, count(*) AS n FROM kept GROUP BY style_id",
      )
      .all()
      .map((r) => [r.styleId, r.n]),
  );

type SavedSearchRow = { searchId: string; name: string; address: string; savedAt: string };
export const listSavedSearches = (db: Db): SavedSearchRow[] =>
  db
    .prepare<[], SavedSearchRow>(
      "SELECT search_id AS searchId, name, address, saved_at AS savedAt FROM saved_searches ORDER BY saved_at DESC",
    )
    .all();
export const insertSavedSearch = (db: Db, s: SavedSearchRow) =>
  db.prepare("INSERT OR REPLACE INTO saved_searches VALUES (@searchId, @name, @address, @savedAt)").run(s);
export const removeSavedSearch = (db: Db, searchId: string): boolean =>
  db.prepare("DELETE FROM saved_searches WHERE search_id = ?").run(searchId).changes > 0;

export type PassRow = {
  passId: string;
  briefId: string;
  title: string;
  question: string;
  styleIds: string[];
  begunAt: string;
  endedAt: string | null;
};
const SELECT_PASS =
  "SELECT pass_id AS passId, brief_id AS briefId, title, question, style_ids AS styleIds, begun_at AS begunAt, ended_at AS endedAt FROM passes";
const toPass = (row: Omit<PassRow, "styleIds"> & { styleIds: string }): PassRow => ({
  ...row,
  styleIds: JSON.parse(row.styleIds) as string[],
});

export const listPasses = (db: Db, briefId: string): PassRow[] =>
  db
    .prepare<[string], Omit<PassRow, "styleIds"> & { styleIds: string }>(
      `${SELECT_PASS} WHERE brief_id = ? ORDER BY begun_at DESC`,
    )
    .all(briefId)
    .map(toPass);
export const findPass = (db: Db, passId: string): PassRow | null => {
  const row = db
    .prepare<[string], Omit<PassRow, "styleIds"> & { styleIds: string }>(`${SELECT_PASS} WHERE pass_id = ?`)
    .get(passId);
  return row ? toPass(row) : null;
};
export const insertPass = (db: Db, p: PassRow) =>
  db
    .prepare("INSERT INTO passes VALUES (@passId, @briefId, @title, @question, @styleIds, @begunAt, @endedAt)")
    .run({ ...p, styleIds: JSON.stringify(p.styleIds) });
export const endPass = (db: Db, passId: string, at: string | null) =>
  db.prepare("UPDATE passes SET ended_at = ? WHERE pass_id = ?").run(at, passId);
export const removePass = (db: Db, passId: string): boolean =>
  db.prepare("DELETE FROM passes WHERE pass_id = ?").run(passId).changes > 0;

export type MarkRow = { place: number; styleId: string; mark: "kept" | "aside" | "left"; was: string };
export const listMarks = (db: Db, passId: string): MarkRow[] =>
  db
    .prepare<[string], MarkRow>(
      "SELECT place, style_id AS styleId, mark, was FROM pass_marks WHERE pass_id = ? ORDER BY place",
    )
    .all(passId);
export const findMark = (db: Db, passId: string, place: number): MarkRow | null =>
  db
    .prepare<[string, number], MarkRow>(
      "SELECT place, style_id AS styleId, mark, was FROM pass_marks WHERE pass_id = ? AND place = ?",
    )
    .get(passId, place) ?? null;
export const putMark = (db: Db, passId: string, m: MarkRow, at: string) =>
  db
    .prepare(
      `INSERT INTO pass_marks VALUES (@passId, @place, @styleId, @mark, @was, @at)
       ON CONFLICT(pass_id, place) DO UPDATE SET mark = excluded.mark, was = excluded.was, at = excluded.at`,
    )
    .run({ ...m, passId, at });
export const removeMark = (db: Db, passId: string, place: number) =>
  db.prepare("DELETE FROM pass_marks WHERE pass_id = ? AND place = ?").run(passId, place);
