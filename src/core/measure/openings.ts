// The white of letters: how open c and e are, how many storeys a and g have, the narrowest gap. From vertical rays.
import { median, quantile } from "../geometry/numbers";
import { boundsOf, mapPolygons, type Bounds, type Polygons } from "../geometry/outline";
import { spansAtX, spansAtY, type Span } from "../geometry/rays";
import { pick, type Letter, type Letters } from "./letters";

const { max, min, round, tan } = Math;

type Openings = {
  /** Opening of c, e and C between their ends / height of the letter: closed forms near 0.1, open ones above 0.35. */
  aperture: number | null;
  /** Storeys of a and g: 1 as written by hand, 2 as in books. */
  storeysA: 1 | 2 | null;
  storeysG: 1 | 2 | null;
  /** Narrowest white inside letters (between the strokes of e, a, s, m, B, 8), in em. */
  gapEm: number | null;
};

/** @param slantDeg - letters are set upright by it before vertical rays are sent. */
export function measureOpenings(letters: Letters, slantDeg: number): Openings {
  const upright = (l: Letter) => setUpright(l, slantDeg);
  return {
    aperture: median(pick(letters, "ceC").flatMap((l) => openingOf(upright(l)) ?? [])),
    storeysA: countStoreys(letters.get("a"), slantDeg, [0.36, 0.44, 0.52], 3),
    storeysG: countStoreys(letters.get("g"), slantDeg, [0.38, 0.46, 0.54], 4),
    gapEm: measureGap(letters, slantDeg),
  };
}

type Upright = Bounds & { polygons: Polygons };

function setUpright({ polygons, bounds }: Letter, slantDeg: number): Upright {
  if (!slantDeg) return { polygons, ...bounds };
  const shear = -tan((slantDeg * Math.PI) / 180);
  const set = mapPolygons(polygons, { a: 1, b: 0, c: shear, d: 1, e: 0, f: 0 });
  return { polygons: set, ...(boundsOf(set) ?? bounds) };
}

const at = (l: Upright, share: number): Span[] => spansAtX(l.polygons, l.xMin + share * (l.xMax - l.xMin));

/** White between the two ends on the right side, where the shorter of them ends. */
function openingOf(l: Upright): number | null {
  for (let share = 0.98; share > 0.62; share -= 0.02) {
    const spans = at(l, share);
    if (spans.length < 2) continue;
    const gap = spans[1]!.from - spans[0]!.to;
    return gap / (l.yMax - l.yMin);
  }
  return null;
}

/** Strokes that a vertical line through the middle crosses: one more than a single bowl needs means two storeys. */
function countStoreys(letter: Letter | null, slantDeg: number, shares: number[], two: number): 1 | 2 | null {
  if (!letter) return null;
  const l = setUpright(letter, slantDeg);
  const counts = shares.map((s) => mergeNear(at(l, s), 0.02 * (l.yMax - l.yMin)).length);
  const usual = median(counts)!;
  return usual >= two ? 2 : usual >= two - 1 ? 1 : null;
}

/** Strokes nearer than a hair count as one: rough and inline faces. */
function mergeNear(spans: Span[], hair: number): Span[] {
  const out: Span[] = [];
  for (const s of spans) {
    const last = out[out.length - 1];
    if (last && s.from - last.to < hair) last.to = s.to;
    else out.push({ ...s });
  }
  return out;
}

function measureGap(letters: Letters, slantDeg: number): number | null {
  const gaps: number[] = [];
  const smallest = (spans: Span[], hair: number) => {
    const merged = mergeNear(spans, hair);
    return merged.length < 2 ? null : min(...merged.slice(1).map((s, i) => s.from - merged[i]!.to));
  };
  for (const l of pick(letters, "easgB8")) {
    const u = setUpright(l, slantDeg);
    const found = [0.42, 0.5, 0.58].map((s) => smallest(at(u, s), 0.004 * letters.em)).filter((g) => g !== null);
    if (found.length) gaps.push(median(found)!);
  }
  for (const l of pick(letters, "mMwun")) {
    // Where a branch leaves its stem the white is a wedge, which says nothing of the counter: of three heights the widest counts.
    const found = [0.3, 0.45, 0.6].flatMap((share) => {
      const y = l.bounds.yMin + share * (l.bounds.yMax - l.bounds.yMin);
      return smallest(spansAtY(l.polygons, y), 0.004 * letters.em) ?? [];
    });
    if (found.length) gaps.push(max(...found));
  }
  return gaps.length < 4 ? null : quantile(gaps, 0.15)! / letters.em;
}

/**
 * Size from which a face reads on a screen: its narrowest gap is a pixel, its lowercase letters are six pixels high.
 * @returns px, rounded; null when either is unknown.
 */
export const legibleFromPx = (gapEm: number | null, bodyEm: number | null): number | null =>
  gapEm && bodyEm ? min(999, round(max(1 / gapEm, 6 / bodyEm))) : null;
