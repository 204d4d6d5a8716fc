// Features that a person switches: which a face has, and which of them are on unless they are switched off.
import { FEATURE_WORDS, SHAPING_FEATURES } from "@/contracts/words";

/** Nobody switches these by hand. */
const ALWAYS = new Set([...SHAPING_FEATURES, "rclt", "curs", "abvm", "blwm"]);
export const ON_BY_DEFAULT: ReadonlySet<string> = new Set(["liga", "calt", "clig"]);

/** Those with a name first. */
export const listTryable = (features: readonly string[]): string[] =>
  [...new Set(features)]
    .filter((f) => !ALWAYS.has(f))
    .sort((a, b) => Number(!FEATURE_WORDS[a]) - Number(!FEATURE_WORDS[b]) || (a < b ? -1 : 1));
