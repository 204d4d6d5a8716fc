// Texts that come with fonts → evidence of their terms, and which fonts each belongs to.
import type { Evidence } from "@/contracts/rights";
import { isReadme } from "./sort";

/** A text and the folder it speaks for: that folder and all below. */
export type FoundText = { path: string; folder: string; evidence: Evidence };

/** Reads a text file in whatever encoding, without the marks of RTF or HTML. @param date - ISO. */
export function readTerms(path: string, bytes: Uint8Array, date: string): FoundText {
  const raw = decodeText(bytes);
  const text = /^\s*\{\\rtf/.test(raw)
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
      text: text
        .replace(/\u0000/g, "")
        .trim()
        .slice(0, 400_000),
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
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder("windows-1252").decode(bytes);
  }
}

const stripRtf = (raw: string) =>
  raw
    .replace(/\{\\\*[^{}]*\}|\{\\(?:fonttbl|colortbl|stylesheet|info)(?:[^{}]|\{[^{}]*\})*\}/g, "")
    .replace(/\\'([0-9a-f]{2})/gi, (_, hex: string) => decodeText(Uint8Array.of(Number.parseInt(hex, 16))))
    .replace(/\\u(-?\d+)\??/g, (_, n: string) => String.fromCharCode((Number(n) + 65536) % 65536))
    .replace(/\\(?:par|line)\b ?/g, "\n")
    .replace(/\\[a-z]+-?\d* ?|[{}]/gi, "");

const ENTITIES: Record<string, string> = { amp: "&", lt: "<", gt: ">", quot: '"', nbsp: " ", copy: "©", apos: "'" };
const stripHtml = (raw: string) =>
  raw
    .replace(/<(script|style)\b[\s\S]*?<\/\1>/gi, "")
    .replace(/<(?:br|\/p|\/div|\/h\d|\/li|\/tr)\b[^>]*>/gi, "\n")
    .replace(/<li\b[^>]*>/gi, "- ")
    .replace(/<[^>]*>/g, "")
    .replace(/&(#?\w+);/g, (whole, name: string) =>
      name.startsWith("#")
        ? String.fromCodePoint(Number(name.slice(1)) || 32)
        : (ENTITIES[name.toLowerCase()] ?? whole),
    );
