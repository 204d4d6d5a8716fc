// One brief in one tab: as it is shown, as the server had it, and the changes between. Every save is measured against what the server had
// when it was made; what the server answers, or others change, is put under what was typed since. No React, no network here.
import { BriefFields, type Brief, type BriefPatch } from "@/contracts/brief";
import { answerConflicts, joinConflicts, mergeBrief, type BriefPart, type Conflict } from "@/core/brief/mergeBrief";
import { makeId } from "./makeId";
import type { Save } from "./saves";
import type { Resolution } from "./state";

/** Fields that are merged when the brief arrives; the others are the server's alone. */
const MERGED = [...Object.keys(BriefFields.shape), "kept", "setAside"];
const SAVE = "brief";
const MAX_LINES = 12;

/** What is on its way: the first may be under way, the others wait. */
type Waiting = {
  readonly list: readonly Save[];
  add(save: Save): void;
  replace(save: Save, by: Save): void;
};
type BriefSyncOptions = {
  /** The brief as it is shown: read and set at once, never a render behind. */
  shown: () => Brief;
  show: (brief: Brief) => void;
  waiting: () => Waiting;
};

export class BriefSync {
  /** Each field as the server had it, the latest that what is shown is measured against. */
  private base: BriefPart;
  private dirty = new Set<string>();
  private options: BriefSyncOptions;
  version: number;

  constructor(brief: Brief) {
    this.base = partOf(brief);
    this.version = brief.version;
    this.options = {
      shown: () => brief,
      show: () => {},
      waiting: () => ({ list: [], add: () => {}, replace: () => {} }),
    };
  }

  /** Where it is shown and saved. */
  connect(options: BriefSyncOptions) {
    this.options = options;
  }

  /** What was not saved before a reload is shown again. */
  takeUp() {
    for (const save of this.saves()) {
      const { from, sent } = sidesOf(save);
      const shown = this.options.shown();
      const { merged, conflicts } = mergeBrief(from, sent, pick(shown, Object.keys(sent)));
      this.options.show({ ...shown, ...joinConflicts(merged, conflicts) });
    }
  }

  /** A change made here. @param seen - the brief as it stood on the page when it was made: what came since stays. */
  change(given: BriefPatch, seen: Brief) {
    const patch = { ...given, ...(given.lines && { lines: given.lines.map(named) }) };
    const shown = this.options.shown();
    const fields = Object.keys(patch);
    const { merged, conflicts } = mergeBrief(pick(seen, fields), patch as BriefPart, pick(shown, fields));
    for (const field of fields) this.dirty.add(field);
    this.options.show({ ...shown, ...joinConflicts(merged, conflicts) });
  }

  /** Makes a save of what was changed. @param isStep - one that is undone by itself. */
  flush(path: string, isStep = false) {
    const shown = pick(this.options.shown(), [...this.dirty]);
    this.dirty.clear();
    // A name may be empty while it is typed, but is not saved so.
    if (typeof shown.name === "string" && !shown.name.trim()) delete shown.name;
    const json: BriefPart = {};
    const base: BriefPart = {};
    for (const [field, value] of Object.entries(shown)) {
      base[field] = this.asItWillBe(field);
      if (JSON.stringify(base[field]) !== JSON.stringify(value)) json[field] = value;
      else delete base[field];
    }
    if (Object.keys(json).length)
      this.options
        .waiting()
        .add({ name: SAVE, path, method: "PATCH", json: { ...json, base }, ...(isStep && { isStep }) });
  }

  /** A save was taken. @param next - the brief that the server made of it. */
  saved(save: Save, next: Brief) {
    const { sent } = sidesOf(save);
    this.lay({ ...this.base, ...sent }, next);
    this.rebase();
  }

  /** All that was kept, removed and set aside here has reached the server: what is shown of it is what the server had. */
  keptSaved() {
    const { kept, setAside } = this.options.shown();
    this.base = { ...this.base, kept, setAside };
  }

  /** Measures what waits against the server's brief, each save against the one before; the last of each field leads to what is shown. */
  private rebase() {
    let base = this.base;
    const waiting = this.saves();
    for (const [i, save] of waiting.entries()) {
      const { from, sent } = sidesOf(save);
      const onto = pick(base, Object.keys(sent));
      const { merged, conflicts } = mergeBrief(from, sent, onto);
      const isLast = (field: string) => !waiting.slice(i + 1).some((s) => field in s.json!);
      const shown = pick(this.options.shown(), Object.keys(sent).filter(isLast));
      const next = { ...joinConflicts(merged, conflicts), ...shown };
      this.options.waiting().replace(save, { ...save, json: { ...next, base: onto } });
      base = { ...base, ...next };
    }
  }

