// What answers questions about briefs.
import { refuse, succeed, type Outcome } from "@/contracts/errors";
import type { Brief } from "@/contracts/brief";
import type { BRIEF_OPERATIONS } from "@/contracts/operations/briefs";
import type { SheetFormat } from "@/contracts/sheet";
import type { Db } from "../db/open";
import { findBrief, listBriefs } from "../queries/briefs";
import { readBriefFile, writeBriefFile, writeTokensFor } from "../usecases/briefFile";
import { putPicture, readPicture, removePicture } from "../usecases/briefPicture";
import {
  changeBrief,
  changeKept,
  checkStyle,
  createBrief,
  deleteBrief,
  keepAt,
  keepStyle,
  letGo,
  setAside,
  stepBack,
} from "../usecases/briefs";
import { getRows, listKeptItems } from "../usecases/findings";
import { planHandover, startHandover } from "../usecases/handover";
import {
  beginPass,
  changePass,
  forgetPass,
  getPass,
  listPassItems,
  listPassSummaries,
  markPlace,
  unmarkPlace,
} from "../usecases/passes";
import {
  gatherShortlist,
  writeSheetFor,
  writeShortlistCredits,
  writeShortlistCsv,
  writeSpdxFor,
  type ShortlistStyle,
} from "../usecases/shortlist";
import { planWebkit, startWebkit } from "../usecases/webkit";
import { FileAnswer, KEPT_FOR_EVER } from "./answers";
import { found, type Handlers } from "./bind";
import { streamBriefEvents } from "./briefStream";

const SHEET_TYPES: Record<SheetFormat, string> = {
  pdf: "application/pdf",
  png: "image/png",
  svg: "image/svg+xml",
  html: "text/html; charset=utf-8",
};

