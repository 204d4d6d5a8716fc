// How letters are built: even or by hand, round or broken, solid or hollow, of pixels or dots. Read by `kind` alone.
import { mean, median } from "../geometry/numbers";
import { rasterOutline } from "../geometry/raster";
import { pick, type Letter, type Letters } from "./letters";
import { readPlainStems } from "./strokes";

// Taken out of the global object once: the loops below call them millions of times.
const { abs, atan2, ceil, hypot, max, min } = Math;

export type Build = {
  /** Spread of foot heights and stem slants over plain letters, 0 = drawn with a ruler, above 0.02 by hand. */
  unevenness: number | null;
  /** Share of sharp turning in letters that are round elsewhere (o, c, e, O, C): near 1 in broken scripts and pixels. */
  brokenCurves: number | null;
  /** Middle number of ink pieces and of holes in letters that need one piece and no hole (H I L T l n). */
  pieces: number | null;
  holes: number | null;
  /** Ink / area within the outer contours, for the same letters. */
  solidity: number | null;
  /** Share of contour length running exactly along the axes, over round letters. */
  axisAligned: number | null;
  /** Middle number of ink pieces in o, O, e, C, 0, 8: two or more where bridges cut the ring. */
  roundPieces: number | null;
  /** Where flat capitals (H I E F T M) end below, in em, and how far they differ: a shadow hangs evenly, drips do not. */
  footEm: number | null;
  footSpreadEm: number | null;
};

export function measureBuild(letters: Letters): Build {
  const plain = pick(letters, "HILTlnhrEF");
  const round = pick(letters, "ocOCeS");
  const nests = plain.map((l) => countComponents(letters, l));
  return {
    unevenness: measureUnevenness(letters),
    brokenCurves: median(round.map((l) => sharpShare(l, letters.em))),
    pieces: median(nests.map((n) => n.pieces)),
    holes: median(nests.map((n) => n.holes)),
    solidity: median(nests.map((n) => n.solidity)),
    axisAligned: median(round.map(axisShare)),
    ...measureFeet(letters),
    roundPieces: median(pick(letters, "oOeC08").map((l) => countComponents(letters, l).pieces)),
  };
}

function measureFeet(letters: Letters) {
  const feet = pick(letters, "HIEFTM").map((l) => l.bounds.yMin / letters.em);
  const middle = median(feet);
  return { footEm: middle, footSpreadEm: middle === null ? null : mean(feet.map((f) => abs(f - middle))) };
}

function measureUnevenness(letters: Letters): number | null {
  const feet = pick(letters, "hnmrikxzHEIFT").map((l) => l.bounds.yMin / letters.em);
  const tops = pick(letters, "xzvwnmr").map((l) => l.bounds.yMax / letters.em);
  if (feet.length < 5) return null;
  const stems = readPlainStems(letters).map((r) => r.slantDeg);
  const spread = (v: number[]) => {
    const m = median(v) ?? 0;
    return mean(v.map((x) => abs(x - m))) ?? 0;
  };
  return spread(feet) + spread(tops) * 0.5 + spread(stems) * 0.004;
}

const NEST_PX = 72;
/** Low, so that a hairline thinner than a pixel does not fall apart. */
const INKED = 0.2;

/**
 * Counts pieces of ink and enclosed holes on a picture of the letter, so that overlapping contours count once.
 * Specks under 0.4 % of the picture are left out.
 */
function countComponents(letters: Letters, letter: Letter): { pieces: number; holes: number; solidity: number } {
  const { xMin, yMax, yMin, xMax } = letter.bounds;
  const scale = (NEST_PX - 4) / max(yMax - yMin, 1);
  const widthPx = min(240, ceil((xMax - xMin) * scale) + 4);
  const to = { a: scale, b: 0, c: 0, d: -scale, e: 2 - xMin * scale, f: 2 + yMax * scale };
  const { ink } = rasterOutline(letters.face.outline(letter.glyphId), to, widthPx, NEST_PX);
  const { inked: inkAreas, paper } = findAreas(ink, widthPx, NEST_PX);
  const paperAreas = paper.filter((a) => !a.touchesEdge);
  const least = 0.004 * widthPx * NEST_PX;
  const sum = (list: { size: number }[]) => list.reduce((t, a) => t + a.size, 0);
  return {
    pieces: inkAreas.filter((a) => a.size > least).length,
    holes: paperAreas.filter((a) => a.size > least).length,
    solidity: sum(inkAreas) / max(1, sum(inkAreas) + sum(paperAreas)),
  };
}

