// The other files of a style that came cut by character, in SQL.
import type { CodePointRanges } from "@/contracts/traits";
import type { Db } from "../db/open";

export type StylePart = {
  styleId: string;
  sha256: string;
  sfntSha256: string;
  format: string;
  path: string;
  coverage: CodePointRanges;
  addedAt: string;
};

export const listParts = (db: Db, styleId: string): StylePart[] =>
  db
    .prepare<[string], Omit<StylePart, "coverage"> & { coverage: string }>(
      `SELECT style_id AS styleId, sha256, sfnt_sha256 AS sfntSha256, format, path, coverage, added_at AS addedAt
       FROM parts WHERE style_id = ? ORDER BY json_extract(coverage, '$[0][0]'), sha256`,
    )
    .all(styleId)
    .map((row) => ({ ...row, coverage: JSON.parse(row.coverage) as CodePointRanges }));

export const putPart = (db: Db, part: StylePart) =>
  db
    .prepare(
      "INSERT OR REPLACE INTO parts VALUES (@styleId, @sha256, @sfntSha256, @format, @path, @coverage, @addedAt)",
    )
    .run({ ...part, coverage: JSON.stringify(part.coverage) });

export const removePart = (db: Db, styleId: string, sha256: string) =>
  db.prepare("DELETE FROM parts WHERE style_id = ? AND sha256 = ?").run(styleId, sha256);

/** What a style covers with its parts, and how many it has; the row counts as changed. */
export const updateCoverage = (db: Db, styleId: string, coverage: CodePointRanges) =>
  db
    .prepare(
      `UPDATE styles SET coverage = ?, parts = (SELECT count(*) FROM parts WHERE style_id = styles.style_id),
         seq = (SELECT max(seq) + 1 FROM styles) WHERE style_id = ?`,
    )
    .run(JSON.stringify(coverage), styleId);
