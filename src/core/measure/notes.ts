// What stands beside each measured trait: how sure it is, and why it could not be measured.
import type { MeasureNotes, Traits } from "@/contracts/traits";
import { clamp } from "../geometry/numbers";
import { pick, type Letters } from "./letters";
import type { StrokeMeasures } from "./strokes";

/** Letters that each trait is read from, and the words for what went wrong when they are there but do not behave. */
const SOURCES: [keyof Traits, string, string][] = [
  ["stemEm", "hnmrlikbpudHNIEFLTDBPRM", "no stem keeps its thickness"],
  ["weight", "hnmrlikbpudHNIEFLTDBPRM", "no stem keeps its thickness"],
  ["barEm", "HeAft", "no bar stands free"],
  ["contrast", "oO0QHen", "its round letters are no rings"],
  ["stressDeg", "oOQ", "its round letters are of even thickness"],
  ["widthEm", "abcdefghijklmnopqrstuvwxyz", "no letters"],
  ["width", "noeaucsHONEDRU", "no letters of usual width"],
  ["xHeightEm", "xzou", "no lowercase letters"],
  ["capHeightEm", "HIETO", "no capitals"],
  ["ascenderEm", "bdhkl", "no ascenders"],
  ["descenderEm", "pqgy", "no descenders"],
  ["slantDeg", "hnmrlikbpudHIEFLTDBPRN", "no straight downstrokes"],
  ["serif", "hnmrikpHNIFTPRM", "under three stems with a foot"],
  ["serifThickness", "hnmrikpHNIFTPRM", "no serifs"],
  ["serifForm", "hnmrikpHNIFTPRM", "no serifs"],
  ["roundness", "HELTNIFMilkvxzt", "no corners to judge"],
  ["roundEnds", "HELTNIFMilkvxzt", "no corners to judge"],
  ["roundJoins", "HELTNIFMilkvxzt", "no joins to judge"],
  ["roughness", "nHELThitaoesRkSdm", "no contours"],
  ["connected", "minutelarsohbvgcw", "no lowercase letters to set words in"],
  ["aperture", "ceC", "c and e have no opening at the right"],
  ["storeysA", "a", "its strokes cannot be told apart"],
  ["storeysG", "g", "its strokes cannot be told apart"],
  ["evenness", "minulaters", "no lowercase letters to set words in"],
  ["gapEm", "easgB8mMwun", "no white inside its letters"],
  ["legibleFromPx", "easgB8mMwun", "no white inside its letters"],
];

/**
 * @returns confidence 0–1 for every trait that has a value: share of its letters that exist, less what its readings differ;
 *   for every null why.
 */
export function noteMeasures(
  letters: Letters,
  traits: Traits,
  strokes: StrokeMeasures,
): Pick<MeasureNotes, "confidence" | "absent"> {
  const confidence: Record<string, number> = {};
  const absent: Record<string, string> = { bodyEm: "for scripts without upper- and lowercase" };
  const steady = clamp(1 - 3 * (strokes.stemSpread ?? 0.3), 0.1, 1);
  const clear = clamp((strokes.leanShare ?? 0) / 0.45, 0.1, 1);
  const drawn = clamp(1 - 1.5 * (traits.roughness ?? 0), 0.3, 1);
  const factors: Partial<Record<keyof Traits, number>> = {
    stemEm: steady * clamp(strokes.reads / 12, 0.2, 1),
    weight: steady * clamp(strokes.reads / 12, 0.2, 1),
    slantDeg: clear,
    contrast: drawn,
    xHeightEm: drawn,
    capHeightEm: drawn,
    serifForm: traits.serif ?? 0.3,
    serif: drawn * steady,
  };
  for (const [trait, chars, why] of SOURCES) {
    const there = pick(letters, chars).length;
    if (traits[trait] === null || traits[trait] === undefined)
      absent[trait] =
        there < Math.min(3, chars.length) ? `the letters it is read from are missing (${chars.slice(0, 6)} …)` : why;
    else confidence[trait] = Number(((factors[trait] ?? 1) * clamp((1.6 * there) / chars.length, 0.2, 1)).toFixed(2));
  }
  return { confidence, absent };
}
