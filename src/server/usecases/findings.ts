// Finding: the rows of all styles kept in memory, brought up to date by sequence number; core does the rest.
import type { Brief } from "@/contracts/brief";
import type { BriefId, FamilyId, LibraryId, StyleId } from "@/contracts/ids";
import type { StyleList, StyleListItem, StyleQuery } from "@/contracts/styles";
import type { Traits } from "@/contracts/traits";
import { findStyles, type FindRow, type FoundRow } from "@/core/find/findStyles";
import { verdictsOf } from "@/core/rights/verdicts";
import { quantile } from "@/core/geometry/numbers";
import type { Db } from "../db/open";
import { findBrief } from "../queries/briefs";
import { priceOf } from "./shop";
import { lastSeq, listStylesSince, type StyleRecord } from "../queries/styles";

type Ranges = StyleList["ranges"];
type Held = { seq: number; rows: Map<string, FindRow>; list: FindRow[]; families: Map<string, number>; ranges: Ranges };
const shared = globalThis as unknown as { fondQuarryRows?: WeakMap<Db, Held> };

/** Traits that the core sample shows, in its order, and their spread over the library (2nd to 98th percentile). */
export const SAMPLE_TRAITS = ["stemEm", "contrast", "width", "xHeightEm", "slantDeg", "roundness"] as const;

/** All rows; only what changed since the last call is read from the database. */
export function getRows(db: Db): Held {
  shared.fondQuarryRows ??= new WeakMap();
  const held = shared.fondQuarryRows.get(db) ?? { seq: 0, rows: new Map(), list: [], families: new Map(), ranges: {} };
  const seq = lastSeq(db);
  if (seq === held.seq && held.list.length) return held;
  for (const record of listStylesSince(db, held.seq))
    if (record.hidden) held.rows.delete(record.styleId);
    else held.rows.set(record.styleId, toFindRow(record));
  const list = [...held.rows.values()];
  const families = new Map<string, number>();
  for (const r of list) families.set(r.familyId, (families.get(r.familyId) ?? 0) + 1);
  const next = { seq, rows: held.rows, list, families, ranges: measureRanges(list) };
  shared.fondQuarryRows.set(db, next);
  return next;
}

function toFindRow(r: StyleRecord): FindRow {
  return {
    styleId: r.styleId,
    familyId: r.familyId,
    family: r.family,
    style: r.style,
    library: r.libraryId,
    kinds: r.kinds,
    treatments: r.treatments,
    traits: r.traits,
    verdicts: verdictsOf(r.rights),
    coverage: r.coverage,
    axes: Object.fromEntries(r.axes.map((a) => [a.tag, a.default])),
    addedAt: r.addedAt,
    health: r.health.degree,
    owned: r.owned,
    price: r.offer,
  };
}

function measureRanges(rows: FindRow[]): Ranges {
  const ranges: Ranges = {};
  for (const trait of SAMPLE_TRAITS) {
    const values = rows.map((r) => r.traits[trait]).filter((v): v is number => v !== null);
    const low = quantile(values, 0.02) ?? 0;
    const high = quantile(values, 0.98) ?? 1;
    ranges[trait] = trait === "slantDeg" ? [0, Math.max(1, high)] : [Math.min(low, high), Math.max(high, low + 1e-6)];
  }
  return ranges;
}

/** Answers GET /styles. `briefId` of an unknown brief counts as none. */
export function listFound(db: Db, query: StyleQuery): StyleList {
  const held = getRows(db);
  const brief = query.briefId ? findBrief(db, query.briefId) : null;
  const { rows, facets, understood } = findStyles(held.list, query, brief);
  const from = Number(query.cursor ?? 0);
  const to = from + query.limit;
  return {
    total: rows.length,
    ofAll: held.list.length,
    items: rows.slice(from, to).map((f) => toItem(f, held, brief)),
    ...(to < rows.length && { cursor: String(to) }),
    facets,
    understood,
    ranges: held.ranges,
  };
}

const round = (v: number | null) => (v === null ? null : Number(v.toFixed(4)));

function toItem({ row, verdict, missing }: FoundRow, held: Held, brief: Brief | null): StyleListItem {
  return {
    styleId: row.styleId as StyleId,
    familyId: row.familyId as FamilyId,
    family: row.family,
    style: row.style,
    library: row.library as LibraryId,
    kinds: row.kinds.map((k) => k.value),
    treatments: row.treatments.map((t) => t.value),
    verdict,
    traits: Object.fromEntries(
      Object.entries(row.traits).map(([k, v]) => [k, typeof v === "number" ? round(v) : v]),
    ) as Traits,
    stylesInFamily: held.families.get(row.familyId) ?? 1,
    missing,
    coverage: row.coverage,
    health: row.health,
    axisDefaults: row.axes,
    owned: row.owned,
    price: verdict === "buy-first" ? priceOf(row.price, brief?.uses ?? []) : null,
  };
}

/** Items of the styles kept for a brief, in their order. */
export function listKeptItems(db: Db, brief: Brief): StyleListItem[] {
  const found = findStyles(
    getRows(db).list,
    { aside: "show", briefId: brief.briefId as BriefId },
    { ...brief, setAside: [] },
  );
  const byId = new Map(found.rows.map((f) => [f.row.styleId, f]));
  return brief.kept.flatMap((k) => {
    const f = byId.get(k.styleId);
    return f ? [toItem(f, getRows(db), brief)] : [];
  });
}
