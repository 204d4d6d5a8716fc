// A map of families: vectors → places in the plane (UMAP, a package; very many by their nearest landmarks) → cells of a grid, each once.
import { UMAP } from "umap-js";
import { seededRandom } from "../geometry/numbers";
import { assignCells, type GridSize } from "./assignCells";

/** Families that the projection itself works on, at most; the others stand where their nearest of these stand. */
const LANDMARKS = 1_000;
const NEIGHBOURS = 12;
const EPOCHS = 240;
const NEAREST = 3;
const SEED = 20_261_128;

export type MapLayout = GridSize & { cells: Int32Array };

/**
 * Lays families out.
 * @param vectors - one row per family, all of one length; distances between them are what "alike" means.
 * @param aspect - columns per row: wide cells need fewer columns.
 * @param landmarks - families that the projection itself works on, at most.
 * @returns for each family the number of its cell, row by row; the same for the same vectors.
 */
export function layOutMap(vectors: readonly Float32Array[], aspect: number, landmarks = LANDMARKS): MapLayout {
  const rows = Math.max(1, Math.ceil(Math.sqrt(vectors.length / aspect)));
  const columns = Math.max(1, Math.ceil(vectors.length / rows));
  return { columns, rows, cells: assignCells(project(vectors, landmarks), { columns, rows }) };
}

/** @returns x and y for each vector. */
function project(vectors: readonly Float32Array[], atMost: number): Float64Array {
  const places = new Float64Array(vectors.length * 2);
  // Too few to have neighbourhoods: in the order of their first two measures.
  if (vectors.length <= NEIGHBOURS + 2) {
    vectors.forEach((v, i) => places.set([v[0] ?? 0, v[1] ?? 0], i * 2));
    return places;
  }
  const stride = Math.max(1, Math.ceil(vectors.length / atMost));
  const landmarks = Array.from(vectors.keys()).filter((i) => i % stride === 0);
  const umap = new UMAP({
    nComponents: 2,
    nNeighbors: Math.min(NEIGHBOURS, landmarks.length - 1),
    nEpochs: EPOCHS,
    minDist: 0.25,
    random: seededRandom(SEED),
  });
  const found = umap.fit(landmarks.map((i) => Array.from(vectors[i]!)));
  landmarks.forEach((i, k) => places.set(found[k]!, i * 2));
  for (let i = 0; i < vectors.length; i++) if (i % stride) places.set(between(vectors, i, landmarks, places), i * 2);
  return places;
}

/** The mean place of the nearest landmarks, the nearer the heavier. */
function between(vectors: readonly Float32Array[], i: number, landmarks: readonly number[], places: Float64Array) {
  const nearest: { at: number; d: number }[] = [];
  for (const at of landmarks) {
    const d = distance(vectors[i]!, vectors[at]!);
    if (nearest.length === NEAREST && d >= nearest[NEAREST - 1]!.d) continue;
    nearest.push({ at, d });
    nearest.sort((a, b) => a.d - b.d);
    nearest.length = Math.min(nearest.length, NEAREST);
  }
  const weights = nearest.map(({ d }) => 1 / (d + 1e-6));
  const all = weights.reduce((a, b) => a + b, 0);
  const mean = (axis: number) =>
    nearest.reduce((sum, { at }, k) => sum + places[at * 2 + axis]! * (weights[k]! / all), 0);
  return [mean(0), mean(1)];
}

function distance(a: Float32Array, b: Float32Array): number {
  let sum = 0;
  for (let k = 0; k < a.length; k++) sum += (a[k]! - b[k]!) ** 2;
  return sum;
}
