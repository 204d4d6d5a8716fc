// A lettering: lines of text as they are printed, cut and layered. One document; lengths in millimetres from the top left, y down; angles
// in degrees, clockwise. What can be asked of it stands in operations/letterings.ts.
import { z } from "zod";
import { FeatureValues, Location } from "./brief";
import { InkColour } from "./colours";
import { BlockId, BriefId, StyleId } from "./ids";
import { PosedMotion } from "./poses";

export const LetteringId = z
  .string()
  .regex(/^n_[a-z0-9]{8,32}$/)
  .brand<"LetteringId">();
export type LetteringId = z.infer<typeof LetteringId>;

/** The form of document that is read and written here. */
export const DOCUMENT_VERSION = 1;
/** Letters of one document: more than any sheet is lettered with. */
export const MOST_LETTERS = 4000;
/** The largest sheet, and the furthest that anything stands from its corner. */
export const MOST_MM = 20_000;

/** Distance of baselines where nothing else is said, in em. */
export const LEADING_EM = 1.2;

const Mm = z.number().min(-MOST_MM).max(MOST_MM);
const SizeMm = z.number().positive().max(MOST_MM);
const Degrees = z.number().min(-3600).max(3600);
/** Index of a shaped glyph cluster in its block, in the order of the text. */
const ClusterIndex = z.number().int().min(0).max(MOST_LETTERS);

const PointMm = z.object({ xMm: Mm, yMm: Mm });
export type PointMm = z.infer<typeof PointMm>;

export const TextPath = z.discriminatedUnion("kind", [
  z.object({
    kind: z.literal("arc"),
    radiusMm: Mm.refine((r) => Math.abs(r) >= 1, "at least 1 mm").describe("negative: the text stands inside the arc"),
    startDeg: Degrees.describe("where on the circle the block's place lies; 0 is its right side, -90 its top"),
    isUpright: z.boolean().optional(),
  }),
  z.object({
    kind: z.literal("wave"),
    heightMm: Mm.describe("from crest to trough; negative begins downward"),
    lengthMm: SizeMm.describe("from crest to crest"),
    isUpright: z.boolean().optional(),
  }),
  z.object({
    kind: z.literal("drawn"),
    d: z.string().min(1).max(20_000).describe("SVG path in mm; its beginning is laid on the block's place"),
    isUpright: z.boolean().optional(),
  }),
]);
export type TextPath = z.infer<typeof TextPath>;

export const Gradient = z.object({ from: InkColour, to: InkColour, angleDeg: Degrees });
export type Gradient = z.infer<typeof Gradient>;
export const Fill = z.union([InkColour, Gradient]);
export type Fill = z.infer<typeof Fill>;

/** A point of a letter's outline that was moved, counted over the contours of the glyph as the font draws them. */
const MovedPoint = z.object({ point: z.number().int().min(0).max(20_000), dxEm: z.number(), dyEm: z.number() });
type MovedPoint = z.infer<typeof MovedPoint>;

export const Letter = z.object({
  at: ClusterIndex,
  dxMm: Mm.optional(),
  dyMm: Mm.optional(),
  turnDeg: Degrees.optional().describe("about the middle of its ink"),
  scale: z.number().min(0.01).max(100).optional(),
  glyphId: z.number().int().min(0).max(1_048_575).optional().describe("drawn instead, with its own advance"),
  feature: z.string().max(4).optional().describe("that reaches this glyph, where no character does"),
  fills: z.array(InkColour).max(200).optional().describe("one per part of the letter, in the order of its outlines"),
  points: z.array(MovedPoint).max(400).optional(),
});
export type Letter = z.infer<typeof Letter>;

/** A strip that joins two letters, or opens a counter so that what it encloses does not fall out. */
const Bridge = z.object({
  at: ClusterIndex,
  to: ClusterIndex.optional().describe("the letter that it reaches; absent: a strip cut through the letter's counters"),
  widthMm: SizeMm,
  turnDeg: Degrees.optional().describe("of a strip through counters; 0 runs upward"),
});
type Bridge = z.infer<typeof Bridge>;

export const Outlined = z.object({
  widthMm: z.number().positive().max(500),
  colour: InkColour,
  side: z.enum(["inside", "middle", "outside"]).optional().describe("absent: middle"),
});
export type Outlined = z.infer<typeof Outlined>;
const Shadow = z.object({
  dxMm: Mm,
  dyMm: Mm,
  blurMm: z.number().min(0).max(500),
  colour: InkColour,
});
type Shadow = z.infer<typeof Shadow>;

const BlockSize = z.union([
  z.object({ emMm: SizeMm }).strict(),
  z.object({ capHeightMm: SizeMm }).strict(),
  z.object({ xHeightMm: SizeMm }).strict(),
]);
type BlockSize = z.infer<typeof BlockSize>;

