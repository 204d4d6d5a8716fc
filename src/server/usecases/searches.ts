// Saved searches, and the words that the user says of a family.
import { randomBytes } from "node:crypto";
import type { z } from "zod";
import type { SavedSearch, SavedSearchAdd } from "@/contracts/passes";
import type { Db } from "../db/open";
import { insertSavedSearch, listSavedSearches, listTags, putTag, removeSavedSearch } from "../queries/finding";
import { findStyle } from "../queries/styles";

export const listSearches = (db: Db): SavedSearch[] => listSavedSearches(db);

export function saveSearch(
  db: Db,
  { name, address, searchId = `q_${randomBytes(6).toString("hex")}` }: z.infer<typeof SavedSearchAdd>,
): SavedSearch {
  const search = { searchId, name, address, savedAt: new Date().toISOString() };
  insertSavedSearch(db, search);
  return search;
}
export const forgetSearch = (db: Db, searchId: string): boolean => removeSavedSearch(db, searchId);

/** @returns all that is said of the style's family now; null when the style is unknown. */
export function tagStyle(db: Db, styleId: string, tag: string, holds: boolean | null) {
  const style = findStyle(db, styleId);
  if (!style) return null;
  putTag(db, style.familyId, tag, holds, new Date().toISOString());
  return { tags: listTags(db, style.familyId).map(({ tag: t, holds: h }) => ({ tag: t, holds: h })) };
}
