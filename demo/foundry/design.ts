// What a face of the made-up foundry is drawn from. Every number is a true parameter: it is written beside the font.
// Lengths are font units at 1000 to the em, y grows upward, the baseline is y = 0.

export type SerifForm = "none" | "slab" | "bracketed" | "hairline" | "wedge";
export type DrawnTreatment = "stencil" | "inline" | "rough" | "pixel" | "dotted";

export type Design = {
  /** Thickness of a vertical stroke, measured across it (not along the baseline). */
  stem: number;
  /** Thickness of a horizontal stroke. */
  thin: number;
  xHeight: number;
  capHeight: number;
  ascender: number;
  /** Negative. */
  descender: number;
  /** Width of counters, 1 = normal. */
  width: number;
  slantDeg: number;
  serif: SerifForm;
  /** How far a serif reaches beyond its stem. */
  serifLength: number;
  serifThickness: number;
  /** Ends of strokes: cut level with the baseline, cut across, or round. */
  terminal: "level" | "across" | "round";
  /** How square bowls are: 0.55 a circle, 0.8 nearly a box. */
  squareness: number;
  /** Share of the usual side bearings. */
  spacing: number;
  /** Forms of a and g. */
  storeys: 1 | 2;
  monospaced?: number;
  treatment?: DrawnTreatment;
  /** Lowercase letters are drawn as capitals of the same height. */
  capitalsOnly?: boolean;
  /** Seed of what is uneven on purpose. */
  seed?: number;
};

export const SANS: Design = {
  stem: 84,
  thin: 76,
  xHeight: 510,
  capHeight: 700,
  ascender: 730,
  descender: -200,
  width: 1,
  slantDeg: 0,
  serif: "none",
  serifLength: 0,
  serifThickness: 0,
  terminal: "level",
  squareness: 0.56,
  spacing: 1,
  storeys: 2,
};

/** Overshoot of round letters beyond flat ones. */
export const OVERSHOOT = 10;

/** Width of a vertical stroke along the baseline: what a leaning stem of the wanted thickness takes there. */
export const stemAlong = (d: Design) => d.stem / Math.cos((d.slantDeg * Math.PI) / 180);

/** Width of the counter of n: shrinks as stems grow, so that heavy letters do not become wide. */
export const counterOf = (d: Design) => Math.max(d.stem * 0.42, d.width * d.xHeight * 0.66 - d.stem * 0.9);
export const capCounterOf = (d: Design) => Math.max(d.stem * 0.5, d.width * d.capHeight * 0.62 - d.stem * 0.8);
/** Side bearing of a straight stem. */
export const bearingOf = (d: Design) =>
  d.spacing * (0.27 * counterOf(d) + 4) + (d.serif === "none" ? 0 : d.serifLength * 0.55);
