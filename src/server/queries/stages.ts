// Which stages of the pipeline each style went through, and with which version of their methods.
import { FIRST_STAGES, PIPELINE, STAGES, type Stage } from "@/contracts/pipeline";
import type { Db } from "../db/open";

const VERSIONS = new Map<Stage, number>(PIPELINE.map((p) => [p.stage, p.version]));
const pairsOf = (stages: readonly Stage[]) => stages.flatMap((s) => [s, VERSIONS.get(s)!]);
const places = (stages: readonly Stage[]) => stages.map(() => "(?, ?)").join(", ");

/** Notes that stages were done with the versions of now. @param isNew - the file is another one: what was done of the old does not count. */
export function putStages(db: Db, styleId: string, stages: readonly Stage[], isNew = false) {
  if (isNew) db.prepare("DELETE FROM style_stages WHERE style_id = ?").run(styleId);
  const put = db.prepare(
    "INSERT INTO style_stages VALUES (?, ?, ?) ON CONFLICT(style_id, stage) DO UPDATE SET version = excluded.version",
  );
  for (const stage of stages) put.run(styleId, stage, VERSIONS.get(stage));
}

/** Stage → the version it was done with. */
export const listStages = (db: Db, styleId: string): Partial<Record<Stage, number>> =>
  Object.fromEntries(
    db
      .prepare<[string], { stage: string; version: number }>(
        "SELECT stage, version FROM style_stages WHERE style_id = ?",
      )
      .all(styleId)
      .map((r) => [r.stage, r.version]),
  );

/** Styles that lack a stage, or have it of another version. Those that are seen first. */
export const listStaleStyles = (db: Db): string[] =>
  db
    .prepare<(string | number)[], { styleId: string }>(
      `SELECT style_id AS styleId FROM styles WHERE style_id NOT IN (
         SELECT style_id FROM style_stages WHERE (stage, version) IN (VALUES ${places(STAGES)}) GROUP BY style_id HAVING count(*) = ?
       ) ORDER BY hidden, seq`,
    )
    .all(...pairsOf(STAGES), STAGES.length)
    .map((r) => r.styleId);

/** Whether all that the wall needs was read of a style with the versions of now. */
export const isReadFirst = (db: Db, styleId: string): boolean =>
  db
    .prepare<(string | number)[], { n: number }>(
      `SELECT count(*) AS n FROM style_stages WHERE style_id = ? AND (stage, version) IN (VALUES ${places(FIRST_STAGES)})`,
    )
    .get(styleId, ...pairsOf(FIRST_STAGES))!.n === FIRST_STAGES.length;