export const Block = z.object({
  id: BlockId,
  text: z.string().max(100_000),
  styleId: StyleId,
  coordinates: Location.optional(),
  features: FeatureValues.optional(),
  size: BlockSize,
  trackingEm: z.number().min(-1).max(10).optional(),
  leadingEm: z.number().min(0).max(10).optional(),
  align: z.enum(["left", "centre", "right"]).optional(),
  fitWidthMm: SizeMm.optional().describe("the size is such that the ink of the widest line is as wide"),
  at: PointMm,
  turnDeg: Degrees.optional(),
  path: TextPath.optional(),
  pairs: z
    .array(z.object({ at: ClusterIndex, shiftEm: z.number().min(-10).max(10) }))
    .max(MOST_LETTERS)
    .optional(),
  letters: z.array(Letter).max(MOST_LETTERS).optional(),
  bridges: z.array(Bridge).max(400).optional(),
  fill: Fill,
  outline: Outlined.optional(),
  shadow: Shadow.optional(),
  joined: z.boolean().optional(),
  keepsCounters: z.boolean().optional().describe("joined letters leave each other's counters open"),
  growMm: z.number().min(-20).max(20).optional().describe("the outline is moved outward all round"),
  keepTogether: z.string().min(1).max(60).optional().describe("blocks of one name are one group in every file"),
});
export type Block = z.infer<typeof Block>;

export const LetteringDocument = z.object({
  version: z.number().int().optional(),
  sheet: z.object({ widthMm: SizeMm, heightMm: SizeMm, ground: InkColour.nullable() }),
  blocks: z.array(Block).max(60),
  motion: PosedMotion.optional(),
});
export type LetteringDocument = z.infer<typeof LetteringDocument>;

export const Lettering = z.object({
  letteringId: LetteringId,
  briefId: BriefId,
  name: z.string(),
  document: LetteringDocument,
  changedAt: z.string(),
  version: z.number().int().describe("grows with every change of the document, undo and redo too"),
  stepsBack: z.number().int().describe("steps that can be undone"),
  stepsForward: z.number().int().describe("undone steps that can be done again"),
});
export type Lettering = z.infer<typeof Lettering>;

const InkBox = z.object({ xMm: z.number(), yMm: z.number(), widthMm: z.number(), heightMm: z.number() });
export type InkBox = z.infer<typeof InkBox>;
const LaidOutGlyph = z.object({
  at: z.number().int(),
  glyphId: z.number().int(),
  cluster: z.number().int().describe("UTF-16 index in the block's text"),
  xMm: z.number().describe("of its origin as it is drawn"),
  yMm: z.number(),
  advanceMm: z.number().describe("as shaped, without tracking"),
  turnDeg: z.number(),
});
export const LetteringLayout = z.object({
  blocks: z.array(
    z.object({
      id: BlockId,
      emMm: z.number(),
      glyphs: z.array(LaidOutGlyph),
      inkBox: InkBox.nullable().describe("null where nothing is drawn"),
      missing: z.array(z.string()),
    }),
  ),
});
export type LetteringLayout = z.infer<typeof LetteringLayout>;

/** How fast a material is cut that does not say it. */
export const CUT_MM_PER_S = 100;
export const Material = z.object({
  minStrokeMm: z.number().min(0).max(1000),
  minGapMm: z.number().min(0).max(1000),
  minPieceMm2: z.number().min(0).max(1e6).optional(),
  cutMmPerS: z.number().min(1).max(2000).optional().describe(`how fast it is cut; absent: ${CUT_MM_PER_S}`),
  isStencil: z.boolean().optional().describe("the letters are cut out of it: what they enclose falls out"),
});
export type Material = z.infer<typeof Material>;

const FINDING_KINDS = ["thin", "gap", "overlap", "island", "small-piece", "filled-counter", "apart"] as const;
export const Finding = z.object({
  kind: z.enum(FINDING_KINDS),
  blockId: BlockId,
  letters: z.array(z.number().int()),
  xMm: z.number(),
  yMm: z.number(),
  measuredMm: z.number().optional(),
  wantedMm: z.number().optional(),
});
export type Finding = z.infer<typeof Finding>;
export const LetteringCheck = z.object({
  findings: z.array(Finding),
  pieces: z.number().int(),
  islands: z.number().int().describe("counters that are enclosed"),
  areaMm2: z.number(),
  cutLengthMm: z.number(),
  toolUps: z.number().int().describe("moves with the tool up, in a short order"),
  cutSeconds: z.number().describe("with the way between and the tool going up and down"),
  thinnestMm: z.number().nullable().describe("the narrowest stroke of all"),
  smallestGapMm: z.number().nullable(),
});
export type LetteringCheck = z.infer<typeof LetteringCheck>;

export const LETTERING_FORMATS = ["svg", "pdf", "dxf", "hpgl", "png", "jpeg", "ora"] as const;
export type LetteringFormat = (typeof LETTERING_FORMATS)[number];
