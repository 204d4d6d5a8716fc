// Heights and widths in em: flat tops and bottoms, mean advances, figures, cases.
import { median, mean, quantile } from "../geometry/numbers";
import { medianEm, pick, type Letters } from "./letters";
import { measureTornTop } from "./untreat";

/** What goes further below the baseline is a tail or a shadow, no overshoot. */
const MAX_OVERSHOOT_EM = 0.025;

/** Heights from letters with flat ends, so that overshoot does not count; round letters only where no flat one exists. @param isTorn - edges are rough: the middle of an edge counts, not its highest tooth. */
export function measureHeights(letters: Letters, isTorn: boolean) {
  const torn = (chars: string) => {
    const top = isTorn ? measureTornTop(letters, chars) : null;
    return top === null ? null : top / letters.em;
  };
  const top = (chars: string) => torn(chars) ?? medianEm(letters, chars, (l) => l.bounds.yMax);
  // Overshoot only ever adds: where some of these letters are curved (italics), the lower ones are the flat ones.
  const lowTop = (chars: string) => {
    const low = quantile(
      pick(letters, chars).map((l) => l.bounds.yMax),
      0.25,
    );
    return low === null ? null : low / letters.em;
  };
  // What a letter goes above its line it goes below the baseline too: taken off, round letters stand level with flat ones.
  // Where all flat letters hang below alike (pixels), the face stands lower as a whole: no overshoot.
  const feet = pick(letters, "HIETx").map((l) => l.bounds.yMin);
  const standsAt =
    feet.length >= 3 && Math.max(...feet) - Math.min(...feet) <= letters.em / 1000 ? Math.min(0, feet[0]!) : 0;
  const level = (chars: string) =>
    medianEm(letters, chars, ({ bounds: { yMax, yMin } }) => {
      const over = standsAt - yMin;
      return over > 0 && over <= MAX_OVERSHOOT_EM * letters.em ? yMax - over : yMax;
    });
  const bottom = (chars: string) => medianEm(letters, chars, (l) => l.bounds.yMin);
  return {
    xHeightEm: torn("xzvwu") ?? level("xzou") ?? lowTop("vwn") ?? top("nea"),
    capHeightEm: torn("HIETZ") ?? level("HIETO") ?? top("ZBDN"),
    ascenderEm: top("bdhkl"),
    descenderEm: bottom("pqgy"),
  };
}

/** Mean advance of a–z in em; of A–Z where there is no lower case. */
export function measureWidthEm(letters: Letters): number | null {
  const lower = pick(letters, "abcdefghijklmnopqrstuvwxyz");
  const used = lower.length >= 13 ? lower : pick(letters, "ABCDEFGHIJKLMNOPQRSTUVWXYZ");
  const m = mean(used.map((l) => l.advanceFu));
  return m === null ? null : m / letters.em;
}

/**
 * Width of letters against their height, the thing usWidthClass speaks of.
 * @returns ink width of n, o, e, a, u, H, O … over their own height, middle value.
 */
export function measureProportion(letters: Letters): number | null {
  const ratio = (chars: string) =>
    median(pick(letters, chars).map((l) => (l.bounds.xMax - l.bounds.xMin) / (l.bounds.yMax - l.bounds.yMin)));
  const lower = ratio("noeaucs");
  const upper = ratio("HONEDRU");
  if (lower === null) return upper;
  return upper === null ? lower : (lower + upper * 1.05) / 2;
}

/** All of i, m, W, l and the full stop advance alike (to a thousandth em). */
export function isMonospaced(letters: Letters): boolean {
  const advances = pick(letters, "imWl.aMj").map((l) => l.advanceFu);
  return advances.length >= 4 && Math.max(...advances) - Math.min(...advances) <= letters.em / 1000 + 1;
}

/** Figure height: lining when all stand near one height, old-style when some sink or stay low. Spacing: equal advances. */
export function measureFigures(letters: Letters) {
  const figures = pick(letters, "0123456789");
  if (figures.length < 10) return { height: null, spacing: null };
  const advances = figures.map((l) => l.advanceFu);
  const spread = Math.max(...advances) - Math.min(...advances);
  const tops = figures.map((l) => l.bounds.yMax);
  const bottoms = figures.map((l) => l.bounds.yMin);
  const tall = Math.max(...tops);
  const reach = Math.max(...tops) - Math.min(...bottoms);
  const low = tops.filter((t) => t < tall - 0.18 * reach).length;
  const sunk = bottoms.filter((b) => b < Math.max(...bottoms) - 0.12 * reach).length;
  return {
    height: low >= 2 && sunk >= 2 ? ("old-style" as const) : ("lining" as const),
    spacing: spread <= letters.em / 500 + 1 ? ("tabular" as const) : ("proportional" as const),
  };
}
