// Nearness of styles by what is measured: each trait in steps that a practitioner would notice.
import type { Traits } from "@/contracts/traits";
import { KINDS, type SieveTrait } from "@/contracts/traits";
import { hasBit, type FindIndex, type LetterBuild, type TraitColumn } from "./findIndex";
import { memoizeRecent } from "./lately";

/** How much of each trait is one noticeable step. Our own judgement: about a weight class, a width class, and so on. */
export const STEPS: Partial<Record<SieveTrait, number>> = {
  weight: 100,
  width: 1,
  contrast: 0.6,
  xHeightEm: 0.035,
  capHeightEm: 0.05,
  slantDeg: 4,
  serif: 0.3,
  serifThickness: 0.25,
  stressDeg: 14,
  roundness: 0.18,
  roundEnds: 0.25,
  roughness: 0.15,
  connected: 0.25,
  aperture: 0.09,
  evenness: 0.12,
};
export const TRAITS = Object.keys(STEPS) as SieveTrait[];
/** A trait that only one of two styles has counts as this many steps. */
const ABSENT_STEPS = 1.5;
/** One trait never counts for more than this. */
const MAX_STEPS = 6;
export const KIND_STEPS = 4;
const STOREY_STEPS = 1;

/**
 * Distance of every row to one of them, trait by trait over whole columns.
 * @param reach - true: a variable font counts with the nearest value of its axes.
 * @returns Float32Array, one a row: steps, 0 for the same measures.
 */
export const nearnessTo = (index: FindIndex, row: number, reach = false): Float32Array =>
  // "Like Lora", "like Lora but narrower", "… and free": the same face is asked for again and again.
  nearLately(index, `${row} ${reach}`, () => measureNearness(index, row, reach));
const NEAR_KEPT = 8;
const nearLately = memoizeRecent<FindIndex, Float32Array>(NEAR_KEPT);

function measureNearness(index: FindIndex, row: number, reach: boolean): Float32Array {
  const count = index.rows.length;
  const sums = new Float64Array(count);
  for (const trait of TRAITS) addTrait(sums, index.traits[trait], row, STEPS[trait]!, reach);
  const kinds = index.kinds.list[index.kinds.of[row]!]!;
  const build = index.builds.list[index.builds.of[row]!]!;
  const kindsTo = Float32Array.from(index.kinds.list, (k) => KIND_STEPS * KIND_STEPS * kindsApart(kinds, k));
  const buildsTo = Float32Array.from(index.builds.list, (b) => STOREY_STEPS * buildsApart(build, b));
  const near = new Float32Array(count);
  const [kindOf, buildOf] = [index.kinds.of, index.builds.of];
  for (let i = 0; i < count; i++) near[i] = Math.sqrt(sums[i]! + kindsTo[kindOf[i]!]! + buildsTo[buildOf[i]!]!);
  return near;
}

function addTrait(sums: Float64Array, { values, low, high }: TraitColumn, row: number, step: number, reach: boolean) {
  const a = values[row]!;
  const absent = ABSENT_STEPS * ABSENT_STEPS;
  const most = MAX_STEPS * MAX_STEPS;
  const count = sums.length;
  const [from, to] = reach ? [low, high] : [values, values];
  const perStep = 1 / step;
  // NaN, what was not measured, is the only value unlike itself.
  if (a !== a) {
    for (let i = 0; i < count; i++) if (values[i]! === values[i]!) sums[i]! += absent;
    return;
  }
  for (let i = 0; i < count; i++) {
    const lowest = from[i]!;
    const highest = to[i]!;
    if (lowest !== lowest) {
      sums[i]! += absent;
      continue;
    }
    const off = a < lowest ? lowest - a : a > highest ? a - highest : 0;
    const squared = off * off * perStep * perStep;
    sums[i]! += squared < most ? squared : most;
  }
}

/** Distance of two rows, in the same steps. */
export const stepsApart = (index: FindIndex, a: number, b: number): number => distancesIn(index, [a, b])(0, 1);

/**
 * Distances among some rows, in the same steps.
 * @returns by their places in the list, with the most that is asked for: what is further counts as infinitely far. Their measures stand
 *   side by side in one table, so that very many pairs can be asked for.
 */
