// Styles as they are listed, filtered and shown whole.
import { z } from "zod";
import { BriefId, FamilyId, LibraryId, StyleId } from "./ids";
import { Rights } from "./rights";
import {
  Axis,
  CodePointRanges,
  Health,
  Kind,
  KindGuess,
  MeasureNotes,
  MoodGuess,
  SIEVE_TRAITS,
  Traits,
  Treatment,
  TreatmentGuess,
  Verdict,
  VOX,
  VoxGuess,
} from "./traits";

/** Orders of the wall by name; any number trait orders too, "-" before it turns it round. */
const STYLE_SORTS = ["fit", "name", "newest", "popular", "styles", "near"] as const;
const SORTS = new Set<string>([...STYLE_SORTS, ...SIEVE_TRAITS.flatMap((t) => [t, `-${t}`])]);
/** One range of the sieve: "contrast:1.5~3", "xHeightEm:0.5~". */
export const TraitRange = z.object({
  trait: z.enum(SIEVE_TRAITS),
  low: z.number().nullable(),
  high: z.number().nullable(),
});
export type TraitRange = z.infer<typeof TraitRange>;
const RANGE_WORDS = /^([A-Za-z]{2,20}):(-?\d+(?:\.\d+)?)?~(-?\d+(?:\.\d+)?)?$/;
export const parseRange = (text: string): TraitRange | null => {
  const m = text.match(RANGE_WORDS);
  const trait = SIEVE_TRAITS.find((t) => t === m?.[1]);
  return m && trait ? { trait, low: m[2] ? Number(m[2]) : null, high: m[3] ? Number(m[3]) : null } : null;
};
export const writeRange = ({ trait, low, high }: TraitRange) => `${trait}:${low ?? ""}~${high ?? ""}`;

const list = <T extends z.ZodType>(of: T) =>
  z.preprocess((v) => (typeof v === "string" ? v.split(",").filter(Boolean) : v), z.array(of).optional());
const flag = z.preprocess(
  (v) => (v === "" || v === undefined ? undefined : v === "true" || v === true),
  z.boolean().optional(),
);
const number = z.coerce.number().optional();

/** The words of the find field and the filters of the sieve, as they stand in the address and in GET /styles. */
export const StyleFileQuery = z.object({
  part: z
    .string()
    .regex(/^[0-9a-f]{64}$/)
    .optional()
    .describe("sha256 of one of the style's parts; absent: its main file"),
  packing: z.enum(["original", "none"]).optional().describe("none: the tables without WOFF or WOFF2 around them"),
});

/** Faces of a wall that are asked for at once: as many as the first screens choose for their range. */
export const WALL_PAGE = 48;

export const StyleQuery = z.object({
  q: z.string().max(200).optional(),
  kinds: list(Kind),
  treatments: list(Treatment),
  verdicts: list(Verdict),
  weightMin: number,
  weightMax: number,
  widthMin: number,
  widthMax: number,
  traits: z
    .preprocess(
      (v) => (typeof v === "string" ? v.split(",").filter(Boolean).map(parseRange) : v),
      z.array(TraitRange).optional(),
    )
    .describe("ranges of any number trait: trait:low~high, separated by commas"),
  moods: list(z.string().max(40)),
  vox: list(z.enum(VOX)),
  features: list(z.string().max(4)),
  axes: list(z.string().max(4)),
  languages: list(z.string().max(12)),
  formats: list(z.string().max(8)),
  health: list(z.enum(["fine", "with-care", "refused"])),
  libraries: list(LibraryId),
  figures: list(z.enum(["lining", "old-style", "tabular", "proportional"])),
  cases: list(z.enum(["both", "capitals-only", "small-capitals"])),
  chars: z.string().max(100).optional().describe("characters that the face must have"),
  stylesMin: number,
  weightsMin: number,
  italics: flag,
  priceMax: number.describe("of the brief's uses together, in whole units"),
  near: StyleId.optional().describe("the face that nearness is measured to"),
  fold: flag.describe("one style per family: the one that fits best"),
  open: list(FamilyId).describe("families whose other styles follow that one"),
  learn: flag.describe("what is like that which the brief keeps first, from five marks on"),
  nearest: flag.describe(
    "when nothing is all that was asked: what comes nearest, and what each part of the question costs",
  ),
  pictures: z.enum(["in", "out", "only"]).optional(),
  complete: flag,
  aside: z.enum(["hide", "show", "only"]).optional(),
  familyId: FamilyId.optional(),
  library: LibraryId.optional(),
  owned: z.enum(["all", "here", "to-buy"]).optional(),
  sort: z
    .string()
    .refine((s) => SORTS.has(s), "an order by name, or a number trait with or without - before it")
    .optional()
    .describe("fit, name, newest, popular, styles, near, or a number trait; - before a trait turns it round"),
  limit: z.coerce.number().int().min(1).max(200).default(60),
  cursor: z
    .string()
    .regex(/^\d{1,7}$/)
    .optional(),
  briefId: BriefId.optional(),
});
export type StyleQuery = z.infer<typeof StyleQuery>;

