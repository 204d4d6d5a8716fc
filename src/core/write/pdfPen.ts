// The PDF pen: a set line as text of an embedded subset where every reader draws that rightly, else as outlines. Glyphs and places are
// those of `typeset` in both. What is embedded is tried in a document of its own first, so that one face never breaks a whole sheet.
import fontkit from "@pdf-lib/fontkit";
import {
  beginText,
  endText,
  PDFDocument,
  PDFHexString,
  PDFName,
  PDFOperator,
  PDFOperatorNames,
  popGraphicsState,
  pushGraphicsState,
  setFillingColor,
  setFontAndSize,
  setTextMatrix,
  showText,
  type PDFFont,
  type PDFPage,
  type RGB,
} from "pdf-lib";
import { writePath } from "../geometry/outline";
import { glyphInPart } from "../outlines/joinParts";
import type { OpenFace } from "../outlines/openFace";
import type { PlacedGlyph } from "../typeset/shapeRun";
import type { TypesetRun } from "../typeset/typesetText";
import { characterAt, openSetFace, type FaceToSet, type SetFace, type SetLine } from "./setFace";

type Place = { xPt: number; yPt: number; sizePt: number; ink: RGB };
export type PdfPen = SetFace & {
  /** Draws from the left end of the baseline; y upwards. Boxes for missing characters are left to the caller. */
  draw(page: PDFPage, line: SetLine, at: Place): void;
};

/** Tables with which the subset is drawn by a fallback in some readers, or cannot be made. */
const NOT_EMBEDDED = ["CFF ", "CFF2", "COLR", "SVG ", "CBDT", "sbix", "fvar"];
/**
 * @param lines - what will be set: the subset is tried with it.
 * @throws when the face has none of the characters: it is no font, or not this one.
 */
export async function openPdfPen(doc: PDFDocument, face: FaceToSet, lines: readonly string[]): Promise<PdfPen> {
  const setFace = openSetFace(face, lines);
  const tried = lines.map(setFace.set);
  const isAtDefault = !Object.keys(face.location ?? {}).length;
  const fonts: (PDFFont | null)[] = [];
  for (const [part, sfnt] of [face.sfnt, ...(face.parts ?? [])].entries())
    fonts.push(isAtDefault && canEmbed(sfnt) ? await embed(doc, sfnt, tried, part) : null);
  const { open } = setFace;
  return {
    ...setFace,
    draw(page, { text, line }, at) {
      for (const run of line.runs) {
        const font = fonts[run.part];
        if (font) showRun(page, font, open.unitsPerEm, { text, run }, at);
        else drawOutlines(page, open, run, at);
      }
    },
  };
}

function canEmbed(sfnt: Uint8Array): boolean {
  const view = new DataView(sfnt.buffer, sfnt.byteOffset, sfnt.byteLength);
  const tags = Array.from({ length: view.getUint16(4) }, (_, i) =>
    String.fromCharCode(...sfnt.subarray(12 + 16 * i, 16 + 16 * i)),
  );
  return tags.includes("glyf") && !tags.some((tag) => NOT_EMBEDDED.includes(tag));
}

/** Null where nothing is set in the part, or where the package cannot read it: that is set as outlines. */
async function embed(doc: PDFDocument, sfnt: Uint8Array, lines: SetLine[], part: number): Promise<PDFFont | null> {
  const runs = lines.flatMap(({ text, line }) =>
    line.runs.filter((run) => run.part === part).map((run) => ({ text, glyphs: drawnOf(run.glyphs) })),
  );
  if (part > 0 && !runs.length) return null;
  try {
    const trial = await PDFDocument.create();
    trial.registerFontkit(fontkit);
    const tried = await trial.embedFont(sfnt, { subset: true });
    for (const { text, glyphs } of runs) encodeGlyphs(tried, glyphs, text);
    await trial.save();
    return await doc.embedFont(sfnt, { subset: true });
  } catch {
    return null;
  }
}

/** Glyph 0 stands for what the face lacks, and is not drawn. */
const drawnOf = (glyphs: PlacedGlyph[]) => glyphs.filter((g) => g.glyphId);

type FontkitGlyph = { id: number; advanceWidth: number };
/** What the package's subset keeps of the glyphs in use; it offers them by text alone, and shapes that by its own rules. */
type SubsetEmbedder = {
  font: { getGlyph(id: number, codePoints: number[]): FontkitGlyph };
  subset: { includeGlyph(glyph: FontkitGlyph): number };
  glyphs: FontkitGlyph[];
  glyphIdMap: Map<number, number>;
  glyphCache: { invalidate(): void };
};
/** A glyph as the subset numbers it, and the advance that the document states for it, in font units. */
type EncodedGlyph = { hex: string; advanceFu: number };

