// A lettering as PDF in true size: vectors with their curves, gradients and transparency as the format has them, one layer (optional
// content group) per block; bleed and cut marks where they are asked for. Only a blurred shadow is a picture.
import {
  appendBezierCurve,
  clip,
  closePath,
  concatTransformationMatrix,
  drawObject,
  endPath,
  fill,
  lineTo,
  moveTo,
  PDFArray,
  PDFDocument,
  PDFName,
  PDFOperator,
  PDFOperatorNames,
  PDFString,
  popGraphicsState,
  pushGraphicsState,
  rectangle,
  setFillingRgbColor,
  setGraphicsState,
  setLineWidth,
  stroke,
  type PDFPage,
  type PDFRef,
} from "pdf-lib";
import type { Outline } from "../../geometry/outline";
import type { PaintedBlock, PaintedLettering, PaintedPart, PlacedGradient } from "../../letter/paintLettering";
import { blurredInk } from "./blur";
import { alphaOf, deviationOf } from "./svg";

const PT_PER_MM = 72 / 25.4;
/** Cut marks stand clear of the trim by the bleed, or by so much, and are as long. */
const MARK_MM = 5;
const MARK_WIDTH_MM = 0.1;

type PdfOptions = { title: string; bleedMm: number; marks: boolean };

export async function writeLetteringPdf(
  { sheet, blocks }: PaintedLettering,
  { title, bleedMm, marks }: PdfOptions,
): Promise<Uint8Array> {
  // Nothing in the file says when it was written: the same lettering is the same bytes.
  const doc = await PDFDocument.create({ updateMetadata: false });
  doc.setTitle(title);
  const aroundMm = bleedMm + (marks ? MARK_MM + 1 : 0);
  const [width, height] = [sheet.widthMm + 2 * aroundMm, sheet.heightMm + 2 * aroundMm].map((v) => v * PT_PER_MM);
  const page = doc.addPage([width!, height!]);
  setBoxes(page, sheet, aroundMm, bleedMm);
  const canvas = new Canvas(doc, page);
  // From here on millimetres from the sheet's top left corner, y down.
  page.pushOperators(
    pushGraphicsState(),
    concatTransformationMatrix(PT_PER_MM, 0, 0, -PT_PER_MM, aroundMm * PT_PER_MM, height! - aroundMm * PT_PER_MM),
  );
  if (sheet.ground !== null) {
    const size = { widthMm: sheet.widthMm + 2 * bleedMm, heightMm: sheet.heightMm + 2 * bleedMm };
    canvas.fillRectangle(-bleedMm, -bleedMm, size.widthMm, size.heightMm, sheet.ground);
  }
  for (const block of blocks) canvas.drawBlock(block);
  if (marks) drawMarks(page, sheet, Math.max(bleedMm, 1));
  page.pushOperators(popGraphicsState());
  canvas.listLayers();
  return doc.save();
}

/** A page viewer shows all; a printer trims to the sheet. */
function setBoxes(page: PDFPage, sheet: PaintedLettering["sheet"], aroundMm: number, bleedMm: number) {
  const box = (outMm: number) =>
    [aroundMm - outMm, aroundMm - outMm, sheet.widthMm + 2 * outMm, sheet.heightMm + 2 * outMm].map(
      (v) => v * PT_PER_MM,
    ) as [number, number, number, number];
  page.setTrimBox(...box(0));
  page.setBleedBox(...box(bleedMm));
}

function drawMarks(page: PDFPage, { widthMm, heightMm }: PaintedLettering["sheet"], clearMm: number) {
  page.pushOperators(setLineWidth(MARK_WIDTH_MM));
  for (const x of [0, widthMm])
    for (const y of [0, heightMm]) {
      const [outX, outY] = [x ? 1 : -1, y ? 1 : -1];
      page.pushOperators(
        moveTo(x + outX * clearMm, y),
        lineTo(x + outX * (clearMm + MARK_MM), y),
        stroke(),
        moveTo(x, y + outY * clearMm),
        lineTo(x, y + outY * (clearMm + MARK_MM)),
        stroke(),
      );
    }
}

