"use client";
// The factor that every sample of the wall shares, from the room of a column and the faces at its beginning.
import { useMemo } from "react";
import type { LevelBy } from "@/contracts/brief";
import { WALL_PAGE, type ShownItem } from "@/contracts/styles";
import { sharedFit } from "@/core/brief/sharedFit";

/** What a strip holds beside its sample: core sample, gap, padding. */
const BESIDE_PX = { compact: 54, wide: 66 };

export function useSharedFit(
  widthPx: number,
  {
    columns,
    basePx,
    isCompact,
    text,
    levelBy,
  }: { columns: number; basePx: number; isCompact: boolean; text: string; levelBy: LevelBy },
  item: (index: number) => ShownItem | undefined,
): number {
  return useMemo(() => {
    const faces = Array.from({ length: WALL_PAGE }, (_, i) => item(i)).filter((f) => f !== undefined);
    const roomPx = widthPx ? widthPx / columns - (isCompact ? BESIDE_PX.compact : BESIDE_PX.wide) : 0;
    return sharedFit(faces, text, { basePx, levelBy, roomPx });
  }, [widthPx, columns, basePx, isCompact, text, levelBy, item]);
}
