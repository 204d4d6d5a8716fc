// From measures (and the plain words in a name) to kinds and treatments. Third stage of the pipeline ("classified").
import type { Kind, KindGuess, MoodGuess, Treatment, TreatmentGuess, VoxGuess } from "@/contracts/traits";
import type { Measured } from "../measure/measureFont";
import { nameMoods } from "./moods";
import { nameVox } from "./vox";

type KindInput = { measured: Measured; family: string; style: string; features: readonly string[] };
export type Classification = {
  kinds: KindGuess[];
  treatments: TreatmentGuess[];
  vox: VoxGuess | null;
  moods: MoodGuess[];
};

/**
 * Names the kinds and treatments of a style.
 * @returns kinds with the surest first, at least one; treatments may be empty.
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
  [/\b(script|cursive|calligraph\w*)\b/i, "script"],
  [/\b(hand|handwrit\w*|marker|brush|pen|pencil)\b/i, "handwritten"],
  [/fraktur|\b(blackletter|textura|gotisch)\b/i, "blackletter"],
  [/\b(mono|typewriter|code)\b/i, "monospaced"],
  [/\b(sans|grotesk|grotesque|gothic)\b/i, "sans"],
  [/\b(serif|antiqua|didot|old style)\b/i, "serif"],
  [/\b(symbols?|barcode|icons?|dingbats?|ornaments?)\b/i, "picture"],
];

function findKinds({ measured, family }: KindInput, treatments: TreatmentGuess[]): KindGuess[] {
  const { traits, build } = measured;
  const found: KindGuess[] = [];
  const add = (value: Kind, confidence: number, because: string) =>
    found.push({ value, confidence: sure(confidence), because });
  const named = (kind: Kind) =>
    NAME_WORDS.some(([word, k]) => k === kind && word.test(family.replace(/\bsans serif\b/i, "sans")));

  if (traits.picture) {
    add("picture", 0.6 + 0.4 * ramp(0.42 - num(measured.legibility), 0, 0.2), "its letters do not look like letters");
    return found;
  }
  if (traits.monospaced) add("monospaced", 0.99, "every character is equally wide");

  const joined = num(traits.connected);
  const uneven = num(build.unevenness);
  const soft = num(traits.roundness);
  const serif = num(traits.serif);
  const contrast = num(traits.contrast) || 1;
  const rough = num(traits.roughness);
  const script = joined >= 0.45 && !traits.monospaced;
  const loose = !script && !traits.monospaced && serif < 0.5 && soft >= 0.28 && rough < 0.6;
  const leaning = loose && num(traits.slantDeg) > 6 && contrast > 1.6 && uneven > 0.012;
  const byHand =
    loose &&
    ((uneven >= (num(traits.slantDeg) > 6 ? 0.03 : 0.017) && num(measured.legibility) < 0.86 && contrast < 2) ||
      named("handwritten") ||
      (uneven >= 0.0095 &&
        num(traits.slantDeg) < 6 &&
        soft > 0.5 &&
        contrast > 1.12 &&
        num(build.brokenCurves) > 0.03));
  const broken =
    named("blackletter") ||
    (!script &&
      !traits.monospaced &&
      serif < 0.55 &&
      contrast > 1.7 &&
      contrast < 4 &&
      rough < 0.2 &&
      num(build.brokenCurves) >= 0.44 &&
      num(build.axisAligned) < 0.5 &&
      num(build.holes) < 1);

  if (broken)
    add(
      "blackletter",
      named("blackletter") ? 0.95 : 0.6,
      "its bowls are broken into straight strokes of strong contrast",
    );
  else if (script || leaning || (named("script") && soft > 0.28))
    add(
      "script",
      script ? 0.6 + 0.38 * ramp(joined, 0.45, 0.85) : 0.6,
      script ? `${Math.round(joined * 100)} % of its letter pairs join` : "it leans and flows like quick writing",
    );
  if (!broken && (byHand || (script && uneven > 0.05) || (rough > 0.25 && uneven > 0.025 && serif < 0.3)))
    add("handwritten", 0.5 + 0.4 * ramp(uneven, 0.01, 0.06), "feet, heights and stems are uneven, as by hand");
  if (!found.some((k) => ["script", "handwritten", "blackletter"].includes(k.value)))
    addSerifKinds(measured, named, add);

  const extreme = extremeReason(measured, treatments);
  if (extreme) add("display", 0.75, extreme);
  if (!found.length) add("sans", 0.4, "nothing else was measured");
  return found;
}

/** Thickness against the stem from which any serif is a block. */
const BLOCK_THICKNESS = 0.72;

