// A PDF opened in two ways: its objects (ISO 32000-2, 7), and its pages as a reader draws them.
import { PDFDict, PDFDocument, PDFName, PDFRef, PDFStream, type PDFObject } from "pdf-lib";
import { getDocument } from "pdfjs-dist/legacy/build/pdf.mjs";

/** @returns null when the objects cannot be read (damaged, or enciphered). */
export const openObjects = (bytes: Uint8Array): Promise<PDFDocument | null> =>
  PDFDocument.load(bytes, { updateMetadata: false }).catch(() => null);

/** Nothing of a stranger's file is run, and nothing of this machine is asked for. */
export const openPages = (bytes: Uint8Array, options: Omit<NonNullable<Parameters<typeof getDocument>[0]>, "data">) =>
  getDocument({
    // The reader takes the buffer for itself.
    data: Uint8Array.from(bytes),
    useSystemFonts: false,
    isEvalSupported: false,
    enableXfa: false,
    stopAtErrors: false,
    verbosity: 0,
    ...options,
  });

export const look = (document: PDFDocument, value: PDFObject | undefined) =>
  value instanceof PDFRef ? document.context.lookup(value) : value;
export const dictOf = (value: PDFObject | undefined): PDFDict | null =>
  value instanceof PDFStream ? value.dict : value instanceof PDFDict ? value : null;
export function entries(document: PDFDocument, dict: PDFDict, key: string): [PDFName, PDFObject][] {
  const inner = look(document, dict.get(PDFName.of(key)));
  return inner instanceof PDFDict ? inner.entries() : [];
}
