"use client";
// The state of Find as it stands in the address: a link shows the same wall, and back goes back.
import {
  parseAsArrayOf,
  parseAsBoolean,
  parseAsInteger,
  parseAsString,
  parseAsStringLiteral,
  useQueryStates,
  type inferParserType,
} from "nuqs";
import { KINDS, TREATMENTS, VERDICTS } from "@/contracts/traits";
import { STYLE_SORTS } from "@/contracts/styles";

export const SETTINGS = ["line", "words", "sentence", "paragraph", "alphabet", "figures"] as const;
export type Setting = (typeof SETTINGS)[number];

const parsers = {
  q: parseAsString.withDefault(""),
  kinds: parseAsArrayOf(parseAsStringLiteral(KINDS)).withDefault([]),
  treatments: parseAsArrayOf(parseAsStringLiteral(TREATMENTS)).withDefault([]),
  verdicts: parseAsArrayOf(parseAsStringLiteral(VERDICTS)).withDefault([]),
  weightMin: parseAsInteger,
  weightMax: parseAsInteger,
  widthMin: parseAsInteger,
  widthMax: parseAsInteger,
  pictures: parseAsStringLiteral(["in", "out", "only"] as const).withDefault("in"),
  complete: parseAsBoolean.withDefault(false),
  owned: parseAsStringLiteral(["all", "here", "to-buy"] as const).withDefault("all"),
  library: parseAsString,
  aside: parseAsStringLiteral(["hide", "show", "only"] as const).withDefault("hide"),
  sort: parseAsStringLiteral(STYLE_SORTS).withDefault("fit"),
  columns: parseAsInteger.withDefault(2),
  set: parseAsStringLiteral(SETTINGS).withDefault("line"),
  zoom: parseAsInteger.withDefault(100),
};
export type FindAddress = inferParserType<typeof parsers>;

export const useFindAddress = () => useQueryStates(parsers, { history: "replace", throttleMs: 120 });

/** What of the address is a question to the server, as query string. */
export function writeQuestion(a: FindAddress, briefId: string): string {
  const p = new URLSearchParams({ briefId });
  const put = (key: string, value: string | number | null | undefined) => {
    if (value !== null && value !== undefined && value !== "") p.set(key, String(value));
  };
  put("q", a.q.trim());
  put("kinds", a.kinds.join(","));
  put("treatments", a.treatments.join(","));
  put("verdicts", a.verdicts.join(","));
  put("weightMin", a.weightMin);
  put("weightMax", a.weightMax);
  put("widthMin", a.widthMin);
  put("widthMax", a.widthMax);
  if (a.pictures !== "in") put("pictures", a.pictures);
  if (a.owned !== "all") put("owned", a.owned);
  put("library", a.library);
  if (a.complete) put("complete", "true");
  if (a.aside !== "hide") put("aside", a.aside);
  put("sort", a.sort);
  return p.toString();
}

/** Everything that narrows the wall, off. */
export const NO_FILTERS: Partial<Record<keyof FindAddress, null>> = {
  q: null,
  kinds: null,
  treatments: null,
  verdicts: null,
  weightMin: null,
  weightMax: null,
  widthMin: null,
  widthMax: null,
  pictures: null,
  complete: null,
  owned: null,
  library: null,
};

/** Texts other than the brief's own, from the scenario, long enough to show a face at work. */
export const SETTING_TEXTS: Record<Exclude<Setting, "line">, string> = {
  words: "Harbour Lantern Quay Mist Beacon",
  sentence: "The keeper trimmed the wick, and waited for the fog to lift.",
  paragraph:
    "The keeper trimmed the wick, and waited for the fog to lift. Twelve lamps stood along the quay; one tide would carry the boats past all of them. By dawn the brass was cold and the log held only weather.",
  alphabet: "ABCDEFGHIJKLMNOPQRSTUVWXYZ abcdefghijklmnopqrstuvwxyz",
  figures: "0123456789 04:52 3.8 m £12 & % + ? !",
};
