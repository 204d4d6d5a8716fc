// From measures and forms of letters to kinds and treatments. A stage of the pipeline ("classified").
import type { Kind, KindGuess, MoodGuess, Treatment, TreatmentGuess, VoxGuess } from "@/contracts/traits";
import type { Measured } from "../measure/measureFont";
import { judgeLetterform, type Letterforms } from "./letterform";
import { nameMoods } from "./moods";
import { nameVox } from "./vox";

type KindInput = {
  measured: Measured;
  /** Descriptors of its letters. */
  signature: Uint8Array;
  family: string;
  features: readonly string[];
};
export type Classification = {
  kinds: KindGuess[];
  treatments: TreatmentGuess[];
  vox: VoxGuess | null;
  moods: MoodGuess[];
};

/**
 * Names the kinds and treatments of a style.
 * @returns kinds with the surest first, at least one but for scripts whose letters are not known; treatments may be empty.
 */
export function classifyFont(input: KindInput): Classification {
  const treatments = findTreatments(input);
  const kinds = findKinds(input, treatments).sort((a, b) => b.confidence - a.confidence);
  const { traits, proportion } = input.measured;
  const isEven = proportion !== null && Math.abs(proportion - EVEN_PROPORTION) < 0.08;
  return {
    kinds,
    treatments: treatments.sort((a, b) => b.confidence - a.confidence),
    vox: nameVox(traits, kinds, isEven),
    moods: nameMoods({ traits, kinds, treatments }),
  };
}

/** Ink width / height of usual letters in faces of circular bowls. */
const EVEN_PROPORTION = 0.88;

const num = (v: number | null | undefined) => v ?? 0;
const ramp = (v: number, from: number, to: number) => Math.min(1, Math.max(0, (v - from) / (to - from)));
const sure = (v: number) => Number(Math.min(0.98, Math.max(0.3, v)).toFixed(2));

const NAME_WORDS: [RegExp, Kind][] = [
  [/\bslab\b/i, "slab"],
  [/\b(script|cursive)\b/i, "script"],
  [/\b(hand|handwriting|marker|brush|pencil)\b/i, "handwritten"],
  [/\b(fraktur|blackletter|textura)\b/i, "blackletter"],
  [/\b(sans|grotesk|grotesque)\b/i, "sans"],
  [/\b(serif|antiqua)\b/i, "serif"],
];

function findKinds({ measured, signature, family }: KindInput, treatments: TreatmentGuess[]): KindGuess[] {
  const { traits, isOtherScript } = measured;
  if (isOtherScript) return [];
  if (traits.picture) {
    const confidence = 0.6 + 0.4 * ramp(0.42 - num(measured.legibility), 0, 0.2);
    return [{ value: "picture", confidence: sure(confidence), because: "its letters do not look like letters" }];
  }
  const found: KindGuess[] = [];
  const add = (value: Kind, confidence: number, because: string) =>
    found.push({ value, confidence: sure(confidence), because });
  if (traits.monospaced) add("monospaced", 0.98, "every character is equally wide");
  const { ranked, display } = judgeLetterform(measured, signature);
  const [first, second] = breakTie(ranked, family);
  add(first.kind, first.chance, first.because);
  if (second.chance >= SECOND_FROM) add(second.kind, second.chance, second.because);
  // A slab is a serif, too.
  if (first.kind === "slab" && !found.some((k) => k.value === "serif")) add("serif", SLAB_IS_SERIF, first.because);
  const extreme = extremeReason(measured, treatments);
  if (extreme) add("display", Math.max(0.75, display.chance), extreme);
  else if (display.chance >= DISPLAY_FROM) add("display", display.chance, display.because);
  return found;
}

/** A second letterform is named from this chance on; a slab is called a serif with this confidence. */
const SECOND_FROM = 0.25;
const SLAB_IS_SERIF = 0.55;
const DISPLAY_FROM = 0.6;
/** Chances that are nearer than this are a tie. */
const TIE = 0.15;

/** The two likeliest letterforms; of two that tie, the one that the name says. */
function breakTie([first, second]: Letterforms["ranked"], family: string): [Ranked, Ranked] {
  const isNamed = ({ kind }: Ranked) => NAME_WORDS.some(([word, k]) => k === kind && word.test(family));
  const isTie = first!.chance - second!.chance < TIE;
  return isTie && isNamed(second!) && !isNamed(first!) ? [second!, first!] : [first!, second!];
}
type Ranked = Letterforms["ranked"][number];

function extremeReason({ traits }: Measured, treatments: TreatmentGuess[]): string | null {
  const treated = treatments.find((t) => t.value !== "rounded" && t.value !== "swash" && t.confidence >= 0.5);
  if (treated) return `it is treated: ${treated.value}`;
  return traits.cases === "capitals-only" ? "it has capitals only" : null;
}

function findTreatments({ measured, features }: KindInput): TreatmentGuess[] {
  const { traits, build } = measured;
  const found: TreatmentGuess[] = [];
  const add = (value: Treatment, confidence: number, because: string) =>
    found.push({ value, confidence: sure(confidence), because });
  const holes = num(build.holes);
  const pieces = num(build.pieces);
  const solid = build.solidity ?? 1;
  const rough = num(traits.roughness);
  if (num(build.axisAligned) > 0.93 && num(build.brokenCurves) > 0.9 && pieces < 6 && !traits.picture)
    add("pixel", 0.95, "its curves are steps of one square");
  if (pieces >= 6 && !traits.picture) add("dotted", 0.9, `a plain letter falls into ${Math.round(pieces)} dots`);
  if (holes >= 1 && rough < 0.2 && pieces < 6) {
    if (solid < 0.5) add("outline", 0.6 + ramp(0.5 - solid, 0, 0.3) * 0.38, "only the border of its letters is inked");
    else if (solid < 0.985) add("inline", 0.75, "a light line runs inside its strokes");
  }
  if (pieces >= 3 && pieces < 6 && num(build.roundPieces) >= 3) add("inline", 0.6, "its strokes are several lines");
  if (num(build.roundPieces) >= 2 && num(build.roundPieces) < 4 && pieces < 3 && rough < 0.3 && !traits.picture)
    add("stencil", 0.75, "its round letters are cut by bridges");
  if (rough > 0.15) add("rough", 0.5 + 0.48 * ramp(rough, 0.15, 0.5), "its contours are torn or worn");
  if (
    num(traits.roundness) > 0.55 &&
    num(traits.serif) < 0.35 &&
    num(traits.connected) < 0.3 &&
    num(build.unevenness) < 0.016
  )
    add("rounded", 0.55 + 0.4 * ramp(num(traits.roundness), 0.55, 0.72), "its strokes end round");
  const hangs = num(build.footEm) < -0.03 && num(build.footEm) > -0.25 && num(build.footSpreadEm) < 0.02;
  if (hangs && (pieces >= 2 || holes >= 1) && !traits.picture)
    add("shadow", 0.75, "beside each letter stands a second one, lower and to a side");
  if (num(build.footEm) < -0.06 && num(build.footSpreadEm) > 0.03 && num(traits.connected) < 0.3 && !traits.picture)
    add("drips", 0.7, "its flat letters end below in uneven runs");
  if (features.includes("swsh") || features.includes("cswh")) add("swash", 0.9, "it has swash forms");
  return found;
}
