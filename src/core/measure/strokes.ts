// Stems, slant, contrast and serifs: all from rays through straight and round letters.
import type { Traits } from "@/contracts/traits";
import { clamp, mean, median, quantile } from "../geometry/numbers";
import { spansAlong, spansAtX, spansAtY, type Span } from "../geometry/rays";
import { measureCapitalLean, measureLean, measureLeaningStem } from "./lean";
import { pick, type Letter, type Letters } from "./letters";

/** Letters whose first vertical stroke is a straight stem, and the part of their height where it stands free. */
const STEM_LOWER = "hnmrlikbpud";
const STEM_UPPER = "HNIEFLTDBPRM";

type StemRead = { slantDeg: number; stemFu: number; letter: Letter; middleAtBase: number; heightFu: number };

/** Follows the first stroke of a letter between two heights; null when it is not one steady stroke. */
function readStem(letter: Letter, low: number, high: number): StemRead | null {
  const heights = Array.from({ length: 17 }, (_, i) => low + ((high - low) * i) / 16);
  const first: { y: number; span: Span }[] = [];
  for (const y of heights) {
    const spans = spansAtY(letter.polygons, y);
    const span = letter.char === "d" || letter.char === "u" ? spans[spans.length - 1] : spans[0];
    if (span) first.push({ y, span });
  }
  if (first.length < 9) return null;
  const widths = first.map(({ span }) => span.to - span.from);
  const typical = median(widths)!;
  const steady = first.filter(({ span }) => Math.abs(span.to - span.from - typical) < 0.2 * typical + 1);
  if (steady.length < 9) return null;
  const line = fitLine(steady.map(({ y, span }) => [y, (span.from + span.to) / 2]));
  return {
    slantDeg: (Math.atan(line.slope) * 180) / Math.PI,
    stemFu: typical * Math.cos(Math.atan(line.slope)),
    letter,
    middleAtBase: line.at0,
    heightFu: high,
  };
}

function fitLine(points: [number, number][]): { slope: number; at0: number } {
  const mx = mean(points.map((p) => p[0]))!;
  const my = mean(points.map((p) => p[1]))!;
  let xy = 0;
  let xx = 0;
  for (const [x, y] of points) {
    xy += (x - mx) * (y - my);
    xx += (x - mx) ** 2;
  }
  const slope = xx ? xy / xx : 0;
  return { slope, at0: my - slope * mx };
}

function readStems(letters: Letters, chars: string, share: [number, number]): StemRead[] {
  return pick(letters, chars)
    .map((l) => {
      // x-height part only: b, h, k and l keep the same window as n, so that serifs at their top stay out.
      const height =
        chars === STEM_LOWER ? Math.min(l.bounds.yMax, letters.get("x")?.bounds.yMax ?? l.bounds.yMax) : l.bounds.yMax;
      const base = Math.max(0, l.bounds.yMin);
      return readStem(l, base + share[0] * (height - base), base + share[1] * (height - base));
    })
    .filter((r): r is StemRead => r !== null);
}

/** Steady stems of plain letters, for the spread of their slants. */
export const readPlainStems = (letters: Letters) => readStems(letters, STEM_LOWER, [0.25, 0.6]);

/** How serifs are drawn: out of the stem by a curve, as a block, as a hair line, as a wedge. */
export type SerifForm = NonNullable<Traits["serifForm"]>;

export type StrokeMeasures = {
  stemEm: number | null;
  capStemEm: number | null;
  /** Thickness of horizontal strokes (bars of H, e, t, f), in em. */
  barEm: number | null;
  slantDeg: number | null;
  contrast: number | null;
  serif: number | null;
  serifThickness: number | null;
  serifForm: SerifForm | null;
  /** How many stems were read, how far they differ (share of the middle one), and how clear the lean is. */
  reads: number;
  stemSpread: number | null;
  leanShare: number | null;
};

/** Middle difference from the middle value, as a share of it. */
function spreadOf(values: number[]): number | null {
  const m = median(values);
  return m ? median(values.map((v) => Math.abs(v - m)))! / m : null;
}

