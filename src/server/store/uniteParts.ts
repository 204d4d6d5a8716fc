// What a style covers with all of its files.
import type { CodePointRanges } from "@/contracts/traits";
import { isInside, uniteRanges } from "@/core/unicode/ranges";
import type { Db } from "../db/open";
import { listParts, removePart } from "../queries/parts";
import { putAlternative } from "../queries/records";

/** What a style covers with its parts. Those that its main file makes needless are kept as other files of it. */
export function uniteParts(db: Db, styleId: string, main: CodePointRanges): CodePointRanges {
  const parts = listParts(db, styleId);
  const needed = parts.filter((p) => !isInside(p.coverage, main));
  for (const { sha256, format, path, addedAt } of parts.filter((p) => !needed.includes(p))) {
    removePart(db, styleId, sha256);
    putAlternative(db, { styleId, sha256, format, name: path, addedAt });
  }
  return uniteRanges([main, ...needed.map((p) => p.coverage)]);
}
