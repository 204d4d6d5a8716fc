// Every code an expected failure can carry. Sentences for people are made of them in ui/messages.ts alone.
import { z } from "zod";

export const FONT_FAULTS = {
  "empty-file": "The file is empty.",
  "not-a-font": "The file is not a font: its first bytes belong to no font format.",
  "unsupported-format": "This kind of font file is not read yet.",
  "file-truncated": "The file is cut off.",
  "table-missing": "A table that every font needs is absent.",
  "table-damaged": "A table is damaged.",
  "no-outlines": "The font has no outlines that can be drawn.",
  "no-characters": "The font maps no characters.",
  "decompression-failed": "The compressed font data cannot be unpacked.",
  "too-large": "The file is larger than is accepted.",
  "took-too-long": "Reading the file took too long and was ended.",
  "too-much-memory": "Reading the file took too much memory and was ended.",
  "reader-failed": "The reader broke on this file.",
} as const;
export type FontFaultCode = keyof typeof FONT_FAULTS;

export const ARCHIVE_FAULTS = {
  "archive-broken": "The archive is damaged or cut short.",
  "archive-encrypted": "The archive is locked with a password.",
  "archive-unsafe-path": "An entry would be extracted outside the archive's folder.",
  "archive-too-large": "The archive unpacks to more than is accepted.",
  "archive-too-many": "The archive holds more entries than are accepted.",
  "archive-empty": "The archive holds no files.",
  "not-for-us": "Not a font and not a licence.",
  evidence: "Kept beside the fonts as evidence of their terms.",
  "evidence-unread": "Perhaps its terms, but its words cannot be read here: open it and add what it says under Terms.",
  "system-junk": "System file, not needed.",
  "archive-nested": "An archive inside an archive inside an archive: unpack it first.",
  "same-bytes": "The same file is in the store already.",
  "same-outlines": "The same font is in the store already, in another file; kept as an alternative.",
  "letters-of-another":
    "Its letters are those of another font in the store, under other names or terms: kept as a font of its own, and both say so.",
  "less-rich": "The same style in a format that holds less; kept as an alternative.",
  "part-added": "One part of a face that came cut by character: its characters are added to the style.",
  "richer-taken":
    "It holds more than the file of this style that was there, and takes its place; that one is kept as an alternative.",
} as const;
export type ArchiveFaultCode = keyof typeof ARCHIVE_FAULTS;

