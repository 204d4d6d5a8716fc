// All traits of one style, from outlines and advances alone. Second stage of the pipeline ("measured").
import { NO_TRAITS, type MeasureNotes, type Traits } from "@/contracts/traits";
import { clamp, interpolate } from "../geometry/numbers";
import type { OpenFace } from "../outlines/openFace";
import { withoutRules } from "../outlines/withoutRules";
import { measureBuild, type Build } from "./build";
import { measureCorners, measureRoughness, measureRoundness } from "./contour";
import { measureCases, measureLegibility, measureRecognised } from "./forms";
import { isMonospaced, measureFigures, measureHeights, measureProportion, measureWidthEm } from "./heights";
import { measureConnection } from "./joining";
import { lettersOf, pick, type Letters } from "./letters";
import { noteMeasures } from "./notes";
import { legibleFromPx, measureOpenings } from "./openings";
import { measureOtherScript } from "./otherScript";
import { lettersOfScript } from "./scripts";
import { measureStress } from "./stress";
import { measureStrokes } from "./strokes";
import { measureEvenness } from "./texture";
import { fillTreated, measureDots } from "./untreat";
import { isWriting } from "./writing";

/** Traits and the readings behind them that `kind` needs but nobody filters by. */
export type Measured = {
  traits: Traits;
  legibility: number | null;
  proportion: number | null;
  build: Build;
  letterCount: number;
  /** It has letters of a script whose letters are not known one by one, and no others: kinds are not told apart there. */
  isOtherScript: boolean;
  notes: Pick<MeasureNotes, "confidence" | "absent">;
};

/** Stem / x-height of upright letters → usWeightClass, fitted once on the demo library (middle stem per class). */
const WEIGHT_SCALE = [
  [0.01, 1],
  [0.05, 100],
  [0.085, 200],
  [0.12, 300],
  [0.168, 400],
  [0.2, 500],
  [0.237, 600],
  [0.272, 700],
  [0.321, 800],
  [0.369, 900],
  [0.5, 1000],
] as const;

/** Roughness above which flat tops count as torn. */
const TORN = 0.15;

const ALPHABET = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz";

/** Below this legibility a face may be of pictures; it is when fewer than this share of its letters look like themselves. */
const DOUBTFUL = 0.6;
const MIN_RECOGNISED = 0.15;

/** Letter width / height → usWidthClass: the named steps of that class are 50 to 200 % of the normal width. */
const WIDTH_SCALE = [
  [0.4, 1],
  [0.5, 2],
  [0.6, 3],
  [0.7, 4],
  [0.84, 5],
  [0.98, 6],
  [1.1, 7],
  [1.3, 8],
  [1.7, 9],
] as const;

/** Stems, heights, widths and the like: what changes along the axes of a variable font. */
type FrameTraits = Pick<
  Traits,
  | "stemEm"
  | "weight"
  | "contrast"
  | "width"
  | "xHeightEm"
  | "capHeightEm"
  | "ascenderEm"
  | "descenderEm"
  | "slantDeg"
  | "serif"
  | "serifThickness"
  | "serifForm"
  | "barEm"
  | "roundness"
  | "roughness"
>;

/** Measures the frame of a face's letters, with the readings that the rest is measured from. */
export function measureFrame(letters: Letters) {
  const build = measureBuild(letters);
  const roughness = measureRoughness(letters);
  // Overlapping parts of plain letters are no dots: the picture of a letter must fall into pieces too.
  const dots = (build.pieces ?? 0) >= 6 ? measureDots(letters) : null;
  const heights = measureHeights(letters, roughness !== null && roughness > TORN && dots === null);
  const plain = measureStrokes(fillTreated(letters, build));
  const strokes = { ...plain, ...(dots !== null && { stemEm: dots / letters.em }) };
  const proportion = measureProportion(letters);
  const bodyEm = heights.xHeightEm && heights.xHeightEm > 0.1 ? heights.xHeightEm : heights.capHeightEm;
  const relative = strokes.stemEm !== null && bodyEm ? strokes.stemEm / bodyEm : null;
  const traits: FrameTraits = {
    stemEm: strokes.stemEm,
    weight: relative === null ? null : Math.round(interpolate(WEIGHT_SCALE, relative)),
    contrast: strokes.contrast,
    width: proportion === null ? null : Number(interpolate(WIDTH_SCALE, proportion).toFixed(1)),
    ...heights,
    slantDeg: strokes.slantDeg,
    serif: strokes.serif,
    serifThickness: strokes.serifThickness,
    serifForm: strokes.serifForm,
    barEm: strokes.barEm,
    roundness: measureRoundness(letters),
    roughness,
  };
  return { traits: rounded(traits), build, strokes, proportion, bodyEm };
}

