// SQL on orders made two by two, and on what was decided for a brief.
import type { Decision, RoundId } from "@/contracts/compare";
import type { BriefId, StyleId } from "@/contracts/ids";
import type { Db } from "../db/open";

export type StoredRound = { roundId: RoundId; briefId: BriefId; styleIds: StyleId[]; text: string };
type StoredChoice = { left: StyleId; right: StyleId; chosen: StyleId | null };

type Row = { roundId: RoundId; briefId: BriefId; styleIds: string; text: string };
const SELECT = "SELECT round_id AS roundId, brief_id AS briefId, style_ids AS styleIds, text FROM rounds";
const toRound = (r: Row | undefined): StoredRound | null =>
  r ? { ...r, styleIds: JSON.parse(r.styleIds) as StyleId[] } : null;

export const findRound = (db: Db, roundId: string): StoredRound | null =>
  toRound(db.prepare<[string], Row>(`${SELECT} WHERE round_id = ?`).get(roundId));

/** The one that was begun last of a brief with just these faces, in this order, and this text. */
export const findSameRound = (db: Db, briefId: string, styleIds: readonly string[], text: string): StoredRound | null =>
  toRound(
    db
      .prepare<[string, string, string], Row>(
        `${SELECT} WHERE brief_id = ? AND style_ids = ? AND text = ? ORDER BY begun_at DESC LIMIT 1`,
      )
      .get(briefId, JSON.stringify(styleIds), text),
  );

export const insertRound = (db: Db, { roundId, briefId, styleIds, text }: StoredRound, at: string) =>
  db
    .prepare("INSERT INTO rounds (round_id, brief_id, style_ids, text, begun_at) VALUES (?, ?, ?, ?, ?)")
    .run(roundId, briefId, JSON.stringify(styleIds), text, at);

export const listChoices = (db: Db, roundId: string): StoredChoice[] =>
  db
    .prepare<[string], StoredChoice>(
      "SELECT left_id AS left, right_id AS right, chosen_id AS chosen FROM round_choices WHERE round_id = ? ORDER BY place",
    )
    .all(roundId);

export const insertChoice = (
  db: Db,
  roundId: string,
  place: number,
  { left, right, chosen }: StoredChoice,
  at: string,
) =>
  db
    .prepare(
      "INSERT INTO round_choices (round_id, place, left_id, right_id, chosen_id, chosen_at) VALUES (?, ?, ?, ?, ?, ?)",
    )
    .run(roundId, place, left, right, chosen, at);

/** @returns whether there was one. */
export const removeLastChoice = (db: Db, roundId: string): boolean =>
  db
    .prepare(
      "DELETE FROM round_choices WHERE round_id = ? AND place = (SELECT MAX(place) FROM round_choices WHERE round_id = ?)",
    )
    .run(roundId, roundId).changes > 0;

export const insertDecision = (db: Db, briefId: string, { at, by, says }: Decision) =>
  db.prepare("INSERT INTO decisions (brief_id, at, by_whom, says) VALUES (?, ?, ?, ?)").run(briefId, at, by, says);

/** The last first. */
export const listDecisions = (db: Db, briefId: string): Decision[] =>
  db
    .prepare<[string], Decision>(
      "SELECT at, by_whom AS by, says FROM decisions WHERE brief_id = ? ORDER BY decision_id DESC LIMIT 500",
    )
    .all(briefId);
