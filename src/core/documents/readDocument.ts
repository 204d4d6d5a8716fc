// The fonts of a document of any kind that is read. The kind is told by what stands in it, not by its name alone.
import type { DocumentKind } from "@/contracts/documents";
import { readBook } from "./book";
import { DocumentError, type FoundFont, type Parts } from "./found";
import { readDrawing, readPage } from "./markup";
import { readSlides, readText, readWriting } from "./office";
import { readPdf } from "./pdf";
import { openObjects } from "./pdfObjects";
import { listPartPictures, listPdfPictures, takePdfPicture, type FoundPicture, type PictureBytes } from "./pictures";
import { readStyleSheet } from "./styleSheets";

type DocumentSource = { name: string; bytes: Uint8Array; parts: Parts | null };

const decodeText = (bytes: Uint8Array) =>
  new TextDecoder(bytes[0] === 0xff && bytes[1] === 0xfe ? "utf-16le" : "utf-8").decode(bytes);

/** What the first bytes and, of an archive, its parts say; null: none that is read. */
function tellKind({ name, bytes, parts }: DocumentSource): DocumentKind | null {
  if (parts) {
    const has = (path: string) => parts.paths.includes(path);
    if (has("word/document.xml")) return "docx";
    if (has("ppt/presentation.xml")) return "pptx";
    if (has("META-INF/container.xml")) return "epub";
    if (has("content.xml")) return "odt";
    return parts.paths.some((p) => /\.(?:x?html?|css|svg)$/i.test(p)) ? "zip" : null;
  }
  const head = new TextDecoder("latin1").decode(bytes.subarray(0, 2048));
  if (head.includes("%PDF-")) return "pdf";
  const text = decodeText(bytes.subarray(0, 4096))
    .replace(/^\ufeff/, "")
    .trimStart();
  if (text.includes("\0")) return null;
  if (/<svg[\s>]/i.test(text) && !/<html[\s>]/i.test(text)) return "svg";
  if (/^<(?:!doctype html|html|head|body|\?xml|!--)/i.test(text) || /<(?:html|body|style|p|div|h1)[\s>]/i.test(text))
    return "html";
  if (/\.css$/i.test(name) || /@font-face|font-family\s*:/i.test(decodeText(bytes))) return "css";
  return null;
}

/**
 * Reads the fonts of a document.
 * @param hasTime - a long document asks it between pages, and tells what it has seen once it is false.
 * @returns kind, fonts and pictures, in the order they stand; null when it is of no kind that is read.
 * @throws DocumentError: document-broken, document-protected.
 */
export async function readDocument(
  source: DocumentSource,
  hasTime: () => boolean = () => true,
): Promise<{ kind: DocumentKind; fonts: FoundFont[]; pictures: FoundPicture[] } | null> {
  const kind = tellKind(source);
  if (!kind) return null;
  const { bytes, parts } = source;
  if (kind === "pdf") {
    const objects = await openObjects(bytes);
    return { kind, fonts: await readPdf(bytes, objects, hasTime), pictures: listPdfPictures(objects) };
  }
  const fonts = await readKind(kind, source);
  return { kind, fonts, pictures: parts ? listPartPictures(parts) : [] };
}

/** A picture of a document. @param at - its place in the list. @returns null when there is none, or it cannot be taken out. */
export async function takePicture({ bytes, parts }: DocumentSource, at: number): Promise<PictureBytes | null> {
  if (!parts) return takePdfPicture(bytes, at);
  const path = listPartPictures(parts)[at]?.part;
  const file = path ? await parts.read(path) : null;
  return file && { file };
}

async function readKind(kind: Exclude<DocumentKind, "pdf">, { bytes, parts }: DocumentSource): Promise<FoundFont[]> {
  switch (kind) {
    case "html":
      return readPage(decodeText(bytes));
    case "css":
      return readStyleSheet(decodeText(bytes));
    case "svg":
      return readDrawing(decodeText(bytes));
    case "docx":
      return readWriting(parts!);
    case "pptx":
      return readSlides(parts!);
    case "odt":
      return readText(parts!);
    case "epub":
    case "zip":
      return readBook(parts!);
    default:
      throw new DocumentError("document-broken", kind satisfies never);
  }
}
