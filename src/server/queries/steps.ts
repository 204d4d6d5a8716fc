// Steps of briefs in SQL: what undo and redo go through.
import type { BriefPart } from "@/core/brief/mergeBrief";
import type { Db } from "../db/open";

type Step = {
  stepId: number;
  at: string;
  byWhom: string;
  summary: string;
  merges: string;
  /** Of the brief, after it. */
  version: number;
  before: BriefPart;
  after: BriefPart;
};
type StepRow = Omit<Step, "before" | "after"> & { before: string; after: string };
const SELECT =
  "SELECT step_id AS stepId, at, by_whom AS byWhom, summary, merges, version, before, after FROM brief_steps";
const toStep = (r: StepRow | undefined): Step | null =>
  r ? { ...r, before: JSON.parse(r.before) as BriefPart, after: JSON.parse(r.after) as BriefPart } : null;

/** Steps by the brief's version that they made; without bounds all. */
export type StepRange = { after?: number | undefined; upTo?: number | undefined };

/** The step that undo takes back, or that redo does again; of one person where they are named. */
export const findStep = (
  db: Db,
  briefId: string,
  undone: boolean,
  byWhom: string | null,
  { after = -1, upTo = Number.MAX_SAFE_INTEGER }: StepRange = {},
): Step | null =>
  toStep(
    db
      .prepare<[string, number, string | null, string | null, number, number], StepRow>(
        `${SELECT} WHERE brief_id = ? AND undone = ? AND (? IS NULL OR by_whom = ?) AND version > ? AND version <= ?
         ORDER BY step_id ${undone ? "ASC" : "DESC"} LIMIT 1`,
      )
      .get(briefId, undone ? 1 : 0, byWhom, byWhom, after, upTo),
  );

export const setUndone = (db: Db, stepId: number, undone: boolean) =>
  db.prepare("UPDATE brief_steps SET undone = ? WHERE step_id = ?").run(undone ? 1 : 0, stepId);

const MAX_STEPS = 500;

/** Adds a step, or lets it grow the one before. What was undone cannot be done again after it. */
export function putStep(db: Db, briefId: string, step: Omit<Step, "stepId">, grows: number | null) {
  db.prepare("DELETE FROM brief_steps WHERE brief_id = ? AND undone = 1 AND by_whom = ?").run(briefId, step.byWhom);
  if (grows !== null) {
    db.prepare("UPDATE brief_steps SET at = ?, version = ?, after = ? WHERE step_id = ?").run(
      step.at,
      step.version,
      JSON.stringify(step.after),
      grows,
    );
    return;
  }
  db.prepare(
    "INSERT INTO brief_steps (brief_id, at, by_whom, summary, merges, version, before, after) VALUES (?, ?, ?, ?, ?, ?, ?, ?)",
  ).run(
    briefId,
    step.at,
    step.byWhom,
    step.summary,
    step.merges,
    step.version,
    JSON.stringify(step.before),
    JSON.stringify(step.after),
  );
  db.prepare(
    `DELETE FROM brief_steps WHERE brief_id = ? AND step_id <=
       (SELECT step_id FROM brief_steps WHERE brief_id = ? ORDER BY step_id DESC LIMIT 1 OFFSET ${MAX_STEPS})`,
  ).run(briefId, briefId);
}