const rgbOf = (colour: string) =>
  [1, 3, 5].map((i) => parseInt(colour.slice(i, i + 2), 16) / 255) as [number, number, number];

/** What is drawn on a page, and the resources that it needs. */
class Canvas {
  private layers: { ref: PDFRef; id: string }[] = [];
  private alphas = new Map<number, PDFName>();
  constructor(
    private readonly doc: PDFDocument,
    private readonly page: PDFPage,
  ) {}

  fillRectangle(x: number, y: number, width: number, height: number, colour: string) {
    this.page.pushOperators(
      pushGraphicsState(),
      ...this.colourOf(colour),
      rectangle(x, y, width, height),
      fill(),
      popGraphicsState(),
    );
  }

  drawBlock(block: PaintedBlock) {
    const ref = this.doc.context.register(
      this.doc.context.obj({ Type: "OCG", Name: PDFString.of(block.group ? `${block.group}: ${block.id}` : block.id) }),
    );
    this.layers.push({ ref, id: block.id });
    const name = this.addResource("Properties", ref, "Layer");
    this.page.pushOperators(PDFOperator.of(PDFOperatorNames.BeginMarkedContentSequence, [PDFName.of("OC"), name]));
    for (const part of block.parts) this.drawPart(part);
    this.page.pushOperators(PDFOperator.of(PDFOperatorNames.EndMarkedContent));
  }

  private drawPart({ outline, paint, blurMm }: PaintedPart) {
    if (blurMm && typeof paint === "string") return this.drawBlurred(outline, paint, blurMm);
    const path = pathOperators(outline);
    if (typeof paint === "string")
      this.page.pushOperators(pushGraphicsState(), ...this.colourOf(paint), ...path, fill(), popGraphicsState());
    else {
      const shading = this.addResource(
        "Shading",
        this.shadingOf(paint, rgbOf(paint.from), rgbOf(paint.to), "DeviceRGB"),
        "Shade",
      );
      const fades = alphaOf(paint.from) < 1 || alphaOf(paint.to) < 1 ? [setGraphicsState(this.softMaskOf(paint))] : [];
      const shade = PDFOperator.of(PDFOperatorNames.ShadingFill, [shading]);
      this.page.pushOperators(pushGraphicsState(), ...fades, ...path, clip(), endPath(), shade, popGraphicsState());
    }
  }

  private colourOf(colour: string): PDFOperator[] {
    const alpha = alphaOf(colour);
    const set = setFillingRgbColor(...rgbOf(colour));
    if (alpha === 1) return [set];
    const known =
      this.alphas.get(alpha) ?? this.addResource("ExtGState", this.register({ Type: "ExtGState", ca: alpha }), "Alpha");
    this.alphas.set(alpha, known);
    return [setGraphicsState(known), set];
  }

  private shadingOf({ x1, y1, x2, y2 }: PlacedGradient, from: number[], to: number[], space: string): PDFRef {
    return this.register({
      ShadingType: 2,
      ColorSpace: space,
      Coords: [x1, y1, x2, y2],
      Extend: [true, true],
      Function: { FunctionType: 2, Domain: [0, 1], C0: from, C1: to, N: 1 },
    });
  }

  /** Alpha of a gradient: the same gradient in grey, as the luminosity of a mask. */
  private softMaskOf(gradient: PlacedGradient): PDFName {
    const shading = this.shadingOf(gradient, [alphaOf(gradient.from)], [alphaOf(gradient.to)], "DeviceGray");
    const reach = 1e5;
    const form = this.doc.context.register(
      this.doc.context.stream("/S sh", {
        Type: "XObject",
        Subtype: "Form",
        BBox: [-reach, -reach, reach, reach],
        Group: { S: "Transparency", CS: "DeviceGray" },
        Resources: { Shading: { S: shading } },
      }),
    );
    const state = this.register({ Type: "ExtGState", SMask: { Type: "Mask", S: "Luminosity", G: form } });
    return this.addResource("ExtGState", state, "Fade");
  }

