// What is found of one font in a document, before it is matched with the libraries; and how a document is refused.
import { extractDescriptors } from "../descriptors/extractDescriptors";
import { openFont } from "../open/openFont";
import { openFace } from "../outlines/openFace";
import { partName } from "./fontNames";

export type FoundFont = {
  /** As the document writes it. */
  name: string;
  family: string | null;
  style: string | null;
  embedded: boolean;
  subset: boolean;
  usedFor: string | null;
  /** Characters set in it, each once, the first of them. */
  characters: string;
  /** Its embedded letters, described as the library's are; null: not embedded, or unreadable. */
  signature: Uint8Array | null;
  /** Character → advance in em, where the document states widths. */
  advancesEm: Readonly<Record<string, number>> | null;
};

/** One file of a document that is an archive. */
export type Parts = {
  paths: readonly string[];
  /** @returns null when there is no such part, or it cannot be unpacked. */
  read(path: string): Promise<Uint8Array | null>;
};

/** @throws by readers of documents: what stands in them is not what their kind asks for. */
export class DocumentError extends Error {
  constructor(
    readonly code: "document-broken" | "document-protected",
    detail: string,
  ) {
    super(detail);
  }
}

/** A font that a document names and does not hold. */
export const nameOnly = (name: string, usedFor: string | null = null): FoundFont => ({
  name,
  ...partName(name),
  embedded: false,
  subset: false,
  usedFor,
  characters: "",
  signature: null,
  advancesEm: null,
});

/** Describes the letters of a whole embedded font file; null when it cannot be opened. */
export async function signFile(bytes: Uint8Array): Promise<Uint8Array | null> {
  try {
    return extractDescriptors(openFace((await openFont(bytes)).sfnt));
  } catch {
    // A damaged font in a document: it is still named.
    return null;
  }
}

/** "a", "a and b", "a, b and 3 more". */
export function listUses(uses: Iterable<string>, most = 4): string | null {
  const all = [...new Set(uses)];
  if (!all.length) return null;
  if (all.length === 1) return all[0]!;
  const shown = all.slice(0, all.length > most ? most : all.length - 1);
  const rest = all.length - shown.length;
  return `${shown.join(", ")} and ${rest === 1 ? all[all.length - 1]! : `${rest} more`}`;
}
