// A brief: one project's words, uses, size and colours. All fields that the interface edits and the checks read.
import { z } from "zod";
import { BriefId, KeptId, StyleId } from "./ids";
import { Use } from "./traits";
import { LengthUnit } from "./units";

export const LINE_ROLES = ["title", "second", "heading", "text", "caption", "figures"] as const;
export const BriefLine = z.object({
  id: z
    .string()
    .regex(/^l_[a-z0-9]{1,16}$/)
    .optional()
    .describe("given by the server where it is absent: changes of one line meet by it"),
  text: z.string().max(400),
  role: z.enum(LINE_ROLES),
});
export type BriefLine = z.infer<typeof BriefLine>;

export const LevelBy = z.enum(["point-size", "x-height", "capitals", "line-width"]);
export type LevelBy = z.infer<typeof LevelBy>;

/** Two faces that are kept as going together, each in a role, and how large the first stands beside the second. */
export const KeptPair = z.object({
  id: z.string().regex(/^p_[a-z0-9]{1,16}$/),
  faces: z.tuple([
    z.object({ styleId: StyleId, role: z.string().max(60) }),
    z.object({ styleId: StyleId, role: z.string().max(60) }),
  ]),
  sizeRatio: z.number().positive().max(100),
  note: z.string().max(400).default(""),
});
export type KeptPair = z.infer<typeof KeptPair>;

/** A place on the brief's picture, in parts of its width and its height from the top left. */
const PicturePoint = z.tuple([z.number().min(-1).max(2), z.number().min(-1).max(2)]);
/** Drawn by hand over the picture: what it covers stands in front of the words. */
export const FrontShape = z.object({
  kind: z.enum(["outline", "brush"]),
  erases: z.boolean().default(false).describe("true: what it covers stands behind the words again"),
  points: z.array(PicturePoint).min(1).max(500),
  widthShare: z.number().positive().max(0.5).default(0.05).describe("of the brush, in parts of the picture's width"),
});
export type FrontShape = z.infer<typeof FrontShape>;
/** How the brief's words stand on its picture. */
export const Scene = z.object({
  at: PicturePoint.default([0.06, 0.6]).describe("beginning of the baseline"),
  sizeShare: z.number().min(0.01).max(2).default(0.16).describe("size of the words in parts of the picture's height"),
  isInPaper: z.boolean().default(true).describe("the words are in the colour of the paper, not of the ink"),
  front: z.array(FrontShape).max(120).default([]),
});
export type Scene = z.infer<typeof Scene>;

/** How far a brief has come. */
export const BRIEF_STATES = ["open", "decided", "handed-over"] as const;
export const BriefState = z.enum(BRIEF_STATES);
export type BriefState = z.infer<typeof BriefState>;

