// Two people change one brief: what each did to it, put together. Fields, lines and kept faces are merged one by one, the words of a line
// word by word; only what both changed to different things is a conflict.
import { diff3MergeRegions } from "node-diff3";

/** What of a brief is merged: any subset of its fields. Lists hold records with an id, or plain values that form a set. */
export type BriefPart = Record<string, unknown>;
export type Conflict = {
  /** Field, and the id of the line or kept face in it. */
  field: string;
  id?: string;
  mine: unknown;
  theirs: unknown;
};
type Merged<T> = { merged: T; conflicts: Conflict[] };

const IDS: Record<string, string> = { lines: "id", kept: "keptId", pairs: "id" };
const SETS = new Set(["uses", "setAside"]);
/** Follows from the order of its list. */
const NOT_MERGED = new Set(["place"]);

const isSame = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/**
 * Merges my changes into theirs.
 * @param base - as both knew it. @param mine - as I made it: the same fields. @param theirs - as it stands now.
 * @returns theirs with my changes. Where both changed the same to different things theirs stands, and the conflict is listed.
 */
export function mergeBrief<T extends BriefPart>(base: BriefPart, mine: BriefPart, theirs: T): Merged<T> {
  const merged: BriefPart = { ...theirs };
  const conflicts: Conflict[] = [];
  for (const field of Object.keys(mine)) {
    const [o, a, b] = [base[field], mine[field], theirs[field]];
    if (isSame(o, a) || isSame(a, b)) continue;
    if (field in IDS) merged[field] = mergeRecords(field, o as Rec[], a as Rec[], b as Rec[], conflicts);
    else if (SETS.has(field)) merged[field] = mergeSets(o as unknown[], a as unknown[], b as unknown[]);
    else merged[field] = mergeValue(o, a, b, (theirValue) => conflicts.push({ field, mine: a, theirs: theirValue }));
  }
  return { merged: merged as T, conflicts };
}

function mergeValue(base: unknown, mine: unknown, theirs: unknown, conflict: (theirs: unknown) => void): unknown {
  if (isSame(base, theirs) || isSame(mine, theirs)) return mine;
  if (isSame(base, mine)) return theirs;
  if (typeof base === "string" && typeof mine === "string" && typeof theirs === "string") {
    const words = mergeWords(base, mine, theirs);
    if (words !== null) return words;
  }
  conflict(theirs);
  return theirs;
}

/** Puts an answer in the place of each conflict. @param answer - the value for what both changed. */
export function answerConflicts(
  merged: BriefPart,
  conflicts: readonly Conflict[],
  answer: (conflict: Conflict) => unknown,
): BriefPart {
  const out = { ...merged };
  for (const conflict of conflicts) {
    const { field, id } = conflict;
    const [list, key] = field.split(".");
    const value = answer(conflict);
    if (id && key) out[list!] = (out[list!] as Rec[]).map((r) => (r[IDS[list!]!] === id ? { ...r, [key]: value } : r));
    else out[field] = value;
  }
  return out;
}

/** Where both changed the same, both stand: words behind each other, of the rest mine. Nothing that was typed is lost. */
export const joinConflicts = (merged: BriefPart, conflicts: readonly Conflict[]): BriefPart =>
  answerConflicts(merged, conflicts, ({ field, mine, theirs }) =>
    typeof mine === "string" && typeof theirs === "string" && !ONE_OF.has(field) ? `${theirs} ${mine}` : mine,
  );
/** Fields that hold one of several values, no words. */
const ONE_OF = new Set(["unit", "levelBy", "ink", "paper", "name", "state", "lines.role", "kept.role", "kept.group"]);

