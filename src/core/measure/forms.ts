// Letter forms at one size and position: whether lowercase letters are drawn as capitals, whether letters are letters at all.
import { median } from "../geometry/numbers";
import { mapPolygons } from "../geometry/outline";
import { cellsOf, coverWithPolygon, rasterOutline, sumInk } from "../geometry/raster";
import { LETTER_FORMS } from "./letterForms";
import { describeCells, likeness } from "./cellForm";
import { pick, type Letter, type Letters } from "./letters";

const FORM_PX = 48;

/** Drawn once a letter: cases, legibility and recognition all ask for the same forms. */
const drawnForms = new WeakMap<Letter, { plain?: Float32Array; filled?: Float32Array }>();
function formsOf(letter: Letter) {
  let forms = drawnForms.get(letter);
  if (!forms) drawnForms.set(letter, (forms = {}));
  return forms;
}

/** A letter's form: 16 × 16 cells of its ink box, as a description that can be compared. Not to be modified. */
export const formOf = (letters: Letters, letter: Letter): Float32Array =>
  (formsOf(letter).plain ??= drawForm(letters, letter));
/** The form of a letter with every hole filled. */
const silhouetteOf = (letter: Letter): Float32Array => (formsOf(letter).filled ??= drawSilhouette(letter));

function drawForm(letters: Letters, letter: Letter): Float32Array {
  const { xMin, xMax, yMin, yMax } = letter.bounds;
  const sx = FORM_PX / Math.max(1, xMax - xMin);
  const sy = FORM_PX / Math.max(1, yMax - yMin);
  const to = { a: sx, b: 0, c: 0, d: -sy, e: -xMin * sx, f: yMax * sy };
  const picture = rasterOutline(letters.face.outline(letter.glyphId), to, FORM_PX, FORM_PX);
  return describeCells(cellsOf(sumInk(picture), { left: 0, top: 0, right: FORM_PX, bottom: FORM_PX }, 16));
}

function drawSilhouette(letter: Letter): Float32Array {
  const { xMin, xMax, yMin, yMax } = letter.bounds;
  const to = { a: FORM_PX / Math.max(1, xMax - xMin), d: -FORM_PX / Math.max(1, yMax - yMin), b: 0, c: 0 };
  const placed = mapPolygons(letter.polygons, { ...to, e: -xMin * to.a, f: -yMax * to.d });
  const ink = new Float32Array(FORM_PX * FORM_PX);
  const picture = { widthPx: FORM_PX, heightPx: FORM_PX, ink };
  for (const p of placed) coverWithPolygon(picture, p);
  const sums = sumInk(picture);
  return describeCells(cellsOf(sums, { left: 0, top: 0, right: FORM_PX, bottom: FORM_PX }, 16));
}

/** Letters whose small and capital forms differ in every ordinary alphabet. */
const TELLING = "abdeghnqr";

/** Likeness of a form with the nearest typical form of a character; −1 when it has none. */
function nearestTo(form: Float32Array, char: string): number {
  let best = -1;
  for (const typical of TYPICAL.get(char) ?? []) best = Math.max(best, likeness(form, typical));
  return best;
}
const TYPICAL: Map<string, Float32Array[]> = new Map(
  Object.entries(LETTER_FORMS).map(([c, forms]) => [c, forms.map((f) => Float32Array.from(f))]),
);

const TYPICAL_LESS_COMMON = (() => {
  const flat = [...TYPICAL].flatMap(([c, list]) => list.map((f) => ({ c, f })));
  const less = takeOffCommon(flat.map(({ f }) => f));
  const out = new Map<string, Float32Array[]>();
  flat.forEach(({ c }, i) => out.set(c, [...(out.get(c) ?? []), less[i]!]));
  return out;
})();

/** From this share of telling letters drawn as capitals on, the face has no lowercase letters. */
const CAPITAL_SHARE = 0.6;
/** Middle likeness of lowercase letters with their own capitals from which they are the same drawing. */
const ALIKE = 0.86;

