// The words people read for our codes, one place for interface, sheets and archives.
import type { Kind, Treatment, Use, Verdict } from "./traits";

export const VERDICT_WORDS: Record<Verdict, string> = {
  cleared: "Cleared",
  "cleared-with-credit": "Cleared with credit",
  "buy-first": "Buy first",
  "ask-maker": "Ask the maker",
  "not-for-this-use": "Not for this use",
  unread: "Unread",
};

export const USE_WORDS: Record<Use, string> = {
  private: "personal use",
  "client-print": "print",
  "goods-for-sale": "goods for sale",
  web: "web",
  video: "video",
  app: "app",
  cutting: "cutting",
  logo: "logo",
};

/** Several faces of a kind, as the map names its regions. */
export const KIND_PLURALS: Record<Kind, string> = {
  serif: "serifs",
  sans: "sans serifs",
  slab: "slab serifs",
  script: "scripts",
  handwritten: "handwriting",
  blackletter: "blackletters",
  monospaced: "monospaced faces",
  display: "display faces",
  picture: "picture fonts",
};
export const KIND_WORDS: Record<Kind, string> = {
  sans: "Sans serif",
  serif: "Serif",
  slab: "Slab serif",
  script: "Script",
  handwritten: "Handwritten",
  blackletter: "Blackletter",
  monospaced: "Monospaced",
  display: "Display",
  picture: "Picture font",
};

export const TREATMENT_WORDS: Record<Treatment, string> = {
  stencil: "Stencil",
  inline: "Inline",
  outline: "Outline",
  shadow: "Shadow",
  rough: "Rough",
  pixel: "Pixel",
  dotted: "Dotted",
  drips: "Drips",
  swash: "Swashes",
  rounded: "Rounded",
  layered: "Layered",
};

/** Names of number traits in the trade's words, their unit, digits and what small and large mean. */
export const TRAIT_WORDS: Record<string, { name: string; unit: string; digits: number; method: string }> = {
  weight: { name: "Weight", unit: "", digits: 0, method: "stem against x-height, on the scale 100–900" },
  width: { name: "Width", unit: "of 9", digits: 1, method: "letter width against height, on the scale 1–9" },
  contrast: { name: "Contrast", unit: ": 1", digits: 1, method: "thickest against thinnest places of o, n, e, H" },
  xHeightEm: { name: "x-height", unit: "em", digits: 2, method: "flat tops of x, z, o, u, overshoot taken off" },
  slantDeg: { name: "Slant", unit: "°", digits: 1, method: "first strokes of capitals, else the way most edges run" },
  roundness: { name: "Roundness", unit: "", digits: 2, method: "share of all turning made in gentle steps" },
  stemEm: { name: "Stem", unit: "em", digits: 3, method: "horizontal rays through straight stems" },
  barEm: { name: "Bar", unit: "em", digits: 3, method: "vertical rays through bars of H, e, A, f, t" },
  capHeightEm: { name: "Capital height", unit: "em", digits: 2, method: "flat tops of H, I, E, T, O" },
  ascenderEm: { name: "Ascender", unit: "em", digits: 2, method: "tops of b, d, h, k, l" },
  descenderEm: { name: "Descender", unit: "em", digits: 2, method: "bottoms of p, q, g, y" },
  widthEm: { name: "Mean advance", unit: "em", digits: 2, method: "mean advance of a to z" },
  serif: { name: "Serifs", unit: "", digits: 2, method: "reach of stem feet beyond the stem" },
  serifThickness: {
    name: "Serif thickness",
    unit: "stem",
    digits: 2,
    method: "thickness of the foot against the stem",
  },
  stressDeg: { name: "Stress", unit: "°", digits: 0, method: "axis through the thinnest places of o and O" },
  roundEnds: { name: "Round ends", unit: "", digits: 2, method: "roundness of corners that stick out" },
  roundJoins: { name: "Round joins", unit: "", digits: 2, method: "roundness of corners that reach in" },
  roughness: {
    name: "Roughness",
    unit: "",
    digits: 2,
    method: "turning of the contour beyond what its smooth form needs",
  },
  connected: { name: "Joined", unit: "", digits: 2, method: "share of letter pairs in words whose outlines meet" },
  aperture: { name: "Aperture", unit: "", digits: 2, method: "opening of c, e, C against their height" },
  evenness: { name: "Even colour", unit: "", digits: 2, method: "how steady ink is over windows along words" },
  gapEm: { name: "Narrowest gap", unit: "em", digits: 3, method: "white inside e, a, s, g, B, 8, m" },
  bodyEm: { name: "Letter height", unit: "em", digits: 3, method: "height of the middle letter of the script" },
  legibleFromPx: { name: "Reads from", unit: "px", digits: 0, method: "narrowest gap of one pixel, x-height of six" },
};
export const writeTrait = (trait: string, value: number): string => {
  const words = TRAIT_WORDS[trait];
  if (!words) return String(value);
  const n = value.toFixed(words.digits);
  return words.unit === "°" ? `${n}°` : words.unit && words.unit !== "of 9" ? `${n} ${words.unit}` : n;
};

/** Features that shaping always needs: nobody switches them by hand. */
export const SHAPING_FEATURES = ["kern", "mark", "mkmk", "ccmp", "locl", "rvrn", "rlig", "cpsp", "numr", "dnom"];

/** What OpenType features give, in the trade's words. */
export const FEATURE_WORDS: Record<string, string> = {
  smcp: "small capitals",
  c2sc: "capitals to small capitals",
  swsh: "swashes",
  cswh: "swashes in context",
  salt: "alternates",
  aalt: "all alternates",
  calt: "alternates in context",
  titl: "titling capitals",
  case: "marks for capitals",
  tnum: "tabular figures",
  pnum: "proportional figures",
  onum: "old-style figures",
  lnum: "lining figures",
  zero: "slashed zero",
  frac: "fractions",
  ordn: "ordinals",
  sups: "superiors",
  subs: "inferiors",
  liga: "ligatures",
  dlig: "rarer ligatures",
  hist: "historical forms",
  ss01: "stylistic set 1",
  ss02: "stylistic set 2",
  ss03: "stylistic set 3",
  kern: "kerning",
  init: "initial forms",
  fina: "final forms",
};

/** A feature by its tag, in the trade's words. */
export const writeFeature = (tag: string): string => {
  const numbered = /^(ss|cv)(\d\d)$/.exec(tag);
  const known = FEATURE_WORDS[tag];
  if (known || !numbered) return known ?? tag;
  return `${numbered[1] === "ss" ? "stylistic set" : "character variant"} ${Number(numbered[2])}`;
};

/** File extensions of documents whose fonts are listed. */
export const DOCUMENT_ENDINGS = ["pdf", "html", "htm", "xhtml", "css", "svg", "docx", "odt", "pptx", "epub", "zip"];

/** Axes or features with their values: "wght 250, wdth 80". @param digits - at most, behind the point; all where none are given. */
export const writeValues = (values: Readonly<Record<string, number>>, digits?: number): string =>
  Object.entries(values)
    .map(
      ([tag, value]) =>
        `${tag.trim()} ${digits === undefined ? value : Math.round(value * 10 ** digits) / 10 ** digits}`,
    )
    .join(", ");
