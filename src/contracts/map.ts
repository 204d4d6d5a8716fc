// The map of Find: every family once, near what it resembles.
import { z } from "zod";
import { FamilyId, StyleId } from "./ids";
import { ShownItem } from "./styles";

/** A cell as it is drawn at its own size: a word is wider than high. */
export const MAP_CELL = { width: 132, height: 40 };

export const FaceMap = z.object({
  version: z.string().describe("changes when a family comes, goes or is measured again"),
  columns: z.number(),
  rows: z.number(),
  faces: z.array(
    z.object({
      styleId: StyleId.describe("the plainest style of the family"),
      familyId: FamilyId,
      family: z.string(),
      cell: z.number().describe("row × columns + column"),
      core: z.array(z.number().nullable()).describe("the six bands of its core sample, 0–1"),
    }),
  ),
  regions: z.array(
    z.object({ word: z.string(), column: z.number(), row: z.number(), columns: z.number(), rows: z.number() }),
  ),
});
export type FaceMap = z.infer<typeof FaceMap>;

export const MapFound = z.object({
  version: z.string(),
  families: z.number(),
  fits: z
    .array(z.number())
    .describe("in the order of the map's faces: 0–1 how well the family fits; −1: it does not pass"),
});
export type MapFound = z.infer<typeof MapFound>;

const MOST_FACES = 120;
export const MapFacesQuery = z.object({
  briefId: z.string(),
  ids: z
    .preprocess((v) => (typeof v === "string" ? v.split(",").filter(Boolean) : v), z.array(StyleId).max(MOST_FACES))
    .describe("styles, separated by commas"),
});
export const MapFaces = z.object({ items: z.array(ShownItem) });
