// The parts of the address of Find and the question they make; read by the view in the browser and by the page on the server.
import {
  createLoader,
  createParser,
  parseAsArrayOf,
  parseAsBoolean,
  parseAsInteger,
  parseAsString,
  parseAsStringLiteral,
  type inferParserType,
} from "nuqs/server";
import { KINDS, TREATMENTS, VERDICTS, VOX } from "@/contracts/traits";
import { parseRange, writeRange, type TraitRange } from "@/contracts/styles";

export const SETTINGS = ["line", "words", "sentence", "paragraph", "alphabet", "figures", "letters"] as const;
export type Setting = (typeof SETTINGS)[number];
const GROUNDS = ["colours", "picture"] as const;

const words = () => parseAsArrayOf(parseAsString).withDefault([]);
const range = createParser<TraitRange>({
  parse: parseRange,
  serialize: writeRange,
  eq: (a, b) => writeRange(a) === writeRange(b),
});

export const parsers = {
  q: parseAsString.withDefault(""),
  kinds: parseAsArrayOf(parseAsStringLiteral(KINDS)).withDefault([]),
  treatments: parseAsArrayOf(parseAsStringLiteral(TREATMENTS)).withDefault([]),
  moods: words(),
  vox: parseAsArrayOf(parseAsStringLiteral(VOX)).withDefault([]),
  verdicts: parseAsArrayOf(parseAsStringLiteral(VERDICTS)).withDefault([]),
  traits: parseAsArrayOf(range).withDefault([]),
  features: words(),
  axes: words(),
  languages: words(),
  formats: words(),
  health: words(),
  libraries: words(),
  figures: words(),
  cases: words(),
  chars: parseAsString.withDefault(""),
  stylesMin: parseAsInteger,
  weightsMin: parseAsInteger,
  italics: parseAsBoolean.withDefault(false),
  priceMax: parseAsInteger,
  pictures: parseAsStringLiteral(["in", "out", "only"] as const).withDefault("in"),
  complete: parseAsBoolean.withDefault(false),
  owned: parseAsStringLiteral(["all", "here", "to-buy"] as const).withDefault("all"),
  library: parseAsString,
  near: parseAsString,
  aside: parseAsStringLiteral(["hide", "show", "only"] as const).withDefault("hide"),
  sort: parseAsString.withDefault("fit"),
  fold: parseAsBoolean.withDefault(true),
  open: words(),
  learn: parseAsBoolean.withDefault(false),
  columns: parseAsInteger.withDefault(0),
  set: parseAsStringLiteral(SETTINGS).withDefault("line"),
  letters: parseAsString.withDefault("Rg4&"),
  ground: parseAsStringLiteral(GROUNDS).withDefault("colours"),
  zoom: parseAsInteger.withDefault(100),
  view: parseAsStringLiteral(["wall", "map"] as const).withDefault("wall"),
};
export type FindAddress = inferParserType<typeof parsers>;
export type SetAddress = (change: Partial<{ [K in keyof FindAddress]: FindAddress[K] | null }>) => void;

const LISTS = [
  "kinds",
  "treatments",
  "moods",
  "vox",
  "verdicts",
  "features",
  "axes",
  "languages",
  "formats",
  "health",
  "libraries",
  "figures",
  "cases",
] as const;
const SINGLES = ["q", "chars", "stylesMin", "weightsMin", "priceMax", "library", "near"] as const;

/** What of the address is a question to the server, as query string. */
export function writeQuestion(a: FindAddress, briefId: string): string {
  const p = new URLSearchParams({ briefId });
  for (const key of LISTS) if (a[key].length) p.set(key, a[key].join(","));
  for (const key of SINGLES) {
    const value = a[key];
    if (value !== null && String(value).trim() !== "") p.set(key, String(value).trim());
  }
  if (a.traits.length) p.set("traits", a.traits.map(writeRange).join(","));
  if (a.italics) p.set("italics", "true");
  if (a.pictures !== "in") p.set("pictures", a.pictures);
  if (a.owned !== "all") p.set("owned", a.owned);
  if (a.complete) p.set("complete", "true");
  if (a.aside !== "hide") p.set("aside", a.aside);
  if (a.fold) p.set("fold", "true");
  if (a.fold && a.open.length) p.set("open", a.open.join(","));
  if (a.learn) p.set("learn", "true");
  p.set("nearest", "true");
  p.set("sort", a.sort);
  return p.toString();
}

/** Everything that narrows the wall, off. */
export const NO_FILTERS = Object.fromEntries(
  [...LISTS, ...SINGLES, "traits", "italics", "pictures", "complete", "owned"].map((k) => [k, null]),
) as Partial<Record<keyof FindAddress, null>>;

const load = createLoader(parsers);
/** The question that an address asks, from the parameters of a request. */
export const readQuestion = (params: Record<string, string | string[] | undefined>, briefId: string): string =>
  writeQuestion(load(params), briefId);
