// What is kept for a brief with all that a sheet, a list or an archive says of it.
import type { Outcome } from "@/contracts/errors";
import type { Brief, Kept } from "@/contracts/brief";
import { USES, type Verdict } from "@/contracts/traits";
import { SheetQuery } from "@/contracts/sheet";
import { convertLength } from "@/contracts/units";
import { VERDICT_WORDS, writeValues } from "@/contracts/words";
import { charactersOf, findMissing } from "@/core/brief/characters";
import { strictestVerdict, verdictsOf } from "@/core/rights/verdicts";
import { documentFor } from "@/core/brief/sampleDocument";
import { findOwnWords, lineFor } from "@/core/brief/ownWords";
import { levelFactor } from "@/core/brief/level";
import { writeCredits } from "@/core/write/credits";
import { writeCsv } from "@/core/write/csv";
import { inOrder } from "@/core/write/sheetLayout";
import { writeSpdx } from "@/core/write/spdx";
import type { Db } from "../db/open";
import { readStored } from "../db/fileStore";
import { writeSheetInWorker } from "../workers/pool";
import { listParts, type StylePart } from "../queries/parts";
import { findBrief } from "../queries/briefs";
import { findStyle, listProvenance, type ProvenanceEntry, type StyleRecord } from "../queries/styles";
import { readLabels } from "./labels";

export type ShortlistStyle = {
  kept: Kept;
  record: StyleRecord;
  /** The files that add characters to its main file. */
  parts: StylePart[];
  verdict: Verdict;
  missing: string[];
  provenance: ProvenanceEntry[];
};

/** @throws when the brief is gone. @param only - a choice of the kept styles; all when undefined. */
export function gatherShortlist(
  db: Db,
  briefId: string,
  only?: readonly string[],
): { brief: Brief; styles: ShortlistStyle[] } {
  const brief = findBrief(db, briefId);
  if (!brief) throw new Error(`The brief ${briefId} is gone.`);
  const needed = charactersOf(brief);
  const styles = brief.kept
    .filter((k) => !only || only.includes(k.styleId))
    .flatMap((kept) => {
      const record = findStyle(db, kept.styleId);
      if (!record) return [];
      return [
        {
          kept,
          record,
          parts: record.parts ? listParts(db, record.styleId) : [],
          verdict: strictestVerdict(verdictsOf(record.rights), brief.uses),
          missing: findMissing(needed, record.coverage),
          provenance: listProvenance(db, record.styleId),
        },
      ];
    });
  return { brief, styles };
}

/** @param licenceOf - style id → the file of its licence in an archive. */
export function writeShortlistCsv(
  styles: ShortlistStyle[],
  sort: "shortlist" | "sources",
  licenceOf: ReadonlyMap<string, string> = new Map(),
): string {
  if (sort === "sources")
    return writeCsv(
      ["family", "style", "library", "path", "imported", "sha256", "licence", "licence file"],
      styles.flatMap(({ record, provenance }) =>
        provenance.map((p) => [
          record.family,
          record.style,
          p.library,
          p.path,
          p.importedAt,
          p.sha256,
          record.rights.spdx ?? "",
          licenceOf.get(record.styleId) ?? "",
        ]),
      ),
    );
  return writeCsv(
    [
      "place",
      "family",
      "style",
      "role",
      "note",
      "favourite",
      "verdict",
      "licence",
      "missing characters",
      "weight",
      "x-height em",
      "axes",
      "features",
    ],
    styles.map(({ kept, record, verdict, missing }, i) => [
      i + 1,
      record.family,
      record.style,
      kept.role,
      kept.note,
      kept.favourite ? "yes" : "",
      VERDICT_WORDS[verdict],
      record.rights.spdx ?? "",
      missing.join(" "),
      record.traits.weight,
      record.traits.xHeightEm,
      writeValues(kept.location),
      writeValues(kept.features),
    ]),
  );
}

export const writeShortlistCredits = (brief: Brief, styles: ShortlistStyle[]) =>
  writeCredits(
    brief.name,
    styles.map(({ record, provenance }) => ({
      ...asksFor(record, brief),
      name: `${record.family} ${record.style}`,
      designer: record.facts.designer,
      foundry: record.facts.foundry,
      copyright: record.names["0"] ?? null,
      spdx: record.rights.spdx ?? null,
      source: sourceOf(record, provenance),
    })),
  );

