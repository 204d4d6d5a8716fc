// Briefs: create (also as a copy), change, delete and bring back; what is kept for them. Every change is a step that can be undone, raises
// the brief's version and is told to whoever looks at the same brief.
import { randomBytes } from "node:crypto";
import {
  BriefFields,
  type Brief,
  type BriefCreate,
  type BriefLine,
  type BriefPatch,
  type Check,
  type Kept,
  type KeptPost,
  type KeptPut,
  type StepBack,
} from "@/contracts/brief";
import type { BriefId, KeptId, StyleId } from "@/contracts/ids";
import { refuse, succeed, type Outcome } from "@/contracts/errors";
import { keptIdOf } from "@/core/brief/keptId";
import { mergeBrief, type BriefPart } from "@/core/brief/mergeBrief";
import type { Db } from "../db/open";
import { tellBrief } from "../events/briefEvents";
import {
  bringBack,
  findBrief,
  findBriefPicture,
  insertBrief,
  isBriefKnown,
  listKept,
  putAside,
  putBriefPicture,
  putKept,
  raiseVersion,
  removeKept,
  replaceAside,
  replaceKept,
  setBriefDeleted,
  updateBrief,
} from "../queries/briefs";
import { findStyle } from "../queries/styles";
import { findStep, putStep, setUndone, type StepRange } from "../queries/steps";

/** Who changes: a tab's or person's id, as it says itself. */
type By = string;
const NOBODY = "script";

const slugOf = (name: string) =>
  name
    .normalize("NFD")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "")
    .slice(0, 36) || "brief";

const newLineId = () => `l_${randomBytes(5).toString("hex")}`;
/** Every line has an id of its own. */
function withIds(lines: BriefLine[]): BriefLine[] {
  const used = new Set<string>();
  return lines.map((line) => {
    const id = line.id && !used.has(line.id) ? line.id : newLineId();
    used.add(id);
    return { ...line, id };
  });
}

/** @returns the new brief, or null when the one to copy is gone. A copy takes all: fields, what is kept and set aside, the picture. */
export function createBrief(db: Db, { copyOf, ...given }: BriefCreate): Brief | null {
  const source = copyOf ? findBrief(db, copyOf) : null;
  if (copyOf && !source) return null;
  const fields = BriefFields.parse({
    lines: [{ text: "Your words here", role: "title" }],
    ...(source && BriefFields.parse({ ...source, state: "open", archived: false })),
    ...given,
  });
  const briefId = `b_${slugOf(fields.name)}-${randomBytes(3).toString("hex")}` as BriefId;
  const now = new Date().toISOString();
  db.transaction(() => {
    insertBrief(db, briefId, { ...fields, lines: withIds(fields.lines) }, now);
    if (!source) return;
    for (const k of source.kept) putKept(db, briefId, { ...k, keptAt: now });
    for (const styleId of source.setAside) putAside(db, briefId, styleId, now);
    const picture = findBriefPicture(db, source.briefId);
    if (picture) putBriefPicture(db, briefId, picture, now);
  })();
  return findBrief(db, briefId);
}

/** What of a brief is a step: all but its picture and its dates. */
const STEPPED = [...(Object.keys(BriefFields.shape) as (keyof BriefFields)[]), "kept", "setAside"] as const;
/** Changes of one kind by one person that follow one another so closely are one step: typing. */
const ONE_STEP_MS = 4_000;

type What = { by: By; summary: string; merges?: string };

/** Runs a change and writes its step. @returns the brief after it; null when there is none. */
function step(db: Db, briefId: string, { by, summary, merges = "" }: What, run: () => void): Brief | null {
  const told = db.transaction(() => {
    const before = findBrief(db, briefId);
    if (!before) return null;
    run();
    const after = findBrief(db, briefId)!;
    const fields = STEPPED.filter((f) => JSON.stringify(before[f]) !== JSON.stringify(after[f]));
    if (!fields.length) return { brief: after, fields };
    const at = new Date().toISOString();
    const version = raiseVersion(db, briefId, at);
    const last = findStep(db, briefId, false, null);
    const grows =
      merges && last?.merges === merges && last.byWhom === by && Date.now() - Date.parse(last.at) < ONE_STEP_MS;
    const part = (brief: Brief): BriefPart => Object.fromEntries(fields.map((f) => [f, brief[f]]));
    const state = { at, byWhom: by, summary, merges, version, before: part(before), after: part(after) };
    putStep(db, briefId, state, grows ? last.stepId : null);
    return { brief: { ...after, version, changedAt: at }, fields };
  })();
  if (told?.fields.length) tellBrief(briefId, { version: told.brief.version, by, fields: told.fields });
  return told?.brief ?? null;
}

/**
 * Changes what is given. `deleted: true` hides the brief, `false` brings it back.
 * @returns the brief; `changed-meanwhile` with the present one where an older version was changed, or both changed the same.
 */
