// Pure answers about the wall: where a key moves the focus, what is active in words.
import type { TraitRange } from "@/contracts/styles";
import { FEATURE_WORDS, KIND_WORDS, TRAIT_WORDS, TREATMENT_WORDS, VERDICT_WORDS, writeTrait } from "@/contracts/words";
import type { FindAddress } from "./question";

/** @returns the new index, or null when the key does not move. */
export function moveFocus(key: string, at: number, total: number, columns: number, rowsShown: number): number | null {
  const steps: Record<string, number> = {
    ArrowRight: 1,
    ArrowLeft: -1,
    ArrowDown: columns,
    ArrowUp: -columns,
    PageDown: columns * rowsShown,
    PageUp: -columns * rowsShown,
    Home: -at,
    End: total - 1 - at,
  };
  const step = steps[key];
  if (step === undefined || !total) return null;
  return Math.min(total - 1, Math.max(0, at + step));
}

export type Active = { label: string; off: Partial<Record<keyof FindAddress, unknown>> };

/** Everything of the sieve that is on, as words that can be removed. */
export function selectActive(
  a: FindAddress,
  names: { libraries?: Record<string, string>; languages?: Record<string, string> } = {},
): Active[] {
  const each = <K extends keyof FindAddress>(key: K, write: (value: string) => string): Active[] =>
    (a[key] as string[]).map((v) => ({ label: write(v), off: { [key]: (a[key] as string[]).filter((o) => o !== v) } }));
  const single = (on: boolean, label: string, key: keyof FindAddress): Active[] =>
    on ? [{ label, off: { [key]: null } }] : [];
  return [
    ...each("kinds", (k) => KIND_WORDS[k as keyof typeof KIND_WORDS].toLowerCase()),
    ...each("vox", (v) => v.replace("-", " ")),
    ...each("treatments", (t) => TREATMENT_WORDS[t as keyof typeof TREATMENT_WORDS].toLowerCase()),
    ...each("moods", (m) => m),
    ...each("verdicts", (v) => VERDICT_WORDS[v as keyof typeof VERDICT_WORDS].toLowerCase()),
    ...a.traits.map((t) => ({
      label: writeTraitRange(t),
      off: { traits: a.traits.filter((o) => o.trait !== t.trait) },
    })),
    ...each("features", (f) => FEATURE_WORDS[f] ?? f),
    ...each("axes", (x) => (x === "any" ? "variable" : `${x} axis`)),
    ...each("languages", (l) => `sets ${names.languages?.[l] ?? l}`),
    ...each("figures", (f) => `${f} figures`),
    ...each("cases", (c) => c.replace("-", " ")),
    ...each("formats", (f) => f.toUpperCase()),
    ...each("health", (h) => (h === "with-care" ? "usable with care" : h)),
    ...each("libraries", (l) => names.libraries?.[l] ?? l),
    ...single(a.chars !== "", `has ${a.chars}`, "chars"),
    ...single(a.stylesMin !== null, `at least ${a.stylesMin} styles`, "stylesMin"),
    ...single(a.weightsMin !== null, `at least ${a.weightsMin} weights`, "weightsMin"),
    ...single(a.italics, "family has italics", "italics"),
    ...single(a.priceMax !== null, a.priceMax === 0 ? "at no charge" : `up to ${a.priceMax}`, "priceMax"),
    ...single(a.complete, "has all characters", "complete"),
    ...single(a.owned !== "all", a.owned === "here" ? "on this machine" : "to be bought", "owned"),
    ...single(a.pictures !== "in", a.pictures === "out" ? "no picture fonts" : "only picture fonts", "pictures"),
    ...single(a.library !== null, `from ${names.libraries?.[a.library ?? ""] ?? a.library}`, "library"),
  ];
}

function writeTraitRange({ trait, low, high }: TraitRange): string {
  const name = TRAIT_WORDS[trait]?.name.toLowerCase() ?? trait;
  const write = (v: number) => writeTrait(trait, v);
  if (low !== null && high !== null) return `${name} ${write(low)}–${write(high)}`;
  return low !== null ? `${name} from ${write(low)}` : `${name} to ${write(high ?? 0)}`;
}

/** A range set, changed or removed. */
export const putRange = (list: readonly TraitRange[], { trait, low, high }: TraitRange): TraitRange[] => [
  ...list.filter((t) => t.trait !== trait),
  ...(low === null && high === null ? [] : [{ trait, low, high }]),
];
