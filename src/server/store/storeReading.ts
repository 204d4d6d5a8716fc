// A font's reading from the worker → one style in the store and the database, with its rights.
import type { FaultCode } from "@/contracts/errors";
import type { FamilyId, StyleId } from "@/contracts/ids";
import type { Evidence, Rights } from "@/contracts/rights";
import { NO_TRAITS, NOT_YET, type CodePointRanges } from "@/contracts/traits";
import { hasOtherScript } from "@/core/unicode/scripts";
import { keyOfFingerprint } from "@/core/measure/fingerprintOutlines";
import type { Db } from "../db/open";
import { storeFile } from "../db/fileStore";
import type { FirstReading, OpenedReading } from "@/core/read/readFont";
import { listEvidence, putPrint } from "../queries/records";
import { putInstances } from "../queries/signatures";
import { putStages } from "../queries/stages";
import {
  findFamilyNamed,
  putSignature,
  putStyle,
  removeSignature,
  type StyleOffer,
  type StyleRecord,
} from "../queries/styles";
import { makerOf, readRightsOf, sameLettersOf } from "./rightsOfStyle";
import { uniteParts } from "./uniteParts";

export type ReadingSource = {
  libraryId: string;
  /** Path within the library or the import, kept as provenance. */
  path: string;
  /** Family as the library states it, or the folder that the file lies in; null when nothing does. */
  statedFamily: string | null;
  evidence: Evidence[];
  /** The style whose file this is; a new one when absent. */
  styleId?: StyleId;
  /** A trial of a face that is not owned, with what the library offers of it and says that it covers. */
  trial?: { coverage: CodePointRanges | null };
  /** What the library offers of the face, bought or not. */
  offer?: StyleOffer | null;
};

/** What became of a file that came in. */
export type Taken = {
  outcome: "added" | "already-there";
  code?: FaultCode;
  styleId: StyleId;
  /** The name of the style it was found to be, or to look like. */
  as?: string;
};

export const styleIdOf = (sha256: string) => `s_${sha256.slice(0, 20)}` as StyleId;
/** Latin names as words; names in other scripts by their code points, so that no two of them fall together, whatever their case and width. */
export function familyIdOf(name: string): FamilyId {
  const family = hasOtherScript(name) ? name.normalize("NFKC").toLowerCase() : name;
  const words = family
    .normalize("NFD")
    .replace(/\p{M}/gu, "")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "")
    .slice(0, 70);
  const codes = [...family].map((c) => c.codePointAt(0)!.toString(16)).join("-");
  const ofOthers = `u-${codes.slice(0, 68)}`;
  return `f_${!words ? ofOthers : hasOtherScript(family) ? `${words.slice(0, 24)}-${ofOthers.slice(0, 44)}` : words}` as FamilyId;
}

/** The family a name stands for here: one that is known by just this name keeps its id. */
export const familyIdIn = (db: Db, family: string): FamilyId =>
  (hasOtherScript(family) ? (findFamilyNamed(db, family) as FamilyId | null) : null) ?? familyIdOf(family);

/** What stands ready to be written: files are in the store, terms are read. */
type PreparedStyle = {
  styleId: StyleId;
  files: { sha256: string; sfntSha256: string };
  reading: FirstReading;
  source: ReadingSource;
  named: { family: string; style: string };
  rights: Rights;
  at: string;
};

/**
 * Does all that takes time: files into the store (content-addressed, so a crash leaves nothing half-read), terms read beside the process.
 * @param alike - styles with the same letters.
 */
export async function prepareStyle(
  db: Db,
  bytes: Uint8Array,
  reading: FirstReading,
  source: ReadingSource,
  alike: readonly StyleRecord[] = [],
): Promise<PreparedStyle> {
  const files = { sha256: storeFile(bytes), sfntSha256: storeFile(reading.opened.sfnt) };
  const at = new Date().toISOString();
  const named = nameStyle(reading, source);
  const styleId = source.styleId ?? styleIdOf(files.sha256);
  const evidence = [...source.evidence, ...statedInFont(reading, at), ...listEvidence(db, styleId)];
  const own = { ...named, maker: makerOf(reading.opened.names, reading.opened.os2?.vendor ?? null) };
  const rights = await readRightsOf(evidence, await sameLettersOf(own, alike));
  return { styleId, files, reading, source, named, rights, at };
}

/** Prepares one reading and writes it. @returns the style's id. */
export async function storeReading(
  db: Db,
  bytes: Uint8Array,
  reading: FirstReading,
  source: ReadingSource,
): Promise<StyleId> {
  const prepared = await prepareStyle(db, bytes, reading, source);
  writeStyle(db, prepared);
  return prepared.styleId;
}

