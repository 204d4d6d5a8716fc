// Styles in SQL: rows in, domain values out.
import type { Instance } from "@/core/open/tables/layout";
import type {
  Axis,
  CodePointRanges,
  Health,
  KindGuess,
  MeasureNotes,
  MoodGuess,
  Traits,
  TreatmentGuess,
  Use,
  Verdict,
  VoxGuess,
} from "@/contracts/traits";
import { verdictsOf } from "@/core/rights/verdicts";
import { NO_NOTES } from "@/contracts/traits";
import type { Rights } from "@/contracts/rights";
import type { Db } from "../db/open";

export type StyleFactSheet = {
  unitsPerEm: number;
  glyphCount: number;
  ascenderFu: number;
  descenderFu: number;
  foundry: string | null;
  designer: string | null;
  version: string | null;
  fsType: number | null;
  statedWeight: number | null;
  /** What the family is called in other scripts; absent where it is in none. */
  otherFamilies?: string[];
};

/** What a library offers of a face: for one not yet owned, its samples and prices too. */
export type StyleOffer = {
  publicationId: string;
  /** Address that sets a line in the face and gives SVG; null when the library has no such service. */
  settingUrl: string | null;
  buyUrl: string | null;
  currency: string;
  /** Price in cents by use; a use that is missing is not sold. */
  pricesCents: Record<string, number>;
};

export type StyleRecord = {
  styleId: string;
  seq: number;
  familyId: string;
  family: string;
  style: string;
  libraryId: string;
  sha256: string;
  sfntSha256: string;
  format: string;
  names: Record<string, string>;
  facts: StyleFactSheet;
  traits: Traits;
  kinds: KindGuess[];
  treatments: TreatmentGuess[];
  coverage: CodePointRanges;
  axes: Axis[];
  instances: Instance[];
  features: string[];
  health: Health;
  rights: Rights;
  notes: MeasureNotes;
  vox: VoxGuess | null;
  moods: MoodGuess[];
  addedAt: string;
  /** False: the library has it, here is only a trial. */
  owned: boolean;
  offer: StyleOffer | null;
  hidden: boolean;
  /** Files that add characters to the one that is named here. */
  parts: number;
};

const JSON_COLUMNS = [
  "names",
  "facts",
  "traits",
  "kinds",
  "treatments",
  "coverage",
  "axes",
  "instances",
  "features",
  "health",
  "rights",
  "notes",
  "moods",
] as const;

const SELECT = `SELECT style_id AS styleId, seq, family_id AS familyId, family, style, library_id AS libraryId, sha256,
  sfnt_sha256 AS sfntSha256, format, names, facts, traits, kinds, treatments, coverage, axes, instances, features, health,
  rights, notes, vox, moods, added_at AS addedAt, owned, offer, hidden, parts FROM styles`;

function toRecord(row: Record<string, unknown>): StyleRecord {
  for (const column of JSON_COLUMNS) row[column] = JSON.parse(row[column] as string);
  row.owned = row.owned === 1;
  row.hidden = row.hidden === 1;
  row.offer = row.offer ? JSON.parse(row.offer as string) : null;
  row.vox = row.vox ? JSON.parse(row.vox as string) : null;
  row.notes = { ...NO_NOTES, ...(row.notes as object) };
  return row as unknown as StyleRecord;
}

export const findStyle = (db: Db, styleId: string): StyleRecord | null => {
  const row = db.prepare<[string], Record<string, unknown>>(`${SELECT} WHERE style_id = ?`).get(styleId);
  return row ? toRecord(row) : null;
};

/** The style that goes by these names, of several the first that came. */
export const findStyleByNames = (db: Db, familyId: string, family: string, style: string): string | null =>
  db
    .prepare<[string, string, string], { styleId: string }>(
      "SELECT style_id AS styleId FROM styles WHERE family_id = ? AND family = ? AND style = ? AND hidden = 0 ORDER BY seq LIMIT 1",
    )
    .get(familyId, family, style)?.styleId ?? null;

