// What stands in while a web font loads: a face of the system, scaled so that lines break where they will. CSS Fonts 5, "size-adjust",
// "ascent-override".
import type { OpenFace } from "../outlines/openFace";

/** In em: of the line, as browsers take it, and of a usual letter. */
export type FontMetrics = { ascentEm: number; descentEm: number; lineGapEm: number; meanAdvanceEm: number };

/** How often letters come in English text, in per cent, and the space between words. */
// oxfmt-ignore
const FREQUENCIES: readonly [string, number][] = [
  [" ", 18], ["e", 12.7], ["t", 9.1], ["a", 8.2], ["o", 7.5], ["i", 7], ["n", 6.7], ["s", 6.3], ["h", 6.1], ["r", 6], ["d", 4.3], ["l", 4], ["c", 2.8],
  ["u", 2.8], ["m", 2.4], ["w", 2.4], ["f", 2.2], ["g", 2], ["y", 2], ["p", 1.9], ["b", 1.5], ["v", 1], ["k", 0.8],
];

/** Mean advance of running text, over the letters that the face has; capitals and others where it has none of them. */
export function meanAdvanceEm(face: OpenFace): number {
  let [sum, weight] = [0, 0];
  for (const [char, often] of FREQUENCIES) {
    const code = char.codePointAt(0)!;
    const glyph = face.glyphOf(code) ?? face.glyphOf(char.toUpperCase().codePointAt(0)!);
    if (glyph === null) continue;
    sum += often * face.advanceFu(glyph);
    weight += often;
  }
  return weight ? sum / weight / face.unitsPerEm : 0.5;
}

type Fallback = { locals: readonly ((cut: string) => string)[]; generic: string; regularEm: number; boldEm: number };
const liberation = (name: string) => (cut: string) => `Liberation${name}${cut ? `-${cut}` : ""}`;
/** PostScript names of the faces that systems have. The same mean is of the Liberation fonts, which have the widths of those named first. */
const FALLBACKS: Record<"sans" | "serif" | "mono", Fallback> = {
  sans: {
    locals: [(cut) => `Arial${cut ? `-${cut}` : ""}MT`, liberation("Sans")],
    generic: "sans-serif",
    regularEm: 0.4472,
    boldEm: 0.4842,
  },
  serif: {
    locals: [(cut) => `Times-${cut || "Roman"}`, liberation("Serif"), (cut) => `Tinos${cut ? `-${cut}` : ""}`],
    generic: "serif",
    regularEm: 0.4051,
    boldEm: 0.4316,
  },
  mono: {
    locals: [(cut) => `CourierNewPS${cut ? `-${cut}` : ""}MT`, liberation("Mono")],
    generic: "monospace",
    regularEm: 0.6001,
    boldEm: 0.6001,
  },
};
export type FallbackSort = keyof typeof FALLBACKS;

const percent = (share: number) => `${(100 * share).toFixed(2)}%`;
const BOLD_FROM = 600;

/** The generic family of CSS behind a stand-in. */
export const genericOf = (sort: FallbackSort): string => FALLBACKS[sort].generic;

/** The rule of a face's stand-in. */
export function fallbackFor(
  name: string,
  sort: FallbackSort,
  metrics: FontMetrics,
  look: { weight: number; isItalic: boolean },
) {
  const { locals, regularEm, boldEm } = FALLBACKS[sort];
  const isBold = look.weight >= BOLD_FROM;
  const adjust = metrics.meanAdvanceEm / (isBold ? boldEm : regularEm);
  const cut = `${isBold ? "Bold" : ""}${look.isItalic ? "Italic" : ""}`;
  // What is overridden is scaled with the face: it is given in its own measure.
  const lines = [
    `  font-family: ${name};`,
    `  src: ${locals.map((nameOf) => `local("${nameOf(cut)}")`).join(", ")};`,
    `  font-weight: ${look.weight};`,
    `  font-style: ${look.isItalic ? "italic" : "normal"};`,
    `  size-adjust: ${percent(adjust)};`,
    `  ascent-override: ${percent(metrics.ascentEm / adjust)};`,
    `  descent-override: ${percent(metrics.descentEm / adjust)};`,
    `  line-gap-override: ${percent(metrics.lineGapEm / adjust)};`,
  ];
  return `@font-face {\n${lines.join("\n")}\n}`;
}
