"use client";
// The whole map in a corner, with a frame around what is seen. A click there goes there.
import { MAP_CELL as CELL } from "@/contracts/map";
import { useEffect, useRef } from "react";
import { pictureOf, readColours, type MapState } from "./drawMap";
import { wholeZoom, type Size, type View } from "./mapGeometry";

const LONGEST_PX = 128;

type Props = { state: Omit<MapState, "isSet">; view: View; size: Size; onView: (view: View) => void };

export function SmallMap({ state, view, size, onView }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { map } = state;
  const plane = { width: map.columns * CELL.width, height: map.rows * CELL.height };
  const scale = LONGEST_PX / Math.max(plane.width, plane.height);
  const [width, height] = [Math.round(plane.width * scale), Math.round(plane.height * scale)];
  const isPart = view.zoom > wholeZoom(map, size) * 1.01;
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context || !canvas.current) return;
    context.clearRect(0, 0, width, height);
    context.imageSmoothingEnabled = false;
    context.drawImage(pictureOf(state, readColours(canvas.current).slate), 0, 0, width, height);
  });
  if (!isPart) return null;
  const seen = { width: (size.width / view.zoom) * scale, height: (size.height / view.zoom) * scale };
  return (
    <div className="absolute right-3 bottom-3 border border-rule bg-limestone p-1" data-small-map>
      <div className="relative overflow-hidden" style={{ width, height }}>
        <canvas
          ref={canvas}
          width={width}
          height={height}
          className="block"
          onClick={({ nativeEvent: { offsetX, offsetY } }) =>
            onView({ ...view, x: offsetX / scale, y: offsetY / scale })
          }
        />
        <span
          className="pointer-events-none absolute border border-tide"
          style={{ ...seen, left: view.x * scale - seen.width / 2, top: view.y * scale - seen.height / 2 }}
        />
      </div>
    </div>
  );
}
