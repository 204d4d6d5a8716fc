// What can be asked with a picture, a document or a description; what is kept of it; the survey of people.
import { z } from "zod";
import { Described, DescribeRequest } from "../describe";
import { DocumentFonts } from "../documents";
import { IdentificationId, IdentificationState, IdentificationSummary, SavedIdentification } from "../identifications";
import { Corner, HandCut, HandInk, Identification, PixelBox } from "../identify";
import { BriefId, StyleId } from "../ids";
import { MAX_DOCUMENT_BYTES, MAX_PICTURE_BYTES } from "../limits";
import { PeopleState, SheetKind } from "../people";
import { jsonField, operations } from "./operation";

const ofBrief = z.object({ id: BriefId });
const params = ofBrief.extend({ identificationId: IdentificationId });
/** Forms send what is left out as an empty field, too. */
const orNone = <T extends z.ZodType>(of: T) =>
  z.preprocess((value) => (value === "" || value === undefined ? null : value), of.nullable());
const picture = { file: "image", maxBytes: MAX_PICTURE_BYTES, tooLarge: "picture-too-large" } as const;

/** A question with a picture. */
const ASKED = {
  ...picture,
  fields: z.object({
    text: orNone(z.string().max(200)).describe("what the line says, where it is known"),
    box: jsonField(orNone(PixelBox)).describe("JSON {x,y,width,height} in pixels"),
    corners: jsonField(orNone(z.array(Corner).length(4))).describe(
      "JSON array of four {x,y}, clockwise from the top left",
    ),
    baseline: jsonField(orNone(z.array(Corner).length(3))).describe(
      "JSON array of three {x,y} on a curved baseline: its start, middle and end",
    ),
    cut: jsonField(orNone(HandCut)).describe(
      "JSON: the line as a person has cut it, see reading and strip of an answer",
    ),
    ink: jsonField(orNone(HandInk)).describe("JSON: what a person takes for ink, in pixels of the picture"),
    styleId: orNone(StyleId).describe("compare with this style alone"),
    sketch: z
      .preprocess((v) => v === "true", z.boolean())
      .describe("true: drawn by hand; the nearest faces by form, without a chance"),
    limit: z.coerce.number().int().min(1).max(40).default(12),
  }),
} as const;

export const IDENTIFY_OPERATIONS = operations({
  identify: {
    method: "post",
    path: "/identify",
    summary: "Identify the face of a line of lettering in a picture",
    access: "reader",
    form: ASKED,
    output: Identification,
  },
  identifyInSteps: {
    method: "post",
    path: "/identify/steps",
    summary:
      "The same, told while it is found: lines of JSON, the last of them the answer or why there is none (see IdentifyStep)",
    access: "reader",
    form: ASKED,
    file: ["application/x-ndjson"],
  },
  identifyLayout: {
    method: "post",
    path: "/identify/layout",
    summary:
      "Identify every line of lettering in a picture; lines in one face are answered together (lines of JSON, see LayoutStep)",
    access: "reader",
    form: { ...picture, fields: z.object({}) },
    file: ["application/x-ndjson"],
  },
  listDocumentFonts: {
    method: "post",
    path: "/documents",
    summary: "The fonts of a document and the faces of the libraries that answer to each",
    access: "reader",
    form: {
      file: "document",
      maxBytes: MAX_DOCUMENT_BYTES,
      tooLarge: "document-too-large",
      fields: z.object({}),
    },
    output: DocumentFonts,
  },
  readDocumentPicture: {
    method: "post",
    path: "/documents/picture",
    summary: "One picture of a document, to identify its lettering",
    access: "reader",
    form: {
      file: "document",
      maxBytes: MAX_DOCUMENT_BYTES,
      tooLarge: "document-too-large",
      fields: z.object({ at: z.coerce.number().int().min(0).max(999).describe("its place in the list of pictures") }),
    },
    file: ["image/png", "image/jpeg"],
  },
  describeFace: {
    method: "post",
    path: "/describe",
    summary: "The likeliest faces after some answers on letter shapes, and the question that would tell most",
    access: "reader",
    body: DescribeRequest,
    output: Described,
    reads: ["styles"],
  },
  listIdentifications: {
    method: "get",
    path: "/briefs/{id}/identifications",
    summary: "Identifications kept with a brief, the newest first",
    access: "reader",
    params: ofBrief,
    output: z.object({ identifications: z.array(IdentificationSummary) }),
    reads: ["identifications"],
  },
  keepIdentification: {
    method: "post",
    path: "/briefs/{id}/identifications",
    summary: "Keep an identification with a brief",
    access: "editor",
    params: ofBrief,
    form: {
      ...picture,
      fields: z.object({
        state: jsonField(IdentificationState).describe("JSON: frame, corners, baseline, ink, text, isTyped, result"),
      }),
    },
    output: SavedIdentification,
    status: 201,
    changes: ["identifications"],
  },
  getIdentification: {
    method: "get",
    path: "/briefs/{id}/identifications/{identificationId}",
    summary: "One identification as it was kept",
    access: "reader",
    params,
    output: SavedIdentification,
    reads: ["identifications"],
  },
  removeIdentification: {
    method: "patch",
    path: "/briefs/{id}/identifications/{identificationId}",
    summary: "Remove a kept identification, or bring it back",
    access: "editor",
    params,
    body: z.object({ removed: z.boolean() }),
    output: z.object({ identificationId: IdentificationId }),
    changes: ["identifications"],
  },
  getIdentifiedPicture: {
    method: "get",
    path: "/briefs/{id}/identifications/{identificationId}/image",
    summary: "The picture of a kept identification",
    access: "reader",
    params,
    file: ["image/*"],
  },
  writeQuestionSheet: {
    method: "get",
    path: "/briefs/{id}/identifications/{identificationId}/sheet",
    summary: "The question as a sheet to be sent by hand: PDF, PNG or HTML",
    access: "reader",
    params,
    query: z.object({ as: SheetKind.default("pdf") }),
    file: ["application/pdf", "image/png", "text/html"],
  },
  getSurvey: {
    method: "get",
    path: "/briefs/{id}/identifications/{identificationId}/question",
    summary: "What people have answered so far; the desk is asked for news",
    access: "reader",
    params,
    output: PeopleState,
    reads: ["survey"],
  },
  askPeople: {
    method: "post",
    path: "/briefs/{id}/identifications/{identificationId}/question",
    summary: "Post the question to the desk, or send again what did not reach it",
    access: "editor",
    params,
    output: PeopleState,
    status: 202,
    changes: ["survey"],
  },
  withdrawQuestion: {
    method: "delete",
    path: "/briefs/{id}/identifications/{identificationId}/question",
    summary: "Withdraw the question",
    access: "editor",
    params,
    output: PeopleState,
    changes: ["survey"],
  },
});
