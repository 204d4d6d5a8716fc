// Letter forms at one size and position: whether small letters are drawn as capitals, whether letters are letters at all.
import { median } from "../geometry/numbers";
import { mapPolygons } from "../geometry/outline";
import { cellsOf, fillPolygons, rasterOutline, sumInk } from "../geometry/raster";
import { LETTER_FORMS } from "./letterForms";
import { describeCells, likeness } from "./cellForm";
import { pick, type Letter, type Letters } from "./letters";

const FORM_PX = 48;

/** A letter's form: 16 × 16 cells of its ink box, as a description that can be compared. */
export function formOf(letters: Letters, letter: Letter): Float32Array {
  const { xMin, xMax, yMin, yMax } = letter.bounds;
  const sx = FORM_PX / Math.max(1, xMax - xMin);
  const sy = FORM_PX / Math.max(1, yMax - yMin);
  const to = { a: sx, b: 0, c: 0, d: -sy, e: -xMin * sx, f: yMax * sy };
  const picture = rasterOutline(letters.face.outline(letter.glyphId), to, FORM_PX, FORM_PX);
  return describeCells(cellsOf(sumInk(picture), { left: 0, top: 0, right: FORM_PX, bottom: FORM_PX }, 16));
}

/** The form of a letter with every hole filled. */
function silhouetteOf(letter: Letter): Float32Array {
  const { xMin, xMax, yMin, yMax } = letter.bounds;
  const to = { a: FORM_PX / Math.max(1, xMax - xMin), d: -FORM_PX / Math.max(1, yMax - yMin), b: 0, c: 0 };
  const placed = mapPolygons(letter.polygons, { ...to, e: -xMin * to.a, f: -yMax * to.d });
  const ink = new Float32Array(FORM_PX * FORM_PX);
  for (const p of placed) fillPolygons([p], FORM_PX, FORM_PX).forEach((v, i) => (ink[i] = Math.max(ink[i]!, v)));
  const sums = sumInk({ widthPx: FORM_PX, heightPx: FORM_PX, ink });
  return describeCells(cellsOf(sums, { left: 0, top: 0, right: FORM_PX, bottom: FORM_PX }, 16));
}

/** Letters whose small and capital forms differ in every ordinary alphabet. */
const TELLING = "abdeghnqr";

/**
 * Capitals-only when a–z look like A–Z (or are missing) at the same height, small-capitals when they do but lower.
 * @returns null when the face has no capitals either.
 */
export function measureCases(letters: Letters): "both" | "capitals-only" | "small-capitals" | null {
  if (pick(letters, "ABDEGHNQR").length < 5) return null;
  const pairs = [...TELLING].flatMap((c) => {
    const small = letters.get(c);
    const capital = letters.get(c.toUpperCase());
    return small && capital ? [{ small, capital }] : [];
  });
  if (pairs.length < 4) return "capitals-only";
  const alike = median(pairs.map((p) => likeness(formOf(letters, p.small), formOf(letters, p.capital))))!;
  if (alike < 0.86) return "both";
  const ratio = median(
    pairs.map((p) => (p.small.bounds.yMax - p.small.bounds.yMin) / (p.capital.bounds.yMax - p.capital.bounds.yMin)),
  )!;
  return ratio < 0.93 ? "small-capitals" : "capitals-only";
}

/**
 * How letter-like the letters are: likeness with the nearest of several typical forms of the same letter.
 * @returns 0–1, middle value over the alphabet; null when under eight letters exist.
 */
export function measureLegibility(letters: Letters): number | null {
  const found: number[] = [];
  for (const [char, forms] of Object.entries(LETTER_FORMS)) {
    const letter = letters.get(char);
    if (!letter) continue;
    const nearest = (form: Float32Array) => Math.max(...forms.map((f) => likeness(form, Float32Array.from(f))));
    // Hollow letters are letters too: the filled silhouette counts where it is nearer.
    found.push(Math.max(nearest(formOf(letters, letter)), nearest(silhouetteOf(letter))));
  }
  return found.length < 8 ? null : median(found);
}
