// Libraries, basket, orders and the font log, as they stand in the interface.
import { z } from "zod";
import { JobId, LibraryId, StyleId } from "./ids";
import { Job } from "./jobs";
import { Use, Verdict } from "./traits";

export const Library = z.object({
  libraryId: LibraryId,
  name: z.string(),
  kind: z.enum(["own", "folder", "opds"]),
  url: z.string().nullable(),
  state: z.enum(["connected", "paused"]),
  addedAt: z.string(),
  syncedAt: z.string().nullable(),
  fault: z.object({ code: z.string(), message: z.string(), at: z.string() }).nullable(),
  styles: z.number(),
  families: z.number(),
  notOwned: z.number(),
  refused: z.number().describe("publications that could not be taken, or not whole, at the last sync"),
  job: Job.nullable().describe("the sync or reading that runs or waits"),
});
export type Library = z.infer<typeof Library>;

export const LibraryAdd = z.object({
  kind: z.enum(["opds", "folder"]),
  address: z.string().trim().min(1).max(2000),
  name: z.string().trim().max(80).optional(),
});
/** A folder where this system keeps fonts. */
export const SystemFolder = z.object({
  path: z.string(),
  name: z.string(),
  fontCount: z.number().describe("font files in it and below, by name"),
});
export type SystemFolder = z.infer<typeof SystemFolder>;
export const LibraryPatch = z.object({
  state: z.enum(["connected", "paused"]).optional(),
  name: z.string().trim().min(1).max(80).optional(),
});

export const PublicationLine = z.object({
  publicationId: z.string(),
  title: z.string(),
  outcome: z.string(),
  detail: z.string().nullable(),
});
export type PublicationLine = z.infer<typeof PublicationLine>;

export const SettingQuery = z.object({ text: z.string().min(1).max(120) });
export const SetLineReply = z.object({ path: z.string(), widthFu: z.number(), unitsPerEm: z.number() });
export type SetLineReply = z.infer<typeof SetLineReply>;

export const EvidenceAdd = z.object({
  kind: z
    .enum(["user", "receipt"])
    .describe("receipt: a permission in writing, or a receipt; lifts what had to be asked or bought"),
  text: z.string().trim().min(3).max(20_000),
  note: z.string().trim().max(2000).default(""),
});
export const EvidencePatch = z.object({ removed: z.boolean() });

export const BasketLine = z.object({
  styleId: StyleId,
  libraryId: LibraryId,
  name: z.string(),
  uses: z.array(Use),
  cents: z.number(),
  currency: z.string(),
});
export type BasketLine = z.infer<typeof BasketLine>;
export const BasketPut = z.object({ uses: z.array(Use).min(1) });
export const Basket = z.object({
  lines: z.array(BasketLine),
  totalCents: z.number().describe("of the first currency alone"),
  currency: z.string(),
  totals: z.array(z.object({ currency: z.string(), cents: z.number() })).describe("a sum for each currency"),
});
export type Basket = z.infer<typeof Basket>;

export const OrderPlace = z.object({
  libraryId: LibraryId,
  key: z
    .string()
    .regex(/^[a-z0-9]{16,40}$/)
    .optional()
    .describe("made by whoever presses the button, once: the same key orders once"),
  holder: z.string().trim().max(120).optional().describe("in whose name the licence is bought"),
});
export const Order = z.object({
  orderId: z.string(),
  libraryId: LibraryId,
  state: z.enum(["placed", "delivered", "failed"]),
  lines: z.array(
    z.object({
      styleId: StyleId,
      name: z.string(),
      uses: z.array(Use),
      cents: z.number(),
      state: z.enum(["delivered", "failed"]).optional(),
    }),
  ),
  totalCents: z.number(),
  currency: z.string(),
  receipt: z.string().nullable(),
  placedAt: z.string(),
  holder: z.string().nullable().describe("in whose name the licence is; null: nobody said"),
});
export type Order = z.infer<typeof Order>;
export const OrderStarted = z.object({ orderId: z.string(), jobId: JobId });

export const LogQuery = z.object({
  format: z.string().max(10).optional().describe("csv: all lines as a file"),
  q: z.string().max(200).optional(),
  limit: z.coerce.number().int().min(1).max(200).default(100),
  cursor: z
    .string()
    .regex(/^\d{1,7}$/)
    .optional(),
});
export const LogLine = z.object({
  styleId: StyleId,
  family: z.string(),
  style: z.string(),
  library: z.string(),
  path: z.string(),
  importedAt: z.string(),
  sha256: z.string(),
  licence: z.string(),
  verdict: Verdict.describe("for goods for sale"),
  owned: z.boolean(),
});
export type LogLine = z.infer<typeof LogLine>;
export const Log = z.object({ total: z.number(), lines: z.array(LogLine), cursor: z.string().optional() });
export type Log = z.infer<typeof Log>;
