// The contact sheet of a brief: how it is laid out, and as what it is written.
import { z } from "zod";

export const SHEET_FORMATS = ["pdf", "png", "svg", "html"] as const;
export type SheetFormat = (typeof SHEET_FORMATS)[number];
export const SheetQuery = z.object({
  format: z.enum(SHEET_FORMATS).default("pdf"),
  layout: z.enum(["rows", "large", "columns"]).default("rows").describe("large: one face a page"),
  columns: z.coerce.number().int().min(2).max(6).default(2).describe("with the layout in columns"),
  words: z.enum(["brief", "document"]).default("brief").describe("document: what a face of its kind is used for"),
  size: z.enum(["level", "real"]).default("level").describe("real: the first line at the size that the brief says"),
});
export type SheetQuery = z.infer<typeof SheetQuery>;
