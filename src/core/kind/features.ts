// What kinds are judged by: every measure of a style, bent where its effect may turn, and the forms of some letters as they are described.
import { DESCRIBED, BYTES_PER_CHARACTER, FORM_STEPS, ABSENT } from "../descriptors/extractDescriptors";
import { FORM_LENGTH } from "../measure/cellForm";
import type { Measured } from "../measure/measureFont";

const TRAITS = [
  ...["stemEm", "weight", "contrast", "width", "xHeightEm", "capHeightEm", "ascenderEm", "descenderEm", "slantDeg"],
  ...["serif", "serifThickness", "barEm", "roundness", "roughness", "widthEm", "stressDeg", "roundEnds", "roundJoins"],
  ...["connected", "aperture", "gapEm", "legibleFromPx", "evenness", "storeysA", "storeysG"],
] as const;
const BUILDS = [
  ...["unevenness", "brokenCurves", "pieces", "holes", "solidity", "axisAligned", "footEm", "footSpreadEm"],
  "roundPieces",
] as const;
const SERIF_FORMS = ["bracketed", "slab", "hairline", "wedge"] as const;

export const MEASURES: readonly string[] = [
  ...TRAITS,
  ...BUILDS,
  ...["legibility", "proportion"],
  ...SERIF_FORMS.map((f) => `serif form ${f}`),
  ...["monospaced", "capitals only", "small capitals"],
];
/** Letters whose forms are looked at, beside the measures. */
const FORM_LETTERS = "aegnorstHRSOMAEGbdfhiy";

/** @returns one number for each of MEASURES; NaN where it was not measured. */
export function measuresOf({ traits, build, legibility, proportion }: Measured): number[] {
  const of = (record: object, name: string) => (record as Record<string, number | null>)[name] ?? NaN;
  return [
    ...TRAITS.map((name) => of(traits, name)),
    ...BUILDS.map((name) => of(build, name)),
    legibility ?? NaN,
    proportion ?? NaN,
    ...SERIF_FORMS.map((form) => Number(traits.serifForm === form)),
    Number(traits.monospaced),
    Number(traits.cases === "capitals-only"),
    Number(traits.cases === "small-capitals"),
  ];
}

/** How a measure is spread over the faces that the table was fitted to: five quantiles, and its mean. */
export type Spread = { quantiles: readonly number[]; mean: number };
/** A measure, three bends of it, and whether it is absent. */
export const BENDS = 5;
const MIDDLE = 2;
const BENT_AT = [1, 2, 3] as const;

/** Writes a measure in quantiles of its spread: straight, bent at three of them, absent. */
function bend(value: number, { quantiles, mean }: Spread, out: Float64Array, at: number) {
  const [low, high] = [quantiles[0]!, quantiles[4]!];
  const range = Math.max(1e-6, high - low);
  const known = Number.isNaN(value) ? mean : value;
  const held = Math.min(high + range / 2, Math.max(low - range / 2, known));
  out[at] = (2 * (held - quantiles[MIDDLE]!)) / range;
  BENT_AT.forEach((q, k) => (out[at + 1 + k] = (2 * Math.max(0, held - quantiles[q]!)) / range));
  out[at + BENDS - 1] = Number.isNaN(value) ? 1 : 0;
}

const PLACES = [...FORM_LETTERS].map((letter) => DESCRIBED.indexOf(letter));
const FORMS_LENGTH = PLACES.length * FORM_LENGTH;

/** Writes the forms of FORM_LETTERS out of a signature; zeros for a letter that the style lacks. */
function writeForms(signature: Uint8Array, out: Float64Array, from: number) {
  const view = new DataView(signature.buffer, signature.byteOffset, signature.byteLength);
  PLACES.forEach((place, n) => {
    const base = place * BYTES_PER_CHARACTER;
    const isAbsent = view.getInt16(base + FORM_LENGTH + 8, true) === ABSENT;
    for (let k = 0; k < FORM_LENGTH; k++)
      out[from + n * FORM_LENGTH + k] = isAbsent ? 0 : view.getInt8(base + k) / FORM_STEPS;
  });
}

export const FEATURES_LENGTH = MEASURES.length * BENDS + FORMS_LENGTH;

/** @returns all features of a style; Float64Array, shape [FEATURES_LENGTH]. */
export function featuresOf(measured: Measured, signature: Uint8Array, spreads: readonly Spread[]): Float64Array {
  const out = new Float64Array(FEATURES_LENGTH);
  measuresOf(measured).forEach((value, m) => bend(value, spreads[m]!, out, m * BENDS));
  writeForms(signature, out, MEASURES.length * BENDS);
  return out;
}
