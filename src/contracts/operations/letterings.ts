// Letterings of a brief, and what can be asked of a document: where its letters stand, what would go wrong, files.
import { z } from "zod";
import { InkColour } from "../colours";
import { BriefId } from "../ids";
import {
  Lettering,
  LETTERING_FORMATS,
  LetteringCheck,
  LetteringDocument,
  LetteringId,
  LetteringLayout,
  Material,
} from "../lettering";
import { CUT_FORMATS, Plot, Plotter } from "../plotter";
import { operations } from "./operation";

const ofBrief = z.object({ id: BriefId });
const ofLettering = z.object({ id: LetteringId });
const Name = z.string().trim().min(1).max(120);

export const LetteringCreate = z.object({ name: Name, document: LetteringDocument });
export type LetteringCreate = z.infer<typeof LetteringCreate>;
export const LetteringPatch = z.object({
  name: Name.optional(),
  document: LetteringDocument.optional(),
  version: z.number().int().optional().describe("of the lettering that was changed: an older one is refused (409)"),
  deleted: z.literal(false).optional().describe("brings back what was deleted"),
});
export type LetteringPatch = z.infer<typeof LetteringPatch>;

export const LetteringFileRequest = z.object({
  document: LetteringDocument,
  format: z.enum(LETTERING_FORMATS),
  widthPx: z.number().int().min(1).max(20_000).optional().describe("of PNG, JPEG and OpenRaster; absent: 300 a inch"),
  text: z.enum(["outlines", "live"]).optional().describe("SVG: letters as outlines, or as text in the embedded face"),
  bleedMm: z.number().min(0).max(100).optional().describe("PDF: the ground goes on so far past the sheet"),
  marks: z.boolean().optional().describe("PDF: cut marks at the corners of the sheet"),
  paper: InkColour.optional().describe("JPEG of a document without a ground stands on it; absent: white"),
});
export type LetteringFileRequest = z.infer<typeof LetteringFileRequest>;

/** What a lettering is written as: media type and file extension. */
export const LETTERING_FILES = {
  svg: { type: "image/svg+xml", extension: "svg" },
  pdf: { type: "application/pdf", extension: "pdf" },
  dxf: { type: "image/vnd.dxf", extension: "dxf" },
  hpgl: { type: "application/vnd.hp-hpgl", extension: "plt" },
  png: { type: "image/png", extension: "png" },
  jpeg: { type: "image/jpeg", extension: "jpg" },
  ora: { type: "image/openraster", extension: "ora" },
} as const;

export const LETTERING_OPERATIONS = operations({
  listLetterings: {
    method: "get",
    path: "/briefs/{id}/letterings",
    summary: "The letterings of a brief, the first first",
    access: "reader",
    params: ofBrief,
    output: z.object({ letterings: z.array(Lettering) }),
    reads: ["letterings"],
  },
  createLettering: {
    method: "post",
    path: "/briefs/{id}/letterings",
    summary: "Start a lettering",
    access: "editor",
    params: ofBrief,
    body: LetteringCreate,
    output: Lettering,
    status: 201,
    changes: ["letterings"],
  },
  getLettering: {
    method: "get",
    path: "/letterings/{id}",
    summary: "One lettering with its document",
    access: "reader",
    params: ofLettering,
    output: Lettering,
    reads: ["letterings"],
  },
  changeLettering: {
    method: "patch",
    path: "/letterings/{id}",
    summary: "Change a lettering's document, as one step, or its name",
    access: "editor",
    params: ofLettering,
    body: LetteringPatch,
    output: Lettering,
    changes: ["letterings"],
  },
  deleteLettering: {
    method: "delete",
    path: "/letterings/{id}",
    summary: "Delete a lettering; it can be brought back",
    access: "editor",
    params: ofLettering,
    output: z.object({ letteringId: LetteringId }),
    changes: ["letterings"],
  },
  undoLettering: {
    method: "post",
    path: "/letterings/{id}/undo",
    summary: "Undo the last step",
    access: "editor",
    params: ofLettering,
    output: Lettering,
    changes: ["letterings"],
  },
  redoLettering: {
    method: "post",
    path: "/letterings/{id}/redo",
    summary: "Do an undone step again",
    access: "editor",
    params: ofLettering,
    output: Lettering,
    changes: ["letterings"],
  },
  writeLettering: {
    method: "post",
    path: "/lettering",
    summary: "A document as a file, in true size",
    access: "reader",
    body: LetteringFileRequest,
    file: Object.values(LETTERING_FILES).map((f) => f.type),
    reads: ["styles"],
  },
  layoutLettering: {
    method: "post",
    path: "/lettering/layout",
    summary: "Where every glyph of a document stands",
    access: "reader",
    body: z.object({ document: LetteringDocument }),
    output: LetteringLayout,
    reads: ["styles"],
  },
  checkLettering: {
    method: "post",
    path: "/lettering/check",
    summary: "What would go wrong with a document in a material",
    access: "reader",
    body: z.object({ document: LetteringDocument, material: Material }),
    output: LetteringCheck,
    reads: ["styles"],
  },
  getPlotter: {
    method: "get",
    path: "/plotter",
    summary: "The cutting plotter that is connected",
    access: "reader",
    output: z.object({ plotter: Plotter.nullable().describe("null where none is connected") }),
  },
  sendToPlotter: {
    method: "post",
    path: "/plotter/plots",
    summary: "Send a document to the plotter as a cut file, and see what it cuts of it",
    access: "editor",
    body: z.object({ document: LetteringDocument, format: z.enum(CUT_FORMATS) }),
    output: Plot,
    status: 201,
  },
});
