// The map of Find: laid out beside the process when the library changes, and which families of it a question finds.
import { createHash } from "node:crypto";
import { LRUCache } from "lru-cache";
import type { FamilyId, StyleId } from "@/contracts/ids";
import { MAP_CELL, type FaceMap, type MapFound } from "@/contracts/map";
import type { ShownItem, StyleQuery } from "@/contracts/styles";
import { KIND_PLURALS } from "@/contracts/words";
import { KINDS, type Kind } from "@/contracts/traits";
import { refuse, succeed, type Outcome } from "@/contracts/errors";
import { hasBit } from "@/core/find/findIndex";
import { mapVectors, type MapFace } from "@/core/find/mapVectors";
import type { RegionWord } from "@/core/map/regions";
import type { Db } from "../db/open";
import { findBrief } from "../queries/briefs";
import { isAnyRunning } from "../queries/jobs";
import { layOutInWorker } from "../workers/pool";
import { answer, getHeld, listItems, SAMPLE_TRAITS } from "./findings";

/** What the map is seen in. */
const VIEW_ASPECT = 1.35;

type Held = ReturnType<typeof getHeld>;
type Kept = { map: FaceMap; faceOf: Map<string, number> };
const kept = new LRUCache<string, Promise<Kept | null>>({ max: 3 });
let latest: Kept | null = null;

/** Answers GET /map. */
export async function getFaceMap(db: Db): Promise<Outcome<FaceMap>> {
  const found = await findMap(db);
  return found ? succeed(found.map) : refuse("map-failed");
}

/** Answers GET /map/found. */
export async function findOnMap(db: Db, query: StyleQuery): Promise<Outcome<MapFound>> {
  const found = await findMap(db);
  if (!found) return refuse("map-failed");
  const held = getHeld(db);
  const brief = query.briefId ? findBrief(db, query.briefId) : null;
  const { order, fitOf, families } = answer(db, held, { ...query, fold: true, open: [] }, brief);
  const fits = new Array<number>(found.map.faces.length).fill(-1);
  for (const row of order) {
    const face = found.faceOf.get(held.index.rows[row]!.familyId);
    if (face !== undefined) fits[face] = Number((fitOf(row) ?? 1).toFixed(3));
  }
  return succeed({ version: found.map.version, families, fits });
}

/** Answers GET /map/faces. */
export function listMapFaces(db: Db, briefId: string, ids: readonly string[]): { items: ShownItem[] } | null {
  const brief = findBrief(db, briefId);
  return brief && { items: listItems(db, brief, ids) };
}

async function findMap(db: Db): Promise<Kept | null> {
  // While fonts come in, the map that there is serves: laying it out again for each of them would never end.
  if (latest && isAnyRunning(db)) return latest;
  const held = getHeld(db);
  const { faces, version } = vectorsOf(held);
  let made = kept.get(version);
  if (!made) {
    made = layOut(held, faces, version);
    kept.set(version, made);
  }
  const found = await made;
  if (found) latest = found;
  else kept.delete(version);
  return found;
}

const vectors = new WeakMap<Held["index"], { faces: MapFace[]; version: string }>();
/** What the map of an index is made of, and its digest: found once, and not at every question. */
function vectorsOf({ index }: Held) {
  let known = vectors.get(index);
  if (!known) {
    const faces = mapVectors(index);
    const hash = createHash("sha1");
    for (const { row, vector } of faces) hash.update(index.rows[row]!.styleId).update(new Uint8Array(vector.buffer));
    vectors.set(index, (known = { faces, version: hash.digest("base64url") }));
  }
  return known;
}

async function layOut(held: Held, faces: readonly MapFace[], version: string): Promise<Kept | null> {
  const { rows } = held.index;
  const laid = await layOutInWorker({
    vectors: faces.map((f) => f.vector),
    aspect: (VIEW_ASPECT * MAP_CELL.height) / MAP_CELL.width,
    words: regionWords(held, faces),
  });
  if (!laid) return null;
  const map: FaceMap = {
    version,
    columns: laid.columns,
    rows: laid.rows,
    regions: laid.regions,
    faces: faces.map(({ row }, i) => ({
      styleId: rows[row]!.styleId as StyleId,
      familyId: rows[row]!.familyId as FamilyId,
      family: rows[row]!.family,
      cell: laid.cells[i]!,
      core: SAMPLE_TRAITS.map((trait) => placeOf(rows[row]!.traits[trait], held.ranges[trait])),
    })),
  };
  return { map, faceOf: new Map(map.faces.map((f, i) => [f.familyId, i])) };
}

const placeOf = (value: number | null, range: [number, number] | undefined) =>
  value === null || !range
    ? null
    : Number(Math.min(1, Math.max(0, (Math.abs(value) - range[0]) / (range[1] - range[0]))).toFixed(2));

const HEAVY = 650;
const LIGHT = 330;
const NARROW = 3.6;
const WIDE = 6.4;

/** What a region may be called by: kinds, and heavy or narrow ones of them. */
function regionWords({ index }: Held, faces: readonly MapFace[]): RegionWord[] {
  const isKind = (row: number, kind: Kind) => hasBit(KINDS, index.kinds.list[index.kinds.of[row]!]!, kind);
  const shades: [string, (row: number) => boolean][] = [
    ["", () => true],
    ["heavy ", (row) => index.traits.weight.values[row]! >= HEAVY],
    ["light ", (row) => index.traits.weight.values[row]! <= LIGHT],
    ["narrow ", (row) => index.traits.width.values[row]! <= NARROW],
    ["wide ", (row) => index.traits.width.values[row]! >= WIDE],
  ];
  return KINDS.flatMap((kind) =>
    shades.map(([shade, has]) => ({
      word: `${shade}${KIND_PLURALS[kind]}`,
      of: faces.map(({ row }) => isKind(row, kind) && has(row)),
    })),
  );
}
