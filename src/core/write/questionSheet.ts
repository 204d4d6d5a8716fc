// The question sheet: what other designers need in order to name a face from a picture. One page laid out once, written as PDF and as
// SVG (for a picture of it), and the same facts as a page of HTML.
import { rgb } from "pdf-lib";
import { openFace, type OpenFace } from "../outlines/openFace";
import { escapeXml, writeTypesetPath } from "../typeset/pens";
import { typesetLine, typesetText } from "../typeset/typesetText";
import { beginSheet, drawText, type LabelFonts } from "./sheet";

type Box = { x: number; y: number; width: number; height: number };
/** PNG bytes and their size in pixels. */
export type SheetPicture = { png: Uint8Array; widthPx: number; heightPx: number };

export type QuestionInput = LabelFonts & {
  title: string;
  /** Who asks for what, and when. */
  subtitle: string;
  picture: SheetPicture;
  /** The part that is asked about, as corners in the picture's pixels; null: all of it. */
  framed: { x: number; y: number }[] | null;
  strip: SheetPicture;
  /** Letters as they were cut, in the strip's pixels; none where they could not be. */
  letters: { char: string; box: Box }[];
  readAs: string;
  /** Sentences on what was tried already. */
  tried: string[];
  nearest: {
    name: string;
    /** 0–1 */
    agreement: number;
    /** Why it is thought to be another one, or what could not be told. */
    why: string;
    /** The face laid over the strip, SVG path in its pixels. */
    overlayPath: string;
  }[];
};

/** Points from the top left of an A4 page. Text stands on y. Paths are scaled about their own origin. */
type Mark =
  | { kind: "text"; x: number; y: number; sizePt: number; bold: boolean; text: string }
  | { kind: "image"; of: "picture" | "strip"; box: Box }
  | { kind: "fill"; path: string; x: number; y: number; scale: number }
  | { kind: "stroke"; path: string; x: number; y: number; scale: number; widthPt: number };

const PAGE = { width: 595.28, height: 841.89, margin: 48 };
const WIDTH = PAGE.width - 2 * PAGE.margin;
const PICTURE_MOST_PT = 200;
const STRIP_MOST_PT = 56;
const NEAREST_STRIP_PT = 44;
const NEAREST_SHOWN = 5;
/** An agreement under which nothing more is said of a face. */
const HARDLY = 0.2;
const INK = { r: 0.114, g: 0.161, b: 0.184 };
const TIDE = { r: 0.109, g: 0.42, b: 0.455 };
const hex = ({ r, g, b }: typeof INK) =>
  `#${[r, g, b]
    .map((v) =>
      Math.round(v * 255)
        .toString(16)
        .padStart(2, "0"),
    )
    .join("")}`;

type Labels = { label: OpenFace; bold: OpenFace };
const openLabels = (input: QuestionInput): Labels => ({
  label: openFace(input.labelSfnt),
  bold: openFace(input.labelBoldSfnt),
});
const widthOf = (face: OpenFace, text: string, sizePt: number) =>
  (typesetLine(face, text).widthFu / face.unitsPerEm) * sizePt;

/** As large as it may be within a width and a height, never larger than a point a pixel. */
function fitIn({ widthPx, heightPx }: SheetPicture, width: number, height: number) {
  const scale = Math.min(1, width / widthPx, height / heightPx);
  return { scale, width: widthPx * scale, height: heightPx * scale };
}