export function changeBrief(
  db: Db,
  briefId: string,
  { deleted, version, base, step: isOwnStep, ...patch }: BriefPatch,
  by: By = NOBODY,
): Outcome<Brief> {
  if (!isBriefKnown(db, briefId)) return refuse("not-found");
  if (deleted !== undefined) setBriefDeleted(db, briefId, deleted ? new Date().toISOString() : null);
  const brief = findBrief(db, briefId);
  if (!brief) return refuse("not-found");
  if (version !== undefined && version !== brief.version) return refuse("changed-meanwhile", undefined, { brief });
  const { merged, conflicts } = mergeBrief(base ?? present(brief, patch), patch, present(brief, patch));
  if (conflicts.length) return refuse("changed-meanwhile", undefined, { brief, conflicts });
  const fields = BriefFields.parse({ ...brief, ...merged });
  const next = { ...fields, lines: withIds(fields.lines) };
  const what = { by, ...tellPatch(brief, patch), ...(isOwnStep && { merges: "" }) };
  const changed = step(db, briefId, what, () => updateBrief(db, briefId, next, new Date().toISOString()));
  return changed ? succeed(changed) : refuse("not-found");
}

const present = (brief: Brief, patch: BriefPart): BriefPart =>
  Object.fromEntries(Object.keys(patch).map((k) => [k, brief[k as keyof Brief]]));

const FIELD_WORDS: Record<keyof BriefFields, string> = {
  name: "Name",
  client: "Client",
  note: "Note",
  medium: "Medium",
  lines: "Lines",
  uses: "Uses",
  size: "Size",
  unit: "Unit",
  levelBy: "Levelling",
  ink: "Ink",
  paper: "Paper",
  wanted: "Extra characters",
  pairs: "Pairs",
  scene: "Words on the picture",
  state: "State",
  archived: "Archive",
};

/** A change in words, and what it may be one step with. */
function tellPatch(brief: Brief, patch: Partial<BriefFields>): Pick<What, "summary" | "merges"> {
  const fields = Object.keys(patch) as (keyof BriefFields)[];
  if (fields.length !== 1) return { summary: `${fields.map((f) => FIELD_WORDS[f]).join(", ")} changed` };
  const [field] = fields as [keyof BriefFields];
  if (field !== "lines") return { summary: `${FIELD_WORDS[field]} changed`, merges: field };
  const lines = patch.lines!;
  if (lines.length > brief.lines.length) return { summary: "Line added" };
  if (lines.length < brief.lines.length) return { summary: "Line removed" };
  const at = lines.findIndex((l, i) => l.text !== brief.lines[i]!.text || l.role !== brief.lines[i]!.role);
  const isMoved = lines.some((l, i) => l.id !== undefined && l.id !== brief.lines[i]!.id);
  if (isMoved || at < 0) return { summary: "Lines reordered" };
  return { summary: `Line ${at + 1} changed`, merges: `line ${lines[at]!.id ?? at}` };
}

export function deleteBrief(db: Db, briefId: string): boolean {
  if (!findBrief(db, briefId)) return false;
  setBriefDeleted(db, briefId, new Date().toISOString());
  return true;
}

/** Takes the last step back, or does the last one that was undone again: one's own, where one says who one is; only one of the range. */
export function stepBack(
  db: Db,
  briefId: string,
  which: "undo" | "redo",
  by: By | null,
  range: StepRange = {},
): StepBack | null {
  if (!findBrief(db, briefId)) return null;
  const found = findStep(db, briefId, which === "redo", by, range);
  if (found) {
    const [from, to] = which === "undo" ? [found.after, found.before] : [found.before, found.after];
    db.transaction(() => {
      const brief = findBrief(db, briefId)!;
      // Others may have changed the same brief since: only what the step did is taken back.
      const { merged, conflicts } = mergeBrief(from, to, present(brief, to));
      for (const c of conflicts) if (!c.id) merged[c.field] = c.mine;
      write(db, briefId, brief, merged);
      setUndone(db, found.stepId, which === "undo");
    })();
    const at = new Date().toISOString();
    tellBrief(briefId, { version: raiseVersion(db, briefId, at), by: by ?? NOBODY, fields: Object.keys(to) });
  }
  return {
    summary: found?.summary ?? null,
    brief: findBrief(db, briefId)!,
    canUndo: findStep(db, briefId, false, by) !== null,
    canRedo: findStep(db, briefId, true, by) !== null,
  };
}

/** Puts parts of a brief back. */
function write(db: Db, briefId: string, brief: Brief, part: BriefPart) {
  const at = new Date().toISOString();
  const { kept, setAside: aside, ...fields } = part;
  if (Object.keys(fields).length) updateBrief(db, briefId, BriefFields.parse({ ...brief, ...fields }), at);
  if (kept) replaceKept(db, briefId, kept as Kept[]);
  if (aside) replaceAside(db, briefId, aside as string[], at);
}

