"use client";
// Faces of the map set in the brief's words, each in its cell; they move with the map as one sheet.
import { MAP_CELL as CELL } from "@/contracts/map";
import { memo } from "react";
import type { ShownItem } from "@/contracts/styles";
import { Sample } from "../parts/Sample";
import { sampleOf } from "../parts/sampleOf";
import { strengthOf, type MapState } from "./drawMap";
import { originOf, type Size, type View } from "./mapGeometry";

type Props = {
  state: Omit<MapState, "isSet">;
  view: View;
  size: Size;
  items: ReadonlyMap<string, ShownItem>;
  seen: { fromColumn: number; toColumn: number; fromRow: number; toRow: number };
  text: string;
  face: number | null;
};

export function MapSamples({ state, view, size, items, seen, text, face }: Props) {
  const { map, faceIn, fits } = state;
  const { left, top } = originOf(view, size);
  const [width, height] = [CELL.width * view.zoom, CELL.height * view.zoom];
  const cells = [];
  for (let row = seen.fromRow; row < seen.toRow; row++)
    for (let column = seen.fromColumn; column < seen.toColumn; column++) {
      const at = faceIn[row * map.columns + column]!;
      const item = at < 0 ? undefined : items.get(map.faces[at]!.styleId);
      if (item) cells.push({ at, item, column, row });
    }
  return (
    // Read out by the map itself, one face at a time.
    <div
      aria-hidden
      className="pointer-events-none absolute top-0 left-0"
      style={{ transform: `translate3d(${left}px, ${top}px, 0)` }}
    >
      {cells.map(({ at, item, column, row }) => (
        <div
          key={item.styleId}
          data-map-face={item.styleId}
          data-name={`${item.family} ${item.style}`}
          data-fit={fits[at]}
          className={`absolute flex items-center px-[8%] ${at === face ? "shadow-[inset_0_0_0_2px_var(--tide)]" : ""}`}
          style={{
            left: column * width,
            top: row * height,
            width,
            height,
            opacity: at === face ? 1 : strengthOf(fits[at] ?? -1),
          }}
        >
          <Word item={item} text={text} sizePx={Math.round(height * 0.56)} />
        </div>
      ))}
    </div>
  );
}

const Word = memo(function Word({ item, text, sizePx }: { item: ShownItem; text: string; sizePx: number }) {
  return (
    <div className="map-word relative min-w-0 flex-1">
      <Sample {...sampleOf(item)} text={text} sizePx={sizePx} />
    </div>
  );
});
