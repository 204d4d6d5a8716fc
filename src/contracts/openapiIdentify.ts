// The part of the HTTP interface that identifies: pictures, questions, documents, what is kept of them, people. A table, read by openapi.ts.
import { z } from "zod";
import { Described, DescribeRequest } from "./describe";
import { DocumentFonts } from "./documents";
import { IdentificationId, IdentificationSummary, SavedIdentification } from "./identifications";
import { Beside, BesideQuery, Identification } from "./identify";
import { binary, type Operation } from "./operation";
import { PeopleState, SheetKind } from "./people";

export const IDENTIFY_OPERATIONS: Operation[] = [
  {
    method: "post",
    path: "/identify",
    says: "Identifies the face of a line of lettering in a picture",
    form: {
      image: binary,
      text: { type: "string" },
      box: { type: "string", description: "JSON {x,y,width,height} in pixels" },
      corners: { type: "string", description: "JSON array of four {x,y}, clockwise from the top left" },
      sketch: { type: "string", description: "true: drawn by hand; the nearest faces by form, without a chance" },
      baseline: {
        type: "string",
        description: "JSON array of three {x,y} on a curved baseline: its begin, middle and end",
      },
      cut: { type: "string", description: "JSON: the line as a person has cut it, see reading and strip of an answer" },
      styleId: { type: "string", description: "compare with this style alone" },
      limit: { type: "integer" },
    },
    gives: Identification,
  },
  {
    method: "get",
    path: "/styles/{id}/beside",
    says: "Where a style and another differ in one letter",
    query: BesideQuery,
    gives: Beside,
  },
  {
    method: "post",
    path: "/documents",
    says: "The fonts of a document and what of the libraries answers to each",
    form: { document: binary },
    gives: DocumentFonts,
  },
  {
    method: "post",
    path: "/describe",
    says: "The likeliest faces after some answers on letter shapes, and the question that would tell most",
    body: DescribeRequest,
    gives: Described,
  },
  {
    method: "get",
    path: "/briefs/{id}/identifications",
    says: "Identifications kept with a brief, the newest first",
    gives: z.object({ identifications: z.array(IdentificationSummary) }),
  },
  {
    method: "post",
    path: "/briefs/{id}/identifications",
    says: "Keeps an identification",
    form: { image: binary, state: { type: "string", description: "JSON: frame, corners, text, isTyped, result" } },
    gives: SavedIdentification,
    status: 201,
  },
  {
    method: "get",
    path: "/briefs/{id}/identifications/{identificationId}",
    says: "One identification as it was kept",
    gives: SavedIdentification,
  },
  {
    method: "patch",
    path: "/briefs/{id}/identifications/{identificationId}",
    says: "Removes it, or brings it back",
    body: z.object({ removed: z.boolean() }),
    gives: z.object({ identificationId: IdentificationId }),
  },
  {
    method: "get",
    path: "/briefs/{id}/identifications/{identificationId}/sheet",
    says: "The question sheet to be sent by hand, as PDF, PNG or HTML",
    query: z.object({ as: SheetKind.default("pdf") }),
    file: "application/pdf",
  },
  {
    method: "get",
    path: "/briefs/{id}/identifications/{identificationId}/question",
    says: "How the question to people stands; the desk is asked for news",
    gives: PeopleState,
  },
  {
    method: "post",
    path: "/briefs/{id}/identifications/{identificationId}/question",
    says: "Leaves the question at the desk, or sends again what did not reach it",
    gives: PeopleState,
    status: 202,
  },
  {
    method: "delete",
    path: "/briefs/{id}/identifications/{identificationId}/question",
    says: "Takes the question back",
    gives: PeopleState,
  },
];
