// What can be asked of several faces at once: how they differ, what goes with one, which comes first.
import { z } from "zod";
import {
  CompanionList,
  Decision,
  Comparison,
  CompareRequest,
  PairRequest,
  Round,
  RoundBegin,
  RoundChoice,
  RoundId,
  RoundTaken,
} from "../compare";
import { BriefId } from "../ids";
import { operations } from "./operation";

const ofRound = z.object({ id: RoundId });

export const COMPARE_OPERATIONS = operations({
  compare: {
    method: "post",
    path: "/compare",
    summary: "How two to eight faces differ, by measures and by letters",
    access: "reader",
    body: CompareRequest,
    output: Comparison,
    reads: ["styles"],
  },
  findCompanions: {
    method: "post",
    path: "/pair",
    summary: "Faces that go with one, for another role, with reasons and sizes",
    access: "reader",
    body: PairRequest,
    output: CompanionList,
    reads: ["styles"],
  },
  beginRounds: {
    method: "post",
    path: "/briefs/{id}/rounds",
    summary: "Begin to order faces two by two; one that was begun with the same faces and text goes on",
    access: "editor",
    params: z.object({ id: BriefId }),
    body: RoundBegin,
    output: Round,
    status: 201,
    changes: ["rounds"],
  },
  getRounds: {
    method: "get",
    path: "/rounds/{id}",
    summary: "The order so far, and the next two",
    access: "reader",
    params: ofRound,
    output: Round,
    reads: ["rounds"],
  },
  choose: {
    method: "post",
    path: "/rounds/{id}/choices",
    summary: "Choose one of the two, or neither",
    access: "editor",
    params: ofRound,
    body: RoundChoice,
    output: Round,
    changes: ["rounds"],
  },
  unchoose: {
    method: "delete",
    path: "/rounds/{id}/choices/last",
    summary: "Undo the last choice",
    access: "editor",
    params: ofRound,
    output: Round,
    changes: ["rounds"],
  },
  takeOrder: {
    method: "post",
    path: "/rounds/{id}/order",
    summary: "Write the order into the shortlist, and why into the decisions",
    access: "editor",
    params: ofRound,
    output: RoundTaken,
    changes: ["briefs", "kept", "decisions"],
  },
  listDecisions: {
    method: "get",
    path: "/briefs/{id}/decisions",
    summary: "What was decided for the brief, the last first",
    access: "reader",
    params: z.object({ id: BriefId }),
    output: z.object({ decisions: z.array(Decision) }),
    reads: ["decisions"],
  },
});