export const briefHandlers: Handlers<keyof typeof BRIEF_OPERATIONS> = {
  listBriefs: ({ db }) => succeed({ briefs: listBriefs(db) }),
  createBrief: ({ db, body }) => found(createBrief(db, body)),
  readBriefFile: ({ db, body }) => succeed(readBriefFile(db, body)),
  writeBriefFile: ({ db, params }) => {
    const file = writeBriefFile(db, params.id);
    const json = `${JSON.stringify(file, null, 2)}\n`;
    return found(file && new FileAnswer(json, "application/json", { name: `${file.brief.name}.json` }));
  },
  writeTokens: ({ db, params }) => {
    const tokens = writeTokensFor(db, params.id);
    return found(tokens && new FileAnswer(tokens.json, "application/json", { name: `${tokens.name}.tokens.json` }));
  },
  getBrief: ({ db, params, answerHeaders }) => {
    const brief = findBrief(db, params.id);
    if (brief) answerHeaders.set("etag", `"${brief.version}"`);
    return found(brief);
  },
  changeBrief: ({ db, params, body, request, by }) => {
    const told = /^"?(\d{1,12})"?$/.exec(request.headers.get("if-match") ?? "")?.[1];
    return changeBrief(db, params.id, { ...body, ...(told && { version: Number(told) }) }, by);
  },
  deleteBrief: ({ db, params }) => found(deleteBrief(db, params.id) ? { briefId: params.id, deleted: true } : null),
  hearBrief: ({ db, params, signal }) => streamBriefEvents(db, params.id, signal),
  undo: ({ db, params, query, request, by }) => found(stepBack(db, params.id, "undo", ownSteps(request, by), query)),
  redo: ({ db, params, query, request, by }) => found(stepBack(db, params.id, "redo", ownSteps(request, by), query)),
  getBriefPicture: ({ db, params }) => {
    const jpeg = readPicture(db, params.id);
    return found(jpeg && new FileAnswer(jpeg, "image/jpeg", { headers: KEPT_FOR_EVER }));
  },
  putBriefPicture: ({ db, params, file, signal }) => putPicture(db, params.id, file.name, file.bytes, signal),
  removeBriefPicture: ({ db, params }) => found(removePicture(db, params.id) ? { briefId: params.id } : null),
  listKept: ({ db, params }) => {
    const brief = findBrief(db, params.id);
    return found(brief && { kept: brief.kept, items: listKeptItems(db, brief), ranges: getRows(db).ranges });
  },
  keepAt: ({ db, params, body, by }) => found(keepAt(db, params.id, body, by)),
  // By a style's id a face is kept as it comes; by its own id it may stand anywhere on its axes.
  keep: ({ db, params: { id, keptId }, body, by }) =>
    found(keptId.startsWith("s_") ? keepStyle(db, id, keptId, body, by) : changeKept(db, id, keptId, body, by)),
  changeKept: ({ db, params, body, by }) => found(changeKept(db, params.id, params.keptId, body, by)),
  removeKept: ({ db, params: { id, keptId }, by }) =>
    found(letGo(db, id, keptId, by) ? { styleId: keptId, kept: false } : null),
  setAside: ({ db, params: { id, styleId }, by }) =>
    found(setAside(db, id, styleId, true, by) ? { styleId, aside: true } : null),
  bringBack: ({ db, params: { id, styleId }, by }) =>
    found(setAside(db, id, styleId, false, by) ? { styleId, aside: false } : null),
  checkStyle: async ({ db, params, query }) => {
    const checks = await checkStyle(db, params.id, query.styleId);
    return found(checks && { checks });
  },
  writeContactSheet: ({ db, params, query, signal }) =>
    writeOf(db, params.id, async (brief, styles) => {
      const sheet = await writeSheetFor(brief, styles, query, signal);
      if (!sheet.ok) return sheet;
      const name = `${brief.name} contact sheet.${query.format}`;
      return succeed(new FileAnswer(sheet.value, SHEET_TYPES[query.format], { name }));
    }),
  writeShortlist: ({ db, params }) =>
    writeOf(db, params.id, (brief, styles) => {
      const csv = writeShortlistCsv(styles, "shortlist");
      return succeed(new FileAnswer(csv, "text/csv; charset=utf-8", { name: `${brief.name} shortlist.csv` }));
    }),
  writeSpdx: ({ db, params }) =>
    writeOf(db, params.id, (brief, styles) => {
      const json = writeSpdxFor(brief, styles);
      return succeed(new FileAnswer(json, "application/spdx+json", { name: `${brief.name}.spdx.json` }));
    }),
  writeCredits: ({ db, params }) =>
    writeOf(db, params.id, (brief, styles) => {
      const credits = writeShortlistCredits(brief, styles);
      return succeed(new FileAnswer(credits, "text/plain; charset=utf-8", { name: `${brief.name} credits.txt` }));
    }),
  planHandover: ({ db, params }) => found(planHandover(db, params.id)),
  startHandover: ({ db, params, body }) => startHandover(db, params.id, body),
  planWebkit: ({ db, params }) => found(planWebkit(db, params.id)),
  startWebkit: ({ db, params, body }) => startWebkit(db, params.id, body),
  listReviews: ({ db, params }) => succeed({ passes: listPassSummaries(db, params.id) }),
  startReview: ({ db, params, body }) => beginPass(db, params.id, body),
  getReview: ({ db, params }) => found(getPass(db, params.id, params.passId)),
  changeReview: ({ db, params, body }) => found(changePass(db, params.id, params.passId, body)),
  removeReview: ({ db, params: { id, passId } }) => found(forgetPass(db, id, passId) ? { passId } : null),
  listReviewItems: ({ db, params, query }) => {
    const items = listPassItems(db, params.id, params.passId, query.from, query.count);
    return found(items && { items });
  },
  putMark: ({ db, params, body }) => found(markPlace(db, params.id, params.passId, params.place, body.mark)),
  removeMark: ({ db, params }) => found(unmarkPlace(db, params.id, params.passId, params.place)),
};

/** A tab steps through its own changes; a script that does not say who it is, through all. */
const ownSteps = (request: Request, by: string) => (request.headers.has("x-who") ? by : null);

type Writer = (brief: Brief, styles: ShortlistStyle[]) => Outcome<FileAnswer> | Promise<Outcome<FileAnswer>>;

/** What is written of a brief's shortlist. */
function writeOf(db: Db, briefId: string, write: Writer): ReturnType<Writer> {
  if (!findBrief(db, briefId)) return refuse("not-found");
  const { brief, styles } = gatherShortlist(db, briefId);
  return styles.length ? write(brief, styles) : refuse("nothing-kept");
}
