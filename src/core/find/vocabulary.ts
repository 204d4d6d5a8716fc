// Ordinary words for shapes, and the measures they map to. A data table of our own, from the trade's words and our measures.
import type { Kind, SieveTrait, Traits, Treatment, Use } from "@/contracts/traits";
import { VOX } from "@/contracts/traits";
import { MOODS } from "../kind/moods";
import type { ThemeReading } from "../theme/readTheme";

/** What one phrase asks for. `label` is what stands above the wall. */
export type Constraint =
  | { type: "kind"; label: string; kind: Kind; not?: boolean }
  | { type: "treatment"; label: string; treatment: Treatment; not?: boolean }
  | { type: "trait"; label: string; trait: SieveTrait; min?: number; max?: number }
  | { type: "has"; label: string; characters: string }
  | { type: "case"; label: string; cases: NonNullable<Traits["cases"]>[] }
  | { type: "figures"; label: string; height?: "lining" | "old-style"; spacing?: "tabular" | "proportional" }
  | { type: "pictures"; label: string; want: "out" | "only" }
  | { type: "variable"; label: string; axis?: string }
  | { type: "uses"; label: string; use: Use }
  | { type: "name"; label: string; words: string; style?: string }
  | { type: "mood"; label: string; moods: string[]; not?: boolean }
  | { type: "vox"; label: string; vox: string }
  | { type: "feature"; label: string; features: string[] }
  | { type: "price"; label: string; maxCents: number }
  | { type: "count"; label: string; of: "styles" | "weights"; min: number }
  | { type: "italics"; label: string }
  | { type: "foundry"; label: string; foundry: number }
  | { type: "language"; label: string; language: string }
  | { type: "storeys"; label: string; trait: "storeysA" | "storeysG"; storeys: 1 | 2 }
  | { type: "serif-form"; label: string; form: NonNullable<Traits["serifForm"]> }
  | { type: "owned"; label: string; owned: boolean }
  | { type: "like"; label: string; family: number }
  | { type: "than"; label: string; trait: SieveTrait; way: 1 | -1 }
  | { type: "cheaper"; label: string }
  /** What lettering is for or feels like: it ranks, and keeps out only what has nothing of it. */
  | ({ type: "theme"; label: string; phrase: string; tag: string | undefined } & ThemeReading);

type Entry = { phrases: string[]; constraint: Constraint };

const kind = (k: Kind, ...phrases: string[]): Entry => ({
  phrases,
  constraint: { type: "kind", label: phrases[0]!, kind: k },
});
const treatment = (t: Treatment, ...phrases: string[]): Entry => ({
  phrases,
  constraint: { type: "treatment", label: phrases[0]!, treatment: t },
});
const trait = (t: SieveTrait, range: { min?: number; max?: number }, ...phrases: string[]): Entry => ({
  phrases,
  constraint: { type: "trait", label: phrases[0]!, trait: t, ...range },
});