const Colour = z.string().regex(/^#[0-9a-fA-F]{6}$/);
export const BriefFields = z.object({
  name: z.string().trim().min(1).max(120),
  client: z.string().max(120).default(""),
  note: z.string().max(4000).default(""),
  medium: z.string().max(120).default(""),
  lines: z.array(BriefLine).min(1).max(12),
  uses: z.array(Use).max(8).default([]),
  size: z.number().positive().max(20000).default(24),
  unit: LengthUnit.default("mm"),
  levelBy: LevelBy.default("x-height"),
  ink: Colour.default("#20262B"),
  paper: Colour.default("#F3EFE6"),
  wanted: z.string().max(200).default(""),
  pairs: z.array(KeptPair).max(60).default([]),
  scene: Scene.prefault({}),
  state: BriefState.default("open"),
  archived: z.boolean().default(false),
});
export type BriefFields = z.infer<typeof BriefFields>;

/** Where a face stands on its axes: axis tag → value. Empty: at its defaults. */
export const Location = z.record(z.string().regex(/^[ -~]{4}$/), z.number());
/** OpenType features that are switched: tag → value. */
export const FeatureValues = z.record(z.string().regex(/^[ -~]{4}$/), z.number().int().min(0).max(200));

export const Kept = z.object({
  keptId: KeptId,
  styleId: StyleId,
  location: Location,
  features: FeatureValues,
  role: z.string().max(60),
  group: z.string().max(60).default("").describe("empty: in none"),
  note: z.string().max(2000),
  favourite: z.boolean(),
  place: z.number().int(),
  keptAt: z.string(),
});
export type Kept = z.infer<typeof Kept>;

export const Brief = BriefFields.extend({
  briefId: BriefId,
  createdAt: z.string(),
  changedAt: z.string(),
  version: z.number().int().describe("grows with every change of the brief, its lines and what is kept"),
  kept: z.array(Kept),
  setAside: z.array(StyleId),
  picture: z.string().nullable().describe("digest of the picture that faces are set on, at /briefs/:id/picture"),
});
export type Brief = z.infer<typeof Brief>;

/** No defaults here: a field left out of a change, or of a copy, stays as it was. */
const BriefChange = z
  .object({
    name: z.string().trim().min(1).max(120),
    client: z.string().max(120),
    note: z.string().max(4000),
    medium: z.string().max(120),
    lines: z.array(BriefLine).min(1).max(12),
    uses: z.array(Use).max(8),
    size: z.number().positive().max(20000),
    unit: LengthUnit,
    levelBy: LevelBy,
    ink: Colour,
    paper: Colour,
    wanted: z.string().max(200),
    pairs: z.array(KeptPair).max(60),
    scene: Scene,
    state: BriefState,
    archived: z.boolean(),
  })
  .partial();
export const BriefCreate = BriefChange.extend({ name: BriefFields.shape.name, copyOf: BriefId.optional() });
export type BriefCreate = z.infer<typeof BriefCreate>;
export const BriefPatch = BriefChange.extend({
  deleted: z.boolean().optional(),
  version: z.number().int().optional().describe("of the brief that was changed: an older one is refused (409)"),
  base: BriefChange.optional().describe(
    "the changed fields as they were known: what others changed meanwhile is merged by line and word; what both changed is refused (409)",
  ),
  step: z.boolean().optional().describe("undone by itself, even when it follows typing in the same line"),
});
export type BriefPatch = z.infer<typeof BriefPatch>;

export const KeptPut = z.object({
  role: z.string().max(60).optional(),
  group: z.string().max(60).optional(),
  note: z.string().max(2000).optional(),
  favourite: z.boolean().optional(),
  place: z.number().int().min(0).optional(),
});
export type KeptPut = z.infer<typeof KeptPut>;
export const KeptPost = KeptPut.extend({
  styleId: StyleId,
  location: Location.default({}),
  features: FeatureValues.default({}),
});
export type KeptPost = z.infer<typeof KeptPost>;

/** What a change did, for those who look at the same brief. */
export const BriefEvent = z.object({ version: z.number().int(), by: z.string(), fields: z.array(z.string()) });
export type BriefEvent = z.infer<typeof BriefEvent>;

/** Which of the steps undo or redo may choose. */
const Version = z.coerce.number().int().min(0).optional();
export const StepQuery = z.object({
  after: Version.describe("only a step that came after this version of the brief"),
  upTo: Version.describe("only a step that came up to this version of the brief"),
});
/** What undo or redo gave back. */
export const StepBack = z.object({
  summary: z.string().nullable().describe("what was undone or done again; null: there was nothing"),
  brief: Brief,
  canUndo: z.boolean(),
  canRedo: z.boolean(),
});
export type StepBack = z.infer<typeof StepBack>;

export const Check = z.object({
  check: z.enum(["characters", "use", "health"]),
  subject: z.string(),
  outcome: z.enum(["pass", "care", "fail"]),
  measured: z.string(),
  wanted: z.string(),
  reason: z.string(),
});
export type Check = z.infer<typeof Check>;