/** Writes the rows, in one transaction. */
export function writeStyle(db: Db, { styleId, files, reading, source, named, rights, at: now }: PreparedStyle) {
  const { opened } = reading;
  db.transaction(() => {
    putStyle(
      db,
      {
        styleId,
        familyId: familyIdIn(db, named.family),
        ...named,
        libraryId: source.libraryId,
        ...files,
        format: opened.format,
        names: Object.fromEntries(Object.entries(opened.names).filter(([id]) => Number(id) <= 25)),
        facts: {
          unitsPerEm: opened.unitsPerEm,
          glyphCount: opened.glyphCount,
          ascenderFu: ascentOf(opened),
          descenderFu: descentOf(opened),
          foundry: makerOf(opened.names, opened.os2?.vendor ?? null, false),
          designer: opened.names[9] ?? null,
          version: opened.names[5] ?? null,
          fsType: opened.os2?.fsType ?? null,
          statedWeight: opened.os2?.usWeightClass ?? null,
          ...(opened.otherFamilies.length > 0 && { otherFamilies: opened.otherFamilies }),
        },
        traits: reading.measured?.traits ?? NO_TRAITS,
        kinds: reading.classified?.kinds ?? [],
        treatments: reading.classified?.treatments ?? [],
        notes: { ...NOT_YET, ...reading.measured?.notes, ...reading.varied?.notes },
        vox: reading.classified?.vox ?? null,
        moods: reading.classified?.moods ?? [],
        coverage: source.trial?.coverage ?? uniteParts(db, styleId, opened.codePoints),
        axes: opened.axes,
        instances: opened.instances,
        features: opened.features,
        health: reading.health ?? opened.health,
        rights,
        addedAt: now,
        owned: !source.trial,
        offer: source.offer ?? null,
        hidden: false,
      },
      { path: source.path, importedAt: now },
    );
    // What is not read yet is not what was read of another file.
    if (reading.signature) putSignature(db, styleId, reading.signature);
    else removeSignature(db, styleId);
    putInstances(db, styleId, reading.varied?.instances ?? []);
    putStages(db, styleId, reading.stages, true);
    if (reading.print && !source.trial) putPrint(db, styleId, keyOfFingerprint(reading.print), reading.print);
  })();
}

type Opened = OpenedReading["opened"];
export const ascentOf = ({ hhea, unitsPerEm }: Opened) => hhea?.ascenderFu ?? Math.round(unitsPerEm * 0.8);
export const descentOf = ({ hhea, unitsPerEm }: Opened) => hhea?.descenderFu ?? -Math.round(unitsPerEm * 0.2);

/** Words that tell styles of one family apart; files cut from a larger font often keep one of another style in their family name. */
const STYLE_WORD =
  /^(?:thin|hairline|extralight|ultralight|light|regular|medium|semibold|demibold|bold|extrabold|ultrabold|black|heavy|\d{1,3}pt)$/i;

/** The stated family wins where the font's is the same with words of a style behind it ("Bitter" over "Bitter Thin"). */
function isFamilyOf(stated: string, family: string): boolean {
  const words = (s: string) =>
    s
      .toLowerCase()
      .split(/[\s_-]+/)
      .filter(Boolean);
  const [own, whole] = [words(stated), words(family)];
  return own.every((w, i) => w === whole[i]) && whole.slice(own.length).every((w) => STYLE_WORD.test(w));
}

export function nameStyle(
  { opened, family }: OpenedReading,
  { statedFamily: stated, styleId }: ReadingSource,
): { family: string; style: string } {
  const plain = (s: string) => s.toLowerCase().replace(/[^a-z0-9]/g, "");
  // A style that is known keeps the family it stands under.
  const isKnown = styleId !== undefined && stated !== null && plain(family).startsWith(plain(stated));
  const chosen = stated && (isKnown || isFamilyOf(stated, family)) ? stated : family;
  if (!opened.axes.length) return { family: chosen, style: opened.style };
  const italic = /italic|oblique/i.test(opened.style) || (opened.italicAngleDeg ?? 0) < -1;
  return { family: chosen, style: italic ? "Variable Italic" : "Variable" };
}

const TERM_NAMES = [13, 14, 0, 7];
const EMBEDDING: Record<number, string> = {
  0: "installable embedding",
  2: "restricted licence embedding",
  4: "preview and print embedding",
  8: "editable embedding",
};

/** The terms that a font itself states: name strings 13, 14, 0 and 7, and OS/2 fsType. A copyright line alone is no permission. */
function statedInFont({ opened }: Pick<FirstReading, "opened">, date: string): Evidence[] {
  const names = TERM_NAMES.flatMap((id) => {
    const text = opened.names[id];
    return text ? [{ kind: "name-table" as const, source: `name ${id} of the font`, date, text }] : [];
  });
  if (!opened.os2) return names;
  const { fsType } = opened.os2;
  const words = EMBEDDING[fsType & 0xf] ?? "several embedding bits at once";
  return [...names, { kind: "fs-type", source: "OS/2 of the font", date, text: `fsType ${fsType} (${words})` }];
}