type StyleFile = { sha256: string; sfntSha256: string; format: string; owned: boolean };
/** Where the file of a style is: asked for at every font that a wall shows. */
export const findStyleFile = (db: Db, styleId: string): StyleFile | null => {
  const row = db
    .prepare<[string], Omit<StyleFile, "owned"> & { owned: number }>(
      "SELECT sha256, sfnt_sha256 AS sfntSha256, format, owned FROM styles WHERE style_id = ?",
    )
    .get(styleId);
  return row ? { ...row, owned: row.owned === 1 } : null;
};

/** The style that some bytes are a file of. */
export const findStyleBySha = (db: Db, sha256: string): string | null =>
  db
    .prepare<[string, string, string], { styleId: string }>(
      `SELECT style_id AS styleId FROM styles WHERE sha256 = ? AND owned = 1
       UNION ALL SELECT style_id FROM alternatives WHERE sha256 = ?
       UNION ALL SELECT style_id FROM parts WHERE sha256 = ?`,
    )
    .get(sha256, sha256, sha256)?.styleId ?? null;

/** What finding needs of a style; the rest of the row is read when a style is opened. */
export type FindRecord = Pick<
  StyleRecord,
  | "styleId"
  | "seq"
  | "familyId"
  | "family"
  | "style"
  | "libraryId"
  | "traits"
  | "kinds"
  | "treatments"
  | "moods"
  | "vox"
  | "addedAt"
  | "owned"
  | "offer"
  | "hidden"
  | "parts"
> & {
  /** As text: many styles share them, the reader keeps each once. */
  coverageText: string;
  /** JSON of what its axes reach, and of what it is at their ends. */
  reachText: string | null;
  axisEndsText: string | null;
  axesText: string;
  featuresText: string;
  verdicts: Partial<Record<Use, Verdict>>;
  degree: Health["degree"];
  format: string;
  foundry: string | null;
  /** JSON; null where there are none. */
  otherFamiliesText: string | null;
};

const SHARED_TEXTS = ["familyId", "family", "style", "libraryId", "format", "foundry", "degree", "addedAt"];
/** Styles changed after `seq`, one at a time: at a hundred thousand no list of whole rows is ever held. */
export function* eachStyleSince(db: Db, seq: number): Generator<FindRecord> {
  const rows = db
    .prepare<[number], Record<string, unknown>>(
      `SELECT style_id AS styleId, seq, family_id AS familyId, family, style, library_id AS libraryId, traits, kinds, treatments,
         moods, vox, json_extract(notes, '$.reach') AS reachText,
         json_extract(notes, '$.axes') AS axisEndsText, coverage AS coverageText, axes AS axesText, features AS featuresText, verdicts, format,
         json_extract(health, '$.degree') AS degree, json_extract(facts, '$.foundry') AS foundry,
         json_extract(facts, '$.otherFamilies') AS otherFamiliesText, added_at AS addedAt, owned, offer, hidden, parts
       FROM styles WHERE seq > ? ORDER BY seq`,
    )
    .iterate(seq);
  // Styles of one family, and whole libraries, say the same of themselves: each text is parsed once.
  const parsed = new Map<string, unknown>();
  const parseOnce = (text: string): unknown => {
    let value = parsed.get(text);
    if (value === undefined) parsed.set(text, (value = JSON.parse(text)));
    return value;
  };
  // The database gives a new string each time: what many styles share is held once.
  const texts = new Map<string, string>();
  const holdOnce = (text: string): string => texts.get(text) ?? (texts.set(text, text), text);
  for (const row of rows) {
    for (const column of SHARED_TEXTS) if (row[column] !== null) row[column] = holdOnce(row[column] as string);
    row.traits = JSON.parse(row.traits as string);
    for (const column of ["kinds", "treatments", "moods", "verdicts"]) row[column] = parseOnce(row[column] as string);
    row.vox = row.vox ? parseOnce(row.vox as string) : null;
    row.offer = row.offer ? JSON.parse(row.offer as string) : null;
    row.owned = row.owned === 1;
    row.hidden = row.hidden === 1;
    yield row as unknown as FindRecord;
  }
}