/** Lays the page out: picture, line, what was tried, nearest faces, from top to bottom. */
function layOut(input: QuestionInput, faces: Labels): Mark[] {
  const marks: Mark[] = [];
  let y = PAGE.margin;
  const say = (text: string, sizePt: number, bold = false, x: number = PAGE.margin) =>
    marks.push({ kind: "text", x, y, sizePt, bold, text });
  const saySentences = (text: string) => {
    for (const line of wrap(text, 9, faces.label)) {
      y += 12;
      say(line, 9);
    }
  };
  const head = (text: string) => {
    y += 24;
    say(text, 10.5, true);
  };
  y += 14;
  say(input.title, 17, true);
  y += 14;
  say(input.subtitle, 9);
  y += 14;
  const picture = fitIn(input.picture, WIDTH, PICTURE_MOST_PT);
  marks.push({ kind: "image", of: "picture", box: { x: PAGE.margin, y, ...picture } });
  if (input.framed)
    marks.push({
      kind: "stroke",
      path: `M${input.framed.map((p) => `${p.x},${p.y}`).join("L")}Z`,
      x: PAGE.margin,
      y,
      scale: picture.scale,
      widthPt: 1.2,
    });
  y += picture.height;
  head(input.letters.length ? `Its letters, read as “${input.readAs}”` : `Its line, read as “${input.readAs}”`);
  y += 8;
  const strip = fitIn(input.strip, WIDTH, STRIP_MOST_PT);
  marks.push({ kind: "image", of: "strip", box: { x: PAGE.margin, y, ...strip } });
  y += strip.height + 9;
  for (const { char, box } of input.letters) {
    const [left, right] = [box.x, box.x + box.width];
    marks.push({
      kind: "stroke",
      path: `M${left},${box.y}L${right},${box.y}L${right},${box.y + box.height}L${left},${box.y + box.height}Z`,
      x: PAGE.margin,
      y: y - 9 - strip.height,
      scale: strip.scale,
      widthPt: 0.4,
    });
    const at = PAGE.margin + ((left + right) / 2) * strip.scale - widthOf(faces.label, char, 8) / 2;
    say(char, 8, false, at);
  }
  head("What was tried");
  for (const sentence of input.tried) saySentences(sentence);
  head("Nearest, and what speaks against each");
  y += 6;
  for (const { name, agreement, why, overlayPath } of input.nearest.slice(0, NEAREST_SHOWN)) {
    const over = fitIn(input.strip, WIDTH * 0.42, NEAREST_STRIP_PT);
    marks.push({ kind: "image", of: "strip", box: { x: PAGE.margin, y, ...over } });
    marks.push({ kind: "fill", path: overlayPath, x: PAGE.margin, y, scale: over.scale });
    const x = PAGE.margin + WIDTH * 0.45;
    marks.push({ kind: "text", x, y: y + 10, sizePt: 9.5, bold: true, text: name });
    const lines = wrap(writeAgreement(agreement, why), 8.5, faces.label, WIDTH * 0.55).slice(0, 2);
    lines.forEach((text, i) => marks.push({ kind: "text", x, y: y + 21 + 10.5 * i, sizePt: 8.5, bold: false, text }));
    y += Math.max(over.height, 12 + 10.5 * lines.length) + 10;
  }
  return marks;
}

const writeAgreement = (agreement: number, why: string) =>
  agreement < HARDLY ? "hardly alike." : `agrees by ${Math.round(agreement * 100)} %. ${why}`;

function wrap(text: string, sizePt: number, face: OpenFace, width = WIDTH): string[] {
  return typesetText(face, text, { widthEm: width / sizePt }).lines.map((l) => text.slice(l.from, l.to));
}

/** @returns the bytes of a PDF of one page, its type embedded. */
export async function writeQuestionPdf(input: QuestionInput): Promise<Uint8Array> {
  const { doc, label, bold } = await beginSheet(input.title, input);
  const images = { picture: await doc.embedPng(input.picture.png), strip: await doc.embedPng(input.strip.png) };
  const page = doc.addPage([PAGE.width, PAGE.height]);
  const up = (y: number) => PAGE.height - y;
  const [ink, tide] = [INK, TIDE].map(({ r, g, b }) => rgb(r, g, b));
  for (const m of layOut(input, openLabels(input)))
    if (m.kind === "text") drawText(page, m.text, m.x, up(m.y), m.sizePt, m.bold ? bold : label, ink!);
    else if (m.kind === "image") {
      const { x, y, width, height } = m.box;
      page.drawImage(images[m.of], { x, y: up(y + height), width, height });
    } else {
      const at = { x: m.x, y: up(m.y), scale: m.scale };
      if (m.kind === "fill") page.drawSvgPath(m.path, { ...at, color: tide!, opacity: 0.55 });
      else page.drawSvgPath(m.path, { ...at, borderColor: tide!, borderWidth: m.widthPt / m.scale });
    }
  return doc.save();
}

