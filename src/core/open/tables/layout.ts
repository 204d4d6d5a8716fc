// Variable axes with named instances (fvar) and the feature tags of GSUB and GPOS. OpenType 1.9.1, chapters of the same names.
import type { Axis } from "@/contracts/traits";
import type { TableReader } from "../reader";
import type { Names } from "./names";

export type Instance = { name: string; coordinates: Record<string, number> };

const AXIS_NAMES: Record<string, string> = {
  wght: "Weight",
  wdth: "Width",
  opsz: "Optical size",
  slnt: "Slant",
  ital: "Italic",
  GRAD: "Grade",
};

/** Axis values are read as exact 16.16 numbers from the raw table. */
export function readFvar(t: TableReader, names: Names): { axes: Axis[]; instances: Instance[] } {
  const [start, axisCount, axisSize, instanceCount, instanceSize] = [4, 8, 10, 12, 14].map((k) => t.u16(k)) as [
    number,
    number,
    number,
    number,
    number,
  ];
  const axes: Axis[] = [];
  for (let i = 0; i < axisCount; i++) {
    const at = start + i * axisSize;
    const tag = t.tag4(at);
    axes.push({
      tag,
      name: names[t.u16(at + 18)] ?? AXIS_NAMES[tag] ?? tag,
      min: t.fixed(at + 4),
      default: t.fixed(at + 8),
      max: t.fixed(at + 12),
      hidden: (t.u16(at + 16) & 1) !== 0,
    });
  }
  const instances: Instance[] = [];
  for (let i = 0; i < instanceCount; i++) {
    const at = start + axisCount * axisSize + i * instanceSize;
    const coordinates = Object.fromEntries(axes.map((a, k) => [a.tag, t.fixed(at + 4 + 4 * k)]));
    instances.push({ name: names[t.u16(at)] ?? `Instance ${i + 1}`, coordinates });
  }
  return { axes, instances };
}

/** Feature tags in the order they first appear, each once. */
export function readFeatureTags(t: TableReader): string[] {
  const list = t.u16(6);
  if (!list) return [];
  const count = t.u16(list);
  const tags = new Set<string>();
  for (let i = 0; i < count; i++) tags.add(t.tag4(list + 2 + 6 * i));
  return [...tags];
}
