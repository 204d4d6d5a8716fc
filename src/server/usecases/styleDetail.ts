// All that is known of one style, and its glyphs.
import type { FamilyId, LibraryId, StyleId } from "@/contracts/ids";
import type { GlyphList, StyleDetail, StylePart } from "@/contracts/styles";
import { charactersOf, findMissing } from "@/core/brief/characters";
import { findOwnWords } from "@/core/brief/ownWords";
import { describeCoverage } from "@/core/unicode/blocks";
import { countCodePoints, subtractRanges, writeUnicodeRange } from "@/core/unicode/ranges";
import { listScripts, nameScript } from "@/core/unicode/scripts";
import { strictestVerdict, verdictsOf } from "@/core/rights/verdicts";
import type { Db } from "../db/open";
import { findBrief } from "../queries/briefs";
import { findStyle, listFamilyStyles, listProvenance, type StyleRecord } from "../queries/styles";
import { findLibrary } from "../queries/libraries";
import { listAlternatives, listChanges } from "../queries/records";
import { SIEVE_TRAITS, SLANTED_FROM_DEG, type CodePointRanges, type Traits } from "@/contracts/traits";
import { HISTOGRAM_BINS } from "@/core/find/findIndex";
import { totalsOf } from "@/core/find/facets";
import { listKeywords, listTags } from "../queries/finding";
import type { Anatomy } from "@/contracts/anatomy";
import type { z } from "zod";
import type { Beside, BesideQuery } from "@/contracts/identify";
import { refuse, succeed, type Outcome } from "@/contracts/errors";
import type { GlyphQuery } from "../workers/glyphTable";
import { askFace } from "../workers/pool";
import { listParts } from "../queries/parts";
import { getRows } from "./findings";
import { getLanguages, setsLanguage } from "./languages";
import { priceOf } from "./shop";

/** By its measure, or by its name. */
export const isSlanted = (traits: Traits, style: string) =>
  Math.abs(traits.slantDeg ?? 0) > SLANTED_FROM_DEG || /italic|oblique/i.test(style);

export function getStyleDetail(db: Db, styleId: string, briefId: string | null): StyleDetail | null {
  const r = findStyle(db, styleId);
  if (!r || r.hidden) return null;
  const alternatives = listAlternatives(db, styleId);
  const brief = briefId ? findBrief(db, briefId) : null;
  const siblings = listFamilyStyles(db, r.familyId)
    .map((s) => ({
      styleId: s.styleId as StyleId,
      style: s.style,
      weight: s.facts.statedWeight ?? s.traits.weight,
      variable: s.axes.length > 0,
      owned: s.owned,
      axisDefaults: Object.fromEntries(s.axes.map((a) => [a.tag, a.default])),
      width: s.traits.width === null ? null : Math.round(s.traits.width),
      slanted: isSlanted(s.traits, s.style),
      slant: s.traits.slantDeg ?? 0,
    }))
    .sort((a, b) => Number(a.variable) - Number(b.variable) || (a.weight ?? 0) - (b.weight ?? 0) || a.slant - b.slant)
    .map(({ slant: _slant, ...s }) => s);
  return {
    styleId: r.styleId as StyleId,
    familyId: r.familyId as FamilyId,
    family: r.family,
    style: r.style,
    library: r.libraryId as LibraryId,
    names: r.names,
    foundry: r.facts.foundry,
    designer: r.facts.designer,
    version: r.facts.version,
    formats: [...new Set([r.format, ...alternatives.map((a) => a.format)])],
    kinds: r.kinds,
    treatments: r.treatments,
    traits: r.traits,
    notes: r.notes,
    vox: r.vox,
    moods: r.moods,
    tags: listTags(db, r.familyId).map(({ tag, holds }) => ({ tag, holds })),
    keywords: listKeywords(db, r.familyId).map(({ keyword, libraryId }) => ({
      keyword,
      libraryName: findLibrary(db, libraryId)?.name ?? libraryId,
    })),
    languages: getLanguages()
      .list.filter((l) => setsLanguage(r.coverage, l))
      .map(({ code, name }) => ({ code, name })),
    languagesOf: getLanguages().list.length,
    spread: spreadOf(db, r),
    ranges: getRows(db).ranges,
    codePoints: r.coverage,
    coverage: describeCoverage(r.coverage),
    glyphCount: r.facts.glyphCount,
    unitsPerEm: r.facts.unitsPerEm,
    axes: r.axes,
    instances: r.instances,
    features: r.features,
    health: r.health,
    rights: r.rights,
    verdict: strictestVerdict(verdictsOf(r.rights), brief?.uses ?? []),
    missing: brief ? findMissing(charactersOf(brief), r.coverage) : [],
    provenance: listProvenance(db, styleId).map((p) => ({
      ...p,
      libraryName: findLibrary(db, p.library)?.name ?? p.library,
    })),
    sha256: r.sha256,
    libraryName: findLibrary(db, r.libraryId)?.name ?? r.libraryId,
    owned: r.owned,
    offer: r.offer && {
      currency: r.offer.currency,
      pricesCents: r.offer.pricesCents,
      hasSetting: r.offer.settingUrl !== null,
    },
    price: priceOf(r.offer, brief?.uses ?? []),
    alternatives: alternatives.map(({ styleId: _styleId, ...a }) => a),
    ownWords: findOwnWords(r.coverage, null),
    parts: r.parts ? describeParts(db, styleId) : [],
    changes: listChanges(db, styleId).map(({ at, what, says }) => ({ at, what, says })),
    siblings,
  };
}