// oxfmt-ignore
export const VOCABULARY: Entry[] = [
  kind("slab", "slab serif", "slab", "slabs", "egyptian", "square serif"),
  kind("sans", "sans serif", "sans", "grotesque", "grotesk", "without serifs", "sans-serif"),
  kind("serif", "serif", "serifs", "roman", "antiqua"),
  kind("script", "script", "cursive", "calligraphy", "calligraphic", "connected"),
  kind("handwritten", "handwritten", "handwriting", "hand", "hand lettered", "brush", "brushy", "marker", "scrawled"),
  kind("blackletter", "blackletter", "fraktur", "gothic script", "broken script"),
  kind("monospaced", "monospaced", "monospace", "mono", "fixed width", "code"),
  kind("display", "display", "headline", "decorative"),
  kind("picture", "picture font", "symbols", "pictures", "dingbats", "icons"),
  treatment("stencil", "stencil"), treatment("inline", "inline"), treatment("outline", "outline", "outlined", "hollow"),
  treatment("shadow", "shadow", "shaded"), treatment("rough", "rough", "distressed", "worn", "grunge", "torn"),
  treatment("pixel", "pixel", "bitmap", "8 bit"), treatment("dotted", "dotted", "dots"), treatment("swash", "swash", "swashes"),
  treatment("rounded", "rounded", "round ends", "with round ends"), treatment("drips", "dripping", "drips", "melting"),
  trait("weight", { min: 650 }, "heavy", "bold", "strong", "fat", "chunky", "thick"),
  trait("weight", { min: 820 }, "black", "extra bold", "very heavy", "ultra"),
  trait("weight", { max: 330 }, "light", "delicate", "fine"), trait("weight", { max: 190 }, "thin", "hairline", "very light"),
  trait("weight", { min: 330, max: 480 }, "regular", "book weight"), trait("weight", { min: 450, max: 620 }, "medium"),
  trait("width", { max: 4.2 }, "narrow", "condensed", "compressed", "tall"), trait("width", { min: 6.3 }, "wide", "extended", "broad"),
  trait("contrast", { min: 2.6 }, "high contrast", "contrasted", "thick and thin"),
  trait("contrast", { max: 1.28 }, "low contrast", "even", "monoline"),
  trait("slantDeg", { min: 4 }, "italic", "slanted", "leaning", "oblique"), trait("slantDeg", { min: -2, max: 2 }, "upright"),
  trait("roundness", { min: 0.5 }, "soft", "bubbly", "round", "curvy"), trait("roundness", { max: 0.08 }, "crisp", "sharp", "angular"),
  trait("connected", { min: 0.6 }, "joined", "joined up"), trait("xHeightEm", { min: 0.53 }, "large x-height", "tall x-height"),
  trait("xHeightEm", { max: 0.43 }, "small x-height", "low x-height"),
  trait("roughness", { max: 0.1 }, "clean", "smooth"),
  { phrases: ["capitals only", "all capitals", "capitals", "caps only", "all caps"], constraint: { type: "case", label: "capitals only", cases: ["capitals-only", "small-capitals"] } },
  { phrases: ["small capitals", "small caps"], constraint: { type: "case", label: "small capitals", cases: ["small-capitals"] } },
  { phrases: ["old-style figures", "old style figures", "hanging figures"], constraint: { type: "figures", label: "old-style figures", height: "old-style" } },
  { phrases: ["lining figures"], constraint: { type: "figures", label: "lining figures", height: "lining" } },
  { phrases: ["tabular figures", "tabular"], constraint: { type: "figures", label: "tabular figures", spacing: "tabular" } },
  { phrases: ["not pictures", "no pictures", "without pictures"], constraint: { type: "pictures", label: "no picture fonts", want: "out" } },
  { phrases: ["variable"], constraint: { type: "variable", label: "variable" } },
  { phrases: ["optical size"], constraint: { type: "variable", label: "optical size axis", axis: "opsz" } },
  { phrases: ["may be sold with", "to sell with", "free to sell", "goods for sale", "commercial"], constraint: { type: "uses", label: "may be sold with", use: "goods-for-sale" } },
  { phrases: ["free", "free of charge", "costs nothing", "for free"], constraint: { type: "price", label: "free of charge", maxCents: 0 } },
  { phrases: ["free for video", "for video", "for broadcast"], constraint: { type: "uses", label: "cleared for video", use: "video" } },
  { phrases: ["for the web", "for web", "for a website", "web use"], constraint: { type: "uses", label: "cleared for the web", use: "web" } },
  { phrases: ["for an app", "for apps"], constraint: { type: "uses", label: "cleared for apps", use: "app" } },
  { phrases: ["for a logo", "for logos"], constraint: { type: "uses", label: "cleared for logos", use: "logo" } },
  { phrases: ["for cutting", "for vinyl", "for cut vinyl"], constraint: { type: "uses", label: "cleared for cutting", use: "cutting" } },
  { phrases: ["for print", "for client print", "for a client"], constraint: { type: "uses", label: "cleared for client print", use: "client-print" } },
  { phrases: ["with italics", "has italics", "with italic", "has an italic", "with an italic"], constraint: { type: "italics", label: "family has italics" } },
  { phrases: ["with small caps", "with small capitals", "has small caps", "has small capitals"], constraint: { type: "feature", label: "has small capitals", features: ["smcp", "c2sc"] } },
  { phrases: ["with swashes", "has swashes"], constraint: { type: "feature", label: "has swashes", features: ["swsh", "cswh"] } },
  { phrases: ["with alternates", "alternates", "has alternates", "stylistic sets", "with stylistic sets"], constraint: { type: "feature", label: "has alternates", features: ["salt", "calt", "ss01", "ss02", "aalt"] } },
  { phrases: ["ligatures", "with ligatures", "has ligatures"], constraint: { type: "feature", label: "has ligatures", features: ["liga", "dlig"] } },
  { phrases: ["fractions", "with fractions"], constraint: { type: "feature", label: "has fractions", features: ["frac"] } },
  { phrases: ["weight axis"], constraint: { type: "variable", label: "weight axis", axis: "wght" } },
  { phrases: ["width axis"], constraint: { type: "variable", label: "width axis", axis: "wdth" } },
  { phrases: ["proportional figures"], constraint: { type: "figures", label: "proportional figures", spacing: "proportional" } },
  { phrases: ["single storey a", "one storey a", "single-storey a", "one-storey a", "schoolbook a"], constraint: { type: "storeys", label: "a of one storey", trait: "storeysA", storeys: 1 } },
  { phrases: ["double storey a", "two storey a", "double-storey a", "two-storey a"], constraint: { type: "storeys", label: "a of two storeys", trait: "storeysA", storeys: 2 } },
  { phrases: ["double storey g", "two storey g", "double-storey g", "two-storey g"], constraint: { type: "storeys", label: "g of two storeys", trait: "storeysG", storeys: 2 } },
  { phrases: ["single storey g", "one storey g", "single-storey g", "one-storey g"], constraint: { type: "storeys", label: "g of one storey", trait: "storeysG", storeys: 1 } },
  { phrases: ["bracketed serifs", "bracketed"], constraint: { type: "serif-form", label: "bracketed serifs", form: "bracketed" } },
  { phrases: ["hairline serifs", "thin serifs"], constraint: { type: "serif-form", label: "hairline serifs", form: "hairline" } },
  { phrases: ["wedge serifs"], constraint: { type: "serif-form", label: "wedge serifs", form: "wedge" } },
  trait("aperture", { min: 0.42 }, "open forms", "open apertures", "open letters"), trait("aperture", { max: 0.28 }, "closed forms", "closed apertures"),
  trait("legibleFromPx", { max: 13 }, "legible small", "readable small", "for small sizes", "legible at small sizes"),
  trait("evenness", { min: 0.74 }, "even colour", "even grey"),
  { phrases: ["on this machine", "i own", "owned", "at hand"], constraint: { type: "owned", label: "on this machine", owned: true } },
  { phrases: ["to be bought", "to buy", "not owned"], constraint: { type: "owned", label: "to be bought", owned: false } },
];

