// Texts that come with fonts → evidence of their terms, and which fonts each belongs to. Runs in a process that can be killed.
import chardet from "chardet";
import { Parser } from "htmlparser2";
import iconv from "iconv-lite";
import type { Evidence } from "@/contracts/rights";
import { isReadme } from "./sort";

/** A text and the folder it speaks for: that folder and all below. */
export type FoundText = { path: string; folder: string; evidence: Evidence };

/** What an encoding is told from. */
const MAX_LOOKED_AT_BYTES = 20_000;
/** Of a hundred; below, a guess at an encoding is worth less than that most texts are West European. */
const MIN_CONFIDENCE = 30;
/** What is read of a text's file: markup included. */
export const MAX_TEXT_BYTES = 400_000;

/** Reads a text file in whatever encoding, without the marks of RTF or HTML. @param date - ISO. */
export function readTerms(path: string, bytes: Uint8Array, date: string): FoundText {
  const raw = decodeText(bytes.subarray(0, MAX_TEXT_BYTES));
  const text = /^\s{0,20}\{\\rtf/.test(raw)
    ? stripRtf(raw)
    : /<(?:html|body|p|br|div|h1)\b/i.test(raw)
      ? stripHtml(raw)
      : raw;
  const slash = path.lastIndexOf("/");
  return {
    path,
    folder: slash < 0 ? "" : path.slice(0, slash + 1),
    evidence: {
      kind: isReadme(path) ? "readme" : "licence-file",
      source: path,
      date,
      text: text.replaceAll("\u0000", "").trim().toWellFormed(),
    },
  };
}

/** Texts that speak for a font: those of its own folder and of the folders above it; none of another font's folder. */
export const evidenceFor = (path: string, texts: FoundText[]): Evidence[] =>
  texts.filter((t) => path.startsWith(t.folder) && t.evidence.text).map((t) => t.evidence);

function decodeText(bytes: Uint8Array): string {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return new TextDecoder("utf-16le").decode(bytes);
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return new TextDecoder("utf-16be").decode(bytes);
  try {
    // A text that was cut may end within a character.
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes, { stream: true });
  } catch {
    const encoding = chardet
      .analyse(bytes.subarray(0, MAX_LOOKED_AT_BYTES))
      .find(
        ({ name, confidence }) => !name.startsWith("UTF") && confidence >= MIN_CONFIDENCE && iconv.encodingExists(name),
      );
    return iconv.decode(Buffer.from(bytes), encoding?.name ?? "windows-1252");
  }
}

/** Groups of RTF that hold no words. */
const UNSAID = new Set(["fonttbl", "colortbl", "stylesheet", "info", "pict", "object", "themedata", "datastore"]);

/** The words of an RTF text, in one pass. */
function stripRtf(raw: string): string {
  const out: string[] = [];
  /** For each open group, whether its words count. */
  const groups: boolean[] = [];
  let isSaid = true;
  // A control word with its number and one space behind; a sign by code; a brace; or words.
  for (const m of raw.matchAll(/\\([a-z]{1,32})(-?\d{1,10})? ?|\\'([0-9a-f]{2})|\\([^a-z])|([{}])|([^\\{}]+)|\\/gi)) {
    const [, word, figure, hex, sign, brace, words] = m;
    if (brace === "{") groups.push(isSaid);
    else if (brace === "}") isSaid = groups.pop() ?? true;
    else if (sign === "*" || (word !== undefined && UNSAID.has(word))) isSaid = false;
    else if (!isSaid) continue;
    else if (word === "par" || word === "line") out.push("\n");
    else if (word === "tab") out.push("\t");
    else if (word === "u" && figure) out.push(String.fromCharCode((Number(figure) + 65_536) % 65_536));
    else if (hex !== undefined)
      out.push(new TextDecoder("windows-1252").decode(Uint8Array.of(Number.parseInt(hex, 16))));
    else if (words !== undefined) out.push(words.replaceAll(/[\r\n]/g, ""));
    else if (sign && "\\{}".includes(sign)) out.push(sign);
  }
  return out.join("");
}

const BREAKS = new Set(["br", "p", "div", "li", "tr", "h1", "h2", "h3", "h4", "h5", "h6", "title"]);
const NO_WORDS = new Set(["script", "style"]);

/** The words of an HTML text, in one pass; entities are the parser's. */
function stripHtml(raw: string): string {
  const out: string[] = [];
  let silent = 0;
  const parser = new Parser({
    onopentagname(name) {
      if (NO_WORDS.has(name)) silent++;
      if (name === "li") out.push("\n- ");
      else if (name === "br") out.push("\n");
    },
    ontext(text) {
      if (!silent) out.push(text);
    },
    onclosetag(name) {
      if (NO_WORDS.has(name)) silent--;
      if (BREAKS.has(name) && name !== "br") out.push("\n");
    },
  });
  parser.end(raw);
  return out.join("");
}
