// What answers pictures, documents and descriptions.
import { succeed } from "@/contracts/errors";
import type { IDENTIFY_OPERATIONS } from "@/contracts/operations/identify";
import type { FieldsOf } from "@/contracts/operations/operation";
import type { SheetKind } from "@/contracts/people";
import type { IdentifyStep, LayoutStep } from "@/contracts/identify";
import { findBrief } from "../queries/briefs";
import { describeFace } from "../usecases/describeFace";
import { listDocumentFonts, readDocumentPicture } from "../usecases/documents";
import {
  getIdentification,
  listSavedIdentifications,
  readIdentifiedPicture,
  removeIdentification,
  saveIdentification,
} from "../usecases/identifications";
import { identify, identifyLayout } from "../usecases/identify";
import { askPeople, getPeople, withdrawQuestion, writeQuestionSheetFor } from "../usecases/people";
import { FileAnswer, KEPT_FOR_EVER } from "./answers";
import { tellSteps } from "./tellSteps";
import { found, type Handlers } from "./bind";

const SHEET_TYPES: Record<SheetKind, string> = {
  pdf: "application/pdf",
  png: "image/png",
  html: "text/html; charset=utf-8",
};
/** A stranger's picture, opened by itself, runs nothing. */
const SANDBOX = { ...KEPT_FOR_EVER, "content-security-policy": "sandbox; default-src 'none'" };

type Fields = FieldsOf<(typeof IDENTIFY_OPERATIONS)["identify"]>;

function questionOf({ box, corners, baseline, sketch: isSketch, ...rest }: Fields) {
  const frame = { ...(box && { box }), ...(corners && { corners }), ...(baseline && { baseline }) };
  return { frame, isSketch, ...rest };
}

export const identifyHandlers: Handlers<keyof typeof IDENTIFY_OPERATIONS> = {
  identify: ({ db, file, fields, signal }) => identify(db, file, questionOf(fields), signal),
  identifyInSteps: ({ db, file, fields, signal }) =>
    succeed(
      tellSteps(
        (gone, tell) => identify(db, file, questionOf(fields), gone, tell),
        (answer): IdentifyStep => ({ step: "answered", answer }),
        signal,
      ),
    ),
  identifyLayout: ({ db, file, signal }) =>
    succeed(
      tellSteps(
        (gone, tell) => identifyLayout(db, file, gone, tell),
        (groups): LayoutStep => ({ step: "grouped", groups }),
        signal,
      ),
    ),
  listDocumentFonts: ({ db, file, signal }) => listDocumentFonts(db, file.name, file.bytes, signal),
  readDocumentPicture: async ({ file, fields, signal }) => {
    const taken = await readDocumentPicture(file, fields.at, signal);
    return taken.ok ? succeed(new FileAnswer(taken.value.picture, taken.value.type, { headers: SANDBOX })) : taken;
  },
  describeFace: ({ db, body }) => succeed(describeFace(db, body)),
  listIdentifications: ({ db, params }) =>
    found(findBrief(db, params.id) && { identifications: listSavedIdentifications(db, params.id) }),
  keepIdentification: ({ db, params, file, fields, signal }) =>
    saveIdentification(db, params.id, file, fields.state, signal),
  getIdentification: ({ db, params }) => found(getIdentification(db, params.id, params.identificationId)),
  removeIdentification: ({ db, params: { id, identificationId }, body }) =>
    found(removeIdentification(db, id, identificationId, body.removed) ? { identificationId } : null),
  getIdentifiedPicture: ({ db, params }) => {
    const picture = readIdentifiedPicture(db, params.id, params.identificationId);
    return found(picture && new FileAnswer(picture.bytes, picture.type, { headers: SANDBOX }));
  },
  writeQuestionSheet: async ({ db, params, query, signal }) => {
    const sheet = await writeQuestionSheetFor(db, params.id, params.identificationId, query.as, signal);
    if (!sheet.ok) return sheet;
    return succeed(new FileAnswer(sheet.value.bytes, SHEET_TYPES[query.as], { name: sheet.value.name }));
  },
  getSurvey: async ({ db, params }) => found(await getPeople(db, params.id, params.identificationId)),
  askPeople: ({ db, params }) => askPeople(db, params.id, params.identificationId),
  withdrawQuestion: async ({ db, params }) => found(await withdrawQuestion(db, params.id, params.identificationId)),
};
