// What a file is, by its bytes and name: font, archive, evidence of terms, or junk.
import { sniffFormat } from "@/core/open/container";

type FileSort = "font" | "archive" | "evidence" | "junk";

const FONT_NAME = /\.(ttf|otf|woff2?|ttc|otc)$/i;
const ARCHIVE_NAME = /\.zip$/i;
const TEXT_NAME = /\.(txt|md|markdown|rtf|html?|asc|nfo)$/i;
/** Names that terms go by, with or without an ending. */
const TERMS_NAME =
  /(licen[cs]|\bofl|copying|read[ _-]?me|lizenz|liesmich|lies[ _-]mich|nutzungsbeding|eula|terms|fontlog|copyright|notice|lisez|lis[ _-]moi|condition|léame|leeme|leia|licencia|uso)/i;
const LEFT_BY_SYSTEM = /^(\._.*|\.DS_Store|thumbs\.db|desktop\.ini|\.gitkeep|Icon\r?)$/i;
const MAX_EVIDENCE_BYTES = 1_000_000;

/** What the operating system of whoever packed it left behind. */
export const isSystemJunk = (path: string) =>
  LEFT_BY_SYSTEM.test(path.split("/").pop() ?? path) || /(^|\/)(__MACOSX|\.AppleDouble|\.git)\//.test(path);

/** By the name alone, before bytes are unpacked. Null: only the bytes tell. */
export function sortByName(path: string): FileSort | null {
  const name = path.split("/").pop() ?? path;
  if (isSystemJunk(path)) return "junk";
  if (FONT_NAME.test(name)) return "font";
  if (ARCHIVE_NAME.test(name)) return "archive";
  if (TEXT_NAME.test(name) || (TERMS_NAME.test(name) && !/\.[a-z0-9]{2,5}$/i.test(name))) return "evidence";
  return /\.[a-z0-9]{1,5}$/i.test(name) ? "junk" : null;
}

/** @param path - as in the archive or the upload. Bytes win over the name; a named font with other bytes stays a font, to be refused with a reason. */
export function sortFile(path: string, bytes: Uint8Array): FileSort {
  const byName = sortByName(path);
  if (byName === "junk" && isSystemJunk(path)) return "junk";
  if (sniffFormat(bytes)) return "font";
  if (
    bytes[0] === 0x50 &&
    bytes[1] === 0x4b &&
    (bytes[2] === 3 || bytes[2] === 5) &&
    !/\.(docx|odt|epub|xlsx|pptx|jar)$/i.test(path)
  )
    return "archive";
  if (byName === "evidence") return bytes.length <= MAX_EVIDENCE_BYTES ? "evidence" : "junk";
  return byName ?? "junk";
}

/** A text whose name says that it states terms. */
export const isTermsName = (name: string) => sortByName(name) === "evidence" && TERMS_NAME.test(name);

/** A licence that comes as a picture of a page: kept in the archive's report, not read. */
export const isUnreadTerms = (path: string) => /\.(pdf|docx?|odt|pages)$/i.test(path) && TERMS_NAME.test(path);

/** Readme files are trusted less than licence files. */
export const isReadme = (path: string) =>
  /read[ _-]?me|liesmich|lies[ _-]mich|lisez|lis[ _-]moi|léame|leeme|leia|fontlog|info|about/i.test(
    path.split("/").pop() ?? path,
  ) && !/licen[cs]|lizenz|ofl|eula/i.test(path.split("/").pop() ?? path);
