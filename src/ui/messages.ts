// Codes become sentences here, for people.
import { sentenceOf, type FaultCode } from "@/contracts/errors";

const NEXT_STEP: Partial<Record<FaultCode, string>> = {
  "picture-broken": "Save it as PNG or JPEG and drop it again.",
  "picture-too-large": "Crop it to the line of lettering, or save it under 50 megapixels.",
  "picture-too-long": "Draw the frame tightly around one line of lettering.",
  "picture-empty": "Choose another file.",
  "no-ink": "Draw the frame tightly around one line of lettering.",
  "no-text": "Type what stands there into the reading.",
  "text-unknown": "Check the reading: none of these characters can be compared.",
  "no-styles": "Wait until the first fonts are read, or drop fonts under Libraries.",
  "nothing-kept": "Keep faces on the wall first (Space).",
  "document-unknown": "Print or save it as PDF and drop that.",
  "document-broken": "Save it again with the program that made it, or as PDF.",
  "document-protected": "Open it with its password, save it without, and drop that.",
  "document-too-large": "Save the pages with the lettering alone.",
  "document-too-long": "Save the pages with the lettering alone.",
  "passcode-needed": "Sign in again; what you changed waits here.",
  "archive-encrypted": "Unpack it with its password first.",
  "not-a-font": "Perhaps it is only named like one.",
  "unsupported-format": "Ask its maker for single TTF or OTF files.",
};

export type Fault = { code: string; message: string; details?: unknown };

/** What happened, and what now. */
export function writeFault({ code, message }: Fault): { what: string; now: string } {
  return {
    what: message || sentenceOf(code as FaultCode) || "Something went wrong.",
    now: NEXT_STEP[code as FaultCode] ?? "",
  };
}
