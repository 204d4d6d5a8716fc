// A variable font over its axes: what each axis changes, measured at its ends, so that "heavy" finds a font that can be heavy.
import type { Axis, MeasureNotes, Traits } from "@/contracts/traits";
import { openFace } from "../outlines/openFace";
import { lettersOf } from "./letters";
import { measureFrame } from "./measureFont";

/** Traits that are followed along axes. */
export const FOLLOWED = [
  "stemEm",
  "weight",
  "contrast",
  "width",
  "xHeightEm",
  "slantDeg",
  "roundness",
  "serif",
] as const;
/** Axes beyond these are not followed: each costs two measurements. */
const MAX_AXES = 8;
const FIRST = ["wght", "wdth", "opsz", "slnt", "ital"];

/**
 * Measures a variable font at both ends of each axis, the others at their defaults.
 * @param sfnt - bytes that `openFont` returned. @param atDefault - its traits with all axes at default.
 * @returns the least and greatest value of each followed trait, and the traits at each end.
 */
export function measureReach(sfnt: Uint8Array, axes: Axis[], atDefault: Traits): Pick<MeasureNotes, "reach" | "axes"> {
  const ordered = [...axes].sort((a, b) => orderOf(a.tag) - orderOf(b.tag)).slice(0, MAX_AXES);
  const ends: MeasureNotes["axes"] = [];
  for (const axis of ordered)
    for (const at of [axis.min, axis.max]) {
      if (at === axis.default) continue;
      const { traits } = measureFrame(lettersOf(openFace(sfnt, { [axis.tag]: at })));
      ends.push({ tag: axis.tag, at, traits: Object.fromEntries(FOLLOWED.map((t) => [t, traits[t]])) });
    }
  const reach: MeasureNotes["reach"] = {};
  for (const trait of FOLLOWED) {
    const values = [atDefault[trait], ...ends.map((e) => e.traits[trait] ?? null)].filter(
      (v): v is number => v !== null,
    );
    if (values.length > 1) reach[trait] = [Math.min(...values), Math.max(...values)];
  }
  return { reach, axes: ends };
}

const orderOf = (tag: string) => (FIRST.includes(tag) ? FIRST.indexOf(tag) : FIRST.length);

/** Registered axes (OpenType 1.9.1 "fvar") that are made for a trait. */
const REGISTERED: Partial<Record<(typeof FOLLOWED)[number], string>> = {
  weight: "wght",
  width: "wdth",
  slantDeg: "slnt",
};

/**
 * The axis setting that brings a trait to a wanted value, by straight lines between the default and the ends.
 * @returns tag → value for the one axis that reaches it best; null when none comes nearer than the default.
 */
export function findSetting(
  notes: Pick<MeasureNotes, "axes">,
  axes: Record<string, number>,
  atDefault: Traits,
  trait: (typeof FOLLOWED)[number],
  wanted: { min?: number; max?: number },
): Record<string, number> | null {
  const now = atDefault[trait];
  if (now === null) return null;
  const target =
    wanted.min !== undefined && now < wanted.min
      ? wanted.min
      : wanted.max !== undefined && now > wanted.max
        ? wanted.max
        : null;
  if (target === null) return null;
  let best: { tag: string; value: number; off: number } | null = null;
  for (const end of notes.axes) {
    const there = end.traits[trait];
    const from = axes[end.tag];
    if (there === null || there === undefined || from === undefined || there === now) continue;
    const share = (target - now) / (there - now);
    if (share <= 0) continue;
    const held = Math.min(1, share);
    const value = from + held * (end.at - from);
    // The axis that is made for it goes before parametric ones, unless it reaches less than half the way.
    if (end.tag === REGISTERED[trait] && held * (there - now) >= (target - now) / 2 === target > now)
      return { [end.tag]: Number(value.toFixed(2)) };
    const off = Math.abs(now + held * (there - now) - target) + 0.01 * orderOf(end.tag) * Math.abs(target - now);
    if (!best || off < best.off) best = { tag: end.tag, value, off };
  }
  return best && { [best.tag]: Number(best.value.toFixed(2)) };
}