/** @returns the same page as SVG whose letters are outlines, so that whoever draws it needs no fonts. */
export function writeQuestionSvg(input: QuestionInput): string {
  const faces = openLabels(input);
  const images = { picture: input.picture.png, strip: input.strip.png };
  const body = layOut(input, faces).map((m) => {
    if (m.kind === "text")
      return `<path fill="${hex(INK)}" d="${textPath(m.bold ? faces.bold : faces.label, m.text, m.x, m.y, m.sizePt)}"/>`;
    if (m.kind === "image") {
      const { x, y, width, height } = m.box;
      return `<image x="${x}" y="${y}" width="${width}" height="${height}" href="${dataUrl(images[m.of])}"/>`;
    }
    const at = `transform="translate(${m.x} ${m.y}) scale(${m.scale})" d="${m.path}"`;
    return m.kind === "fill"
      ? `<path fill="${hex(TIDE)}" fill-opacity="0.55" ${at}/>`
      : `<path fill="none" stroke="${hex(TIDE)}" stroke-width="${m.widthPt / m.scale}" ${at}/>`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${PAGE.width} ${PAGE.height}"><rect width="100%" height="100%" fill="#fff"/>${body.join("")}</svg>`;
}

function textPath(face: OpenFace, text: string, x: number, y: number, sizePt: number): string {
  const s = sizePt / face.unitsPerEm;
  return writeTypesetPath(face, typesetText(face, text, { widthEm: null }), { a: s, b: 0, c: 0, d: -s, e: x, f: y }, 2);
}

const dataUrl = (png: Uint8Array) => `data:image/png;base64,${Buffer.from(png).toString("base64")}`;

/** @returns a page that needs nothing else: pictures and outlines are in it. Names are escaped. */
export function writeQuestionHtml(input: QuestionInput): string {
  const { picture, strip, letters } = input;
  const frame = input.framed
    ? `<polygon points="${input.framed.map((p) => `${p.x},${p.y}`).join(" ")}" fill="none" stroke="${hex(TIDE)}" stroke-width="${Math.max(2, picture.widthPx / 300)}"/>`
    : "";
  const size = (p: SheetPicture) => `viewBox="0 0 ${p.widthPx} ${p.heightPx}"`;
  const image = (p: SheetPicture) => `<image width="${p.widthPx}" height="${p.heightPx}" href="${dataUrl(p.png)}"/>`;
  const cut = letters
    .map(
      ({ box }) =>
        `<rect x="${box.x}" y="${box.y}" width="${box.width}" height="${box.height}" fill="none" stroke="${hex(TIDE)}" stroke-width="0.6"/>`,
    )
    .join("");
  const near = input.nearest
    .map(
      (
        n,
      ) => `<li><svg ${size(strip)} role="img" aria-label="${escapeXml(n.name)} laid over the line">${image(strip)}<path d="${escapeXml(n.overlayPath)}" fill="${hex(TIDE)}" fill-opacity="0.55"/></svg>
<p><b>${escapeXml(n.name)}</b> ${escapeXml(writeAgreement(n.agreement, n.why))}</p></li>`,
    )
    .join("\n");
  return `<!doctype html>
<html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<title>${escapeXml(input.title)}</title>
<style>body{font:15px/1.45 system-ui,sans-serif;max-width:760px;margin:32px auto;padding:0 16px;color:${hex(INK)}}h1{font-size:24px;margin:0}h2{font-size:16px;margin:28px 0 8px}svg{display:block;max-width:100%}.picture{max-height:420px}.line{max-height:90px}ol{padding:0;list-style:none}li{margin:14px 0}li svg{max-height:48px}li p{margin:4px 0}</style>
<h1>${escapeXml(input.title)}</h1>
<p>${escapeXml(input.subtitle)}</p>
<svg class="picture" ${size(picture)} role="img" aria-label="The picture">${image(picture)}${frame}</svg>
<h2>${letters.length ? "Its letters" : "Its line"}, read as “${escapeXml(input.readAs)}”</h2>
<svg class="line" ${size(strip)} role="img" aria-label="The line as it was read">${image(strip)}${cut}</svg>
<h2>What was tried</h2>
<ul>${input.tried.map((t) => `<li>${escapeXml(t)}</li>`).join("")}</ul>
<h2>Nearest, and what speaks against each</h2>
<ol>
${near}
</ol>
</html>
`;
}
