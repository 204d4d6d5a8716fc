// Names for the regions of a map: what most of the families there have, and have more often than the library.
import type { GridSize } from "./assignCells";

/** A word and who has it. `of`: families, by their number. */
export type RegionWord = { word: string; of: readonly boolean[] };
export type Region = { word: string; column: number; row: number; columns: number; rows: number };

const TILES = 4;
const LEAST_FAMILIES = 3;
const LEAST_SHARE = 0.5;

/**
 * Names the tiles of a grid; neighbours of one name are one region.
 * @param cells - of each family. @returns regions in the order of reading, named by the word that is most over-represented.
 */
export function nameRegions(cells: Int32Array, grid: GridSize, words: readonly RegionWord[]): Region[] {
  const [across, down] = [Math.min(TILES, grid.columns), Math.min(TILES, grid.rows)];
  const tiles = Array.from({ length: across * down }, () => [] as number[]);
  const tileOf = (cell: number) =>
    Math.floor((Math.floor(cell / grid.columns) * down) / grid.rows) * across +
    Math.floor(((cell % grid.columns) * across) / grid.columns);
  cells.forEach((cell, family) => tiles[tileOf(cell)]!.push(family));
  const shares = words.map(({ of }) => of.filter(Boolean).length / Math.max(1, of.length));
  const names = tiles.map((members) => nameTile(members, words, shares));
  const edge = (k: number, parts: number, length: number) => Math.ceil((k * length) / parts);
  return names.flatMap((word, tile) => {
    const [x, y] = [tile % across, Math.floor(tile / across)];
    // Told once where it begins: not again beside or below itself.
    if (!word || (x > 0 && names[tile - 1] === word) || (y > 0 && names[tile - across] === word)) return [];
    const [column, row] = [edge(x, across, grid.columns), edge(y, down, grid.rows)];
    return {
      word,
      column,
      row,
      columns: edge(x + 1, across, grid.columns) - column,
      rows: edge(y + 1, down, grid.rows) - row,
    };
  });
}

function nameTile(members: readonly number[], words: readonly RegionWord[], shares: readonly number[]): string | null {
  if (members.length < LEAST_FAMILIES) return null;
  let best: { word: string; gain: number } | null = null;
  for (const [k, { word, of }] of words.entries()) {
    const share = members.filter((m) => of[m]).length / members.length;
    const gain = share - shares[k]!;
    if (share >= LEAST_SHARE && gain > 0.1 && (!best || gain > best.gain)) best = { word, gain };
  }
  return best?.word ?? null;
}
