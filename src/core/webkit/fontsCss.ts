// The style sheet of a web kit, and a page that shows every face in the words of the brief. Names come from fonts: they are written as strings.
import { fallbackFor, genericOf, type FallbackSort, type FontMetrics } from "./fallbacks";
import type { WebFormat } from "./makeWebFont";

/** One face of the kit: a face that is cut by character has several files. */
export type WebFace = {
  family: string;
  style: string;
  weight: number | readonly [number, number];
  isItalic: boolean;
  /** Width in per cent of the normal one, of a font with that axis. */
  stretch: readonly [number, number] | null;
  fallback: FallbackSort;
  metrics: FontMetrics;
  files: { codePoints: readonly number[]; paths: Partial<Record<WebFormat, string>> }[];
  /** Values of its other axes where it was chosen at a place. */
  variation: Readonly<Record<string, number>>;
  features: Readonly<Record<string, number>>;
};

/** As CSS writes it: quotes and backslashes escaped, nothing that ends the string or the sheet. */
export const quoteCss = (text: string): string =>
  `"${text.replace(/["\\\n\r\f<>]/g, (c) => `\\${c.codePointAt(0)!.toString(16)} `)}"`;

/** `U+41-5A, U+61`: runs of neighbouring code points. */
function writeUnicodeRange(codePoints: readonly number[]): string {
  const runs: [number, number][] = [];
  for (const code of codePoints) {
    const last = runs[runs.length - 1];
    if (last && code === last[1] + 1) last[1] = code;
    else runs.push([code, code]);
  }
  const hex = (code: number) => code.toString(16).toUpperCase();
  return runs.map(([from, to]) => (from === to ? `U+${hex(from)}` : `U+${hex(from)}-${hex(to)}`)).join(", ");
}

const fallbackName = (family: string) => `${family} stand-in`;
const weightOf = (weight: WebFace["weight"]) => (typeof weight === "number" ? weight : weight[0]);

/** The value of `font-family`: the face, its stand-in of the same size, any of the kind. */
const familyStack = (face: Pick<WebFace, "family" | "fallback">): string =>
  `${quoteCss(face.family)}, ${quoteCss(fallbackName(face.family))}, ${genericOf(face.fallback)}`;

export function writeFontsCss(title: string, faces: readonly WebFace[]): string {
  const rules = faces.flatMap((face) => [
    ...face.files.map((file) => writeRule(face, file)),
    fallbackFor(quoteCss(fallbackName(face.family)), face.fallback, face.metrics, {
      weight: weightOf(face.weight),
      isItalic: face.isItalic,
    }),
  ]);
  const families = [...new Map(faces.map((f) => [f.family, f])).values()];
  const usage = families.map((f) => ` * font-family: ${familyStack(f)};`.replaceAll("*/", "* /"));
  return `/* Fonts of ${title.replaceAll("*/", "* /").replace(/[\r\n<>]/g, " ")}\n${usage.join("\n")}\n */\n\n${rules.join("\n\n")}\n`;
}

function writeRule(face: WebFace, { codePoints, paths }: WebFace["files"][number]): string {
  const sources = (["woff2", "woff"] as const).flatMap((format) =>
    paths[format] ? [`url(${quoteCss(paths[format])}) format("${format}")`] : [],
  );
  const lines = [
    `  font-family: ${quoteCss(face.family)};`,
    `  src: ${sources.join(",\n    ")};`,
    `  font-weight: ${typeof face.weight === "number" ? face.weight : face.weight.join(" ")};`,
    `  font-style: ${face.isItalic ? "italic" : "normal"};`,
    ...(face.stretch ? [`  font-stretch: ${face.stretch.map((s) => `${s}%`).join(" ")};`] : []),
    "  font-display: swap;",
    `  unicode-range: ${writeUnicodeRange(codePoints)};`,
  ];
  return `@font-face {\n${lines.join("\n")}\n}`;
}

const escapeHtml = (text: string) => text.replace(/[&<>"']/g, (c) => `&#${c.codePointAt(0)};`);

const settings = (property: string, values: Readonly<Record<string, number>>) => {
  const list = Object.entries(values).map(([tag, value]) => `${quoteCss(tag)} ${value}`);
  return list.length ? `${property}:${list.join(", ")};` : "";
};

/** @param lines - of the brief. */
export function writeSamplePage(title: string, lines: readonly string[], faces: readonly WebFace[]): string {
  const body = faces.map((face) => {
    const style =
      `font-family:${familyStack(face)};font-weight:${weightOf(face.weight)};font-style:${face.isItalic ? "italic" : "normal"};` +
      settings("font-variation-settings", face.variation) +
      settings("font-feature-settings", face.features);
    const words = lines
      .map((line) => `<p class="line" style="${escapeHtml(style)}">${escapeHtml(line)}</p>`)
      .join("\n");
    return `<section>\n<h2>${escapeHtml(`${face.family} ${face.style}`)}</h2>\n${words}\n</section>`;
  });
  return `<!doctype html>
<html lang="en">
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escapeHtml(title)}</title>
<link rel="stylesheet" href="fonts.css">
<style>
body { margin: 6vmin; color: #20262b; background: #fff; font: 14px/1.4 sans-serif }
h2 { font-size: 13px; font-weight: 400; color: #5a646b; border-top: 1px solid #d5d9d6; padding-top: 10px }
.line { margin: 0; font-size: clamp(20px, 6vw, 64px); line-height: 1.25; overflow-wrap: anywhere }
</style>
<h1>${escapeHtml(title)}</h1>
${body.join("\n")}
</html>
`;
}