/** Word by word; null where both changed the same words. What both added at one place is kept, theirs first. */
export function mergeWords(base: string, mine: string, theirs: string): string | null {
  const cut = (text: string) => text.match(/\s+|[^\s]+/g) ?? [];
  const out: string[] = [];
  for (const region of diff3MergeRegions(cut(mine), cut(base), cut(theirs))) {
    if (region.stable) out.push(...region.bufferContent);
    else if (!region.oContent.join("").trim()) out.push(joinWords(region.bContent.join(""), region.aContent.join("")));
    // The same change twice.
    else if (region.aContent.join("") === region.bContent.join("")) out.push(...region.bContent);
    else return null;
  }
  return out.join("");
}

/** Two insertions at one place, with one space between them; what both hold stands once. */
const joinWords = (first: string, second: string) => {
  const holds = (whole: string, part: string) => ` ${whole.trim()} `.includes(` ${part.trim()} `);
  if (holds(first, second)) return first;
  if (holds(second, first)) return second;
  return joinApart(first, second);
};
const joinApart = (first: string, second: string) =>
  first.trim() && second.trim() && !/\s$/.test(first) && !/^\s/.test(second) ? `${first} ${second}` : first + second;

function mergeSets(base: unknown[] = [], mine: unknown[], theirs: unknown[]): unknown[] {
  const removed = new Set(base.filter((v) => !mine.includes(v)));
  const added = mine.filter((v) => !base.includes(v) && !theirs.includes(v));
  return [...theirs.filter((v) => !removed.has(v)), ...added];
}

type Rec = Record<string, unknown>;

function mergeRecords(field: string, base: Rec[] = [], mine: Rec[], theirs: Rec[], conflicts: Conflict[]): Rec[] {
  const key = IDS[field]!;
  const idOf = (r: Rec) => r[key] as string;
  const by = (list: Rec[]) => new Map(list.map((r) => [idOf(r), r]));
  const [o, a, b] = [by(base), by(mine), by(theirs)];
  const records = new Map<string, Rec>();
  for (const id of new Set([...b.keys(), ...a.keys()])) {
    const [was, my, their] = [o.get(id), a.get(id), b.get(id)];
    if (my && their) records.set(id, mergeRecord(field, id, was ?? {}, my, their, conflicts));
    // Removed by one and not touched by the other; what the other changed stays.
    else if (my && (!was || !isSameRecord(was, my))) records.set(id, my);
    else if (their && (!was || !isSameRecord(was, their))) records.set(id, their);
  }
  return orderOf(base.map(idOf), mine.map(idOf), theirs.map(idOf))
    .filter((id) => records.has(id))
    .map((id) => records.get(id)!);
}

const isSameRecord = (a: Rec, b: Rec) =>
  Object.keys({ ...a, ...b }).every((k) => NOT_MERGED.has(k) || isSame(a[k], b[k]));

function mergeRecord(field: string, id: string, base: Rec, mine: Rec, theirs: Rec, conflicts: Conflict[]): Rec {
  const out: Rec = { ...theirs };
  for (const k of Object.keys(mine))
    if (!NOT_MERGED.has(k) && !isSame(base[k], mine[k]))
      out[k] = mergeValue(base[k], mine[k], theirs[k], (their) =>
        conflicts.push({ field: `${field}.${k}`, id, mine: mine[k], theirs: their }),
      );
  return out;
}

/** Their order, unless only mine was changed; what the other added comes behind what it was added behind. */
function orderOf(base: string[], mine: string[], theirs: string[]): string[] {
  const common = (list: string[], other: string[]) => list.filter((id) => base.includes(id) && other.includes(id));
  const isMineMoved = !isSame(common(mine, mine), common(base, mine));
  const isTheirsMoved = !isSame(common(theirs, theirs), common(base, theirs));
  const [first, second] = isMineMoved && !isTheirsMoved ? [mine, theirs] : [theirs, mine];
  const out = [...first];
  for (const [i, id] of second.entries()) {
    if (out.includes(id)) continue;
    const before = second.slice(0, i).findLast((other) => out.includes(other));
    out.splice(before === undefined ? 0 : out.indexOf(before) + 1, 0, id);
  }
  return out;
}
