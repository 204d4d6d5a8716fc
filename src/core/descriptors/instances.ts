// At which locations a variable font is described: enough that any of its instances lies near one of them.
import type { Axis } from "@/contracts/traits";

/** Axis tag → value; no entry: the default. */
export type VariationLocation = Record<string, number>;

/** Locations of one font that are described, beside its default. */
const MAX_INSTANCES = 27;
/** Steps between neighbouring weights and widths that are described, on the axes' own scales. */
const WEIGHT_STEP = 130;
const WIDTH_STEP = 25;

/**
 * The locations of a variable font that stand for all others: a grid over weight, width, optical size and slant.
 * Axes of other tags stay at their defaults.
 * @returns none for a font without axes; the default itself is not among them.
 */
export function instancesOf(axes: readonly Axis[]): VariationLocation[] {
  const stops = axes.flatMap((axis): { tag: string; values: number[]; own: number }[] => {
    const values = stopsOf(axis);
    return values.length > 1 ? [{ tag: axis.tag, values, own: axis.default }] : [];
  });
  if (!stops.length) return [];
  // Too many together: axes that tell least are thinned first.
  const size = () => stops.reduce((n, s) => n * s.values.length, 1);
  for (const tag of ["slnt", "ital", "opsz", "wdth", "wght"])
    while (size() > MAX_INSTANCES + 1) {
      const axis = stops.find((s) => s.tag === tag && s.values.length > 2);
      if (!axis) break;
      axis.values = thin(axis.values);
    }
  let grid: VariationLocation[] = [{}];
  for (const { tag, values } of stops) grid = grid.flatMap((c) => values.map((v) => ({ ...c, [tag]: v })));
  return grid.filter((c) => stops.some(({ tag, own }) => c[tag] !== own)).slice(0, MAX_INSTANCES);
}

function stopsOf({ tag, min, max, default: own }: Axis): number[] {
  const spread = (step: number) => {
    const count = Math.max(2, Math.round((max - min) / step) + 1);
    return Array.from({ length: count }, (_, k) => min + ((max - min) * k) / (count - 1));
  };
  if (!(max > min)) return [own];
  if (tag === "wght") return spread(WEIGHT_STEP);
  if (tag === "wdth") return spread(WIDTH_STEP).slice(0, 6);
  // Small sizes differ more from one another than large ones.
  if (tag === "opsz") return [...new Set([min, own, Math.min(max, Math.max(own, 24)), max])].sort((a, b) => a - b);
  if (tag === "slnt" || tag === "ital") return [min, max];
  return [own];
}

/** Every second value, ends kept. */
function thin(values: readonly number[]): number[] {
  const last = values.length - 1;
  return values.filter((_, i) => i === 0 || i === last || (i % 2 === 0 && i < last - 1));
}
