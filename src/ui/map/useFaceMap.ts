// What the map shows: its layout, what the question finds on it, and the faces that are seen near enough to be set in words.
import { keepPreviousData, useQueries, useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import type { FaceMap } from "@/contracts/map";
import type { ShownItem } from "@/contracts/styles";
import { ask } from "../parts/client";

/** Faces are asked for by blocks of cells. */
const BLOCK = { columns: 6, rows: 12 };
const STALE_MS = 60_000;

export function useFaceMap(question: string) {
  const layout = useQuery({
    queryKey: ["getFaceMap"],
    queryFn: ({ signal }) => ask("getFaceMap", {}, { signal }),
    staleTime: STALE_MS,
  });
  const found = useQuery({
    queryKey: ["findOnMap", question],
    queryFn: ({ signal }) => ask("findOnMap", { query: new URLSearchParams(question) }, { signal }),
    placeholderData: keepPreviousData,
    staleTime: STALE_MS,
  });
  const map = layout.data;
  const faceIn = useMemo(() => {
    const cells = new Int32Array((map?.columns ?? 0) * (map?.rows ?? 0)).fill(-1);
    map?.faces.forEach(({ cell }, i) => (cells[cell] = i));
    return cells;
  }, [map]);
  const isSame = found.data?.version === map?.version;
  return {
    map,
    faceIn,
    // A new layout stands in another order: until it is asked again, all of it counts as found.
    fits: useMemo(
      () => (isSame ? (found.data?.fits ?? []) : (map?.faces.map(() => 1) ?? [])),
      [isSame, found.data, map],
    ),
    error: layout.error ?? found.error,
  };
}

type Seen = { fromColumn: number; toColumn: number; fromRow: number; toRow: number };

/** Faces in the cells that are seen. @param seen - null while they are too small for words. */
export function useSeenFaces(map: FaceMap | undefined, faceIn: Int32Array, seen: Seen | null, briefId: string) {
  const blocks = map && seen ? blocksOf(seen) : [];
  const results = useQueries({
    queries: blocks.map(([column, row]) => {
      const ids = map ? idsIn(map, faceIn, column, row) : [];
      return {
        queryKey: ["listMapFaces", briefId, map?.version, column, row],
        queryFn: async ({ signal }: { signal: AbortSignal }) =>
          ids.length
            ? (await ask("listMapFaces", { query: new URLSearchParams({ briefId, ids: ids.join(",") }) }, { signal }))
                .items
            : [],
        staleTime: STALE_MS,
      };
    }),
  });
  const items = new Map<string, ShownItem>();
  for (const { data } of results) for (const item of data ?? []) items.set(item.styleId, item);
  return items;
}

function blocksOf({ fromColumn, toColumn, fromRow, toRow }: Seen): [number, number][] {
  const out: [number, number][] = [];
  for (let row = Math.floor(fromRow / BLOCK.rows); row * BLOCK.rows < toRow; row++)
    for (let column = Math.floor(fromColumn / BLOCK.columns); column * BLOCK.columns < toColumn; column++)
      out.push([column, row]);
  return out;
}

function idsIn(map: FaceMap, faceIn: Int32Array, column: number, row: number): string[] {
  const ids: string[] = [];
  for (let r = row * BLOCK.rows; r < Math.min(map.rows, (row + 1) * BLOCK.rows); r++)
    for (let c = column * BLOCK.columns; c < Math.min(map.columns, (column + 1) * BLOCK.columns); c++) {
      const face = faceIn[r * map.columns + c]!;
      if (face >= 0) ids.push(map.faces[face]!.styleId);
    }
  return ids;
}