/**
 * Measures one style.
 * @returns every trait; null where the letters it needs are absent or do not behave (no steady stems, say).
 */
export function measureFont(given: OpenFace): Measured {
  const face = withoutRules(given);
  const letters = lettersOf(face);
  const letterCount = pick(letters, ALPHABET).length;
  const measured = measureLetters(face, letters, letterCount);
  if (!measured.traits.picture) return measured;
  // Something else stands in the places of Latin letters, or nothing: it may be a text face all the same, of another script.
  const isText = isUndrawn(face, letterCount) || isWriting(pick(letters, ALPHABET));
  const others = lettersOfScript(face) ?? (isText ? [...ALPHABET] : null);
  return others ? measureOther(face, letters, others) : measured;
}
const FEW_LETTERS = 8;

/** Letters are mapped that have no outlines: bitmaps draw them, of which nothing is measured. */
const isUndrawn = (face: OpenFace, letterCount: number): boolean =>
  letterCount < FEW_LETTERS &&
  [...ALPHABET].filter((c) => face.glyphOf(c.codePointAt(0)!)).length - letterCount > ALPHABET.length / 2;

/** Of letters of another script: their strokes, lean and height; the rest is said to be unmeasured. */
function measureOther(face: OpenFace, letters: Letters, others: readonly string[]): Measured {
  const { relative, ...read } = measureOtherScript(face, others);
  const weight = relative === null ? null : Math.round(interpolate(WEIGHT_SCALE, relative));
  const traits: Traits = rounded({
    ...NO_TRAITS,
    ...read,
    weight,
    roughness: measureRoughness(letters),
    figures: measureFigures(letters),
  });
  const there = Object.entries(traits).filter(([, v]) => typeof v === "number");
  const absent = Object.entries(traits).filter(([, v]) => v === null);
  return {
    traits,
    legibility: null,
    proportion: null,
    build: measureBuild(letters),
    letterCount: 0,
    isOtherScript: true,
    notes: {
      confidence: Object.fromEntries(there.map(([trait]) => [trait, OTHER_CONFIDENCE])),
      absent: Object.fromEntries(absent.map(([trait]) => [trait, "not measured for this script"])),
    },
  };
}
/** Which strokes are stems is not known there. */
const OTHER_CONFIDENCE = 0.6;

function measureLetters(face: OpenFace, letters: Letters, letterCount: number): Measured {
  const { traits: frame, build, strokes, proportion, bodyEm } = measureFrame(letters);
  const slantDeg = strokes.slantDeg ?? 0;
  const legibility = measureLegibility(letters);
  const corners = measureCorners(letters);
  const openings = measureOpenings(letters, slantDeg);
  const traits: Traits = rounded({
    ...frame,
    widthEm: measureWidthEm(letters),
    stressDeg: measureStress(letters, slantDeg),
    roundEnds: corners.ends,
    roundJoins: corners.joins,
    connected: measureConnection(letters),
    ...openings,
    legibleFromPx: legibleFromPx(openings.gapEm, bodyEm ?? null),
    evenness: measureEvenness(letters, bodyEm ?? null),
    monospaced: isMonospaced(letters),
    figures: measureFigures(letters),
    cases: measureCases(letters),
    bodyEm: null,
    picture: letterCount < FEW_LETTERS || !areLettersRecognised(letters, legibility),
  });
  const notes = noteMeasures(letters, traits, strokes);
  return { traits, legibility, proportion, build, letterCount, isOtherScript: false, notes };
}

/** Only doubtful letters are asked whether they are told apart at all. */
const areLettersRecognised = (letters: Letters, legibility: number | null): boolean =>
  (legibility ?? 0) >= DOUBTFUL || (measureRecognised(letters) ?? 0) >= MIN_RECOGNISED;

/** Numbers are kept to a ten-thousandth: more digits than any of the methods means. */
function rounded<T extends Partial<Traits>>(traits: T): T {
  const out = Object.entries(traits).map(([k, v]) => [
    k,
    typeof v === "number" ? Number(clamp(v, -1e6, 1e6).toFixed(4)) : v,
  ]);
  return Object.fromEntries(out) as T;
}