const nameOf = (db: Db, styleId: string) => {
  const style = findStyle(db, styleId);
  return style ? `${style.family} ${style.style}` : "A face";
};

/** Keeps a style at a place on its axes, or changes its entry. @returns null when brief or style is unknown. */
export function keepAt(
  db: Db,
  briefId: string,
  { styleId, location = {}, features = {}, ...put }: Omit<KeptPost, "location" | "features"> & Partial<KeptPost>,
  by: By = NOBODY,
): Kept | null {
  if (!findBrief(db, briefId) || !findStyle(db, styleId)) return null;
  const keptId = keptIdOf(styleId, location, features) as KeptId;
  const known = listKept(db, briefId).find((k) => k.keptId === keptId);
  const entry: Kept = known ?? {
    keptId,
    styleId,
    location,
    features,
    role: "",
    group: "",
    note: "",
    favourite: false,
    place: listKept(db, briefId).length,
    keptAt: new Date().toISOString(),
  };
  return putEntry(
    db,
    briefId,
    entry,
    put,
    by,
    known ? `${nameOf(db, styleId)} changed` : `${nameOf(db, styleId)} kept`,
  );
}

function putEntry(db: Db, briefId: string, entry: Kept, put: KeptPut, by: By, summary: string): Kept | null {
  const given = Object.fromEntries(Object.entries(put).filter(([, v]) => v !== undefined)) as KeptPut;
  const isNote = Object.keys(given).join() === "note";
  step(db, briefId, { by, summary, ...(isNote && { merges: `note ${entry.keptId}` }) }, () => {
    bringBack(db, briefId, entry.styleId);
    putKept(db, briefId, { ...entry, ...given });
  });
  return listKept(db, briefId).find((k) => k.keptId === entry.keptId) ?? null;
}

/** Keeps a style as it comes. */
export const keepStyle = (db: Db, briefId: string, styleId: string, put: KeptPut, by?: By): Kept | null =>
  keepAt(db, briefId, { styleId: styleId as StyleId, ...put }, by);

/** Changes a kept entry. @returns null when there is none. */
export function changeKept(db: Db, briefId: string, keptId: string, put: KeptPut, by: By = NOBODY): Kept | null {
  const entry = listKept(db, briefId).find((k) => k.keptId === keptId);
  return entry ? putEntry(db, briefId, entry, put, by, `${nameOf(db, entry.styleId)} changed`) : null;
}

/** Puts kept faces into an order; those that it does not name stand behind, as they stood. */
export const orderKept = (db: Db, briefId: string, styleIds: readonly string[], by: By = NOBODY): Brief | null =>
  step(db, briefId, { by, summary: "Shortlist ordered" }, () => {
    const placeOf = (k: Kept) => {
      const place = styleIds.indexOf(k.styleId);
      return place < 0 ? styleIds.length : place;
    };
    const ordered = listKept(db, briefId).sort((a, b) => placeOf(a) - placeOf(b) || a.place - b.place);
    replaceKept(
      db,
      briefId,
      ordered.map((k, place) => ({ ...k, place })),
    );
  });

/** Removes a kept entry. @param id - of the entry, or of a style that is kept as it comes. */
export function letGo(db: Db, briefId: string, id: string, by: By = NOBODY): boolean {
  const keptId = id.startsWith("s_") ? keptIdOf(id) : id;
  const entry = listKept(db, briefId).find((k) => k.keptId === keptId);
  // What is not kept need not be let go.
  if (!entry) return id.startsWith("s_") && findBrief(db, briefId) !== null && findStyle(db, id) !== null;
  step(db, briefId, { by, summary: `${nameOf(db, entry.styleId)} removed` }, () => {
    removeKept(db, briefId, keptId);
  });
  return true;
}

/** Sets a style aside for this brief, or brings it back. One state a face: what is set aside is kept no longer. */
export function setAside(db: Db, briefId: string, styleId: string, aside: boolean, by: By = NOBODY): boolean {
  if (!findBrief(db, briefId) || !findStyle(db, styleId)) return false;
  const summary = `${nameOf(db, styleId)} ${aside ? "set aside" : "brought back"}`;
  step(db, briefId, { by, summary }, () => {
    if (!aside) return void bringBack(db, briefId, styleId);
    for (const k of listKept(db, briefId)) if (k.styleId === styleId) removeKept(db, briefId, k.keptId);
    putAside(db, briefId, styleId, new Date().toISOString());
  });
  return true;
}

/** Every check of the brief on one style; null when either is unknown. */
export async function checkStyle(db: Db, briefId: string, styleId: string): Promise<Check[] | null> {
  const brief = findBrief(db, briefId);
  const style = findStyle(db, styleId);
  if (!brief || !style) return null;
  // With the names of all characters, 30 MB: only for whoever asks.
  const { checkBrief } = await import("@/core/brief/checkBrief");
  return checkBrief(brief, style);
}
