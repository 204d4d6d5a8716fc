// What answers questions about several faces at once.
import { succeed } from "@/contracts/errors";
import type { COMPARE_OPERATIONS } from "@/contracts/operations/compare";
import { listDecisions } from "../queries/rounds";
import { compare, findCompanions, proposeFamilySystem } from "../usecases/compare";
import { beginRounds, choose, getRounds, takeOrder, unchoose } from "../usecases/rounds";
import { found, type Handlers } from "./bind";

export const compareHandlers: Handlers<keyof typeof COMPARE_OPERATIONS> = {
  compare: ({ db, body, signal }) => compare(db, body, signal),
  findCompanions: ({ db, body }) => findCompanions(db, body),
  proposeSystem: ({ db, body }) => proposeFamilySystem(db, body),
  beginRounds: ({ db, params, body }) => beginRounds(db, params.id, body),
  getRounds: ({ db, params }) => found(getRounds(db, params.id)),
  choose: ({ db, params, body }) => choose(db, params.id, body),
  unchoose: ({ db, params }) => unchoose(db, params.id),
  takeOrder: ({ db, params, by }) => takeOrder(db, params.id, by),
  listDecisions: ({ db, params }) => succeed({ decisions: listDecisions(db, params.id) }),
};