const READ_COLUMNS = ["traits", "kinds", "treatments", "notes", "vox", "moods", "health"] as const;
type Read = Partial<Pick<StyleRecord, (typeof READ_COLUMNS)[number]>>;

/** Puts what was read again of a style; all that is not given stays. */
export function updateReading(db: Db, styleId: string, read: Read) {
  const given = READ_COLUMNS.filter((c) => read[c] !== undefined);
  const values = Object.fromEntries(given.map((c) => [c, read[c] === null ? null : JSON.stringify(read[c])]));
  db.prepare(
    `UPDATE styles SET ${given.map((c) => `${c} = @${c}, `).join("")} seq = (SELECT max(seq) + 1 FROM styles) WHERE style_id = @styleId`,
  ).run({ styleId, ...values });
}

/** Puts the descriptors of a style's letters. */
export const putSignature = (db: Db, styleId: string, signature: Uint8Array) =>
  db
    .prepare(
      "INSERT INTO signatures (style_id, signature) VALUES (?, ?) ON CONFLICT(style_id) DO UPDATE SET signature = excluded.signature",
    )
    .run(styleId, signature);
export const removeSignature = (db: Db, styleId: string) =>
  db.prepare("DELETE FROM signatures WHERE style_id = ?").run(styleId);

export const findSignature = (db: Db, styleId: string): Uint8Array | null =>
  db.prepare<[string], { signature: Uint8Array }>("SELECT signature FROM signatures WHERE style_id = ?").get(styleId)
    ?.signature ?? null;

export const listFamilyStyles = (db: Db, familyId: string): StyleRecord[] =>
  db
    .prepare<[string], Record<string, unknown>>(`${SELECT} WHERE family_id = ? AND hidden = 0`)
    .all(familyId)
    .map(toRecord);

/** Id of the family that goes by just this name. */
export const findFamilyNamed = (db: Db, family: string): string | null =>
  db
    .prepare<[string], { familyId: string }>("SELECT family_id AS familyId FROM styles WHERE family = ? LIMIT 1")
    .get(family)?.familyId ?? null;

export const listStylesNamed = (db: Db, familyId: string, style: string): StyleRecord[] =>
  db
    .prepare<[string, string], Record<string, unknown>>(`${SELECT} WHERE family_id = ? AND style = ? AND hidden = 0`)
    .all(familyId, style)
    .map(toRecord);

/** A reader whose answer is kept until any style changes. */
export function oncePerChange<Answer>(read: (db: Db) => Answer): (db: Db) => Answer {
  const kept = new WeakMap<Db, { seq: number; answer: Answer }>();
  return (db) => {
    const seq = lastSeq(db);
    const known = kept.get(db);
    if (known?.seq === seq) return known.answer;
    const answer = read(db);
    kept.set(db, { seq, answer });
    return answer;
  };
}

/** It is asked for every few seconds. */
export const countStyles = oncePerChange((db) =>
  db
    .prepare<[], { styles: number; families: number }>(
      "SELECT count(*) AS styles, count(DISTINCT family_id) AS families FROM styles WHERE hidden = 0",
    )
    .get()!,
);

/** Highest sequence number: changes whenever any style does. */
export const lastSeq = (db: Db): number =>
  db.prepare<[], { seq: number }>("SELECT coalesce(max(seq), 0) AS seq FROM styles").get()!.seq;

/**
 * Puts one style and where it came from, in one transaction. A style that exists is replaced,
 * keeping the time it was first added.
 */
