// How a line that is not seen from the front is wider in one place than in another: where its letters came to lie tells, against the pens of the face.
import { solveLinear } from "../../geometry/linear";

// Taken out of the global object once: the loops below call them many times.
const { max, min, sqrt } = Math;

/** Letters that tell more than how wide the whole is. */
const ENOUGH_LETTERS = 5;
const NARROWEST = 0.35;
const WIDEST = 1.8;
const MAX_CHANGE = 0.6;
/** Holds the terms of second and third order: few letters must not bend the line. */
const STIFFNESS = 0.02;

/** A letter's place along the line, −1 to 1, and along the run that the face sets, em. */
export type Standing = { u: number; em: number };

/** Width against height in the middle of a line; how it changes from there to either end, and at both ends alike. */
type Spread = { aspect: number; widen: number; bulge: number };

/** The run as a polynomial of the place along the line. @returns null where letters stand all in one place. */
function fitRun(at: readonly Standing[], degree: number): number[] | null {
  const rows = Array.from({ length: degree + 1 }, (_, p) => {
    const row = new Array<number>(degree + 2).fill(0);
    row[p] = p > 1 ? STIFFNESS * at.length : 0;
    return row;
  });
  for (const { u, em } of at)
    for (let p = 0; p <= degree; p++) {
      for (let q = 0; q <= degree; q++) rows[p]![q]! += u ** (p + q);
      rows[p]![degree + 1]! += u ** p * em;
    }
  return solveLinear(rows);
}

const valueOf = (terms: readonly number[], u: number) => terms.reduce((sum, t, p) => sum + t * u ** p, 0);

/**
 * How wide letters stand along a line, from where they lie.
 * @param halfEm - half the line's length, in the em of its height.
 */
export function spreadOf(at: readonly Standing[], halfEm: number): Spread {
  const terms = fitRun(at, at.length < ENOUGH_LETTERS ? 1 : 3);
  if (!terms) return { aspect: 1, widen: 0, bulge: 0 };
  const widthAt = (u: number) => {
    const slope = terms.reduce((sum, t, p) => (p ? sum + p * t * u ** (p - 1) : 0), 0);
    return max(NARROWEST, min(WIDEST, slope > 0 ? halfEm / slope : WIDEST));
  };
  const [left, middle, right] = [widthAt(-0.8), widthAt(0), widthAt(0.8)];
  const over = ((left + right) / 2 - middle) / 0.64;
  const aspect = middle + over / 3;
  const change = (v: number) => max(-MAX_CHANGE, min(MAX_CHANGE, v / aspect));
  return { aspect, widen: change((right - left) / 1.6), bulge: change(over) };
}

/** Root mean square of what letters stand off the run, em, whatever the line does to it smoothly; 0 where letters are too few to say. */
export function offRunEm(at: readonly Standing[]): number {
  const n = at.length;
  if (n < ENOUGH_LETTERS) return 0;
  const terms = fitRun(at, 3);
  if (!terms) return 0;
  return sqrt(at.reduce((sum, { u, em }) => sum + (em - valueOf(terms, u)) ** 2, 0) / (n - 2));
}
