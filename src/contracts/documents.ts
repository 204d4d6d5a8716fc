// What a document names as its fonts, and what of the libraries answers to each.
import { z } from "zod";
import { FamilyId, StyleId } from "./ids";

export const DOCUMENT_KINDS = ["pdf", "html", "css", "svg", "docx", "odt", "pptx", "epub", "zip"] as const;
export type DocumentKind = (typeof DOCUMENT_KINDS)[number];

const AlikeFace = z.object({
  styleId: StyleId,
  familyId: FamilyId,
  family: z.string(),
  style: z.string(),
  steps: z.number().describe("how far its letters are, in steps as between two neighbouring weights"),
});

export const DocumentFont = z.object({
  name: z.string().describe("as the document writes it; in PDF with the tag of a subset"),
  family: z.string().optional(),
  style: z.string().optional(),
  embedded: z.boolean(),
  subset: z.boolean(),
  usedFor: z.string().optional().describe("where it is used, in words"),
  sample: z.string().optional().describe("characters that are set in it, the first of them"),
  styleId: StyleId.optional(),
  familyId: FamilyId.optional(),
  matchedBy: z
    .enum(["outlines", "name", "family"])
    .optional()
    .describe("family: the family is here, this style of it is not"),
  alike: z.array(AlikeFace).optional().describe("nearest of the libraries, where the font itself is not there"),
  alikeBy: z.enum(["outlines", "widths"]).optional(),
});
export type DocumentFont = z.infer<typeof DocumentFont>;

export const DocumentPicture = z.object({
  page: z.number().nullable().describe("of a PDF, from 1"),
  part: z.string().nullable().describe("of an archive: its path"),
  widthPx: z.number().nullable(),
  heightPx: z.number().nullable(),
});
export type DocumentPicture = z.infer<typeof DocumentPicture>;

export const DocumentFonts = z.object({
  kind: z.enum(DOCUMENT_KINDS),
  name: z.string(),
  fonts: z.array(DocumentFont),
  // Lists that were kept earlier do not have them.
  pictures: z.array(DocumentPicture).default([]).describe("its pictures, whose lettering can be identified"),
  tookMs: z.number(),
});
export type DocumentFonts = z.infer<typeof DocumentFonts>;
