// Styles as they are listed, filtered and shown whole.
import { z } from "zod";
import { BriefId, FamilyId, LibraryId, StyleId } from "./ids";
import { Rights } from "./rights";
import { Axis, CodePointRanges, Health, Kind, KindGuess, Traits, Treatment, TreatmentGuess, Verdict } from "./traits";

export const STYLE_SORTS = ["fit", "name", "newest", "weight", "width"] as const;

const list = <T extends z.ZodType>(of: T) =>
  z.preprocess((v) => (typeof v === "string" ? v.split(",").filter(Boolean) : v), z.array(of).optional());
const flag = z.preprocess(
  (v) => (v === "" || v === undefined ? undefined : v === "true" || v === true),
  z.boolean().optional(),
);
const number = z.coerce.number().optional();

/** The words of the find field and the filters of the sieve, as they stand in the address and in GET /styles. */
export const StyleQuery = z.object({
  q: z.string().max(200).optional(),
  kinds: list(Kind),
  treatments: list(Treatment),
  verdicts: list(Verdict),
  weightMin: number,
  weightMax: number,
  widthMin: number,
  widthMax: number,
  pictures: z.enum(["in", "out", "only"]).optional(),
  complete: flag,
  aside: z.enum(["hide", "show", "only"]).optional(),
  familyId: FamilyId.optional(),
  library: LibraryId.optional(),
  owned: z.enum(["all", "here", "to-buy"]).optional(),
  sort: z.enum(STYLE_SORTS).optional(),
  limit: z.coerce.number().int().min(1).max(200).default(60),
  cursor: z
    .string()
    .regex(/^\d{1,7}$/)
    .optional(),
  briefId: BriefId.optional(),
});
export type StyleQuery = z.infer<typeof StyleQuery>;

export const StyleListItem = z.object({
  styleId: StyleId,
  familyId: FamilyId,
  family: z.string(),
  style: z.string(),
  library: LibraryId,
  kinds: z.array(Kind),
  treatments: z.array(Treatment),
  verdict: Verdict,
  traits: Traits,
  stylesInFamily: z.number(),
  missing: z.array(z.string()).describe("characters of the brief that the face lacks"),
  coverage: CodePointRanges,
  health: z.enum(["fine", "with-care", "refused"]),
  axisDefaults: z.record(z.string(), z.number()).describe("empty when the font is not variable"),
  owned: z.boolean().describe("false: a library sells it; samples come from its setting service"),
  price: z
    .object({ cents: z.number(), currency: z.string() })
    .nullable()
    .describe("of the brief's uses together, where all of them are sold"),
});
export type StyleListItem = z.infer<typeof StyleListItem>;

export const Facets = z.object({
  kinds: z.record(z.string(), z.number()),
  verdicts: z.record(z.string(), z.number()),
  weight: z.array(z.number()),
  width: z.array(z.number()),
  pictures: z.object({ in: z.number(), out: z.number() }),
  complete: z.number(),
  owned: z.object({ here: z.number(), toBuy: z.number() }),
});
export type Facets = z.infer<typeof Facets>;

export const Understood = z.object({
  words: z.array(z.object({ label: z.string(), from: z.string() })),
  ignored: z.array(z.string()),
});
export type Understood = z.infer<typeof Understood>;

export const StyleList = z.object({
  total: z.number(),
  ofAll: z.number(),
  items: z.array(StyleListItem),
  cursor: z.string().optional(),
  facets: Facets,
  understood: Understood,
  ranges: z.record(z.string(), z.tuple([z.number(), z.number()])),
});
export type StyleList = z.infer<typeof StyleList>;

export const StyleDetail = z.object({
  styleId: StyleId,
  familyId: FamilyId,
  family: z.string(),
  style: z.string(),
  library: LibraryId,
  names: z.record(z.string(), z.string()),
  foundry: z.string().nullable(),
  designer: z.string().nullable(),
  version: z.string().nullable(),
  formats: z.array(z.string()),
  kinds: z.array(KindGuess),
  treatments: z.array(TreatmentGuess),
  traits: Traits,
  ranges: z.record(z.string(), z.tuple([z.number(), z.number()])),
  codePoints: CodePointRanges,
  coverage: z.object({
    count: z.number(),
    blocks: z.array(z.object({ name: z.string(), have: z.number(), of: z.number() })),
  }),
  glyphCount: z.number(),
  unitsPerEm: z.number(),
  axes: z.array(Axis),
  instances: z.array(z.object({ name: z.string(), coordinates: z.record(z.string(), z.number()) })),
  features: z.array(z.string()),
  health: Health,
  rights: Rights,
  verdict: Verdict,
  missing: z.array(z.string()),
  provenance: z.array(
    z.object({
      library: z.string(),
      libraryName: z.string(),
      path: z.string(),
      importedAt: z.string(),
      sha256: z.string(),
    }),
  ),
  sha256: z.string(),
  libraryName: z.string(),
  owned: z.boolean(),
  offer: z
    .object({ currency: z.string(), pricesCents: z.record(z.string(), z.number()), hasSetting: z.boolean() })
    .nullable(),
  price: z.object({ cents: z.number(), currency: z.string() }).nullable(),
  alternatives: z.array(z.object({ sha256: z.string(), format: z.string(), name: z.string(), addedAt: z.string() })),
  changes: z.array(z.object({ at: z.string(), what: z.string(), says: z.string() })),
  siblings: z.array(
    z.object({
      styleId: StyleId,
      style: z.string(),
      weight: z.number().nullable(),
      variable: z.boolean(),
      owned: z.boolean(),
      axisDefaults: z.record(z.string(), z.number()),
    }),
  ),
});
export type StyleDetail = z.infer<typeof StyleDetail>;

export const Glyph = z.object({
  id: z.number(),
  name: z.string(),
  codePoints: z.array(z.number()),
  features: z.array(z.string()),
  advance: z.number(),
  path: z.string().describe("SVG path in font units, y down"),
});
export type Glyph = z.infer<typeof Glyph>;
export const GlyphQuery = z.object({
  block: z.string().max(80).optional(),
  q: z.string().max(80).optional(),
  limit: z.coerce.number().int().min(1).max(200).default(200),
  cursor: z
    .string()
    .regex(/^\d{1,6}$/)
    .optional(),
});
export const GlyphList = z.object({
  total: z.number(),
  unitsPerEm: z.number(),
  ascender: z.number(),
  descender: z.number(),
  glyphs: z.array(Glyph),
  cursor: z.string().optional(),
});
export type GlyphList = z.infer<typeof GlyphList>;