  private drawBlurred(outline: Outline, colour: string, blurMm: number) {
    const ink = blurredInk(outline, deviationOf(blurMm));
    if (!ink) return;
    const { context } = this.doc;
    const grey = { Type: "XObject", Subtype: "Image", BitsPerComponent: 8, ColorSpace: "DeviceGray" };
    const mask = context.register(
      context.flateStream(ink.alpha, { ...grey, Width: ink.widthPx, Height: ink.heightPx }),
    );
    const pixel = Uint8Array.from(rgbOf(colour), (v) => Math.round(v * 255));
    const image = context.register(
      context.stream(pixel, { ...grey, ColorSpace: "DeviceRGB", Width: 1, Height: 1, SMask: mask }),
    );
    const name = this.addResource("XObject", image, "Shadow");
    const { xMin, yMin, xMax, yMax } = ink.box;
    // Pictures stand on their feet: y is turned back.
    const place = concatTransformationMatrix(xMax - xMin, 0, 0, yMin - yMax, xMin, yMax);
    this.page.pushOperators(pushGraphicsState(), ...this.colourOf(colour), place, drawObject(name), popGraphicsState());
  }

  private register(dictionary: Record<string, unknown>): PDFRef {
    return this.doc.context.register(this.doc.context.obj(dictionary as never));
  }

  private addResource(kind: "Properties" | "Shading" | "ExtGState" | "XObject", ref: PDFRef, prefix: string): PDFName {
    const resources = this.page.node.Resources()!;
    const key = PDFName.of(kind);
    if (!resources.has(key)) resources.set(key, this.doc.context.obj({}));
    const dictionary = resources.lookup(key) as unknown as { set(name: PDFName, ref: PDFRef): void; keys(): PDFName[] };
    const name = PDFName.of(`${prefix}${dictionary.keys().length}`);
    dictionary.set(name, ref);
    return name;
  }

  /** Says in the catalogue which layers there are. */
  listLayers() {
    const { context, catalog } = this.doc;
    const refs = PDFArray.withContext(context);
    for (const { ref } of this.layers) refs.push(ref);
    catalog.set(PDFName.of("OCProperties"), context.obj({ OCGs: refs, D: { Order: refs, ON: refs } }));
  }
}

/** Path construction of an outline; curves of one control point as curves of two. */
function pathOperators({ verbs, coords }: Outline): PDFOperator[] {
  const operators: PDFOperator[] = [];
  let [at, x, y] = [0, 0, 0];
  for (const verb of verbs) {
    const c = coords.subarray(at);
    if (verb === "M") operators.push(moveTo(c[0]!, c[1]!));
    else if (verb === "L") operators.push(lineTo(c[0]!, c[1]!));
    else if (verb === "Q") operators.push(quadratic(x, y, c));
    else if (verb === "C") operators.push(appendBezierCurve(c[0]!, c[1]!, c[2]!, c[3]!, c[4]!, c[5]!));
    else operators.push(closePath());
    const taken = { M: 2, L: 2, Q: 4, C: 6, Z: 0 }[verb]!;
    at += taken;
    if (taken) [x, y] = [coords[at - 2]!, coords[at - 1]!];
  }
  return operators;
}

const quadratic = (x: number, y: number, c: Float64Array) =>
  appendBezierCurve(
    x + (2 / 3) * (c[0]! - x),
    y + (2 / 3) * (c[1]! - y),
    c[2]! + (2 / 3) * (c[0]! - c[2]!),
    c[3]! + (2 / 3) * (c[1]! - c[3]!),
    c[2]!,
    c[3]!,
  );
