// What a file is, by its bytes and name: font, archive, evidence of terms, or junk.
import { sniffFormat } from "@/core/open/container";

export type FileSort = "font" | "archive" | "evidence" | "junk";

const FONT_NAME = /\.(ttf|otf|woff2?|ttc|otc)$/i;
const EVIDENCE_NAME =
  /(licen[cs]e|ofl|copying|readme|read me|lizenz|liesmich|eula|terms|fontlog|copyright)[^/]*(\.(txt|md|rtf|html?))?$|\.txt$/i;

/** @param path - as in the archive or the upload. Bytes win over the name; a named font with other bytes stays a font, to be refused with a reason. */
export function sortFile(path: string, bytes: Uint8Array): FileSort {
  const name = path.split("/").pop() ?? path;
  if (name.startsWith("._") || path.includes("__MACOSX/") || name === ".DS_Store") return "junk";
  if (sniffFormat(bytes)) return "font";
  if (bytes[0] === 0x50 && bytes[1] === 0x4b && (bytes[2] === 3 || bytes[2] === 5)) return "archive";
  if (FONT_NAME.test(name)) return "font";
  if (/\.zip$/i.test(name)) return "archive";
  return EVIDENCE_NAME.test(name) && bytes.length < 1_000_000 ? "evidence" : "junk";
}