/**
 * Capitals-only when a–z are drawn as capitals (or are missing) at the same height, small-capitals when they are but lower.
 * A small letter is drawn as a capital when it is nearer to its own capital, or to typical capitals, than to typical small forms.
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
  const drawn = pairs.filter(({ small, capital }) =>
    [formOf, (_: Letters, l: Letter) => silhouetteOf(l)].every((formed) => {
      const form = formed(letters, small);
      const toCapital = nearestTo(form, capital.char);
      const toSmall = nearestTo(form, small.char);
      return Math.max(likeness(form, formed(letters, capital)), toCapital) > toSmall && toCapital > toSmall - 0.1;
    }),
  );
  if (alike < ALIKE && drawn.length < CAPITAL_SHARE * pairs.length) return "both";
  const ratio = median(
    pairs.map((p) => (p.small.bounds.yMax - p.small.bounds.yMin) / (p.capital.bounds.yMax - p.capital.bounds.yMin)),
  )!;
  return ratio < 0.93 ? "small-capitals" : "capitals-only";
}

/**
 * Share of letters that, of all letters in either case, look most like themselves: near 0 where letters are pictures or bars.
 * What all letters of the face share (speed lines, boxes, shadows) is taken off first, and light letters on dark boxes count too.
 * @returns 0–1; null when under eight letters exist.
 */
export function measureRecognised(letters: Letters): number | null {
  const found = [...TYPICAL.keys()].flatMap((char) => letters.get(char) ?? []);
  if (found.length < 8) return null;
  const plain = found.map((l) => formOf(letters, l));
  const shares = [plain, plain.map((f) => f.map((v) => -v)), found.map(silhouetteOf)].map((forms) => {
    const raw = shareRecognised(found, forms, TYPICAL);
    return Math.max(raw, shareRecognised(found, takeOffCommon(forms), TYPICAL_LESS_COMMON));
  });
  return Math.max(...shares);
}

function shareRecognised(found: Letter[], forms: Float32Array[], typical: typeof TYPICAL): number {
  const own = found.filter(({ char }, i) => {
    let best = { char: "", like: -2 };
    for (const [c, list] of typical)
      for (const t of list) {
        const like = likeness(forms[i]!, t);
        if (like > best.like) best = { char: c, like };
      }
    return best.char.toLowerCase() === char.toLowerCase();
  });
  return own.length / found.length;
}

function takeOffCommon(forms: Float32Array[]): Float32Array[] {
  const common = new Float32Array(forms[0]!.length);
  for (const f of forms) f.forEach((v, k) => (common[k]! += v / forms.length));
  return forms.map((f) => f.map((v, k) => v - common[k]!));
}

/**
 * How letter-like the letters are: likeness with the nearest of several typical forms of the same letter.
 * @returns 0–1, middle value over the alphabet; null when under eight letters exist.
 */
export function measureLegibility(letters: Letters): number | null {
  const found = [...TYPICAL.keys()].flatMap((char) => {
    const letter = letters.get(char);
    return letter ? [{ char, letter, like: nearestTo(formOf(letters, letter), char), isFilled: false }] : [];
  });
  if (found.length < 8) return null;
  // Hollow letters are letters too: the filled silhouette counts where it is nearer. A letter above the middle stays there however near its
  // silhouette is, so that only those at or below it are filled.
  for (;;) {
    const sorted = found.map((f) => f.like).sort((a, b) => a - b);
    // Of an even number the upper of the two in the middle.
    const middle = sorted[sorted.length >> 1]!;
    const below = found.filter((f) => !f.isFilled && f.like <= middle);
    if (!below.length) return median(sorted);
    for (const f of below) {
      f.like = Math.max(f.like, nearestTo(silhouetteOf(f.letter), f.char));
      f.isFilled = true;
    }
  }
}