/** Words of a face's own script, set where a line has no letter of it. */
export const OwnWords = z.object({
  script: z.string().describe("its name"),
  scripts: z.array(z.string()).describe("of its letters, ISO 15924"),
  text: z.string(),
  isAsked: z.boolean().describe("a language was asked for; else the face lacks the Latin alphabet"),
});
export type OwnWords = z.infer<typeof OwnWords>;

/** One file of a style that came cut by character. */
export const StylePart = z.object({
  sha256: z.string(),
  format: z.string(),
  path: z.string(),
  characters: z.number(),
  scripts: z.array(z.string()).describe("by name, those with most characters first"),
  unicodeRange: z.string().describe("as CSS writes it"),
});
export type StylePart = z.infer<typeof StylePart>;

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
  stylesFound: z.number().describe("when families are folded: how many styles of the family fit; else 1"),
  missing: z.array(z.string()).describe("characters of the brief that the face lacks"),
  coverageKey: z.string().describe("in `coverages`: many styles have the same"),
  parts: z.number().describe("files that add characters to its main file: a face that came cut by character"),
  health: z.enum(["fine", "with-care", "refused"]),
  axisDefaults: z.record(z.string(), z.number()).describe("empty when the font is not variable"),
  axisWanted: z.record(z.string(), z.number()).describe("axis values at which a variable font is what was asked for"),
  owned: z.boolean().describe("false: a library sells it; samples come from its setting service"),
  price: z
    .object({ cents: z.number(), currency: z.string() })
    .nullable()
    .describe("of the brief's uses together, where all of them are sold"),
  fit: z
    .object({ degree: z.number(), because: z.array(z.string()) })
    .nullable()
    .describe("how well it fits the words, 0–1, and what of it does; null where words only let pass or stop"),
});
export type StyleListItem = z.infer<typeof StyleListItem>;
/** With its coverage beside it, as samples need it. */
export const ShownItem = StyleListItem.extend({ coverage: CodePointRanges, own: OwnWords.nullable() });
export type ShownItem = z.infer<typeof ShownItem>;

const counts = z.record(z.string(), z.number());
export const Facets = z.object({
  traits: z.record(z.string(), z.object({ range: z.tuple([z.number(), z.number()]), bins: z.array(z.number()) })),
  kinds: counts,
  treatments: counts,
  moods: counts,
  vox: counts,
  verdicts: counts,
  features: counts,
  axes: counts,
  formats: counts,
  health: counts,
  libraries: counts,
  languages: counts,
  figures: counts,
  cases: counts,
  styles: z.array(z.number()).describe("families of at least 1, 2, 4, 8, 16 styles"),
  weights: z.array(z.number()).describe("families of at least 1, 2, 4, 8, 16 weights"),
  italics: z.number(),
  price: z.array(z.number()).describe("at no charge, up to 20, 40, 60, 100"),
  pictures: z.object({ in: z.number(), out: z.number() }),
  complete: z.number(),
  owned: z.object({ here: z.number(), toBuy: z.number() }),
});
export type Facets = z.infer<typeof Facets>;

export const Understood = z.object({
  words: z.array(
    z.object({
      label: z.string(),
      from: z.string(),
      theme: z
        .object({
          phrase: z.string().describe("the words as corrections know them"),
          near: z.array(z.string()).describe("the themes that it was read by, the nearest first"),
          looks: z.array(z.object({ name: z.string(), because: z.string(), weight: z.number() })),
        })
        .optional()
        .describe("of words for what lettering is for or feels like"),
    }),
  ),
  ignored: z.array(z.string()),
  nearest: z
    .object({
      total: z.number(),
      lacks: z.number().describe("how many parts of the question what is shown lacks"),
      without: z
        .array(
          z.object({
            parts: z.array(z.object({ label: z.string(), from: z.string(), facet: z.string() })),
            count: z.number(),
          }),
        )
        .describe("what would be there without some parts"),
    })
    .optional()
    .describe("when nothing is all that was asked"),
});
export type Understood = z.infer<typeof Understood>;

