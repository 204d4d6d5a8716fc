// Briefs: create (also as a copy), change, delete and bring back; what is kept for them.
import { randomBytes } from "node:crypto";
import {
  BriefFields,
  type Brief,
  type BriefCreate,
  type BriefPatch,
  type Check,
  type Kept,
  type KeptPut,
} from "@/contracts/brief";
import type { BriefId, StyleId } from "@/contracts/ids";
import { checkBrief } from "@/core/brief/checkBrief";
import type { Db } from "../db/open";
import {
  findBrief,
  insertBrief,
  isBriefKnown,
  listKept,
  putAside,
  bringBack,
  putKept,
  removeKept,
  setBriefDeleted,
  updateBrief,
} from "../queries/briefs";
import { findStyle } from "../queries/styles";

const slugOf = (name: string) =>
  name
    .normalize("NFD")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "")
    .slice(0, 36) || "brief";

/** @returns the new brief, or null when the one to copy is gone. A copy takes the fields and what is kept. */
export function createBrief(db: Db, { copyOf, ...given }: BriefCreate): Brief | null {
  const source = copyOf ? findBrief(db, copyOf) : null;
  if (copyOf && !source) return null;
  const fields = BriefFields.parse({
    lines: [{ text: "Your words here", role: "title" }],
    ...(source && BriefFields.parse(source)),
    ...given,
  });
  const briefId = `b_${slugOf(fields.name)}-${randomBytes(3).toString("hex")}` as BriefId;
  const now = new Date().toISOString();
  db.transaction(() => {
    insertBrief(db, briefId, fields, now);
    for (const k of source?.kept ?? []) putKept(db, briefId, { ...k, keptAt: now });
  })();
  return findBrief(db, briefId);
}

/** Changes what is given. `deleted: true` hides the brief, `false` brings it back. @returns null when it is unknown. */
export function changeBrief(db: Db, briefId: string, { deleted, ...patch }: BriefPatch): Brief | null {
  if (!isBriefKnown(db, briefId)) return null;
  if (deleted !== undefined) setBriefDeleted(db, briefId, deleted ? new Date().toISOString() : null);
  const brief = findBrief(db, briefId);
  if (!brief) return null;
  if (Object.keys(patch).length)
    updateBrief(db, briefId, BriefFields.parse({ ...brief, ...patch }), new Date().toISOString());
  return findBrief(db, briefId);
}

export function deleteBrief(db: Db, briefId: string): boolean {
  if (!findBrief(db, briefId)) return false;
  setBriefDeleted(db, briefId, new Date().toISOString());
  return true;
}

/** Keeps a style or changes its entry. @returns null when brief or style is unknown. */
export function keepStyle(db: Db, briefId: string, styleId: string, put: KeptPut): Kept | null {
  if (!findBrief(db, briefId) || !findStyle(db, styleId)) return null;
  const kept = listKept(db, briefId);
  const known = kept.find((k) => k.styleId === styleId);
  const entry: Kept = {
    styleId: styleId as StyleId,
    role: put.role ?? known?.role ?? "",
    note: put.note ?? known?.note ?? "",
    favourite: put.favourite ?? known?.favourite ?? false,
    place: put.place ?? known?.place ?? kept.length,
    keptAt: known?.keptAt ?? new Date().toISOString(),
  };
  db.transaction(() => {
    bringBack(db, briefId, styleId);
    putKept(db, briefId, entry);
  })();
  return listKept(db, briefId).find((k) => k.styleId === styleId) ?? null;
}

export const letGo = (db: Db, briefId: string, styleId: string) => removeKept(db, briefId, styleId);

/** Sets a style aside for this brief, or brings it back. A kept style stays kept. */
export function setAside(db: Db, briefId: string, styleId: string, aside: boolean): boolean {
  if (!findBrief(db, briefId) || !findStyle(db, styleId)) return false;
  if (aside) putAside(db, briefId, styleId, new Date().toISOString());
  else bringBack(db, briefId, styleId);
  return true;
}

/** Every check of the brief on one style; null when either is unknown. */
export function checkStyle(db: Db, briefId: string, styleId: string): Check[] | null {
  const brief = findBrief(db, briefId);
  const style = findStyle(db, styleId);
  return brief && style ? checkBrief(brief, style) : null;
}
