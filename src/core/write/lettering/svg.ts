// A lettering as SVG in true millimetres: outlines, one group per block, blocks that are kept together in one group; or as live text in
// its own faces, where letters that no character reaches stay outlines.
import type { Block } from "@/contracts/lettering";
import { IN_PLACE, joinOutlines, writePath, type Outline } from "../../geometry/outline";
import type { Paint, PaintedBlock, PaintedLettering, PaintedPart } from "../../letter/paintLettering";
import { glyphInPart } from "../../outlines/joinParts";
import { escapeXml } from "../../typeset/pens";

const DIGITS = 4;
export const pathOf = (outline: Outline) => writePath(outline, IN_PLACE, DIGITS);
const n = (v: number) => String(Number(v.toFixed(DIGITS)));

/** A font that live text is set in: the bytes of its bare tables, as base64. */
export type LiveFont = { family: string; base64: string };
type SvgOptions = {
  title: string;
  /** Absent: outlines. A face that came in several files is embedded file by file, those that the text needs. */
  fontOf?: (block: Block, part: number) => LiveFont;
  /** Only this block, for layers. */
  only?: string;
  ground?: boolean;
};

export function writeLetteringSvg({ sheet, blocks }: PaintedLettering, options: SvgOptions): string {
  const { widthMm, heightMm, ground } = sheet;
  const defs = new Definitions();
  const drawn = blocks.filter((b) => options.only === undefined || b.id === options.only);
  const body = groupsOf(drawn)
    .map(({ group, members }) => {
      const inner = members.map((b) => writeBlock(b, defs, options)).join("\n");
      return group === null ? inner : `<g id="${escapeXml(idOf(group))}" data-keep-together="">\n${inner}\n</g>`;
    })
    .join("\n");
  const paper =
    ground !== null && options.ground !== false
      ? `<rect id="ground" width="${n(widthMm)}" height="${n(heightMm)}" ${paintOf("fill", ground)}/>\n`
      : "";
  return `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" width="${n(widthMm)}mm" height="${n(heightMm)}mm" viewBox="0 0 ${n(widthMm)} ${n(heightMm)}">
<title>${escapeXml(options.title)}</title>
${defs.write()}${paper}${body}
</svg>
`;
}

/** Blocks of one group stand where its first one stands. */
export function groupsOf(blocks: readonly PaintedBlock[]): { group: string | null; members: PaintedBlock[] }[] {
  const groups: { group: string | null; members: PaintedBlock[] }[] = [];
  for (const block of blocks) {
    const known = block.group === null ? undefined : groups.find((g) => g.group === block.group);
    if (known) known.members.push(block);
    else groups.push({ group: block.group, members: [block] });
  }
  return groups;
}

/** A name as an id that XML and CSS take. */
const idOf = (name: string) => `g-${name.replace(/[^A-Za-z0-9_-]+/g, "-")}`;

/** Gradients, blurs and fonts, said once and referred to. */
export class Definitions {
  private parts: string[] = [];
  private fonts = new Map<string, string>();
  private count = 0;

  add(make: (id: string) => string): string {
    const id = `d${++this.count}`;
    this.parts.push(make(id));
    return id;
  }
  font({ family, base64 }: LiveFont) {
    this.fonts.set(family, `@font-face{font-family:"${family}";src:url(data:font/ttf;base64,${base64})}`);
  }
  write(): string {
    const style = this.fonts.size ? `<style>${[...this.fonts.values()].join("")}</style>` : "";
    const all = [style, ...this.parts].filter(Boolean);
    return all.length ? `<defs>${all.join("")}</defs>\n` : "";
  }
}

/** Colour and alpha as two attributes: many programs do not read eight digits. */
export function paintOf(attribute: "fill" | "stop-color", colour: string): string {
  const alpha = alphaOf(colour);
  const opacity = attribute === "fill" ? "fill-opacity" : "stop-opacity";
  return `${attribute}="${colour.slice(0, 7).toLowerCase()}"${alpha < 1 ? ` ${opacity}="${n(alpha)}"` : ""}`;
}
export const alphaOf = (colour: string) => (colour.length === 9 ? parseInt(colour.slice(7), 16) / 255 : 1);

