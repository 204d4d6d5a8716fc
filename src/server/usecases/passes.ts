// Sorting through: a pass is begun with what a question finds, every mark is stored at once, and each can be undone.
import type { Kept } from "@/contracts/brief";
import { randomBytes } from "node:crypto";
import type { BriefId, StyleId } from "@/contracts/ids";
import { refuse, succeed, type Outcome } from "@/contracts/errors";
import { nextUnmarked, type Mark, type Pass, type PassBegin, type PassId, type PassSummary } from "@/contracts/passes";
import { StyleQuery, type ShownItem } from "@/contracts/styles";
import type { Db } from "../db/open";
import { findBrief } from "../queries/briefs";
import {
  endPass,
  findMark,
  findPass,
  insertPass,
  listMarks,
  listPasses,
  putMark,
  removeMark,
  removePass,
  type MarkRow,
  type PassRow,
} from "../queries/finding";
import { keepAt, keepStyle, letGo, setAside } from "./briefs";
import { listFoundIds, listItems } from "./findings";

/** A pass holds no more: a day's work many times over. */
const MAX_FACES = 5000;

/** What was before a mark. */
type Was = { kept: boolean; aside: boolean; entries?: Kept[] };

/** Refused when the brief is unknown, the query malformed, or no face found. */
export function beginPass(db: Db, briefId: string, { question, title }: PassBegin): Outcome<Pass> {
  const brief = findBrief(db, briefId);
  if (!brief) return refuse("not-found");
  const asked = StyleQuery.safeParse(Object.fromEntries(new URLSearchParams(question)));
  if (!asked.success) return refuse("bad-request");
  const kept = new Set<string>(brief.kept.map((k) => k.styleId));
  const styleIds = listFoundIds(db, asked.data, brief)
    .filter((id) => !kept.has(id))
    .slice(0, MAX_FACES);
  if (!styleIds.length) return refuse("nothing-found");
  const passId = `p_${randomBytes(8).toString("hex")}` as PassId;
  insertPass(db, { passId, briefId, title, question, styleIds, begunAt: new Date().toISOString(), endedAt: null });
  return succeed(getPass(db, briefId, passId)!);
}

export function getPass(db: Db, briefId: string, passId: string): Pass | null {
  const row = findPass(db, passId);
  if (!row || row.briefId !== briefId) return null;
  const marks = listMarks(db, passId);
  return {
    ...summarize(row, marks),
    styleIds: row.styleIds as StyleId[],
    marks: marks.map(({ place, styleId, mark }) => ({ place, styleId: styleId as StyleId, mark })),
    next: nextUnmarked(new Set(marks.map((m) => m.place)), 0, row.styleIds.length),
  };
}

const summarize = (row: PassRow, marks: MarkRow[]): PassSummary => ({
  passId: row.passId as PassId,
  briefId: row.briefId as BriefId,
  title: row.title,
  question: row.question,
  total: row.styleIds.length,
  done: marks.length,
  kept: marks.filter((m) => m.mark === "kept").length,
  aside: marks.filter((m) => m.mark === "aside").length,
  begunAt: row.begunAt,
  endedAt: row.endedAt,
});

export const listPassSummaries = (db: Db, briefId: string): PassSummary[] =>
  listPasses(db, briefId).map((row) => summarize(row, listMarks(db, row.passId)));

/** Items of some places of a pass, as the brief sees them. */
export function listPassItems(
  db: Db,
  briefId: string,
  passId: string,
  from: number,
  count: number,
): ShownItem[] | null {
  const brief = findBrief(db, briefId);
  const row = findPass(db, passId);
  if (!brief || !row || row.briefId !== briefId) return null;
  return listItems(db, brief, row.styleIds.slice(from, from + count));
}

/**
 * Marks one place: kept and set aside take effect in the brief in the same transaction.
 * @returns null when pass or place is unknown.
 */
export function markPlace(db: Db, briefId: string, passId: string, place: number, mark: Mark["mark"]): Mark | null {
  const row = findPass(db, passId);
  const styleId = row?.styleIds[place];
  if (!row || row.briefId !== briefId || !styleId || !findBrief(db, briefId)) return null;
  return db.transaction((): Mark => {
    if (findMark(db, passId, place)) takeBack(db, briefId, passId, place);
    // Looked at after that: what was before this mark is what undo gives back.
    const brief = findBrief(db, briefId)!;
    const was: Was = {
      kept: brief.kept.some((k) => k.styleId === styleId),
      aside: brief.setAside.includes(styleId as StyleId),
      // What is set aside is kept no longer: undo keeps it as it was.
      entries: brief.kept.filter((k) => k.styleId === styleId),
    };
    if (mark === "kept") keepStyle(db, briefId, styleId, {});
    if (mark === "aside") setAside(db, briefId, styleId, true);
    putMark(db, passId, { place, styleId, mark, was: JSON.stringify(was) }, new Date().toISOString());
    return { place, styleId: styleId as StyleId, mark };
  })();
}

/** Undoes one mark: the brief is as it was before it. @returns the mark that was, null when there is none. */
export function unmarkPlace(db: Db, briefId: string, passId: string, place: number): Mark | null {
  const row = findPass(db, passId);
  const mark = row && row.briefId === briefId ? findMark(db, passId, place) : null;
  if (!mark) return null;
  db.transaction(() => {
    takeBack(db, briefId, passId, place);
    endPass(db, passId, null);
  })();
  return { place, styleId: mark.styleId as StyleId, mark: mark.mark };
}

function takeBack(db: Db, briefId: string, passId: string, place: number) {
  const mark = findMark(db, passId, place)!;
  const was = JSON.parse(mark.was) as Was;
  if (mark.mark === "kept" && !was.kept) letGo(db, briefId, mark.styleId);
  if (mark.mark === "aside" && !was.aside) setAside(db, briefId, mark.styleId, false);
  if (mark.mark === "kept" && was.aside) setAside(db, briefId, mark.styleId, true);
  if (mark.mark === "aside") for (const entry of was.entries ?? []) keepAt(db, briefId, entry);
  removeMark(db, passId, place);
}

export function changePass(db: Db, briefId: string, passId: string, { ended }: { ended: boolean }): Pass | null {
  if (findPass(db, passId)?.briefId !== briefId) return null;
  endPass(db, passId, ended ? new Date().toISOString() : null);
  return getPass(db, briefId, passId);
}

/** Forgets a pass; what was kept and set aside in it stays. */
export const forgetPass = (db: Db, briefId: string, passId: string): boolean =>
  findPass(db, passId)?.briefId === briefId && removePass(db, passId);