/** Where the file that is handed over came from: of a bought face the delivery, not the trial. */
function sourceOf(record: StyleRecord, provenance: ProvenanceEntry[]): string {
  const own = provenance.find((p) => p.sha256 === record.sha256) ?? provenance[provenance.length - 1];
  return own ? `${own.library}, ${own.path}` : record.libraryId;
}

/** The sentence by which a use of the brief is cleared with credit only; of listed licences the file that goes along is enough. */
function asksFor(record: StyleRecord, brief: Brief): { asksFor?: string } {
  if (record.rights.spdx && !record.rights.spdx.startsWith("CC-BY")) return {};
  const asked = brief.uses.map((u) => record.rights.verdicts[u]).find((v) => v?.verdict === "cleared-with-credit");
  const quote = asked?.quotes[asked.quotes.length - 1];
  return quote ? { asksFor: quote.text } : {};
}

/** The licences of a shortlist as SPDX 2.3 JSON. */
export const writeSpdxFor = (brief: Brief, styles: ShortlistStyle[]): string =>
  writeSpdx(
    { name: brief.name, id: brief.briefId, createdAt: new Date().toISOString() },
    styles.map(({ record, provenance }) => ({
      id: record.styleId,
      name: `${record.family} ${record.style}`,
      version: record.facts.version,
      supplier: record.facts.foundry,
      originator: record.facts.designer,
      fileName:
        (provenance.find((p) => p.sha256 === record.sha256) ?? provenance[0])?.path ??
        `${record.family} ${record.style}.${record.format}`,
      sha256: record.sha256,
      licence: record.rights.spdx ?? null,
      copyright: record.names["0"] ?? null,
      texts: record.rights.evidence
        .filter((e) => ["receipt", "licence-file", "readme", "user"].includes(e.kind))
        .map((e) => ({ source: e.source, text: e.text })),
      comment: USES.map((u) => `${u}: ${VERDICT_WORDS[record.rights.verdicts[u].verdict]}`).join("; "),
    })),
  );

/** The brief's lines as a face sets them: one that has no letter of any is set in words of its own script. */
function linesIn({ coverage, kinds, traits }: StyleRecord, brief: Brief, words: SheetQuery["words"]) {
  const own = findOwnWords(coverage, null);
  const set = [...new Set(brief.lines.map((l) => lineFor(l.text, coverage, own).text).filter(Boolean))];
  const sort = { kinds: kinds.map((k) => k.value), weight: traits.weight };
  return words === "document" ? documentFor(sort, set) : inOrder(set);
}

/** The contact sheet of a brief. @param asked - what is not said is as in a plain sheet. */
export async function writeSheetFor(
  brief: Brief,
  styles: ShortlistStyle[],
  asked: Partial<SheetQuery> = {},
  signal?: AbortSignal,
): Promise<Outcome<Uint8Array>> {
  const { format, layout, columns, words, size } = SheetQuery.parse(asked);
  const request = {
    format,
    look: {
      ...{ layout, columns },
      realPt: size === "real" ? convertLength(brief.size, brief.unit, "pt") : null,
    },
    title: brief.name,
    subtitle: [
      brief.client,
      brief.medium,
      new Date().toISOString().slice(0, 10),
      styles.some(({ record }) => !record.owned) &&
        `not bought yet and left out: ${styles
          .filter(({ record }) => !record.owned)
          .map(({ record }) => `${record.family} ${record.style}`)
          .join(", ")}`,
    ]
      .filter(Boolean)
      .join(" · "),
    lines: brief.lines.map((l) => l.text),
    ink: brief.ink,
    paper: brief.paper,
    ...(await readLabels()),
    // A trial is no font to set a sheet in: what is not bought yet is left out.
    entries: styles
      .filter(({ record }) => record.owned)
      .map(({ kept, record, parts, verdict, missing }) => ({
        lines: linesIn(record, brief, words),
        name: `${record.family} ${record.style}`,
        facts: [
          writeValues(kept.location),
          kept.role,
          VERDICT_WORDS[verdict],
          record.rights.spdx,
          missing.length ? `lacks ${missing.join(" ")}` : "all characters",
        ]
          .filter(Boolean)
          .join("  ·  "),
        note: kept.note,
        sfnt: readStored(record.sfntSha256),
        parts: parts.map((p) => readStored(p.sfntSha256)),
        location: kept.location,
        features: kept.features,
        coverage: record.coverage,
        level: levelFactor(record.traits, brief.levelBy),
      })),
  };
  return writeSheetInWorker(request, signal);
}