/** What every file of a face has is set by its main one: no other is fetched for a space. */
const OF_MAIN: CodePointRanges = [
  [0, 0x7f],
  [0xa0, 0xa0],
];

/** Answers GET /styles/:id/parts. */
export const describeParts = (db: Db, styleId: string): StylePart[] =>
  listParts(db, styleId).map(({ sha256, format, path, coverage }) => ({
    sha256,
    format,
    path,
    characters: countCodePoints(coverage),
    scripts: listScripts(coverage).map(nameScript),
    unicodeRange: writeUnicodeRange(subtractRanges(coverage, OF_MAIN)),
  }));

/** Where a style stands in the library, trait by trait. */
function spreadOf(db: Db, r: StyleRecord): StyleDetail["spread"] {
  const { index } = getRows(db);
  return Object.fromEntries(
    SIEVE_TRAITS.flatMap((trait) => {
      const value = r.traits[trait];
      if (value === null || value === undefined) return [];
      const { values, bins, range } = index.traits[trait];
      const totals = totalsOf(bins, HISTOGRAM_BINS + 1);
      const measured = values.length - totals[HISTOGRAM_BINS]!;
      let less = 0;
      for (let i = 0; i < values.length; i++) if (values[i]! < value) less++;
      const above = measured ? less / measured : 0;
      return [[trait, { range, bins: [...totals.subarray(0, HISTOGRAM_BINS)], above }]];
    }),
  );
}

/** The bare files of a face in the store, and its features: what a worker opens it by. */
export const storedAs = (db: Db, { styleId, sfntSha256, features, parts }: StyleRecord) => ({
  sfntSha256s: [sfntSha256, ...(parts ? listParts(db, styleId).map((p) => p.sfntSha256) : [])],
  features,
});

/** Answers GET /styles/:id/glyphs. `q`: a character, a name or part of one, "U+00A9". */
export async function listGlyphs(
  db: Db,
  styleId: string,
  query: GlyphQuery,
  signal?: AbortSignal,
): Promise<Outcome<GlyphList>> {
  const r = findStyle(db, styleId);
  if (!r) return refuse("not-found");
  const page = await askFace({ what: "glyphs", query, ...storedAs(db, r) }, signal);
  if (!page.ok) return page;
  const { unitsPerEm, ascenderFu: ascender, descenderFu: descender } = r.facts;
  return succeed({ ...page.value, unitsPerEm, ascender, descender });
}

/** Answers GET /styles/:id/anatomy. */
export async function getAnatomy(db: Db, styleId: string, signal?: AbortSignal): Promise<Outcome<Anatomy>> {
  const r = findStyle(db, styleId);
  return r ? askFace({ what: "anatomy", traits: r.traits, ...storedAs(db, r) }, signal) : refuse("not-found");
}

/** Answers GET /styles/:id/beside; not-found where one of the two is unknown or lacks the letter. */
export async function getBeside(
  db: Db,
  styleId: string,
  { other, at, otherAt, letter }: z.output<typeof BesideQuery>,
  signal?: AbortSignal,
): Promise<Outcome<Beside>> {
  const [a, b] = [findStyle(db, styleId), findStyle(db, other)];
  if (!a || !b) return refuse("not-found");
  const located = (r: StyleRecord, location: typeof at) => ({ ...storedAs(db, r), location: location ?? null });
  const asked = { what: "beside" as const, one: located(a, at), other: located(b, otherAt), letter };
  const told = await askFace(asked, signal);
  if (!told.ok) return told;
  return told.value ? succeed(told.value) : refuse("not-found");
}
