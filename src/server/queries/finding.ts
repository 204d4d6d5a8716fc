// In SQL: tags of families, saved searches, how often faces are kept, passes and their marks.
import type { Db } from "../db/open";

type TagRow = { familyId: string; tag: string; holds: boolean };
export const listTags = (db: Db, familyId?: string): TagRow[] =>
  db
    .prepare<[string | null, string | null], { familyId: string; tag: string; holds: number }>(
      "SELECT family_id AS familyId, tag, holds FROM tags WHERE (? IS NULL OR family_id = ?) ORDER BY tag",
    )
    .all(familyId ?? null, familyId ?? null)
    .map((t) => ({ ...t, holds: t.holds === 1 }));

/** holds null: what was said is taken back. Rows of the family count as changed. */
export function putTag(db: Db, familyId: string, tag: string, holds: boolean | null, at: string) {
  db.transaction(() => {
    if (holds === null) db.prepare("DELETE FROM tags WHERE family_id = ? AND tag = ?").run(familyId, tag);
    else
      db.prepare(
        "INSERT INTO tags VALUES (?, ?, ?, ?) ON CONFLICT(family_id, tag) DO UPDATE SET holds = excluded.holds, at = excluded.at",
      ).run(familyId, tag, holds ? 1 : 0, at);
    db.prepare("UPDATE styles SET seq = (SELECT max(seq) + 1 FROM styles) WHERE family_id = ?").run(familyId);
  })();
}

type KeywordRow = { familyId: string; keyword: string; libraryId: string };
/** What libraries say of families. */
export const listKeywords = (db: Db, familyId?: string): KeywordRow[] =>
  db
    .prepare<[string | null, string | null], KeywordRow>(
      `SELECT DISTINCT family_id AS familyId, keyword, library_id AS libraryId FROM keywords
       WHERE (? IS NULL OR family_id = ?) ORDER BY keyword, library_id`,
    )
    .all(familyId ?? null, familyId ?? null);

/** What a publication says of the families in it, in place of what it said before. Rows of those where that differs count as changed. */
export function putKeywords(
  db: Db,
  { libraryId, publicationId }: { libraryId: string; publicationId: string },
  familyIds: readonly string[],
  keywords: readonly string[],
) {
  const said = () =>
    db
      .prepare<[string, string], { familyId: string; text: string }>(
        `SELECT family_id AS familyId, group_concat(keyword, char(10)) AS text FROM
           (SELECT family_id, keyword FROM keywords WHERE library_id = ? AND publication_id = ? ORDER BY family_id, keyword)
         GROUP BY family_id`,
      )
      .all(libraryId, publicationId);
  db.transaction(() => {
    const before = new Map(said().map((s) => [s.familyId, s.text]));
    db.prepare("DELETE FROM keywords WHERE library_id = ? AND publication_id = ?").run(libraryId, publicationId);
    const put = db.prepare("INSERT INTO keywords VALUES (?, ?, ?, ?)");
    for (const familyId of new Set(familyIds))
      for (const keyword of new Set(keywords)) put.run(libraryId, publicationId, familyId, keyword);
    const after = new Map(said().map((s) => [s.familyId, s.text]));
    const touch = db.prepare("UPDATE styles SET seq = (SELECT max(seq) + 1 FROM styles) WHERE family_id = ?");
    for (const familyId of new Set([...before.keys(), ...after.keys()]))
      if (before.get(familyId) !== after.get(familyId)) touch.run(familyId);
  })();
}

/** What a library said of families is forgotten with it. */
export function forgetKeywords(db: Db, libraryId: string) {
  db.prepare(
    `UPDATE styles SET seq = (SELECT max(seq) + 1 FROM styles)
     WHERE family_id IN (SELECT family_id FROM keywords WHERE library_id = ?)`,
  ).run(libraryId);
  db.prepare("DELETE FROM keywords WHERE library_id = ?").run(libraryId);
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