function measureBar(letters: Letters): number | null {
  const bars = ["H", "e", "A", "f", "t"]
    .map((c) => barThickness(letters, c, 0.5))
    .filter((b): b is number => b !== null);
  return bars.length < 2 ? null : median(bars)! / letters.em;
}

/** Share of near-upright edges that must run one way before that way is taken for the lean. */
const CLEAR_SHARE = 0.3;
/** First strokes further than this from the lean are no stems: hairlines that lead into a letter. */
const ASTRAY_DEG = 4;

export function measureStrokes(letters: Letters): StrokeMeasures {
  const lean = measureLean(letters);
  const isClear = lean !== null && lean.share >= CLEAR_SHARE;
  const agrees = (r: StemRead) => !isClear || Math.abs(r.slantDeg - lean.leanDeg) < ASTRAY_DEG;
  const allLower = readStems(letters, STEM_LOWER, [0.25, 0.6]);
  const lower = allLower.filter(agrees);
  const upper = readStems(letters, STEM_UPPER, [0.25, 0.45]);
  const lowerStem = median(lower.map((r) => r.stemFu));
  const upperStem = median(upper.map((r) => r.stemFu));
  const leadsIn = isClear && lower.length < 0.6 * allLower.length;
  const leaning = leadsIn ? measureLeaningStem(letters, lean.leanDeg) : null;
  const stem = leaning ?? (lower.length >= 3 ? lowerStem : (upperStem ?? lowerStem));
  const leanDeg = isClear ? lean.leanDeg : median([...lower, ...upper].map((r) => r.slantDeg));
  const capitalDeg = measureCapitalLean(letters);
  // Capitals lean as the face was drawn; where they go another way than the lowercase letters (upright capitals), these count.
  const slantDeg =
    capitalDeg !== null && (leanDeg === null || Math.abs(capitalDeg - leanDeg) < 5) ? capitalDeg : leanDeg;
  return {
    stemEm: stem === null ? null : stem / letters.em,
    capStemEm: upperStem === null ? null : upperStem / letters.em,
    barEm: measureBar(letters),
    slantDeg,
    contrast: measureContrast(letters, stem),
    ...measureSerifs(letters, lower, upper, leanDeg ?? 0),
    reads: lower.length + upper.length,
    stemSpread: spreadOf((lower.length >= 3 ? lower : upper).map((r) => r.stemFu)),
    leanShare: lean?.share ?? null,
  };
}

/** Thick : thin, from the ring of o and O in 24 directions and from bars of e, t, H against their stems. At least 1. */
function measureContrast(letters: Letters, stemFu: number | null): number | null {
  const ratios: number[] = [];
  for (const l of pick(letters, "oO0eQ")) {
    if (l.char === "e") continue;
    const cx = (l.bounds.xMin + l.bounds.xMax) / 2;
    const cy = (l.bounds.yMin + l.bounds.yMax) / 2;
    const ring: number[] = [];
    for (let i = 0; i < 24; i++) {
      const spans = spansAlong(l.polygons, cx, cy, (i / 24) * 2 * Math.PI);
      const s = spans[0];
      if (s && s.from > 0) ring.push(s.to - s.from);
    }
    if (ring.length >= 18) ratios.push(quantile(ring, 0.88)! / Math.max(quantile(ring, 0.12)!, letters.em / 500));
  }
  for (const [char, share] of [
    ["H", 0.5],
    ["e", 0.5],
    ["n", 0.5],
  ] as const) {
    const bar = stemFu && barThickness(letters, char, share);
    if (bar) ratios.push(Math.max(stemFu / bar, bar / stemFu));
  }
  const m = median(ratios);
  return m === null ? null : Math.max(1, m);
}