/** Words for moods, periods and occasions beside their own: what people say for the same. */
const MOOD_WORDS: Record<string, string[]> = {
  sturdy: ["solid", "robust", "stout"],
  friendly: ["kind", "approachable", "welcoming"],
  elegant: ["refined", "classy", "graceful"],
  playful: ["childlike"],
  strict: ["sober", "neutral", "plain", "serious"],
  rugged: ["weathered", "gritty"],
  quiet: ["calm", "restrained"],
  loud: ["shouting", "in your face"],
  hurried: ["quick", "scribbled", "casual"],
  technical: ["engineered"],
  medieval: ["old german"],
  "old book": ["old style", "bookish", "antique", "old-fashioned"],
  woodtype: ["wood type"],
  typewriter: ["old typewriter", "typewriter-like", "typewritten"],
  "book text": ["for reading", "body text", "long text", "text face", "for books", "for a booklet"],
  "small print": ["captions", "for captions", "footnotes"],
  poster: ["for a poster", "for posters"],
  signage: ["signs", "for signs", "wayfinding"],
  invitation: ["for an invitation", "for invitations"],
  tables: ["for tables", "timetable", "tide table"],
  label: ["labels", "packaging", "for labels"],
  "film title": ["title card", "film titles", "titles", "cinematic", "for titles"],
  handmade: ["hand made", "crafted"],
};
for (const { word } of MOODS)
  VOCABULARY.push({
    phrases: [word, ...(MOOD_WORDS[word] ?? [])],
    constraint: { type: "mood", label: word, moods: [word] },
  });
for (const vox of VOX)
  if (!VOCABULARY.some((e) => e.phrases.includes(vox)))
    VOCABULARY.push({
      phrases: [vox, vox.replace("-", " ")],
      constraint: { type: "vox", label: vox.replace("-", " "), vox },
    });

/** Comparing words: said of a face before ("like Lora but narrower") or of all. */
// oxfmt-ignore
export const COMPARATIVES: Record<string, { trait: SieveTrait; way: 1 | -1 }> = {
  heavier: { trait: "weight", way: 1 }, bolder: { trait: "weight", way: 1 }, thicker: { trait: "weight", way: 1 }, stronger: { trait: "weight", way: 1 },
  lighter: { trait: "weight", way: -1 }, thinner: { trait: "weight", way: -1 }, finer: { trait: "weight", way: -1 },
  wider: { trait: "width", way: 1 }, broader: { trait: "width", way: 1 }, narrower: { trait: "width", way: -1 }, tighter: { trait: "width", way: -1 },
  rounder: { trait: "roundness", way: 1 }, softer: { trait: "roundness", way: 1 }, sharper: { trait: "roundness", way: -1 }, crisper: { trait: "roundness", way: -1 },
  "more contrast": { trait: "contrast", way: 1 }, "less contrast": { trait: "contrast", way: -1 }, rougher: { trait: "roughness", way: 1 }, cleaner: { trait: "roughness", way: -1 },
  "more slanted": { trait: "slantDeg", way: 1 }, "less slanted": { trait: "slantDeg", way: -1 }, "more open": { trait: "aperture", way: 1 },
  "larger x-height": { trait: "xHeightEm", way: 1 }, "smaller x-height": { trait: "xHeightEm", way: -1 },
};

/** Number words up to twelve. */
export const NUMBER_WORDS: Record<string, number> = Object.fromEntries(
  "zero one two three four five six seven eight nine ten eleven twelve".split(" ").map((w, i) => [w, i]),
);

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

/** Words that carry no constraint and are passed over in silence. */
export const FILLERS = new Set(
  "a an the and or with for in at on of to i want need something some font fonts face faces typeface typefaces type letters lettering that is are looks look like very please but which can be me my our by from it its than most not no without rather quite really family families style styles".split(
    " ",
  ),
);
