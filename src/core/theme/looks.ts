// What a theme is told in: some thirty looks, each a degree over measures, kinds and treatments, with its reason. A theme is a mixture of them.
import type { LookName } from "@/contracts/themes";
import type { Kind, Traits, Treatment } from "@/contracts/traits";

type Shape = {
  t: Traits;
  /** How sure the row is of a kind; of the surest of several. */
  kind: (...kinds: Kind[]) => number;
  treated: (...treatments: Treatment[]) => number;
  mood: (word: string) => number;
};
type Look = { name: LookName; because: string; degree: (s: Shape) => number };

/** 0 at `from`, 1 at `to` and beyond, also downwards; half where the trait was not measured, as nothing speaks against it. */
const ramp = (value: number | null, from: number, to: number): number =>
  value === null || Number.isNaN(value) ? 0.5 : Math.min(1, Math.max(0, (value - from) / (to - from)));
const all = (...parts: number[]) => parts.reduce((a, b) => a * b, 1);
const any = (...parts: number[]) => Math.max(...parts);
const not = (part: number) => 1 - part;
const heavy = (t: Traits, from = 560, to = 720) => ramp(t.weight, from, to);
const light = (t: Traits, from = 460, to = 340) => ramp(t.weight, from, to);
const upright = (t: Traits) => ramp(Math.abs(t.slantDeg ?? 0), 9, 3);
/** Neither display nor treated: a face that whole pages are set in. */
const plain = (s: Shape) => not(s.kind("display"));
/** A display face; the bold of a text family counts a little. */
const striking = (s: Shape) => 0.1 + 0.9 * s.kind("display");
const mixed = (t: Traits) => (t.cases === "both" ? 1 : 0.2);
const roomy = (t: Traits) => ramp(t.width, 4.2, 5);
/** Small lowercase beside its capitals, as in formal scripts. */
const small = (t: Traits) => ramp((t.xHeightEm ?? 0.5) / (t.capHeightEm ?? 0.7), 0.56, 0.46);
const lettersOfHand = (s: Shape) => s.kind("script", "handwritten");
const untreated = (s: Shape) =>
  not(s.treated("stencil", "inline", "outline", "shadow", "rough", "pixel", "dotted", "drips"));
const capitals = (t: Traits) => (t.cases === "capitals-only" || t.cases === "small-capitals" ? 1 : 0);

