// The font log, and what users add to a style's rights record.
import { randomBytes } from "node:crypto";
import type { z } from "zod";
import { refuse, succeed, type Outcome } from "@/contracts/errors";
import type { StyleId } from "@/contracts/ids";
import type { EvidenceAdd, Log, LogLine } from "@/contracts/libraries";
import type { Rights } from "@/contracts/rights";
import { VERDICT_WORDS } from "@/contracts/words";
import { writeCsv } from "@/core/write/csv";
import type { Db } from "../db/open";
import { listEvidence, listLog as listRows, putEvidence, setEvidenceRemoved, type LogRow } from "../queries/records";
import { findStyle } from "../queries/styles";
import { note, rereadRights } from "../store/rightsOfStyle";

function toLine(r: LogRow): LogLine {
  const rights = JSON.parse(r.rights) as Rights;
  return {
    styleId: r.styleId as StyleId,
    family: r.family,
    style: r.style,
    library: r.library,
    path: r.path,
    importedAt: r.importedAt,
    sha256: r.sha256,
    licence: rights.spdx ?? "",
    verdict: rights.verdicts["goods-for-sale"].verdict,
    owned: r.owned === 1,
  };
}

export function listLog(db: Db, q: string, limit: number, from: number): Log {
  const { total, rows } = listRows(db, q.trim().toLowerCase(), limit, from);
  return { total, lines: rows.map(toLine), ...(from + limit < total && { cursor: String(from + limit) }) };
}

const MAX_LINES = 200_000;
export const writeLogCsv = (db: Db, q: string): string =>
  writeCsv(
    ["family", "style", "library", "path", "came in", "sha256", "licence", "goods for sale", "owned"],
    listRows(db, q.trim().toLowerCase(), MAX_LINES, 0)
      .rows.map(toLine)
      .map((l) => [
        l.family,
        l.style,
        l.library,
        l.path,
        l.importedAt,
        l.sha256,
        l.licence,
        VERDICT_WORDS[l.verdict],
        l.owned ? "yes" : "no",
      ]),
  );

/** Texts of the user's own on one font: all of them are read again whenever one is added. */
export const MAX_USER_TEXTS = 12;

/** Adds what the user knows. */
export async function addUserEvidence(
  db: Db,
  styleId: string,
  { kind, text, note: says }: z.infer<typeof EvidenceAdd>,
): Promise<Outcome<{ evidenceId: string }>> {
  if (!findStyle(db, styleId)) return refuse("not-found");
  if (listEvidence(db, styleId).length >= MAX_USER_TEXTS) return refuse("texts-too-many");
  const evidenceId = `e_${randomBytes(8).toString("hex")}`;
  const source = kind === "receipt" ? "permission or receipt added by you" : "added by you";
  db.transaction(() => {
    putEvidence(db, styleId, { evidenceId, kind, source, text, note: says, date: new Date().toISOString() });
    note(db, styleId, "evidence", `Added: “${text.slice(0, 120)}”${says ? ` (${says})` : ""}`);
  })();
  await rereadRights(db, styleId);
  return succeed({ evidenceId });
}

/** Takes back or restores what the user added, as long as no more are there than are read; the log keeps both. */
export async function setUserEvidence(db: Db, styleId: string, evidenceId: string, removed: boolean): Promise<boolean> {
  if (!removed && listEvidence(db, styleId).length >= MAX_USER_TEXTS) return false;
  const done = db.transaction(() => {
    if (!setEvidenceRemoved(db, styleId, evidenceId, removed ? new Date().toISOString() : null)) return false;
    note(db, styleId, "evidence", removed ? "Taken back: what you had added" : "Restored: what you had added");
    return true;
  })();
  if (done) await rereadRights(db, styleId);
  return done;
}
