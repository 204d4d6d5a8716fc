// Pictures in a document: a page that was scanned, a drawing that was placed. Their lettering is identified like any other picture's.
import {
  PDFDict,
  PDFName,
  PDFNumber,
  PDFRawStream,
  PDFRef,
  PDFStream,
  type PDFDocument,
  type PDFObject,
} from "pdf-lib";
import { OPS } from "pdfjs-dist/legacy/build/pdf.mjs";
import type { Parts } from "./found";
import { entries, look, openObjects, openPages } from "./pdfObjects";

/** @property page - of a PDF, from 1; null in other documents. @property part - of an archive: its path. */
export type FoundPicture = {
  page: number | null;
  part: string | null;
  widthPx: number | null;
  heightPx: number | null;
};
/** Pixels of a picture, 1, 3 or 4 bytes each, or a whole file of a picture. */
export type PictureBytes =
  | { file: Uint8Array }
  | { widthPx: number; heightPx: number; channels: 1 | 3 | 4; pixels: Uint8Array };

/** Smaller ones hold no lettering that could be told. */
const LEAST_PX = [60, 16] as const;
const MOST_PICTURES = 60;
const MOST_PAGES = 400;
/** Pixels of the largest picture that is taken out. */
const MOST_PX = 60e6;

type Placed = FoundPicture & { ref: PDFRef; dict: PDFDict };

/** @param objects - the file's, as `openObjects` gives them. */
export const listPdfPictures = (objects: PDFDocument | null): FoundPicture[] =>
  findPlaced(objects).map(({ page, widthPx, heightPx }) => ({ page, part: null, widthPx, heightPx }));

export const listPartPictures = ({ paths }: Parts): FoundPicture[] =>
  paths
    .filter((path) => /\.(?:png|jpe?g|webp|gif|tiff?|avif)$/i.test(path))
    .slice(0, MOST_PICTURES)
    .map((part) => ({ page: null, part, widthPx: null, heightPx: null }));

/** @param at - its place in the list. @returns null when there is none, or it cannot be taken out. */
export async function takePdfPicture(bytes: Uint8Array, at: number): Promise<PictureBytes | null> {
  const placed = findPlaced(await openObjects(bytes));
  const wanted = placed[at];
  if (!wanted) return null;
  const stream = wanted.dict.context.lookup(wanted.ref);
  if (stream instanceof PDFRawStream && isPlainJpeg(wanted.dict)) return { file: stream.contents };
  const before = placed.slice(0, at).filter((p) => p.page === wanted.page && isAlike(p, wanted)).length;
  return drawPicture(bytes, wanted, before);
}

const isAlike = (p: FoundPicture, q: FoundPicture) => p.widthPx === q.widthPx && p.heightPx === q.heightPx;

/** Coded as JPEG alone, and shown as it is: its bytes are a file. */
function isPlainJpeg(dict: PDFDict): boolean {
  const filter = dict.context.lookup(dict.get(PDFName.of("Filter")));
  return filter === PDFName.of("DCTDecode") && !dict.has(PDFName.of("Decode"));
}

/** Every picture that a page reaches, the pages in their order (ISO 32000-2, 8.9). */
function findPlaced(document: PDFDocument | null): Placed[] {
  if (!document) return [];
  const found: Placed[] = [];
  const seen = new Set<PDFRef>();
  const walk = (resources: PDFObject | undefined, page: number, depth: number) => {
    const dict = look(document, resources);
    if (!(dict instanceof PDFDict) || depth > 12) return;
    for (const [, ref] of entries(document, dict, "XObject")) {
      const stream = look(document, ref);
      if (!(ref instanceof PDFRef) || !(stream instanceof PDFStream) || seen.has(ref)) continue;
      seen.add(ref);
      const kind = look(document, stream.dict.get(PDFName.of("Subtype")));
      if (kind === PDFName.of("Form")) walk(stream.dict.get(PDFName.of("Resources")), page, depth + 1);
      if (kind !== PDFName.of("Image")) continue;
      const [widthPx, heightPx] = [sideOf(stream.dict, "Width"), sideOf(stream.dict, "Height")];
      if (widthPx < LEAST_PX[0] || heightPx < LEAST_PX[1]) continue;
      found.push({ page, part: null, widthPx, heightPx, ref, dict: stream.dict });
    }
  };
  try {
    document
      .getPages()
      .slice(0, MOST_PAGES)
      .forEach((page, i) => walk(page.node.Resources(), i + 1, 0));
  } catch {
    // A damaged page ends the list.
  }
  return found.slice(0, MOST_PICTURES);
}

function sideOf(dict: PDFDict, key: string): number {
  const value = dict.context.lookup(dict.get(PDFName.of(key)));
  return value instanceof PDFNumber ? value.asNumber() : 0;
}

type Decoded = { width: number; height: number; kind?: number; data?: Uint8Array };

/** Decoded by the page reader: of the pictures on its page that are as large, the nth. */
async function drawPicture(
  bytes: Uint8Array,
  { page: at, ...wanted }: Placed,
  nth: number,
): Promise<PictureBytes | null> {
  const task = openPages(bytes, {
    isOffscreenCanvasSupported: false,
    isImageDecoderSupported: false,
    maxImageSize: MOST_PX,
  });
  try {
    const page = await (await task.promise).getPage(at!);
    const { fnArray, argsArray } = await page.getOperatorList();
    const ids = fnArray.flatMap((fn, i) => {
      const args = argsArray[i] as unknown[] | null;
      const isOne = fn === OPS.paintImageXObject && args?.[1] === wanted.widthPx && args[2] === wanted.heightPx;
      return isOne ? [String(args[0])] : [];
    });
    const id = [...new Set(ids)][nth];
    if (!id) return null;
    const objects = id.startsWith("g_") ? page.commonObjs : page.objs;
    const decoded = await new Promise<Decoded | null>((resolve) => objects.get(id, resolve));
    return decoded && pixelsOf(decoded);
  } catch {
    return null;
  } finally {
    await task.destroy();
  }
}

/** Kinds of pixels as the page reader gives them: 1 bit of grey, 3 bytes, 4 bytes. */
function pixelsOf({ width: widthPx, height: heightPx, kind, data }: Decoded): PictureBytes | null {
  if (!data) return null;
  if (kind === 2 || kind === 3)
    return { widthPx, heightPx, channels: kind === 2 ? 3 : 4, pixels: Uint8Array.from(data) };
  const pixels = new Uint8Array(widthPx * heightPx);
  const rowBytes = (widthPx + 7) >> 3;
  for (let y = 0; y < heightPx; y++)
    for (let x = 0; x < widthPx; x++)
      pixels[y * widthPx + x] = (data[y * rowBytes + (x >> 3)]! >> (7 - (x & 7))) & 1 ? 255 : 0;
  return { widthPx, heightPx, channels: 1, pixels };
}
