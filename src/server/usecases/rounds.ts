// An order of faces made two by two: begun, gone on with after a reload, undone to the first choice, written into the shortlist.
import { randomBytes } from "node:crypto";
import {
  RANKED_AT_MOST,
  type Round,
  type RoundBegin,
  type RoundChoice,
  type RoundId,
  type RoundTaken,
} from "@/contracts/compare";
import { refuse, succeed, type Outcome } from "@/contracts/errors";
import type { StyleId } from "@/contracts/ids";
import { rankByChoices } from "@/core/compare/rankByChoices";
import { tellOrder } from "@/core/compare/tellOrder";
import type { Db } from "../db/open";
import { findBrief } from "../queries/briefs";
import {
  findRound,
  findSameRound,
  insertChoice,
  insertDecision,
  insertRound,
  listChoices,
  removeLastChoice,
  type StoredRound,
} from "../queries/rounds";
import { findStyle } from "../queries/styles";
import { orderKept } from "./briefs";
import { firstWords } from "@/core/brief/words";
import { getRows } from "./findings";

/** Begins, or goes on with what was begun with the same faces and text. */
export function beginRounds(db: Db, briefId: string, { styleIds, text }: RoundBegin): Outcome<Round> {
  const brief = findBrief(db, briefId);
  if (!brief) return refuse("not-found");
  const ids = styleIds ?? [...new Set(brief.kept.map((k) => k.styleId))].slice(0, RANKED_AT_MOST);
  if (ids.length < 2) return refuse("too-few-faces");
  if (!ids.every((id) => findStyle(db, id))) return refuse("not-found");
  const words = text ?? firstWords(brief);
  const begun = findSameRound(db, briefId, ids, words);
  if (begun) return succeed(describeRound(db, begun));
  const round: StoredRound = {
    roundId: `r_${randomBytes(8).toString("hex")}` as RoundId,
    briefId: brief.briefId,
    styleIds: ids,
    text: words,
  };
  insertRound(db, round, new Date().toISOString());
  return succeed(describeRound(db, round));
}

export function getRounds(db: Db, roundId: string): Round | null {
  const round = findRound(db, roundId);
  return round && describeRound(db, round);
}

/** @returns bad-request where another pair was asked about, or what was chosen is not of it. */
export function choose(db: Db, roundId: string, choice: RoundChoice): Outcome<Round> {
  const round = findRound(db, roundId);
  if (!round) return refuse("not-found");
  const { left, right, chosen } = choice;
  const isOf = (id: StyleId) => round.styleIds.includes(id);
  if (left === right || !isOf(left) || !isOf(right)) return refuse("bad-request", "These two are not being compared.");
  if (chosen !== null && chosen !== left && chosen !== right)
    return refuse("bad-request", "What was chosen is neither of the two.");
  db.transaction(() => {
    const { length } = listChoices(db, roundId);
    insertChoice(db, roundId, length, choice, new Date().toISOString());
  })();
  return succeed(describeRound(db, round));
}

export function unchoose(db: Db, roundId: string): Outcome<Round> {
  const round = findRound(db, roundId);
  if (!round) return refuse("not-found");
  return removeLastChoice(db, roundId) ? succeed(describeRound(db, round)) : refuse("nothing-to-undo");
}

function describeRound(db: Db, round: StoredRound): Round {
  const { roundId, briefId, styleIds, text } = round;
  const choices = listChoices(db, roundId);
  const at = new Map(styleIds.map((id, i) => [id, i]));
  const ranked = rankByChoices(
    styleIds.length,
    choices.map((c) => ({ left: at.get(c.left)!, right: at.get(c.right)!, chosen: c.chosen && at.get(c.chosen)! })),
  );
  const idOf = (item: number) => styleIds[item]!;
  const { findRow } = getRows(db);
  const inOrder = ranked.ranks.flatMap(({ item }) => findRow(idOf(item)) ?? []);
  return {
    roundId,
    briefId,
    text,
    styleIds,
    pair: ranked.pair && { left: idOf(ranked.pair.left), right: idOf(ranked.pair.right) },
    asked: choices.length,
    expectedLeft: ranked.expectedLeft,
    ranking: ranked.ranks.map(({ item, ...rank }) => ({ styleId: idOf(item), ...rank })),
    // Before each face was asked about once the order is nobody's choice.
    reasons: choices.length >= styleIds.length ? tellOrder(inOrder) : [],
  };
}

/** Writes the order into the shortlist: what is kept stands as it was ranked, what was not ranked behind it. */
export function takeOrder(db: Db, roundId: string, by: string): Outcome<RoundTaken> {
  const round = findRound(db, roundId);
  const told = round && describeRound(db, round);
  if (!told || !findBrief(db, told.briefId)) return refuse("not-found");
  const name = (styleId: string) => {
    const style = findStyle(db, styleId);
    return style ? `${style.family} ${style.style}` : "a face that is gone";
  };
  const order = told.ranking.map((r) => r.styleId);
  const because = told.reasons.map((r) => r.says).join(", ");
  const says = `Ordered two by two after ${told.asked} ${told.asked === 1 ? "choice" : "choices"}: ${order.map(name).join(", ")}.${because ? ` What was preferred is ${because}.` : ""}`;
  const brief = db.transaction(() => {
    insertDecision(db, told.briefId, { at: new Date().toISOString(), by, says });
    return orderKept(db, told.briefId, order, by);
  })();
  return brief ? succeed({ brief, says }) : refuse("not-found");
}
