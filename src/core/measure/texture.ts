// Evenness of colour: how steady the grey of set text is, as a reader sees it with half-closed eyes.
import { mean } from "../geometry/numbers";
import { spansAtY } from "../geometry/rays";
import { glyphsOf, typesetLine } from "../typeset/typesetText";
import type { Letters } from "./letters";

const { ceil, floor, max, min, sqrt } = Math;
const TEXT = ["minimum", "lanterns", "harbour", "evening", "keeper", "boats", "illusive"];
const HEIGHTS = 9;

/**
 * Ink share of neighbouring windows as wide as the lowercase letters are high, along real words.
 * @returns 1 = the same grey everywhere, 0 = spots; one minus twice the spread over the mean. Null without lower case.
 */
export function measureEvenness(letters: Letters, xHeightEm: number | null): number | null {
  if (!xHeightEm || xHeightEm <= 0.05) return null;
  const windowFu = xHeightEm * letters.em;
  const shares: number[] = [];
  for (const word of TEXT) {
    if ([...word].some((c) => !letters.get(c))) continue;
    shares.push(...windowsOf(letters, word, windowFu));
  }
  if (shares.length < 8) return null;
  const m = mean(shares)!;
  const spread = sqrt(mean(shares.map((s) => (s - m) ** 2))!);
  return m > 0 ? max(0, min(1, 1 - (2 * spread) / m)) : null;
}

function windowsOf(letters: Letters, word: string, windowFu: number): number[] {
  const glyphs = glyphsOf(typesetLine(letters.face, word));
  const last = glyphs[glyphs.length - 1];
  if (!last) return [];
  const count = floor((last.xFu + letters.face.advanceFu(last.glyphId)) / windowFu);
  const ink = new Float64Array(max(0, count));
  for (const g of glyphs)
    for (let k = 0; k < HEIGHTS; k++) {
      const y = ((k + 0.5) / HEIGHTS) * windowFu - g.yFu;
      for (const s of spansAtY(letters.face.polygons(g.glyphId), y)) {
        const [from, to] = [s.from + g.xFu, s.to + g.xFu];
        for (let w = max(0, floor(from / windowFu)); w < min(count, ceil(to / windowFu)); w++)
          ink[w]! += max(0, min(to, (w + 1) * windowFu) - max(from, w * windowFu));
      }
    }
  return [...ink].map((v) => v / (windowFu * HEIGHTS));
}