function addSerifKinds(
  measured: Measured,
  named: (k: Kind) => boolean,
  add: (k: Kind, c: number, why: string) => void,
) {
  const { traits } = measured;
  const serif = num(traits.serif);
  const thick = num(traits.serifThickness);
  const contrast = num(traits.contrast) || 1;
  const hasSerifs = serif >= 0.45 || (serif >= 0.15 && named("serif"));
  if (!hasSerifs) {
    add("sans", 0.55 + 0.43 * ramp(0.45 - serif, 0, 0.4), "its stems end without serifs");
    return;
  }
  // A serif that grows out of the stem by a curve or as a wedge is no block unless it is nearly as thick as the stem.
  const isBlock = traits.serifForm === "slab" || traits.serifForm === null || thick >= BLOCK_THICKNESS;
  const slab =
    named("slab") ||
    (isBlock &&
      ((thick >= (num(traits.weight) < 350 ? 0.78 : 0.57) && contrast < 1.72) || (thick > 0.9 && contrast < 2.4)));
  const because = `serifs ${Math.round(thick * 100)} % as thick as the stems`;
  if (slab) add("slab", 0.6 + 0.38 * ramp(thick, 0.5, 0.85), because);
  add("serif", slab ? 0.55 : 0.6 + 0.38 * ramp(serif, 0.45, 0.75), because);
}

function extremeReason({ traits, legibility }: Measured, treatments: TreatmentGuess[]): string | null {
  const treated = treatments.find((t) => t.value !== "rounded" && t.value !== "swash" && t.confidence >= 0.5);
  if (treated) return `it is treated: ${treated.value}`;
  if (traits.cases === "capitals-only") return "it has capitals only";
  if (num(traits.weight) > 930) return "it is heavier than any text face";
  if (num(traits.contrast) > 4.2) return "its thin strokes vanish at text sizes";
  if (traits.width !== null && (traits.width < 2.4 || traits.width > 7.6))
    return "its letters are extremely narrow or wide";
  if (legibility !== null && legibility < 0.8 && num(traits.connected) < 0.4 && num(traits.slantDeg) < 6)
    return "its letter forms are far from the usual ones";
  return null;
}

function findTreatments({ measured, family, style, features }: KindInput): TreatmentGuess[] {
  const { traits, build } = measured;
  const found: TreatmentGuess[] = [];
  const add = (value: Treatment, confidence: number, because: string) =>
    found.push({ value, confidence: sure(confidence), because });
  const name = `${family} ${style}`;
  const holes = num(build.holes);
  const pieces = num(build.pieces);
  const solid = build.solidity ?? 1;
  const rough = num(traits.roughness);
  if (num(build.axisAligned) > 0.93 && num(build.brokenCurves) > 0.9 && pieces < 6 && !traits.picture)
    add("pixel", 0.95, "its curves are steps of one square");
  else if (/\b(pixel\w*|bitmap)\b/i.test(name)) add("pixel", 0.7, "its name says so");
  if (pieces >= 6 && !traits.picture) add("dotted", 0.9, `a plain letter falls into ${Math.round(pieces)} dots`);
  if (holes >= 1 && rough < 0.2 && pieces < 6) {
    if (solid < 0.5) add("outline", 0.6 + ramp(0.5 - solid, 0, 0.3) * 0.38, "only the border of its letters is inked");
    else if (solid < 0.985) add("inline", 0.75, "a light line runs inside its strokes");
  }
  if (pieces >= 3 && pieces < 6 && num(build.roundPieces) >= 3) add("inline", 0.6, "its strokes are several lines");
  if (num(build.roundPieces) >= 2 && num(build.roundPieces) < 4 && pieces < 3 && rough < 0.3 && !traits.picture)
    add("stencil", /stencil/i.test(name) ? 0.97 : 0.75, "its round letters are cut by bridges");
  else if (/stencil/i.test(name)) add("stencil", 0.8, "its name says so");
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
  else if (/\b(shade|shadow)\b/i.test(name)) add("shadow", 0.8, "its name says so");
  if (num(build.footEm) < -0.06 && num(build.footSpreadEm) > 0.03 && num(traits.connected) < 0.3 && !traits.picture)
    add("drips", 0.7, "its flat letters end below in uneven runs");
  if (/\b(inline)\b/i.test(name) && !found.some((f) => f.value === "inline")) add("inline", 0.9, "its name says so");
  if (features.includes("swsh") || features.includes("cswh")) add("swash", 0.9, "it has swash forms");
  return found;
}
