// Whole licence texts, recognised by how much of a standard text stands in the given one, word by word.
// Method: shares of three-word shingles. References: the SPDX licence texts, from the spdx-license-list package.
import apache2 from "spdx-license-list/licenses/Apache-2.0.json" with { type: "json" };
import arphic from "spdx-license-list/licenses/Arphic-1999.json" with { type: "json" };
import vera from "spdx-license-list/licenses/Bitstream-Vera.json" with { type: "json" };
import bsd2 from "spdx-license-list/licenses/BSD-2-Clause.json" with { type: "json" };
import bsd3 from "spdx-license-list/licenses/BSD-3-Clause.json" with { type: "json" };
import by2 from "spdx-license-list/licenses/CC-BY-2.0.json" with { type: "json" };
import by3 from "spdx-license-list/licenses/CC-BY-3.0.json" with { type: "json" };
import by4 from "spdx-license-list/licenses/CC-BY-4.0.json" with { type: "json" };
import byNc3 from "spdx-license-list/licenses/CC-BY-NC-3.0.json" with { type: "json" };
import byNc4 from "spdx-license-list/licenses/CC-BY-NC-4.0.json" with { type: "json" };
import byNcNd3 from "spdx-license-list/licenses/CC-BY-NC-ND-3.0.json" with { type: "json" };
import byNcNd4 from "spdx-license-list/licenses/CC-BY-NC-ND-4.0.json" with { type: "json" };
import byNcSa3 from "spdx-license-list/licenses/CC-BY-NC-SA-3.0.json" with { type: "json" };
import byNcSa4 from "spdx-license-list/licenses/CC-BY-NC-SA-4.0.json" with { type: "json" };
import byNd3 from "spdx-license-list/licenses/CC-BY-ND-3.0.json" with { type: "json" };
import byNd4 from "spdx-license-list/licenses/CC-BY-ND-4.0.json" with { type: "json" };
import bySa3 from "spdx-license-list/licenses/CC-BY-SA-3.0.json" with { type: "json" };
import bySa4 from "spdx-license-list/licenses/CC-BY-SA-4.0.json" with { type: "json" };
import cc0 from "spdx-license-list/licenses/CC0-1.0.json" with { type: "json" };
import gpl2 from "spdx-license-list/licenses/GPL-2.0-only.json" with { type: "json" };
import gpl3 from "spdx-license-list/licenses/GPL-3.0-only.json" with { type: "json" };
import ipa from "spdx-license-list/licenses/IPA.json" with { type: "json" };
import isc from "spdx-license-list/licenses/ISC.json" with { type: "json" };
import lgpl21 from "spdx-license-list/licenses/LGPL-2.1-only.json" with { type: "json" };
import lgpl3 from "spdx-license-list/licenses/LGPL-3.0-only.json" with { type: "json" };
import mit from "spdx-license-list/licenses/MIT.json" with { type: "json" };
import mplus from "spdx-license-list/licenses/mplus.json" with { type: "json" };
import ofl10 from "spdx-license-list/licenses/OFL-1.0.json" with { type: "json" };
import ofl11 from "spdx-license-list/licenses/OFL-1.1.json" with { type: "json" };
import ubuntu from "spdx-license-list/licenses/Ubuntu-font-1.0.json" with { type: "json" };
import unlicense from "spdx-license-list/licenses/Unlicense.json" with { type: "json" };
import wtfpl from "spdx-license-list/licenses/WTFPL.json" with { type: "json" };
import zlib from "spdx-license-list/licenses/Zlib.json" with { type: "json" };
import { FONT_EXCEPTION } from "./mentions";