  /** The brief as others made it. @returns false where a save is under way: its answer brings the same. */
  arrived(next: Brief): boolean {
    if (next.version < this.version || this.saves().length) return false;
    this.lay(this.base, next);
    return true;
  }

  /** Both changed the same. @returns the save that is sent instead; nothing that was typed since is lost. */
  settle(save: Save, theirs: Brief, choice: Resolution): Save {
    const { from, sent } = sidesOf(save);
    const fields = Object.keys(sent);
    const { merged, conflicts } = mergeBrief(from, sent, pick(theirs, fields));
    const agreed =
      choice === "theirs" ? merged : choice === "mine" ? putMine(merged, conflicts) : putBoth(merged, conflicts);
    const shown = this.options.shown();
    const since = mergeBrief(sent, pick(shown, fields), agreed);
    this.options.show({ ...shown, ...joinConflicts(since.merged, since.conflicts) });
    return { ...save, json: { ...agreed, base: pick(theirs, fields) } };
  }

  /** The server will never take it: what it had is shown again. */
  refused(save: Save) {
    const fields = Object.keys(sidesOf(save).sent).filter((f) => !this.dirty.has(f));
    this.options.show({ ...this.options.shown(), ...pick(this.base, fields) });
  }

  /** Lays what is shown over the server's brief. @param from - what both come from. Where both changed the same, ours stays to be asked about. */
  private lay(from: BriefPart, next: Brief) {
    const shown = this.options.shown();
    const { merged, conflicts } = mergeBrief(pick(from, MERGED), partOf(shown), partOf(next));
    const contested = new Set(conflicts.map((c) => c.field.split(".")[0]!));
    const after: BriefPart = { ...next, ...merged };
    for (const field of MERGED) {
      this.base[field] = contested.has(field) ? from[field] : next[field as keyof Brief];
      if (!contested.has(field)) continue;
      after[field] = shown[field as keyof Brief];
      this.dirty.add(field);
    }
    this.version = next.version;
    if (JSON.stringify(after) !== JSON.stringify(shown)) this.options.show(after as Brief);
  }

  private saves = () => this.options.waiting().list.filter((s) => s.name === SAVE && s.json);

  /** A field as the server will have it when all that waits is saved. */
  private asItWillBe(field: string): unknown {
    const last = this.saves().findLast((s) => field in s.json!);
    return last ? last.json![field] : this.base[field];
  }
}

const pick = (from: object, fields: readonly string[]): BriefPart =>
  Object.fromEntries(fields.map((f) => [f, (from as BriefPart)[f]]));
const partOf = (brief: Brief): BriefPart => pick(brief, MERGED);
function sidesOf(save: Save): { from: BriefPart; sent: BriefPart } {
  const { base = {}, ...sent } = save.json as BriefPart & { base?: BriefPart };
  return { from: base, sent };
}

type Lines = Brief["lines"];
type Line = Lines[number];
/** Every line has its id from the beginning, so that it is known again when it comes back from the server. */
const named = (line: Line): Line => (line.id ? line : { ...line, id: `l_${makeId(2)}` });
const linesOf = (part: BriefPart) => [...((part.lines as Lines | undefined) ?? [])];

/** Mine stands where both changed the same. */
const putMine = (merged: BriefPart, conflicts: readonly Conflict[]) =>
  answerConflicts(merged, conflicts, ({ mine }) => mine);

/** Both stand: lines under each other while there is room, words behind each other. */
function putBoth(merged: BriefPart, conflicts: readonly Conflict[]): BriefPart {
  let out = { ...merged };
  for (const c of conflicts) {
    const lines = linesOf(out);
    const at = lines.findIndex((l) => l.id === c.id);
    if (c.field === "lines.text" && at >= 0 && lines.length < MAX_LINES) {
      lines.splice(at, 0, named({ text: String(c.mine), role: lines[at]!.role }));
      out.lines = lines;
    } else out = joinConflicts(out, [c]);
  }
  return out;
}
