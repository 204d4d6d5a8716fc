// What is kept beside a style: other files of it, its outline print, evidence that users add, and the log of changes.
import type { Evidence } from "@/contracts/rights";
import type { Db } from "../db/open";

export type Alternative = { styleId: string; sha256: string; format: string; name: string; addedAt: string };

export const putAlternative = (db: Db, a: Alternative) =>
  db.prepare("INSERT OR IGNORE INTO alternatives VALUES (@styleId, @sha256, @format, @name, @addedAt)").run(a);
export const removeAlternative = (db: Db, styleId: string, sha256: string) =>
  db.prepare("DELETE FROM alternatives WHERE style_id = ? AND sha256 = ?").run(styleId, sha256);
export const listAlternatives = (db: Db, styleId: string): Alternative[] =>
  db
    .prepare<[string], Alternative>(
      "SELECT style_id AS styleId, sha256, format, name, added_at AS addedAt FROM alternatives WHERE style_id = ? ORDER BY added_at",
    )
    .all(styleId);

export const listEveryAlternative = (db: Db): Alternative[] =>
  db
    .prepare<[], Alternative>(
      "SELECT style_id AS styleId, sha256, format, name, added_at AS addedAt FROM alternatives ORDER BY style_id, added_at",
    )
    .all();

export const findMeta = (db: Db, key: string): string | null =>
  db.prepare<[string], { value: string }>("SELECT value FROM meta WHERE key = ?").get(key)?.value ?? null;
export const setMeta = (db: Db, key: string, value: string) =>
  db.prepare("INSERT INTO meta VALUES (?, ?) ON CONFLICT(key) DO UPDATE SET value = excluded.value").run(key, value);

type PrintRow = { styleId: string; print: Int16Array };
export const putPrint = (db: Db, styleId: string, key: string, print: Int16Array) =>
  db
    .prepare(
      "INSERT INTO outline_prints VALUES (?, ?, ?) ON CONFLICT(style_id) DO UPDATE SET print_key = excluded.print_key, print = excluded.print",
    )
    .run(styleId, key, Buffer.from(print.buffer, print.byteOffset, print.byteLength));

/** Prints of owned styles under a key, or of the styles of one family. */
export const listPrints = (db: Db, key: string, familyId: string): PrintRow[] =>
  db
    .prepare<[string, string], { styleId: string; print: Buffer }>(
      `SELECT p.style_id AS styleId, p.print FROM outline_prints p JOIN styles s USING (style_id)
       WHERE s.owned = 1 AND (p.print_key = ? OR s.family_id = ?)`,
    )
    .all(key, familyId)
    .map(({ styleId, print }) => ({
      styleId,
      print: new Int16Array(print.buffer.slice(print.byteOffset, print.byteOffset + print.byteLength)),
    }));

/** Links two styles whose letters are the same. Doing it twice does nothing more. */
export function putSameLetters(db: Db, one: string, other: string) {
  const [low, high] = one < other ? [one, other] : [other, one];
  if (low !== high) db.prepare("INSERT OR IGNORE INTO same_letters VALUES (?, ?)").run(low, high);
}
/** Styles with the letters of one. */
export const listSameLetters = (db: Db, styleId: string): string[] =>
  db
    .prepare<[{ styleId: string }], { id: string }>(
      `SELECT other_id AS id FROM same_letters WHERE style_id = @styleId
       UNION ALL SELECT style_id FROM same_letters WHERE other_id = @styleId`,
    )
    .all({ styleId })
    .map((r) => r.id);

type EvidenceRow = {
  evidenceId: string;
  kind: Evidence["kind"];
  source: string;
  text: string;
  note: string;
  date: string;
};
/** Evidence that users added and have not taken back. */
export const listEvidence = (db: Db, styleId: string): Evidence[] =>
  db
    .prepare<[string], EvidenceRow>(
      `SELECT evidence_id AS evidenceId, kind, source, text, note, added_at AS date FROM evidence
       WHERE style_id = ? AND removed_at IS NULL ORDER BY added_at`,
    )
    .all(styleId);
export const putEvidence = (db: Db, styleId: string, e: Evidence & { evidenceId: string }) =>
  db
    .prepare("INSERT INTO evidence VALUES (?, ?, ?, ?, ?, ?, ?, NULL)")
    .run(e.evidenceId, styleId, e.kind, e.source, e.text, e.note ?? "", e.date);
/** @returns false when there is no such evidence, or it stands as wanted already. */
export const setEvidenceRemoved = (db: Db, styleId: string, evidenceId: string, at: string | null): boolean =>
  db
    .prepare("UPDATE evidence SET removed_at = ? WHERE evidence_id = ? AND style_id = ? AND (removed_at IS NULL) <> ?")
    .run(at, evidenceId, styleId, at === null ? 1 : 0).changes > 0;

type Change = { at: string; what: string; styleId: string | null; libraryId: string | null; says: string };
export const addChange = (db: Db, c: Change) =>
  db
    .prepare(
      "INSERT INTO changes (at, what, style_id, library_id, says) VALUES (@at, @what, @styleId, @libraryId, @says)",
    )
    .run(c);
export const listChanges = (db: Db, styleId: string): Change[] =>
  db
    .prepare<[string], Change>(
      "SELECT at, what, style_id AS styleId, library_id AS libraryId, says FROM changes WHERE style_id = ? ORDER BY change_id DESC LIMIT 200",
    )
    .all(styleId);

export type LogRow = {
  styleId: string;
  family: string;
  style: string;
  library: string;
  path: string;
  importedAt: string;
  sha256: string;
  rights: string;
  owned: number;
};
const LOG = `FROM provenance p JOIN styles s USING (style_id) LEFT JOIN libraries l ON l.library_id = p.library_id
  WHERE s.hidden = 0 AND (@q = '' OR instr(lower(s.family || ' ' || s.style || ' ' || coalesce(l.name, p.library_id) || ' ' || p.path || ' ' || p.sha256 || ' ' || p.imported_at), @q) > 0)`;
/** The font log: every file that came in, newest first. @param q - words in lower case, or "". */
export const listLog = (db: Db, q: string, limit: number, from: number): { total: number; rows: LogRow[] } => ({
  total: db.prepare<[{ q: string }], { n: number }>(`SELECT count(*) AS n ${LOG}`).get({ q })!.n,
  rows: db
    .prepare<[{ q: string; limit: number; from: number }], LogRow>(
      `SELECT s.style_id AS styleId, s.family, s.style, coalesce(l.name, p.library_id) AS library, p.path, p.imported_at AS importedAt,
         p.sha256, s.rights, s.owned ${LOG} ORDER BY p.imported_at DESC, s.family, s.style LIMIT @limit OFFSET @from`,
    )
    .all({ q, limit, from }),
});