const TEXTS: Record<string, { licenseText: string }> = {
  "OFL-1.1": ofl11,
  "OFL-1.0": ofl10,
  "Apache-2.0": apache2,
  "CC0-1.0": cc0,
  "CC-BY-4.0": by4,
  "CC-BY-3.0": by3,
  "CC-BY-2.0": by2,
  "CC-BY-SA-4.0": bySa4,
  "CC-BY-SA-3.0": bySa3,
  "CC-BY-NC-4.0": byNc4,
  "CC-BY-NC-3.0": byNc3,
  "CC-BY-ND-4.0": byNd4,
  "CC-BY-ND-3.0": byNd3,
  "CC-BY-NC-SA-4.0": byNcSa4,
  "CC-BY-NC-SA-3.0": byNcSa3,
  "CC-BY-NC-ND-4.0": byNcNd4,
  "CC-BY-NC-ND-3.0": byNcNd3,
  "GPL-2.0-or-later": gpl2,
  "GPL-3.0-or-later": gpl3,
  "LGPL-2.1-or-later": lgpl21,
  "LGPL-3.0-or-later": lgpl3,
  "Ubuntu-font-1.0": ubuntu,
  Unlicense: unlicense,
  MIT: mit,
  "BSD-2-Clause": bsd2,
  "BSD-3-Clause": bsd3,
  ISC: isc,
  Zlib: zlib,
  WTFPL: wtfpl,
  IPA: ipa,
  mplus,
  "Bitstream-Vera": vera,
  "Arphic-1999": arphic,
};

type Recognised = {
  spdx: string;
  /** Share of the standard text that stands in the given one, 0–1. */
  share: number;
  /** Whether a sentence is the standard's own (most of its word triples stand there). */
  isStandard: (sentence: string) => boolean;
};

/** A text shorter than this share of a standard one is not that licence. */
const MIN_SHARE = 0.72;

const wordsOf = (text: string) =>
  text
    .toLowerCase()
    .normalize("NFKC")
    .match(/[\p{L}\p{N}]+/gu) ?? [];
function shinglesOf(text: string): Set<string> {
  const words = wordsOf(text);
  const out = new Set<string>();
  for (let i = 0; i + 2 < words.length; i++) out.add(`${words[i]} ${words[i + 1]} ${words[i + 2]}`);
  return out;
}
/** Instructions behind the terms are often left out of a licence file. */
const termsOf = (text: string) => text.split(/END OF TERMS AND CONDITIONS/)[0]!;

let references: { spdx: string; shingles: Set<string>; whole: Set<string> }[] | null = null;
const getReferences = () =>
  (references ??= Object.entries(TEXTS).map(([spdx, { licenseText }]) => ({
    spdx,
    shingles: shinglesOf(termsOf(licenseText)),
    whole: shinglesOf(licenseText),
  })));

/**
 * Recognises a standard licence in a text.
 * @returns the nearest one of which at least 72 % stands there; null when none does.
 */
export function recogniseLicence(text: string): Recognised | null {
  const own = shinglesOf(text);
  if (own.size < 20) return null;
  let best: { spdx: string; share: number; likeness: number; whole: Set<string> } | null = null;
  for (const { spdx, shingles, whole } of getReferences()) {
    // Too short to hold it: not counted.
    if (own.size < shingles.size * MIN_SHARE * 0.9) continue;
    let both = 0;
    for (const s of shingles) if (own.has(s)) both++;
    const share = both / shingles.size;
    if (share < MIN_SHARE) continue;
    // Of relatives (CC BY and CC BY-SA) the one wins that explains the text and misses least of its own.
    const likeness = share + both / own.size;
    if (!best || likeness > best.likeness) best = { spdx, share, likeness, whole };
  }
  if (!best) return null;
  const { spdx, share, whole } = best;
  const named = spdx.startsWith("GPL") && FONT_EXCEPTION.test(text) ? `${spdx} WITH Font-exception-2.0` : spdx;
  return {
    spdx: named,
    share,
    isStandard: (sentence) => {
      const list = [...shinglesOf(sentence)];
      if (!list.length) return wordsOf(sentence).every((w) => w.length < 20);
      return list.filter((s) => whole.has(s)).length / list.length >= 0.8;
    },
  };
}
