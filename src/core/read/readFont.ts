// One font file through the stages of the pipeline, in their order. A style can be shown after the first stages; the others may follow.
import type { Axis, Health, MeasureNotes, Traits } from "@/contracts/traits";
import { FIRST_STAGES, STAGES, type Stage } from "@/contracts/pipeline";
import { checkFont } from "../health/checkFont";
import { instancesOf, type VariationLocation } from "../descriptors/instances";
import { extractDescriptors } from "../descriptors/extractDescriptors";
import { classifyFont, type Classification } from "../kind/classifyFont";
import { fingerprintOutlines } from "../measure/fingerprintOutlines";
import { measureFont, type Measured } from "../measure/measureFont";
import { measureReach } from "../measure/reach";
import { FontFileError } from "../open/fontFileError";
import { openFont, type OpenedFont } from "../open/openFont";
import { openFace, type OpenFace } from "../outlines/openFace";
import { withoutRules } from "../outlines/withoutRules";
import { hasLatinAlphabet } from "../unicode/ranges";

/** What the later stages find. */
export type LaterReading = {
  measured?: Measured;
  classified?: Classification;
  health?: Health;
  /** Descriptors of its letters at the default location. */
  signature?: Uint8Array;
  varied?: {
    notes: Pick<MeasureNotes, "reach" | "axes">;
    /** Of a variable font at other locations than its default. */
    instances: { coordinates: VariationLocation; signature: Uint8Array }[];
  };
};
/** What the wall needs; what the other stages found, where they were run. */
export type FirstReading = {
  /** Stages that were run. */
  stages: readonly Stage[];
  opened: Omit<OpenedFont, "characters">;
  family: string;
  /** Fingerprint of its outlines, to find the same style in another file; null when it has too few letters. */
  print: Int16Array | null;
} & LaterReading;
/** A font that went through all stages. */
export type FontReading = FirstReading &
  Required<Pick<LaterReading, "measured" | "classified" | "health" | "signature">>;

/** What is known of a font that was only opened. */
export type OpenedReading = Pick<FirstReading, "stages" | "opened" | "family">;
type Reading = Partial<FirstReading> & OpenedReading;

type ReadSettings = {
  /** Where the font names no family. */
  fallbackFamily: string;
  stages: readonly Stage[];
  /** Stops after opening where the Latin alphabet is lacking: such a font may be one part of another. */
  mayBePart?: boolean;
  /** Traits as they were measured before, where that stage does not run. */
  traits?: Traits;
  /** Whether this font has taken its time: then fewer places on its axes are described. */
  isLate: () => boolean;
};

type State = ReadSettings & { whole: OpenedFont; face: OpenFace; reading: Reading };

/** What each stage adds. Opening comes before all of them. */
const RUN: Record<Exclude<Stage, "opened">, (state: State) => Partial<FirstReading>> = {
  measured: ({ face }) => ({ measured: measureFont(face) }),
  classified: ({ face, reading }) => {
    const { measured = measureFont(face), opened, family } = reading;
    // Identification looks for the letters as they are drawn, rules and all; what kind they are is judged without.
    const plain = withoutRules(face);
    const described = plain === face ? reading.signature : undefined;
    const signature = described ?? extractDescriptors(plain);
    return {
      classified: classifyFont({ measured, signature, family, features: opened.features }),
    };
  },
  fingerprinted: ({ face }) => ({ print: fingerprintOutlines(face) }),
  checked: ({ whole, face }) => ({ health: checkFont(whole, face) }),
  described: ({ face }) => ({ signature: extractDescriptors(face) }),
  varied: ({ whole, face, reading, traits, isLate }) => {
    if (!whole.axes.length) return {};
    const atDefault = reading.measured?.traits ?? traits ?? measureFont(face).traits;
    const notes = measureReach(whole.sfnt, whole.axes, atDefault);
    return { varied: { notes, instances: describeInstances(whole.sfnt, whole.axes, isLate) } };
  },
};

/**
 * Reads one font file.
 * @returns what the stages found, and the bare font.
 * @throws FontFileError when it is no font, or one without letters.
 */
export async function readFont(bytes: Uint8Array, settings: ReadSettings): Promise<Reading> {
  const whole = await openFont(bytes);
  const { characters, ...opened } = whole;
  const face = openFace(opened.sfnt);
  if (![...characters.values()].some((glyph) => face.outline(glyph).verbs.length > 0))
    throw new FontFileError("no-outlines", "glyf", 0, "at least one drawn glyph", "none");
  const isOpenedOnly = settings.mayBePart && !hasLatinAlphabet(opened.codePoints);
  const stages = STAGES.filter((s) => s === "opened" || (settings.stages.includes(s) && !isOpenedOnly));
  const family = opened.family ?? settings.fallbackFamily;
  // The shaper may hand back a view of a larger buffer: what leaves is a copy of its own.
  let reading: Reading = { stages, opened: { ...opened, sfnt: opened.sfnt.slice() }, family };
  for (const stage of stages)
    if (stage !== "opened") reading = { ...reading, ...RUN[stage]({ ...settings, whole, face, reading }) };
  return reading;
}

/** Whether all is there that a style needs to be on the wall. */
export const isFirst = (reading: Reading): reading is FirstReading =>
  FIRST_STAGES.every((s) => reading.stages.includes(s));
/** Whether every stage was run. */
export const isWhole = (reading: Reading): reading is FontReading => STAGES.every((s) => reading.stages.includes(s));

function describeInstances(sfnt: Uint8Array, axes: Axis[], isLate: () => boolean) {
  const described: NonNullable<LaterReading["varied"]>["instances"] = [];
  const all = instancesOf(axes);
  // Every second first: when time runs out, what is described is spread over the axes.
  for (const coordinates of [...all.filter((_, i) => i % 2 === 0), ...all.filter((_, i) => i % 2 === 1)]) {
    if (isLate()) break;
    described.push({ coordinates, signature: extractDescriptors(openFace(sfnt, coordinates)) });
  }
  return described;
}