export function fillOf(paint: Paint, defs: Definitions): string {
  if (typeof paint === "string") return paintOf("fill", paint);
  const { x1, y1, x2, y2, from, to } = paint;
  const id = defs.add(
    (name) =>
      `<linearGradient id="${name}" gradientUnits="userSpaceOnUse" x1="${n(x1)}" y1="${n(y1)}" x2="${n(x2)}" y2="${n(y2)}">` +
      `<stop offset="0" ${paintOf("stop-color", from)}/><stop offset="1" ${paintOf("stop-color", to)}/></linearGradient>`,
  );
  return `fill="url(#${id})"`;
}

function writeBlock(block: PaintedBlock, defs: Definitions, { fontOf }: SvgOptions): string {
  const isLive = fontOf !== undefined && block.shape.whole === null;
  const parts = block.parts.map((part) =>
    isLive && part.role === "fill"
      ? ""
      : `<path ${fillOf(part.paint, defs)}${blurOf(part, defs)} d="${pathOf(part.outline)}"/>`,
  );
  if (isLive) parts.push(writeLiveText(block, fontOf, defs));
  return `<g id="${escapeXml(block.id)}">\n${parts.filter(Boolean).join("\n")}\n</g>`;
}

/** A blur fades over twice its standard deviation to either side. */
export const deviationOf = (blurMm: number) => blurMm / 2;

export function blurOf({ blurMm }: PaintedPart, defs: Definitions): string {
  if (!blurMm) return "";
  const id = defs.add(
    (name) =>
      `<filter id="${name}" x="-50%" y="-50%" width="200%" height="200%"><feGaussianBlur stdDeviation="${n(deviationOf(blurMm))}"/></filter>`,
  );
  return ` filter="url(#${id})"`;
}

/** Text that stays text, each letter at its place; letters that were changed by hand, or that no character reaches, as outlines. */
function writeLiveText({ shape, parts }: PaintedBlock, fontOf: NonNullable<SvgOptions["fontOf"]>, defs: Definitions) {
  const { block, emMm } = shape.placed;
  const familyOf = (glyphId: number) => {
    const font = fontOf(block, glyphInPart(glyphId).part);
    defs.font(font);
    return font.family;
  };
  const fill = fillOf(parts.find((p) => p.role === "fill")?.paint ?? "#000000", defs);
  const edits = new Map((block.letters ?? []).map((l) => [l.at, l]));
  const isPlain = (at: number) => {
    const edit = edits.get(at);
    return !edit || (edit.glyphId === undefined && !edit.fills && !edit.points && (edit.scale ?? 1) === 1);
  };
  const spans = shape.letters
    .filter((l) => isPlain(l.letter.at))
    .map(({ letter }) => {
      const { glyphId, origin } = letter.glyphs[0]!;
      const { xMm, yMm, turnDeg } = origin;
      const turn = Math.abs(turnDeg) > 1e-6 ? ` rotate="${n(turnDeg)}"` : "";
      return `<tspan font-family="${familyOf(glyphId)}" x="${n(xMm)}" y="${n(yMm)}"${turn}>${escapeXml(letter.text)}</tspan>`;
    });
  const shaped = shape.letters.filter((l) => !isPlain(l.letter.at));
  const features = Object.entries(block.features ?? {}).map(([tag, value]) => `&quot;${escapeXml(tag)}&quot; ${value}`);
  const axes = Object.entries(block.coordinates ?? {}).map(([tag, value]) => `&quot;${escapeXml(tag)}&quot; ${value}`);
  const style = [
    features.length ? `font-feature-settings:${features.join(",")}` : "",
    axes.length ? `font-variation-settings:${axes.join(",")}` : "",
  ].filter(Boolean);
  const text = spans.length
    ? `<text font-size="${n(emMm)}" ${fill}${style.length ? ` style="${style.join(";")}"` : ""}>${spans.join("")}</text>`
    : "";
  const outlines = shaped.length ? `<path ${fill} d="${pathOf(joinOutlines(shaped.map((l) => l.outline)))}"/>` : "";
  return [text, outlines].filter(Boolean).join("\n");
}