export function distancesIn(
  index: FindIndex,
  rows: ArrayLike<number>,
): (a: number, b: number, most?: number) => number {
  const width = TRAITS.length;
  const table = new Float64Array(rows.length * width);
  TRAITS.forEach((trait, t) => {
    const { values } = index.traits[trait];
    const perStep = 1 / STEPS[trait]!;
    for (let k = 0; k < rows.length; k++) {
      const value = values[rows[k]!]!;
      table[k * width + t] = Number.isNaN(value) ? NOT_MEASURED : value * perStep;
    }
  });
  const { kinds, builds } = index;
  const apart = pairsOf(rows, kinds.of, (a, b) => KIND_STEPS * KIND_STEPS * kindsApart(kinds.list[a]!, kinds.list[b]!));
  const built = pairsOf(rows, builds.of, (a, b) => STOREY_STEPS * buildsApart(builds.list[a]!, builds.list[b]!));
  return (a, b, most = Infinity) => {
    const mostSquared = most * most;
    let sum = apart(a, b) + built(a, b);
    let [i, j] = [a * width, b * width];
    for (const end = i + width; i < end && sum <= mostSquared; i++, j++) {
      const off = abs(table[i]! - table[j]!);
      sum += off < MAX_STEPS ? off * off : off < FAR ? MAX_STEPS * MAX_STEPS : ABSENT_STEPS * ABSENT_STEPS;
    }
    return sum > mostSquared ? Infinity : sqrt(sum);
  };
}
const { abs, sqrt } = Math;
/** Stands for what was not measured: as far from every measure as nothing measured is, and from itself not at all. */
const NOT_MEASURED = 1e9;
const FAR = 1e6;

/** Values of pairs of rows, by what the rows have in common: few values, and very many pairs of them. */
function pairsOf(
  rows: ArrayLike<number>,
  valueOf: ArrayLike<number>,
  apart: (a: number, b: number) => number,
): (a: number, b: number) => number {
  const distinct = new Map<number, number>();
  const own = Int32Array.from(rows, (row) => {
    const value = valueOf[row]!;
    if (!distinct.has(value)) distinct.set(value, distinct.size);
    return distinct.get(value)!;
  });
  const n = distinct.size;
  const list = [...distinct.keys()];
  const known = new Float64Array(n * n).fill(-1);
  return (a, b) => {
    const at = own[a]! * n + own[b]!;
    if (known[at]! < 0) known[at] = apart(list[own[a]!]!, list[own[b]!]!);
    return known[at]!;
  };
}

function kindsApart(a: number, b: number): number {
  if (a === b) return 0;
  let [both, either] = [0, 0];
  for (const kind of KINDS) {
    const [x, y] = [hasBit(KINDS, a, kind), hasBit(KINDS, b, kind)];
    if (x && y) both++;
    if (x || y) either++;
  }
  return either ? 1 - both / either : 0;
}

function buildsApart(a: LetterBuild, b: LetterBuild): number {
  const apart = (x: number | null, y: number | null) => Number(x !== y && x !== null && y !== null);
  return (
    apart(a.storeysA, b.storeysA) +
    apart(a.storeysG, b.storeysG) +
    2 * Number(a.cases !== b.cases) +
    2 * Number(a.monospaced !== b.monospaced)
  );
}

/** What differs, in words, largest first. Percent where the trait has a true zero. */
export function tellDifferences(a: Traits, b: Traits, most = 4): { trait: string; says: string }[] {
  const out: { trait: string; says: string; steps: number }[] = [];
  const add = (trait: SieveTrait, more: string, less: string, write: (d: number) => string) => {
    const [x, y] = [a[trait], b[trait]];
    if (x === null || y === null) return;
    const steps = (y - x) / STEPS[trait]!;
    if (Math.abs(steps) >= 0.4)
      out.push({
        trait,
        says: [steps > 0 ? more : less, write(Math.abs(y - x))].filter(Boolean).join(" by "),
        steps: Math.abs(steps),
      });
  };
  const percent = (base: number | null) => (d: number) =>
    `${Math.max(1, Math.round((100 * d) / Math.max(1e-6, base ?? 1)))} %`;
  const slight = () => "";
  add("weight", "heavier", "lighter", (d) => String(Math.max(10, Math.round(d / 10) * 10)));
  add("width", "wider", "narrower", () => percent(a.widthEm)(Math.abs((b.widthEm ?? 0) - (a.widthEm ?? 0))));
  add("xHeightEm", "larger x-height", "smaller x-height", percent(a.xHeightEm));
  add("contrast", "more contrast", "less contrast", slight);
  add("slantDeg", "more slanted", "less slanted", (d) => `${d.toFixed(0)}°`);
  add("roundness", "rounder", "sharper", slight);
  add("serif", "more serif", "less serif", slight);
  add("aperture", "more open apertures", "tighter apertures", slight);
  add("roughness", "rougher", "cleaner", slight);
  add("connected", "more joined", "less joined", slight);
  if (a.storeysA && b.storeysA && a.storeysA !== b.storeysA)
    out.push({ trait: "storeysA", says: `${b.storeysA === 1 ? "single" : "double"}-storey a`, steps: 1.2 });
  if (a.storeysG && b.storeysG && a.storeysG !== b.storeysG)
    out.push({ trait: "storeysG", says: `${b.storeysG === 1 ? "single" : "double"}-storey g`, steps: 1.1 });
  if (a.cases !== b.cases && b.cases)
    out.push({ trait: "cases", says: b.cases === "both" ? "has lowercase" : "capitals only", steps: 3 });
  return out
    .sort((p, q) => q.steps - p.steps)
    .slice(0, most)
    .map(({ trait, says }) => ({ trait, says }));
}