// oxfmt-ignore
export const LOOKS: readonly Look[] = [
  { name: "book serif", because: "even serifs that read in long text", degree: (s) => all(s.kind("serif"), not(s.kind("slab")), plain(s), mixed(s.t), ramp(s.t.contrast, 4.2, 3), ramp(s.t.weight, 760, 560), untreated(s)) },
  { name: "old-style serif", because: "leaning stress and bracketed serifs", degree: (s) => all(s.kind("serif"), not(s.kind("slab")), ramp(s.t.stressDeg, 2, 8), mixed(s.t), ramp(s.t.weight, 780, 600), not(s.treated("inline", "outline", "shadow", "pixel"))) },
  { name: "bookish roughness", because: "serifs with worn contours, as from old presses", degree: (s) => all(s.kind("serif"), ramp(s.t.roughness, 0.06, 0.2)) },
  { name: "sharp contrast", because: "thick stems, hairline serifs", degree: (s) => all(s.kind("serif"), ramp(s.t.contrast, 2.6, 4), ramp(s.t.weight, 330, 420), untreated(s)) },
  { name: "fine contrast", because: "strong contrast and thin strokes", degree: (s) => all(s.kind("serif"), ramp(s.t.contrast, 2.2, 3.4), light(s.t, 520, 400), untreated(s)) },
  { name: "inscription", because: "wide classical capitals, small or flared serifs", degree: (s) => all(s.kind("serif", "sans"), not(lettersOfHand(s)), roomy(s.t), any(all(capitals(s.t), s.kind("serif")), all(s.kind("sans"), not(s.t.monospaced ? 1 : 0), ramp(s.t.contrast, 1.35, 1.7)), all(s.kind("serif"), ramp(s.t.serif, 0.45, 0.15))), ramp(s.t.weight, 620, 460), untreated(s), upright(s.t)) },
  { name: "slab", because: "serifs as thick as the stems", degree: (s) => all(ramp(s.kind("slab"), 0.35, 0.7), ramp(s.t.weight, 200, 320), not(s.kind("monospaced")), untreated(s)) },
  { name: "heavy slab", because: "heavy block serifs", degree: (s) => all(ramp(s.kind("slab"), 0.35, 0.7), heavy(s.t)) },
  { name: "woodtype", because: "display capitals of the poster press", degree: (s) => any(all(s.kind("slab", "serif"), s.kind("display"), heavy(s.t, 600, 780)), all(s.kind("slab", "serif"), s.treated("shadow", "inline", "rough")), all(ramp(s.kind("slab"), 0.5, 0.8), heavy(s.t, 700, 850))) },
  { name: "typewriter", because: "equally wide characters with block serifs, or worn ones", degree: (s) => any(s.mood("typewriter"), all(s.kind("monospaced"), s.kind("slab", "serif"))) },
  { name: "monospaced", because: "every character equally wide", degree: (s) => all(s.t.monospaced ? 1 : s.kind("monospaced"), not(s.kind("picture"))) },
  { name: "pixel", because: "built of squares or dots", degree: (s) => s.treated("pixel", "dotted") },
  { name: "plain sans", because: "even strokes without serifs, nothing extreme", degree: (s) => all(s.kind("sans"), plain(s), not(lettersOfHand(s)), not(s.kind("monospaced")), ramp(s.t.contrast, 2, 1.5), ramp(s.t.width, 3.6, 4.4), ramp(s.t.width, 6.8, 6), ramp(s.t.roundEnds, 0.7, 0.4), ramp(s.t.weight, 780, 620), ramp(s.t.weight, 180, 300), untreated(s), upright(s.t)) },
  { name: "geometric sans", because: "circles and even thin strokes", degree: (s) => all(s.kind("sans"), not(lettersOfHand(s)), not(s.kind("monospaced")), ramp(s.t.contrast, 1.5, 1.2), any(s.t.storeysA === 1 ? 1 : 0, 0.35), ramp(s.t.width, 4, 4.6), ramp(s.t.width, 6.8, 6.1), ramp(s.t.weight, 640, 480), untreated(s), upright(s.t)) },
  { name: "thin sans", because: "hairline strokes without serifs", degree: (s) => all(s.kind("sans"), not(lettersOfHand(s)), light(s.t, 380, 240), ramp(s.t.width, 3.4, 4.2), ramp(s.t.width, 7, 6.2), untreated(s), upright(s.t)) },
  { name: "round sans", because: "round ends and open forms", degree: (s) => all(s.kind("sans"), not(lettersOfHand(s)), any(ramp(s.t.roundEnds, 0.45, 0.75), s.treated("rounded")), ramp(s.t.weight, 220, 320), not(s.treated("pixel", "rough", "drips", "outline", "inline"))) },
  { name: "fat and round", because: "heavy, soft, close letters", degree: (s) => all(heavy(s.t, 600, 760), any(ramp(s.t.roundEnds, 0.3, 0.6), ramp(s.t.roundness, 0.25, 0.45)), ramp(s.t.contrast, 2.8, 2), striking(s), upright(s.t), not(s.kind("serif", "blackletter", "slab")), not(s.treated("pixel", "rough"))) },
  { name: "tall and heavy", because: "narrow, heavy, made to be seen from afar", degree: (s) => all(heavy(s.t, 480, 620), ramp(s.t.width, 4.8, 3.9), s.kind("sans"), not(lettersOfHand(s)), not(s.treated("outline", "pixel", "inline", "rough")), upright(s.t)) },
  { name: "wide", because: "wide letters without serifs", degree: (s) => all(ramp(s.t.width, 5.8, 6.8), s.kind("sans"), not(lettersOfHand(s)), not(s.kind("serif"))) },
  { name: "engineered", because: "angular or squared, as if built by machine", degree: (s) => all(s.kind("sans", "monospaced"), not(lettersOfHand(s)), not(s.kind("serif", "slab")), upright(s.t), any(all(s.mood("technical"), striking(s)), all(ramp(s.t.width, 5.2, 6.2), ramp(s.t.contrast, 1.6, 1.25)), s.treated("stencil"))) },
  { name: "deco", because: "thin circles, small lowercase, or striped capitals", degree: (s) => all(not(lettersOfHand(s)), any(all(s.mood("geometric twenties"), light(s.t, 560, 400)), all(s.kind("sans"), s.treated("inline")), all(s.kind("sans"), s.kind("display"), ramp(s.t.contrast, 1.8, 3)))) },
  { name: "formal script", because: "flowing joined letters with fine strokes", degree: (s) => all(s.kind("script"), light(s.t, 620, 470), any(ramp(s.t.contrast, 1.3, 1.9), ramp(s.t.slantDeg, 12, 25)), any(small(s.t), ramp(s.t.contrast, 2, 2.8))) },
  { name: "brush script", because: "joined letters as of a brush", degree: (s) => all(s.kind("script"), ramp(s.t.weight, 330, 460), ramp(s.t.roughness, 0.5, 0.2), not(small(s.t)), ramp(s.t.contrast, 3.4, 2.6)) },
  { name: "pen hand", because: "written by hand with a thin pen", degree: (s) => all(any(s.kind("handwritten"), all(s.kind("script"), ramp(s.t.contrast, 1.5, 1.2))), ramp(s.t.weight, 620, 480), ramp(s.t.roughness, 0.3, 0.1)) },
  { name: "marker hand", because: "written by hand with a broad or dry pen", degree: (s) => all(s.kind("handwritten"), any(ramp(s.t.weight, 420, 560), ramp(s.t.roughness, 0.1, 0.3))) },
  { name: "sketched", because: "hatched, drawn over or roughly filled", degree: (s) => any(all(s.treated("rough", "outline"), not(s.kind("blackletter"))), ramp(s.t.roughness, 0.25, 0.6)) },
  { name: "comic", because: "heavy hand-drawn capitals", degree: (s) => all(any(s.kind("handwritten"), all(s.kind("display"), s.kind("sans"), any(ramp(s.t.roundEnds, 0.2, 0.5), ramp(s.t.roundness, 0.15, 0.35)))), heavy(s.t, 560, 720), upright(s.t), any(capitals(s.t), 0.7), not(s.treated("pixel", "stencil", "drips"))) },
  { name: "broken letters", because: "broken bowls of the broad pen", degree: (s) => s.kind("blackletter") },
  { name: "stencil", because: "bridges across the strokes", degree: (s) => s.treated("stencil") },
  { name: "sign lines", because: "inline, outline or shadow, as of tubes and boards", degree: (s) => all(s.treated("inline", "outline", "shadow"), not(s.kind("picture"))) },
  { name: "worn", because: "torn or worn contours", degree: (s) => all(any(s.treated("rough"), ramp(s.t.roughness, 0.15, 0.4)), not(s.kind("picture"))) },
  { name: "dripping", because: "drips and tears", degree: (s) => any(s.treated("drips"), all(s.mood("eerie"), 0.8)) },
  { name: "poster", because: "as heavy as letters get, with a character of their own", degree: (s) => all(heavy(s.t, 680, 820), striking(s), s.kind("display", "slab", "sans", "serif"), not(s.kind("picture"))) },
  { name: "leaning fast", because: "heavy and leaning forward", degree: (s) => all(ramp(s.t.slantDeg, 4, 10), heavy(s.t, 420, 580), striking(s), not(s.kind("serif", "slab")), not(s.kind("script"))) },
];
type Guesses<T> = readonly { value: T; confidence: number }[];
/** What is known of a style. */
type Classified = {
  traits: Traits;
  kinds: Guesses<Kind>;
  treatments: Guesses<Treatment>;
  moods?: Guesses<string>;
};

const surest = (guesses: Guesses<string>, values: readonly string[]) =>
  guesses.reduce((most, g) => (values.includes(g.value) ? Math.max(most, g.confidence) : most), 0);

/** @returns how much a style has of each look, 0–1; shape [LOOKS]. Pictures have none. */
export function lookDegrees({ traits, kinds, treatments, moods }: Classified) {
  const shape: Shape = {
    t: traits,
    kind: (...list) => surest(kinds, list),
    treated: (...list) => surest(treatments, list),
    mood: (word) => surest(moods ?? [], [word]),
  };
  return LOOKS.map(({ degree }) => (traits.picture ? 0 : degree(shape)));
}