export function putStyle(
  db: Db,
  record: Omit<StyleRecord, "seq" | "parts">,
  source: { path: string; importedAt: string },
) {
  db.transaction(() => {
    const seq = lastSeq(db) + 1;
    db.prepare(
      `INSERT INTO styles (style_id, seq, family_id, family, style, library_id, sha256, sfnt_sha256, format, names, facts, traits,
         kinds, treatments, coverage, axes, instances, features, health, rights, added_at, owned, offer, hidden, notes, vox, moods, verdicts, parts)
       VALUES (@styleId, @seq, @familyId, @family, @style, @libraryId, @sha256, @sfntSha256, @format, @names, @facts, @traits,
         @kinds, @treatments, @coverage, @axes, @instances, @features, @health, @rights, @addedAt, @owned, @offer, @hidden,
         @notes, @vox, @moods, @verdicts, (SELECT count(*) FROM parts WHERE style_id = @styleId))
       ON CONFLICT(style_id) DO UPDATE SET seq = excluded.seq, family_id = excluded.family_id, family = excluded.family,
         style = excluded.style, library_id = excluded.library_id, sha256 = excluded.sha256, sfnt_sha256 = excluded.sfnt_sha256, format = excluded.format, names = excluded.names, facts = excluded.facts,
         traits = excluded.traits, kinds = excluded.kinds, treatments = excluded.treatments, coverage = excluded.coverage,
         axes = excluded.axes, instances = excluded.instances, features = excluded.features, health = excluded.health,
         rights = excluded.rights, owned = excluded.owned, offer = excluded.offer,
         hidden = excluded.hidden, notes = excluded.notes, vox = excluded.vox, moods = excluded.moods, verdicts = excluded.verdicts,
         parts = excluded.parts`,
    ).run({
      ...record,
      seq,
      owned: record.owned ? 1 : 0,
      hidden: record.hidden ? 1 : 0,
      offer: record.offer && JSON.stringify(record.offer),
      vox: record.vox && JSON.stringify(record.vox),
      verdicts: JSON.stringify(verdictsOf(record.rights)),
      ...Object.fromEntries(JSON_COLUMNS.map((c) => [c, JSON.stringify(record[c])])),
    });
    putProvenance(db, record.styleId, { library: record.libraryId, sha256: record.sha256, ...source });
  })();
}

export type ProvenanceEntry = { library: string; path: string; importedAt: string; sha256: string };

export function putProvenance(db: Db, styleId: string, entry: ProvenanceEntry) {
  db.prepare(
    "INSERT OR IGNORE INTO provenance (style_id, library_id, path, sha256, imported_at) VALUES (?, ?, ?, ?, ?)",
  ).run(styleId, entry.library, entry.path, entry.sha256, entry.importedAt);
}

/** What is known of a file's way goes along with it. */
export const moveProvenance = (db: Db, from: string, to: string, sha256: string) =>
  db.transaction(() => {
    db.prepare(
      "INSERT OR IGNORE INTO provenance SELECT ?, library_id, path, sha256, imported_at FROM provenance WHERE style_id = ? AND sha256 = ?",
    ).run(to, from, sha256);
    db.prepare("DELETE FROM provenance WHERE style_id = ? AND sha256 = ?").run(from, sha256);
  })();

export const listProvenance = (db: Db, styleId: string): ProvenanceEntry[] =>
  db
    .prepare<[string], ProvenanceEntry>(
      "SELECT library_id AS library, path, imported_at AS importedAt, sha256 FROM provenance WHERE style_id = ? ORDER BY imported_at",
    )
    .all(styleId);

/** Writes a new rights record; the row counts as changed. */
export const updateRights = (db: Db, styleId: string, rights: Rights) =>
  db
    .prepare("UPDATE styles SET rights = ?, verdicts = ?, seq = (SELECT max(seq) + 1 FROM styles) WHERE style_id = ?")
    .run(JSON.stringify(rights), JSON.stringify(verdictsOf(rights)), styleId);

/** Hides or shows the faces of a library that are not owned. @returns how many. */
export const setHidden = (db: Db, libraryId: string, hidden: boolean): number =>
  db
    .prepare(
      `UPDATE styles SET hidden = ?, seq = (SELECT max(seq) FROM styles) + 1 WHERE library_id = ? AND owned = 0 AND hidden <> ?`,
    )
    .run(hidden ? 1 : 0, libraryId, hidden ? 1 : 0).changes;