/** Thinnest horizontal piece in the middle of a letter (bar of H and e, arch of n), in font units. */
function barThickness(letters: Letters, char: string, share: number): number | null {
  const l = letters.get(char);
  if (!l) return null;
  const found: number[] = [];
  for (const off of [-0.06, 0, 0.06]) {
    const x = l.bounds.xMin + (share + off) * (l.bounds.xMax - l.bounds.xMin);
    const spans = spansAtX(l.polygons, x);
    const height = l.bounds.yMax - l.bounds.yMin;
    const bars = spans.filter((s) => s.to - s.from < 0.5 * height).map((s) => s.to - s.from);
    if (bars.length) found.push(Math.min(...bars));
  }
  return median(found);
}

/**
 * Serifs: how far the foot of a straight stem reaches beyond the stem on its outer side.
 * @returns serif 0–1 (share of feet that reach out, weighted by how far), thickness of that foot / stem.
 */
function measureSerifs(letters: Letters, lower: StemRead[], upper: StemRead[], slantDeg: number) {
  const tan = Math.tan((slantDeg * Math.PI) / 180);
  const feet: number[] = [];
  const thickness: number[] = [];
  const tapers: number[] = [];
  for (const read of [
    ...lower.filter((r) => "hnmrikp".includes(r.letter.char)),
    ...upper.filter((r) => "HNIFTPRM".includes(r.letter.char)),
  ]) {
    const { letter, stemFu, middleAtBase } = read;
    const base = letter.bounds.yMin;
    const height = letter.bounds.yMax - base;
    let reach = 0;
    for (const share of [0.012, 0.025, 0.045]) {
      const y = base + share * height;
      const stemLeft = middleAtBase + tan * y - stemFu / 2 / Math.cos(Math.atan(tan));
      const span = spansAtY(letter.polygons, y).find((s) => s.to > stemLeft && s.from < stemLeft + stemFu);
      if (span) reach = Math.max(reach, stemLeft - span.from);
    }
    const share = reach / (0.06 * letters.em);
    feet.push(clamp((share - 0.12) / 0.5, 0, 1));
    if (share > 0.3) {
      const x = middleAtBase + tan * base - stemFu / 2 - reach * 0.55;
      const foot = spansAtX(letter.polygons, x).find((s) => s.from < base + 0.12 * height);
      if (foot) thickness.push((foot.to - foot.from) / stemFu);
      const taper = taperOf(
        letter,
        base,
        height,
        (y) => middleAtBase + tan * y - stemFu / 2 / Math.cos(Math.atan(tan)),
      );
      if (taper !== null) tapers.push(taper);
    }
  }
  const serif = feet.length >= 3 ? mean(feet) : null;
  return { serif, serifThickness: median(thickness), serifForm: nameForm(serif, median(thickness), median(tapers)) };
}

/**
 * How a serif leaves the stem: height at which half of its reach is gone / height at which nearly all is.
 * @returns near 1 for a plain slab or hairline, about a half for a wedge, less for a bracket's hollow curve.
 */
function taperOf(letter: Letter, base: number, height: number, stemLeftAt: (y: number) => number): number | null {
  const profile: number[] = [];
  for (let k = 0; k < 60; k++) {
    const y = base + height * (0.006 + 0.005 * k);
    const left = stemLeftAt(y);
    const span = spansAtY(letter.polygons, y).find((s) => s.to > left && s.from < left + height * 0.4);
    profile.push(span ? Math.max(0, left - span.from) : 0);
  }
  const most = Math.max(...profile);
  if (most <= 0) return null;
  const below = (share: number) => profile.findIndex((r, k) => r < share * most && k >= profile.indexOf(most));
  const [half, gone] = [below(0.5), below(0.12)];
  return half < 0 || gone < 1 ? null : (half + 0.5) / (gone + 0.5);
}

function nameForm(serif: number | null, thickness: number | null, taper: number | null): SerifForm | null {
  if (serif === null || serif < 0.45 || taper === null || thickness === null) return null;
  if (taper < 0.52) return "bracketed";
  if (thickness >= 0.55 && taper > 0.66) return "slab";
  if (thickness < 0.34 && taper > 0.6) return "hairline";
  return taper < 0.68 ? "wedge" : thickness < 0.42 ? "hairline" : "slab";
}