type Area = { size: number; touchesEdge: boolean };

/**
 * Connected areas of ink and of paper, over the four neighbours: runs of one kind in a row, united with those above that they touch.
 * Source: run-length labelling with union–find (Haralick & Shapiro, Computer and Robot Vision, 2.3).
 */
function findAreas(ink: Float32Array, width: number, height: number): { inked: Area[]; paper: Area[] } {
  const ends: number[] = [];
  const kinds: boolean[] = [];
  const parents: number[] = [];
  const sizes: number[] = [];
  const edges: boolean[] = [];
  const rootOf = (run: number): number => {
    let root = run;
    while (parents[root]! !== root) root = parents[root]!;
    return (parents[run] = root);
  };
  let above = 0;
  let aboveEnd = 0;
  for (let y = 0; y < height; y++) {
    const first = ends.length;
    const base = y * width;
    const isEdgeRow = y === 0 || y === height - 1;
    for (let x = 0; x < width;) {
      const kind = ink[base + x]! >= INKED;
      const start = x;
      do x++;
      while (x < width && ink[base + x]! >= INKED === kind);
      const run = ends.length;
      ends.push(x);
      kinds.push(kind);
      parents.push(run);
      sizes.push(x - start);
      edges.push(isEdgeRow || start === 0 || x === width);
      // Runs above that end after this one's start and start before its end lie over it.
      while (above < aboveEnd && ends[above]! <= start) above++;
      for (let up = above; up < aboveEnd; up++) {
        if (kinds[up] === kind) {
          const [a, b] = [rootOf(up), rootOf(run)];
          if (a !== b) {
            parents[b] = a;
            sizes[a]! += sizes[b]!;
            edges[a] ||= edges[b]!;
          }
        }
        if (ends[up]! >= x) break;
      }
    }
    above = first;
    aboveEnd = ends.length;
  }
  const areas = { inked: [] as Area[], paper: [] as Area[] };
  parents.forEach((parent, run) => {
    if (parent === run) areas[kinds[run] ? "inked" : "paper"].push({ size: sizes[run]!, touchesEdge: edges[run]! });
  });
  return areas;
}

function sharpShare(letter: Letter, em: number): number {
  let sharp = 0;
  let all = 0;
  for (const p of letter.polygons) {
    const n = p.length / 2;
    let before: number | null = null;
    for (let i = 0; i <= n; i++) {
      const a = 2 * (i % n);
      const b = 2 * ((i + 1) % n);
      const dx = p[b]! - p[a]!;
      const dy = p[b + 1]! - p[a + 1]!;
      if (hypot(dx, dy) < em * 0.0005) continue;
      const angle = atan2(dy, dx);
      if (before !== null) {
        const turn = abs(((angle - before + 3 * Math.PI) % (2 * Math.PI)) - Math.PI);
        all += turn;
        if (turn > 0.44) sharp += turn;
      }
      before = angle;
    }
  }
  return all ? sharp / all : 0;
}

function axisShare(letter: Letter): number {
  let along = 0;
  let all = 0;
  for (const p of letter.polygons)
    for (let i = 0, j = p.length - 2; i < p.length; j = i, i += 2) {
      const dx = abs(p[i]! - p[j]!);
      const dy = abs(p[i + 1]! - p[j + 1]!);
      const length = hypot(dx, dy);
      all += length;
      if (min(dx, dy) < 1e-6) along += length;
    }
  return all ? along / all : 0;
}