/** Takes the glyphs of a run into the subset. The first glyph of a cluster stands for its characters when text is copied. */
function encodeGlyphs(font: PDFFont, glyphs: PlacedGlyph[], text: string): EncodedGlyph[] {
  // Marks the font as used, so that it is written.
  font.encodeText("");
  const { embedder } = font as unknown as { embedder: SubsetEmbedder };
  let told = -1;
  const encoded = glyphs.map((g) => {
    const isFirst = g.cluster !== told;
    told = g.cluster;
    const glyph = embedder.font.getGlyph(glyphInPart(g.glyphId).glyphId, isFirst ? codePointsOf(g, glyphs, text) : []);
    const id = embedder.subset.includeGlyph(glyph);
    embedder.glyphs[id - 1] = glyph;
    embedder.glyphIdMap.set(glyph.id, id);
    return { hex: id.toString(16).toUpperCase().padStart(4, "0"), advanceFu: glyph.advanceWidth };
  });
  embedder.glyphCache.invalidate();
  return encoded;
}

function codePointsOf({ cluster }: PlacedGlyph, glyphs: PlacedGlyph[], text: string): number[] {
  const later = glyphs.reduce((end, g) => (g.cluster > cluster && g.cluster < end ? g.cluster : end), Infinity);
  const own = later === Infinity ? characterAt(text, { cluster }) : text.slice(cluster, later);
  return [...own].map((c) => c.codePointAt(0)!);
}

function showRun(
  page: PDFPage,
  font: PDFFont,
  unitsPerEm: number,
  { text, run }: { text: string; run: TypesetRun },
  at: Place,
) {
  const key = page.node.newFontDictionary(font.name, font.ref);
  const scale = at.sizePt / unitsPerEm;
  page.pushOperators(pushGraphicsState(), beginText(), setFillingColor(at.ink), setFontAndSize(key, at.sizePt));
  // What stands in another order than it is read, or is drawn by other glyphs, says what it was.
  page.pushOperators(beginActualText(text.slice(run.from, run.to)));
  const glyphs = drawnOf(run.glyphs);
  for (const shown of joinGlyphs(glyphs, encodeGlyphs(font, glyphs, text)))
    page.pushOperators(
      setTextMatrix(1, 0, 0, 1, at.xPt + shown.xFu * scale, at.yPt + shown.yFu * scale),
      showText(PDFHexString.of(shown.hex)),
    );
  page.pushOperators(PDFOperator.of(PDFOperatorNames.EndMarkedContent), endText(), popGraphicsState());
}

function beginActualText(text: string): PDFOperator {
  const hex = PDFHexString.fromText(text);
  return PDFOperator.of(PDFOperatorNames.BeginMarkedContentSequence, [PDFName.of("Span"), `<</ActualText ${hex}>>`]);
}

/** Glyphs that stand where the one before ends are shown in one go. */
function joinGlyphs(glyphs: PlacedGlyph[], encoded: EncodedGlyph[]) {
  const parts: { xFu: number; yFu: number; hex: string; endFu: number }[] = [];
  glyphs.forEach((g, i) => {
    const { hex, advanceFu } = encoded[i]!;
    const last = parts[parts.length - 1];
    if (last && Math.abs(last.endFu - g.xFu) < 0.5 && last.yFu === g.yFu) {
      last.hex += hex;
      last.endFu += advanceFu;
    } else parts.push({ xFu: g.xFu, yFu: g.yFu, hex, endFu: g.xFu + advanceFu });
  });
  return parts;
}

function drawOutlines(page: PDFPage, face: OpenFace, run: TypesetRun, { xPt, yPt, sizePt, ink }: Place) {
  const scale = sizePt / face.unitsPerEm;
  for (const g of run.glyphs) {
    const path = g.glyphId ? writePath(face.outline(g.glyphId), { a: 1, b: 0, c: 0, d: -1, e: 0, f: 0 }) : "";
    if (path)
      page.drawSvgPath(path, {
        x: xPt + g.xFu * scale,
        y: yPt + g.yFu * scale,
        scale,
        color: ink,
        borderWidth: 0,
      });
  }
}