export const REQUEST_FAULTS = {
  "bad-request": "The request is malformed.",
  "not-found": "There is nothing with this id.",
  "foreign-host": "This server does not go by that name.",
  "foreign-origin": "Requests from other sites are refused.",
  "no-file": "No file came with the request.",
  "picture-empty": "The picture is empty.",
  "picture-broken": "The picture cannot be read: it is damaged or not a picture.",
  "picture-too-large": "The picture is larger than is accepted.",
  "picture-too-long": "Comparing the picture took too long or too much memory and was ended.",
  "no-ink": "No lettering stands out in the picture.",
  "no-text": "No text was given and none could be read.",
  "text-unknown": "None of the given characters can be compared.",
  "no-styles": "The library is still empty.",
  "document-empty": "The document is empty.",
  "document-unknown":
    "This kind of document is not read. PDF, HTML, CSS, SVG, DOCX, ODT, PPTX, EPUB and zips of saved pages are.",
  "document-broken": "The document is damaged: its fonts cannot be read.",
  "document-protected": "The document is locked with a password.",
  "document-too-large": "The document is larger than is accepted.",
  "document-too-long": "Reading the document took too long or too much memory and was ended.",
  "nothing-found": "No faces match all of these, so there is nothing to review.",
  "texts-too-many": "As many texts as are read were added to this font already. Take one back first.",
  "nothing-kept": "Nothing is kept for this brief yet.",
  "too-few-faces": "It takes two faces at least. Keep another one first.",
  "not-measured": "The letters of this face cannot be measured, so no system follows from them.",
  "nothing-to-undo": "No choice was made yet, so there is nothing to undo.",
  "job-gone": "This job has no file.",
  "library-unreachable": "The library does not answer.",
  "library-slow": "The library took too long to answer.",
  "library-broken": "The library answered with something that cannot be read.",
  "library-refused": "The library refused the request.",
  "link-expired": "The link of the library has expired.",
  "rate-limited": "The library asks to wait before the next request.",
  "price-changed": "The price has changed since it was put into the basket.",
  "already-owned": "These uses are licensed already.",
  "basket-empty": "The basket is empty.",
  "not-owned": "This face is not bought yet: its file is not here.",
  "no-desk": "No desk of other designers is connected.",
  "desk-silent": "The desk does not answer.",
  "no-plotter": "No cutting plotter is connected.",
  "plotter-silent": "The plotter does not answer. See that it is switched on, then send again.",
  "plotter-refused": "The plotter refused the file.",
  "no-cutting-room": "No cutting room is connected.",
  "cutting-room-silent": "The cutting room does not answer. See that its program runs, then hand the clip over again.",
  "cutting-room-folder": "The cutting room’s folder cannot be written.",
  "nothing-moves": "Nothing of this lettering moves yet. Give it two poses, or a motion.",
  "motion-failed": "The motion cannot be drawn: the tables of a face break what reads them.",
  "motion-too-long":
    "The motion took too long or too much memory and was ended. Make it smaller, shorter, or with fewer letters.",
  "address-not-allowed": "Only catalogues at http or https addresses, and folders on this machine, can be connected.",
  busy: "Too much is being worked on at once. It goes on in a moment.",
  "let-go": "The request was given up before it was answered.",
  "face-failed": "The letters of this font cannot be shown: its tables break what reads them.",
  "map-failed": "The map could not be laid out. Try again; the wall shows the same faces.",
  "face-too-long": "Reading the letters of this font took too long or too much memory and was ended.",
  "sheet-failed": "The sheet cannot be written.",
  "sheet-too-long": "Writing the sheet took too long or too much memory and was ended.",
  "web-font-failed": "No web font can be made of this font: its tables break what cuts it.",
  "web-font-too-long": "Making a web font of this font took too long or too much memory and was ended.",
  "lettering-failed": "The lettering cannot be drawn: the tables of a face break what reads them.",
  "lettering-too-long":
    "Drawing the lettering took too long or too much memory and was ended. Make it smaller, or with fewer letters.",
  "letters-too-many": "The lettering has more letters than can be set at once. Shorten its text.",
  "letters-missing": "The face lacks letters of the text.",
  "lettering-newer": "This document was made by a newer version. Update first: nothing of it was changed.",
  "path-crosses-itself": "The path crosses itself, so letters would lie on one another. Draw one that does not.",
  "path-unread": "The path cannot be read: it is damaged, or has no length.",
  "size-unknown": "The face has no letter to measure its size by. Set the size by em instead.",
  "share-ended": "This link has ended.",
  "answers-too-many": "This link has taken as many answers as it can.",
  "not-for-web": "None of these faces may be used on the web by their terms, so there is nothing to make.",
  "language-unknown": "This language is not known.",
  "file-missing": "The file of this font is missing from the store. Import it again: nothing else is lost.",
  "file-changed": "The file of this font was changed in the store. Import it again: nothing else is lost.",
  "job-set-aside": "This job ended the program twice, so it was set aside. Nothing is lost; it can be tried again.",
  "not-delivered": "The library did not deliver everything. What is missing was not charged.",
  "sync-endless": "The catalogue has no end: its pages go in circles or are too many.",
  "disk-full": "The disk is full. Make room: nothing that was saved is lost, and work goes on then.",
  "data-read-only": "The data folder cannot be written to. Check its permissions, then start again.",
  "data-damaged": "The database is damaged. Restore the data folder from a backup, or move it away to start over.",
  "data-newer":
    "The data folder was written by a newer version of Fond Quarry. Start that version, or use another folder.",
  "data-in-use": "Another Fond Quarry is using this data folder. Stop it first, or use another folder.",
  "changed-meanwhile": "This was changed elsewhere in the meantime.",
  "passcode-needed": "A passcode is needed.",
  "passcode-wrong": "Wrong passcode.",
  "not-allowed": "This needs rights that you do not have here.",
  "method-not-allowed": "This cannot be asked in this way.",
  internal: "Something went wrong on our side.",
} as const;
export type RequestFaultCode = keyof typeof REQUEST_FAULTS;

export type FaultCode = FontFaultCode | ArchiveFaultCode | RequestFaultCode;

/** Every code in one list, as the OpenAPI document gives it. */
export const FAULT_CODES = [
  ...Object.keys(FONT_FAULTS),
  ...Object.keys(ARCHIVE_FAULTS),
  ...Object.keys(REQUEST_FAULTS),
] as FaultCode[];

export const ErrorBody = z.object({
  error: z.object({ code: z.string(), message: z.string(), details: z.unknown().optional() }),
});
export type ErrorBody = z.infer<typeof ErrorBody>;

/** An expected outcome: a value, never thrown. */
export type Outcome<T, C extends string = FaultCode> =
  | { ok: true; value: T }
  | { ok: false; code: C; message: string; details?: unknown };

export const succeed = <T>(value: T): { ok: true; value: T } => ({ ok: true, value });
export const refuse = <C extends FaultCode>(code: C, message?: string, details?: unknown) => ({
  ok: false as const,
  code,
  message: message ?? sentenceOf(code),
  details,
});

/** An expected failure on its way to where it becomes a value: a job's failure, or one found deep in the store. */
export class FaultError extends Error {
  constructor(
    readonly code: FaultCode,
    message?: string,
  ) {
    super(message ?? sentenceOf(code));
    this.name = "FaultError";
  }
}

/** The plain sentence that belongs to a code. */
export const sentenceOf = (code: FaultCode): string => SENTENCES[code];
const SENTENCES = { ...FONT_FAULTS, ...ARCHIVE_FAULTS, ...REQUEST_FAULTS };
