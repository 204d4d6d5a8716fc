// Letters drawn by hand: the nearest faces by shape and proportion. How thick the pen was says nothing, so forms are compared by
// correlation, not by their ink, and no chance is told: a sketch is of no face.
import { likeness } from "../measure/cellForm";
import { sumInk } from "../geometry/raster";
import type { InkReadings } from "../picture/readPicture";
import { UPRIGHT, type CutBox } from "../picture/straighten";
import { alignPieces } from "./ranking/align";
import { fitLine, formIn, measureWord, trimmedMean } from "./ranking/coarse";
import { fitPreview, START, viewAsItStands, type FaceLoader } from "./registration/fit";
import { pathOf, type IdentifyResult, type Match } from "./identifyLine";
import { uniqueBy } from "./ranking/uniqueBy";
import { SignatureIndex, type GlyphBox } from "../descriptors/extractDescriptors";
import { wordingOf } from "../picture/wording";

const { abs, exp, log, max, min } = Math;

/** What heights, widths and the proportion of all letters weigh beside their forms. */
const HEIGHT_WEIGHT = 2;
const WIDTH_WEIGHT = 1.2;
const ASPECT_WEIGHT = 0.6;
/** Rounds of fitting for the drawing that is shown over the sketch. */
const ROUNDS = 3;

type Near = { entry: number; cost: number; letters: (number | null)[] };

/**
 * Ranks faces for a sketch.
 * @param text - what was drawn. @returns one match a family, nearest first; `score` and `agreement` are likenesses of form, 0–1.
 */
export function nearestToSketch(
  lines: InkReadings,
  text: string,
  index: SignatureIndex,
  load: FaceLoader,
  limit: number,
): IdentifyResult {
  const line = lines.plain;
  const wording = wordingOf(text);
  const { characters, wordStarts } = wording;
  const { positions, entries } = measureWord(wording, index);
  const sums = sumInk(line.strip);
  const areCut = line.letters.length === characters.length;
  const forms = areCut ? line.letters.map((b) => Float32Array.from(formIn(sums, b))) : null;
  const near = entries.flatMap(({ style, boxes }): Near[] => {
    const placed = areCut ? line.letters : (alignPieces(line.letters, boxes, wordStarts)?.placed ?? null);
    if (!placed) return [];
    const letters = placed.map((box, i) => {
      if (!box || !boxes[i] || positions[i]! < 0) return null;
      const form = forms?.[i] ?? Float32Array.from(formIn(sums, box));
      return max(0, likeness(form, Float32Array.from(index.form(style, positions[i]!))));
    });
    const told = letters.flatMap((v) => v ?? []);
    if (told.length < max(1, letters.length * 0.6)) return [];
    return [{ entry: style, letters, cost: trimmedMean(told.map((v) => 1 - v)) + misfit(placed, boxes) }];
  });
  near.sort((a, b) => a.cost - b.cost);
  const best = uniqueBy(near, (n) => index.families[n.entry]);
  const view = viewAsItStands(line);
  const matches = best.slice(0, limit).map(({ entry, cost, letters }): Match => {
    const laid = fitPreview({ entry, view, pose: null, per: 1 }, wording, START, ROUNDS, index, load);
    return {
      styleId: index.ids[entry]!,
      family: index.families[entry]!,
      coordinates: index.coordinates[entry]!,
      score: exp(-cost),
      chance: 0,
      letters: characters.map((char, i) => ({ char, agreement: Number((letters[i] ?? 0).toFixed(3)) })),
      besideFirst: null,
      features: [],
      overlayPath: laid ? pathOf(laid, UPRIGHT) : "",
    };
  });
  const compared = new Set(index.ids).size;
  return {
    line,
    leanTan: 0,
    taper: 0,
    setAs: "plain",
    matches,
    noneChance: 1,
    compared,
    imaging: START,
    evidence: null,
  };
}

/** How far heights, widths and proportion of the letters are from a style's. */
function misfit(placed: readonly (CutBox | null)[], boxes: readonly (GlyphBox | null)[]): number {
  const seen = placed.flatMap((cut, i) => (cut && boxes[i] ? [{ cut, box: boxes[i] }] : []));
  const fit = fitLine(
    seen.map((s) => s.cut),
    seen.map((s) => s.box),
  );
  if (!fit) return 1;
  const aspect = abs(log(max(0.2, min(5, fit.aspect))));
  return HEIGHT_WEIGHT * fit.heightError + WIDTH_WEIGHT * fit.widthError + ASPECT_WEIGHT * aspect;
}
