// Moods, periods and occasions: a small vocabulary of our own, each a rule over measures with its reason. Not a list recalled
// from anywhere: the words are what people in the trade say of shapes, the rules are what those shapes measure.
import type { KindGuess, MoodGuess, Traits, TreatmentGuess } from "@/contracts/traits";

type MoodInput = { traits: Traits; kinds: readonly KindGuess[]; treatments: readonly TreatmentGuess[] };
type MoodGroup = "mood" | "period" | "occasion";
type Shape = {
  t: Traits;
  is: (...kinds: KindGuess["value"][]) => boolean;
  treated: (...t: TreatmentGuess["value"][]) => boolean;
  /** 0 at `from`, 1 at `to` and beyond; 0 where the trait was not measured. */
  up: (v: number | null, from: number, to: number) => number;
};
type Rule = { word: string; group: MoodGroup; because: string; score: (s: Shape) => number };

const { min } = Math;
const all = (...parts: number[]) => min(...parts);
const any = (...parts: number[]) => Math.max(...parts);
const yes = (b: boolean) => (b ? 1 : 0);

// oxfmt-ignore
export const MOODS: readonly Rule[] = [
  { word: "sturdy", group: "mood", because: "heavy strokes of even thickness", score: ({ t, up, is }) => all(up(t.weight, 520, 700), up(-(t.contrast ?? 9), -2.4, -1.7), yes(!is("script", "picture"))) },
  { word: "airy", group: "mood", because: "thin strokes and wide inner spaces", score: ({ t, up }) => all(up(-(t.weight ?? 999), -360, -240), up(t.gapEm, 0.07, 0.11)) },
  { word: "friendly", group: "mood", because: "round ends and open forms, not thin", score: ({ t, up, is, treated }) => all(any(up(t.roundness, 0.35, 0.55), up(t.roundEnds, 0.5, 0.8), yes(treated("rounded"))), up(t.weight, 250, 380), yes(!treated("rough", "drips") && !is("blackletter", "picture")), up(-(t.contrast ?? 9), -2.6, -2)) },
  { word: "elegant", group: "mood", because: "strong contrast and fine strokes", score: ({ t, up, is, treated }) => all(up(t.contrast, 2, 3.2), up(-(t.weight ?? 999), -760, -560), yes(is("serif", "script", "sans") && !treated("rough", "pixel", "dotted", "stencil"))) },
  { word: "playful", group: "mood", because: "uneven or unusual letters", score: ({ t, is, treated, up }) => any(all(yes(is("handwritten")), up(t.weight, 350, 450)), all(yes(is("display")), up(t.roundness, 0.4, 0.6)), yes(treated("shadow") && !is("serif")) * 0.7) },
  { word: "strict", group: "mood", because: "straight, even, upright and without roundness", score: ({ t, up, is }) => all(up(-(t.roundness ?? 1), -0.12, -0.04), up(-(t.contrast ?? 9), -1.7, -1.35), yes(Math.abs(t.slantDeg ?? 0) < 2), yes(is("sans", "monospaced", "slab") && !is("handwritten", "script", "display"))) },
  { word: "rugged", group: "mood", because: "torn or worn contours", score: ({ t, up, treated }) => any(up(t.roughness, 0.15, 0.4), yes(treated("rough", "drips"))) },
  { word: "warm", group: "mood", because: "soft serifs, leaning stress, little contrast", score: ({ t, up, is }) => all(yes(is("serif")), up(t.stressDeg, 3, 9), up(-(t.contrast ?? 9), -3, -2.2)) },
  { word: "loud", group: "mood", because: "as heavy as letters get", score: ({ t, up }) => up(t.weight, 780, 880) },
  { word: "quiet", group: "mood", because: "even grey, middle weight, nothing extreme", score: ({ t, up, is }) => all(up(t.evenness, 0.66, 0.74), up(-(t.weight ?? 999), -520, -430), up(t.weight, 280, 340), yes(!is("display", "handwritten", "script", "blackletter"))) },
  { word: "hurried", group: "mood", because: "joined or uneven letters that lean", score: ({ t, up, is }) => all(yes(is("script", "handwritten")), up(t.slantDeg, 5, 12)) },
  { word: "technical", group: "mood", because: "every character equally wide, or built of straight pieces", score: ({ t, up, is, treated }) => any(yes(t.monospaced && !is("script")), all(yes(is("sans")), up(-(t.roundJoins ?? 1), -0.15, -0.05), up(-(t.contrast ?? 9), -1.35, -1.15), up(t.width, 5.6, 6.4)), yes(treated("pixel", "dotted"))) },
  { word: "eerie", group: "mood", because: "drips, tears or broken bowls", score: ({ treated, is, t, up }) => any(yes(treated("drips")), all(yes(is("display")), up(t.roughness, 0.25, 0.45)), all(yes(is("blackletter")), 0.6)) },

  { word: "medieval", group: "period", because: "broken or uncial bowls", score: ({ is }) => yes(is("blackletter")) },
  { word: "old book", group: "period", because: "leaning stress and bracketed serifs", score: ({ t, up, is }) => all(yes(is("serif") && !is("slab", "display")), up(t.stressDeg, 6, 12), up(-(t.xHeightEm ?? 1), -0.5, -0.46)) },
  { word: "woodtype", group: "period", because: "heavy serifs or display capitals of the poster press", score: ({ t, up, is, treated }) => any(all(yes(is("slab")), up(t.weight, 760, 860)), all(yes(is("display") && is("serif", "slab")), up(t.weight, 600, 720), up(t.contrast, 1.4, 1.8)), all(yes(treated("shadow", "inline") && is("serif", "slab")), 0.8)) },
  { word: "typewriter", group: "period", because: "equally wide characters with block serifs, or worn ones", score: ({ t, up, is, treated }) => any(all(yes(t.monospaced), yes(is("slab", "serif"))), all(yes(is("slab", "serif") && treated("rough")), up(-(t.contrast ?? 9), -2.4, -1.8))) },
  { word: "geometric twenties", group: "period", because: "thin even strokes, small x-height, circles", score: ({ t, up, is }) => all(yes(is("sans")), up(-(t.contrast ?? 9), -1.35, -1.15), up(-(t.xHeightEm ?? 1) / (t.capHeightEm ?? 0.7), -0.68, -0.62), yes(t.storeysA === 1)) },
  { word: "screen age", group: "period", because: "steps of one square", score: ({ treated }) => yes(treated("pixel")) },

  { word: "book text", group: "occasion", because: "even grey and open forms at text sizes", score: ({ t, up, is }) => all(yes(is("serif", "sans") && !is("display", "handwritten", "script", "monospaced", "blackletter")), up(t.evenness, 0.6, 0.68), up(-(t.legibleFromPx ?? 99), -20, -15), up(-(t.weight ?? 999), -560, -470), up(t.weight, 250, 310), yes(t.cases === "both")) },
  { word: "small print", group: "occasion", because: "large lowercase letters and wide gaps: it reads from few pixels", score: ({ t, up, is }) => all(up(-(t.legibleFromPx ?? 99), -14, -11.5), up(t.xHeightEm, 0.47, 0.52), yes(!is("display", "script", "handwritten", "blackletter"))) },
  { word: "poster", group: "occasion", because: "heavy, narrow or treated: made to be seen from afar", score: ({ t, up, is }) => any(up(t.weight, 650, 780), yes(is("display")), all(up(-(t.width ?? 9), -3.6, -2.8), up(t.weight, 450, 600))) * yes(!is("picture")) },
  { word: "signage", group: "occasion", because: "open forms of middle weight without serifs, large lowercase letters", score: ({ t, up, is }) => all(yes(is("sans") && !is("display", "handwritten")), up(t.aperture, 0.28, 0.38), up(t.xHeightEm, 0.48, 0.52), up(t.weight, 380, 470), up(-(t.weight ?? 999), -760, -700)) },
  { word: "invitation", group: "occasion", because: "flowing or fine strokes", score: ({ t, up, is }) => any(all(yes(is("script")), up(t.contrast, 1.5, 2.1), up(-(t.weight ?? 999), -640, -520)), all(yes(is("serif") && !is("slab")), up(t.contrast, 2.6, 3.6), up(-(t.weight ?? 999), -420, -330))) },
  { word: "tables", group: "occasion", because: "figures of one width and one height, read small", score: ({ t, up, is }) => all(yes(t.figures.spacing === "tabular" && t.figures.height === "lining"), yes(!is("display", "script", "handwritten", "blackletter", "picture")), up(-(t.legibleFromPx ?? 99), -18, -14)) },
  { word: "label", group: "occasion", because: "narrow and even: much text in little room", score: ({ t, up, is }) => all(up(-(t.width ?? 9), -4.4, -3.8), up(-(t.contrast ?? 9), -2.2, -1.6), up(t.weight, 330, 420), yes(!is("script", "handwritten"))) },
  { word: "film title", group: "occasion", because: "capitals that stand on a moving picture: even strokes, wide", score: ({ t, up, is }) => all(up(t.width, 5, 6), up(-(t.contrast ?? 9), -3.2, -2.4), up(t.gapEm, 0.05, 0.08), yes(is("sans", "serif", "slab") && !is("handwritten", "script", "picture"))) },
  { word: "handmade", group: "occasion", because: "drawn or written by hand", score: ({ is }) => yes(is("handwritten")) },
];

/** From this score a word is said of a style. */
const SAID_FROM = 0.5;

/** @returns the words that fit, surest first, each with confidence and reason. Picture faces get none. */
export function nameMoods({ traits, kinds, treatments }: MoodInput): MoodGuess[] {
  if (traits.picture) return [];
  const shape: Shape = {
    t: traits,
    is: (...list) => kinds.some((k) => k.confidence >= 0.5 && list.includes(k.value)),
    treated: (...list) => treatments.some((k) => k.confidence >= 0.5 && list.includes(k.value)),
    up: (v, from, to) => (v === null || Number.isNaN(v) ? 0 : min(1, Math.max(0, (v - from) / (to - from)))),
  };
  return MOODS.map(({ word, group, because, score }) => ({
    value: word,
    group,
    confidence: Number(score(shape).toFixed(2)),
    because,
  }))
    .filter((m) => m.confidence >= SAID_FROM)
    .sort((a, b) => b.confidence - a.confidence);
}