export const StyleList = z.object({
  total: z.number(),
  families: z.number(),
  coverages: z.record(z.string(), CodePointRanges),
  ownWords: z.record(z.string(), OwnWords).describe("by coverageKey, of faces that need words of their own"),
  ofAll: z.number(),
  items: z.array(StyleListItem),
  named: z.array(StyleListItem).describe("families that go by a word which was read as something else"),
  taste: z
    .object({ says: z.array(z.string()), marks: z.number() })
    .nullable()
    .describe("what the kept faces of the brief have in common, when it was learnt from"),
  cursor: z.string().optional(),
  facets: Facets,
  understood: Understood,
  ranges: z.record(z.string(), z.tuple([z.number(), z.number()])),
});
export type StyleList = z.infer<typeof StyleList>;

const differences = z.array(z.object({ trait: z.string(), says: z.string() }));
export const AlikeList = z.object({
  items: z.array(ShownItem.extend({ distance: z.number(), differs: differences })),
  understood: Understood,
  ranges: z.record(z.string(), z.tuple([z.number(), z.number()])),
});
export type AlikeList = z.infer<typeof AlikeList>;

export const SuggestQuery = z.object({ q: z.string().max(200).default("") });
export const Suggestions = z.object({
  suggestions: z.array(
    z.object({ kind: z.enum(["family", "foundry", "word"]), label: z.string(), becomes: z.string(), note: z.string() }),
  ),
});
export type Suggestions = z.infer<typeof Suggestions>;

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
  notes: MeasureNotes,
  vox: VoxGuess.nullable(),
  moods: z.array(MoodGuess),
  tags: z.array(z.object({ tag: z.string(), holds: z.boolean() })).describe("what the user said of the family"),
  keywords: z
    .array(z.object({ keyword: z.string(), libraryName: z.string() }))
    .describe("what libraries say of the family"),
  languages: z.array(z.object({ code: z.string(), name: z.string() })),
  languagesOf: z.number().describe("of how many languages"),
  spread: z
    .record(
      z.string(),
      z.object({ range: z.tuple([z.number(), z.number()]), bins: z.array(z.number()), above: z.number() }),
    )
    .describe("the library's values of each trait, and the share of styles that have less"),
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
  ownWords: OwnWords.nullable(),
  parts: z.array(StylePart).describe("files that add characters to its main file"),
  changes: z.array(z.object({ at: z.string(), what: z.string(), says: z.string() })),
  siblings: z.array(
    z.object({
      styleId: StyleId,
      style: z.string(),
      weight: z.number().nullable(),
      width: z.number().nullable(),
      slanted: z.boolean(),
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
/** What glyphs are, so that the special ones are found at once. */
export const GLYPH_KINDS = [
  "capitals",
  "lowercase",
  "figures",
  "punctuation",
  "symbols",
  "ligatures",
  "small capitals",
  "swashes",
  "alternates",
  "pictures",
  "private use",
  "unencoded",
] as const;
export const GlyphKind = z.enum(GLYPH_KINDS);
export type GlyphKind = z.infer<typeof GlyphKind>;
/** Likeness to a style: the filters of finding, and whether those of its kind and treatment come first. */
export const AlikeQuery = StyleQuery.extend({
  sameFirst: z
    .enum(["true", "false"])
    .default("false")
    .transform((v) => v === "true"),
});

export const GlyphQuery = z.object({
  kind: GlyphKind.optional(),
  block: z.string().max(80).optional(),
  q: z.string().max(80).optional(),
  alike: z.coerce.number().int().min(0).optional().describe("a glyph: those that look like it, the nearest first"),
  limit: z.coerce.number().int().min(1).max(200).default(200),
  cursor: z
    .string()
    .regex(/^\d{1,6}$/)
    .optional(),
});
export const GlyphList = z.object({
  total: z.number(),
  kinds: z.record(z.string(), z.number()).describe("how many glyphs of each kind the font has"),
  unitsPerEm: z.number(),
  ascender: z.number(),
  descender: z.number(),
  glyphs: z.array(Glyph),
  cursor: z.string().optional(),
});
export type GlyphList = z.infer<typeof GlyphList>;
