// Ordinary words for shapes, and the measures they map to. A data table of our own, from the trade's words and our measures.
import type { Kind, Traits, Treatment } from "@/contracts/traits";

export type NumberTrait = { [K in keyof Traits]: Traits[K] extends number | null ? K : never }[keyof Traits];

/** What one phrase asks for. `label` is what stands above the wall. */
export type Wish =
  | { type: "kind"; label: string; kind: Kind; not?: boolean }
  | { type: "treatment"; label: string; treatment: Treatment; not?: boolean }
  | { type: "trait"; label: string; trait: NumberTrait; min?: number; max?: number }
  | { type: "has"; label: string; characters: string }
  | { type: "case"; label: string; cases: NonNullable<Traits["cases"]>[] }
  | { type: "figures"; label: string; height?: "lining" | "old-style"; spacing?: "tabular" | "proportional" }
  | { type: "pictures"; label: string; want: "out" | "only" }
  | { type: "variable"; label: string; axis?: string }
  | { type: "uses"; label: string; use: "goods-for-sale" | "web" | "video" | "private" | "client-print" }
  | { type: "name"; label: string; words: string };

type Entry = { phrases: string[]; wish: Wish };

const kind = (k: Kind, ...phrases: string[]): Entry => ({
  phrases,
  wish: { type: "kind", label: phrases[0]!, kind: k },
});
const treatment = (t: Treatment, ...phrases: string[]): Entry => ({
  phrases,
  wish: { type: "treatment", label: phrases[0]!, treatment: t },
});
const trait = (t: NumberTrait, range: { min?: number; max?: number }, ...phrases: string[]): Entry => ({
  phrases,
  wish: { type: "trait", label: phrases[0]!, trait: t, ...range },
});

// prettier-ignore
export const VOCABULARY: Entry[] = [
  kind("slab", "slab serif", "slab", "slabs", "egyptian", "square serif"),
  kind("sans", "sans serif", "sans", "grotesque", "grotesk", "without serifs", "sans-serif"),
  kind("serif", "serif", "serifs", "roman", "antiqua"),
  kind("script", "script", "cursive", "calligraphy", "calligraphic", "connected"),
  kind("handwritten", "handwritten", "handwriting", "hand", "hand lettered", "brush", "brushy", "marker", "scrawled"),
  kind("blackletter", "blackletter", "fraktur", "gothic script", "broken script"),
  kind("monospaced", "monospaced", "monospace", "mono", "fixed width", "code"),
  kind("display", "display", "headline", "decorative", "poster"),
  kind("picture", "picture font", "symbols", "pictures", "dingbats", "icons"),
  treatment("stencil", "stencil"), treatment("inline", "inline"), treatment("outline", "outline", "outlined", "hollow"),
  treatment("shadow", "shadow", "shaded"), treatment("rough", "rough", "distressed", "worn", "grunge", "torn"),
  treatment("pixel", "pixel", "bitmap", "8 bit"), treatment("dotted", "dotted", "dots"), treatment("swash", "swash", "swashes"),
  treatment("rounded", "rounded", "round ends"),
  trait("weight", { min: 650 }, "heavy", "bold", "strong", "fat", "chunky", "sturdy"),
  trait("weight", { min: 820 }, "black", "extra bold", "very heavy", "ultra"),
  trait("weight", { max: 330 }, "light", "airy", "delicate"), trait("weight", { max: 190 }, "thin", "hairline", "very light"),
  trait("weight", { min: 330, max: 480 }, "regular", "book weight"), trait("weight", { min: 450, max: 620 }, "medium"),
  trait("width", { max: 4.2 }, "narrow", "condensed", "compressed", "tall"), trait("width", { min: 6.3 }, "wide", "extended", "broad"),
  trait("contrast", { min: 2.6 }, "high contrast", "contrasted", "thick and thin"),
  trait("contrast", { max: 1.28 }, "low contrast", "even", "monoline"),
  trait("slantDeg", { min: 4 }, "italic", "slanted", "leaning", "oblique"), trait("slantDeg", { min: -2, max: 2 }, "upright"),
  trait("roundness", { min: 0.5 }, "soft", "friendly", "bubbly"), trait("roundness", { max: 0.08 }, "crisp", "sharp", "angular"),
  trait("connected", { min: 0.6 }, "joined", "joined up"), trait("xHeightEm", { min: 0.53 }, "large x-height", "tall x-height"),
  trait("xHeightEm", { max: 0.43 }, "small x-height", "low x-height"),
  trait("roughness", { max: 0.1 }, "clean", "smooth"),
  { phrases: ["capitals only", "all capitals", "capitals", "caps only", "all caps"], wish: { type: "case", label: "capitals only", cases: ["capitals-only", "small-capitals"] } },
  { phrases: ["small capitals", "small caps"], wish: { type: "case", label: "small capitals", cases: ["small-capitals"] } },
  { phrases: ["old-style figures", "old style figures", "hanging figures"], wish: { type: "figures", label: "old-style figures", height: "old-style" } },
  { phrases: ["lining figures"], wish: { type: "figures", label: "lining figures", height: "lining" } },
  { phrases: ["tabular figures", "tabular"], wish: { type: "figures", label: "tabular figures", spacing: "tabular" } },
  { phrases: ["not pictures", "no pictures", "without pictures"], wish: { type: "pictures", label: "no picture fonts", want: "out" } },
  { phrases: ["variable"], wish: { type: "variable", label: "variable" } },
  { phrases: ["optical size"], wish: { type: "variable", label: "optical size axis", axis: "opsz" } },
  { phrases: ["may be sold with", "to sell with", "free to sell", "goods for sale", "commercial"], wish: { type: "uses", label: "may be sold with", use: "goods-for-sale" } },
  { phrases: ["old typewriter", "typewriter", "typewriter-like"], wish: { type: "kind", label: "typewriter-like", kind: "monospaced" } },
];

/** Names people use for single characters after "has" or "with". */
export const CHARACTER_WORDS: Record<string, string> = {
  ampersand: "&",
  "and sign": "&",
  plus: "+",
  at: "@",
  euro: "€",
  pound: "£",
  dollar: "$",
  percent: "%",
  hash: "#",
  "question mark": "?",
  "exclamation mark": "!",
  numerals: "0123456789",
  figures: "0123456789",
  numbers: "0123456789",
  accents: "éèüñå",
  interpunct: "·",
  "middle dot": "·",
};

/** Words that carry no wish and are passed over in silence. */
export const FILLERS = new Set(
  "a an the and or with for in of to i want need something some font fonts face faces typeface type letters lettering that is are looks look like very please".split(
    " ",
  ),
);
