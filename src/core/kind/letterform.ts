// Which letterform a style has, by a table of weights: multinomial logistic regression over measures and forms of letters. The table is fitted by
// scripts/fit/kinds/fitKinds.ts to families that are no part of the demo library.
import type { Kind } from "@/contracts/traits";
import type { Measured } from "../measure/measureFont";
import { BENDS, featuresOf, MEASURES, type Spread } from "./features";
import MODEL from "./model.json" with { type: "json" };

export const LETTERFORMS = ["sans", "serif", "slab", "script", "handwritten", "blackletter"] as const satisfies Kind[];
type Letterform = (typeof LETTERFORMS)[number];
/** Weights in thousandths. */
const STEPS = 1_000;
type Column = { name: string; bias: number; measures: number[][]; forms: number[] };
type Model = { spreads: Spread[]; columns: Column[] };
const { spreads, columns } = MODEL as Model;
const FORMS_FROM = MEASURES.length * BENDS;
const forms = columns.filter((c) => c.name !== "display");
const display = columns.find((c) => c.name === "display")!;

/** @property because - what of the measures spoke most for it; a part of the sentence. */
type Judged = { chance: number; because: string };
export type Letterforms = { ranked: (Judged & { kind: Letterform })[]; display: Judged };

/** @returns letterforms, the likeliest first, whose chances add up to 1; and the chance that it is a display face. */
export function judgeLetterform(measured: Measured, signature: Uint8Array): Letterforms {
  const features = featuresOf(measured, signature, spreads);
  const scores = forms.map((column) => scoreOf(column, features));
  const greatest = Math.max(...scores);
  const powers = scores.map((s) => Math.exp(s - greatest));
  const total = powers.reduce((a, b) => a + b, 0);
  const ranked = forms
    .map((column, k) => ({
      kind: column.name as Letterform,
      chance: powers[k]! / total,
      because: giveReason(column, forms, features),
    }))
    .sort((a, b) => b.chance - a.chance);
  const chance = 1 / (1 + Math.exp(-scoreOf(display, features)));
  return { ranked, display: { chance, because: giveReason(display, [], features) } };
}

function scoreOf({ bias, measures, forms: ofForms }: Column, features: Float64Array): number {
  let sum = bias;
  for (let m = 0; m < measures.length; m++)
    for (let k = 0; k < BENDS; k++) sum += measures[m]![k]! * features[m * BENDS + k]!;
  for (let k = 0; k < ofForms.length; k++) sum += ofForms[k]! * features[FORMS_FROM + k]!;
  return sum / STEPS;
}

/** What a measure says when there is much of it, and when there is little. Measures that say nothing to people are not named. */
// oxfmt-ignore
const SAYS: Record<string, [much: string, little: string]> = {
  contrast: ["its strokes swell and thin", "its strokes are even"], weight: ["it is heavy", "it is light"], width: ["it is wide", "it is narrow"],
  slantDeg: ["it leans", "it stands upright"], serif: ["its stems end in serifs", "its stems end without serifs"],
  serifThickness: ["its serifs are thick", "its serifs are thin"], roundness: ["its corners are soft", "its corners are sharp"],
  roughness: ["its contours are rough", "its contours are clean"], connected: ["its letters join", "its letters stand apart"],
  unevenness: ["feet, heights and stems are uneven", "feet, heights and stems are even"], brokenCurves: ["its bowls are broken", "its bowls are round"],
  legibility: ["its letters have the usual forms", "its letter forms are far from the usual ones"], xHeightEm: ["its x-height is large", "its x-height is small"],
  aperture: ["its forms are open", "its forms are closed"], "serif form slab": ["its serifs are blocks", ""], "serif form hairline": ["its serifs are hairlines", ""],
  "serif form bracketed": ["its serifs are bracketed", ""], "serif form wedge": ["its serifs are wedges", ""], "capitals only": ["it has capitals only", ""],
  holes: ["its strokes are hollow", ""], pieces: ["its letters fall into pieces", ""], stressDeg: ["its stress leans", ""],
};
const MOST_REASONS = 2;
/** A reason weighs at least this much, in logits. */
const WEIGHS_FROM = 0.15;

/** The measures that speak most for a column against the others. */
function giveReason(column: Column, others: readonly Column[], features: Float64Array): string {
  const weigh = ({ measures }: Column, m: number) => {
    let sum = 0;
    for (let k = 0; k < BENDS - 1; k++) sum += measures[m]![k]! * features[m * BENDS + k]!;
    return sum / STEPS;
  };
  const reasons = MEASURES.flatMap((name, m) => {
    const words = SAYS[name];
    if (!words) return [];
    const mean = others.length ? others.reduce((sum, o) => sum + weigh(o, m), 0) / others.length : 0;
    const says = words[features[m * BENDS]! >= 0 ? 0 : 1];
    return says ? [{ says, by: weigh(column, m) - mean }] : [];
  })
    .filter((r) => r.by >= WEIGHS_FROM)
    .sort((a, b) => b.by - a.by)
    .slice(0, MOST_REASONS);
  return reasons.map((r) => r.says).join(", ") || "its letters are drawn so";
}
