// The rights of one style: its own evidence, read beside the process, and what is to be said of styles that have the same letters.
import type { Evidence, Rights } from "@/contracts/rights";
import { USES } from "@/contracts/traits";
import { VERDICT_WORDS, USE_WORDS } from "@/contracts/words";
import type { OpenedReading } from "@/core/read/readFont";
import type { SameLetters } from "@/core/rights/readRights";
import type { Db } from "../db/open";
import { readTermsInWorker } from "../workers/pool";
import { addChange, listEvidence, listSameLetters } from "../queries/records";
import { findStyle, updateRights, type StyleRecord } from "../queries/styles";

/** Who made a font, as it says itself. @param vendor - OS/2 achVendID. @param withDesigner - a designer stands in for a missing maker. */
export function makerOf(names: Readonly<Record<string, string>>, vendor: string | null, withDesigner = true) {
  const id = vendor?.trim();
  return names[8] || (withDesigner && names[9]) || (id && !/^(?:UKWN|NONE|PfEd|\W+)$/i.test(id) ? id : null);
}

/** Texts read for one font, and how much of each: more is kept by nobody and understood by nobody. */
const MAX_TEXTS = 8;
const MAX_TEXT_LENGTH = 60_000;

/** Reads evidence, in another process and in bounded time. What could not be read is kept and clears nothing. */
export async function readRightsOf(evidence: Evidence[], sameLetters: SameLetters[] = []): Promise<Rights> {
  const bounded = boundEvidence(evidence);
  const rights = await readTermsInWorker({ what: "rights", evidence: bounded, sameLetters });
  if (rights) return rights;
  const unread = { verdict: "unread" as const, quotes: [] };
  const verdicts = Object.fromEntries(USES.map((u) => [u, unread])) as unknown as Rights["verdicts"];
  return { verdicts, evidence: bounded, isUnreadable: true };
}

const IS_TEXT = new Set<Evidence["kind"]>(["licence-file", "readme"]);
/** The texts that came with a font, cut to what is read. Licences go before readmes. */
function boundEvidence(evidence: Evidence[]): Evidence[] {
  const texts = evidence.filter((e) => IS_TEXT.has(e.kind));
  const kept = new Set([...texts].sort((a, b) => a.kind.localeCompare(b.kind)).slice(0, MAX_TEXTS));
  const isPartial = texts.length > kept.size;
  return evidence
    .filter((e) => !IS_TEXT.has(e.kind) || kept.has(e))
    .map((e) => {
      const isCut = e.text.length > MAX_TEXT_LENGTH || (isPartial && IS_TEXT.has(e.kind));
      return isCut ? { ...e, text: e.text.slice(0, MAX_TEXT_LENGTH), isCut } : e;
    });
}

type Named = { family: string; style: string; maker: string | null };
const plain = (s: string | null) =>
  (s ?? "")
    .normalize("NFKC")
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]/gu, "");
const isSameMaker = (a: string | null, b: string | null) => plain(a) === plain(b);
export const isSameName = (a: string, b: string) => plain(a) === plain(b);
const makerOfRecord = (r: StyleRecord) => makerOf(r.names, r.facts.foundry);

/** Whether a font names the maker and the terms that a style's file names. */
export const isFromSame = (record: StyleRecord, { names, os2 }: OpenedReading["opened"]) =>
  isSameMaker(makerOf(names, os2?.vendor ?? null), makerOfRecord(record)) &&
  [13, 14].every((id) => isSameName(names[id] ?? "", record.names[id] ?? "")) &&
  isRestricted(os2?.fsType ?? null) === isRestricted(record.facts.fsType);
const isRestricted = (fsType: number | null) => ((fsType ?? 0) & 0xf) === 2;

/** What is to be said of each style that has the letters of one. Their own terms count, not what was said of them for a third one's sake. */
export async function sameLettersOf(own: Named, alike: readonly StyleRecord[]): Promise<SameLetters[]> {
  const out: SameLetters[] = [];
  for (const other of alike) {
    const { verdicts } = other.rights.sameLetters ? await readRightsOf(other.rights.evidence) : other.rights;
    const maker = makerOfRecord(other);
    out.push({
      styleId: other.styleId,
      name: `${other.family} ${other.style}`,
      maker,
      isOtherMaker: !isSameMaker(maker, own.maker),
      isSold: other.offer !== null,
      verdicts: Object.fromEntries(USES.map((u) => [u, verdicts[u].verdict])),
    });
  }
  return out;
}

/** Times that rights are read again because something changed while they were read. */
const MAX_READINGS = 5;

/** Reads a style's rights again, from what is known of it now. @param more - texts that came since. */
export async function rereadRights(db: Db, styleId: string, more: Evidence[] = []): Promise<void> {
  for (let reading = 1; ; reading++) {
    const asked = gatherRights(db, styleId, more);
    if (!asked) return;
    const rights = await readRightsOf(asked.evidence, await sameLettersOf(asked.own, asked.alike));
    const now = gatherRights(db, styleId, more);
    if (!now) return;
    // Evidence that came meanwhile, by another way, counts too.
    if (JSON.stringify(now) !== JSON.stringify(asked) && reading < MAX_READINGS) continue;
    if (JSON.stringify(rights) === JSON.stringify(now.record.rights)) return;
    return db.transaction(() => {
      updateRights(db, styleId, rights);
      noteVerdicts(db, styleId, now.record.rights, rights);
    })();
  }
}

/** What the rights of a style are read from; null when it is gone. */
function gatherRights(db: Db, styleId: string, more: readonly Evidence[]) {
  const record = findStyle(db, styleId);
  if (!record) return null;
  const own = { family: record.family, style: record.style, maker: makerOfRecord(record) };
  const alike = listSameLetters(db, styleId).flatMap((id) => findStyle(db, id) ?? []);
  const evidence = [...mergeEvidence(record.rights.evidence, more), ...listEvidence(db, styleId)];
  return { record, own, alike, evidence };
}

/** Texts of both, each once. What the user added stands in a table of its own. */
export function mergeEvidence(known: readonly Evidence[], more: readonly Evidence[]): Evidence[] {
  const kept = known.filter((e) => !e.evidenceId);
  return [...kept, ...more.filter((e) => !kept.some((k) => k.kind === e.kind && k.text === e.text))];
}

function noteVerdicts(db: Db, styleId: string, before: Rights, after: Rights) {
  const changed = USES.filter((u) => after.verdicts[u]?.verdict !== before.verdicts[u]?.verdict);
  if (!changed.length) return;
  const told = changed.map(
    (u) =>
      `${USE_WORDS[u]}: ${VERDICT_WORDS[before.verdicts[u].verdict]} → ${VERDICT_WORDS[after.verdicts[u].verdict]}`,
  );
  note(db, styleId, "rights", `Verdicts changed. ${told.join("; ")}`);
}

export const note = (db: Db, styleId: string, what: string, says: string, libraryId: string | null = null) =>
  addChange(db, { at: new Date().toISOString(), what, styleId, libraryId, says });
