"use client";
// The map: every family once, near what it resembles. Dragged and zoomed by the hand, walked by the arrows; near enough it is set in the
// brief's words, from further off it is core samples. Only what is seen is drawn.
import { MAP_CELL as CELL } from "@/contracts/map";
import { useCallback, useEffect, useMemo, useRef, useState, type PointerEvent } from "react";
import type { ShownItem } from "@/contracts/styles";
import { useBench } from "../bench/BenchContext";
import { useKeys } from "../bench/useKeys";
import { useGo } from "../bench/useGo";
import { useFocusFacts } from "../find/useFocusFacts";
import { nameOf } from "../find/facts";
import { writeFault } from "../messages";
import { faultOf } from "../parts/client";
import { addressOfKept } from "../parts/sampleOf";
import { FaultNote } from "../parts/FaultNote";
import { useMeasured } from "../parts/useMeasured";
import { drawMap, readColours, type MapState } from "./drawMap";
import {
  boundView,
  cellAt,
  cellsSeen,
  neighbourOf,
  showCell,
  viewWhole,
  WORDS_FROM_PX,
  zoomAt,
  type Size,
  type View,
} from "./mapGeometry";
import { MapSamples } from "./MapSamples";
import { SmallMap } from "./SmallMap";
import { useFaceMap, useSeenFaces } from "./useFaceMap";

const ZOOM_STEP = 1.25;
const ARROWS = ["ArrowLeft", "ArrowRight", "ArrowUp", "ArrowDown"];

type Props = { question: string; text: string };

export function MapView({ question, text }: Props) {
  const { brief } = useBench();
  const { map, faceIn, fits, error } = useFaceMap(question);
  const box = useRef<HTMLDivElement>(null);
  const size = useMeasured(box, sizeOf);
  const [chosen, setView] = useState<View | null>(null);
  const view = map && size ? boundView(chosen ?? viewWhole(map, size), map, size) : null;
  const [focus, setFocus] = useState<number | null>(null);
  const first = useMemo(() => bestOf(fits), [fits]);
  const face = focus ?? first;
  const isNear = view !== null && CELL.width * view.zoom >= WORDS_FROM_PX;
  const seen = map && view && size ? cellsSeen(view, map, size) : null;
  const items = useSeenFaces(map, faceIn, isNear ? seen : null, brief.briefId);
  const item = map && face !== null ? items.get(map.faces[face]!.styleId) : undefined;
  useFocusFacts(item);
  const look = useCallback(
    (next: number) => {
      setFocus(next);
      if (map && size) setView((v) => showCell(v ?? viewWhole(map, size), map.faces[next]!.cell, map, size));
    },
    [map, size],
  );
  const onView = useCallback(
    (change: (view: View) => View) => {
      setView((v) => (map && size ? boundView(change(v ?? viewWhole(map, size)), map, size) : v));
    },
    [map, size],
  );
  const kept = useMemo(() => new Set<string>(brief.kept.map((k) => k.styleId)), [brief.kept]);
  useMapKeys({ map, faceIn, fits, face, item, look, onView, size, box });
  if (error)
    return (
      <div className="p-4">
        <FaultNote fault={writeFault(faultOf(error))} />
      </div>
    );
  const state = map && { map, faceIn, fits, kept };
  const label = map && face !== null ? tellFace(map.faces[face]!.family, fits[face] ?? -1) : "";
  return (
    <div
      ref={box}
      role="application"
      aria-label="Map of the library"
      aria-describedby="map-keys"
      tabIndex={0}
      data-map={map?.version}
      data-zoom={view?.zoom.toFixed(3)}
      className="relative h-full touch-none overflow-hidden outline-none"
    >
      {state && view && size && seen && (
        <>
          <Plane {...{ state, view, size, items, isNear, face, onView }} onFace={look} />
          {isNear && <MapSamples {...{ state, view, size, items, seen, text, face }} />}
          {!isNear && <Regions map={state.map} view={view} size={size} />}
          <SmallMap state={state} view={view} size={size} onView={setView} />
        </>
      )}
      {!map && <p className="p-4 text-basalt">Laying out the map …</p>}
      <p className="sr-only" id="map-keys">
        Arrows go to the neighbour, Space keeps, Enter opens, plus and minus zoom.
      </p>
      <p className="sr-only" aria-live="polite" data-map-focus>
        {label}
      </p>
    </div>
  );
}

const tellFace = (family: string, fit: number) =>
  fit < 0 ? `${family}, not found by the question` : `${family}, fits ${fit.toFixed(2)}`;

function bestOf(fits: readonly number[]): number | null {
  let best: number | null = null;
  for (let i = 0; i < fits.length; i++) if (fits[i]! >= 0 && (best === null || fits[i]! > fits[best]!)) best = i;
  return best;
}

const sizeOf = (element: HTMLElement): Size => ({ width: element.clientWidth, height: element.clientHeight });

type PlaneProps = {
  state: Omit<MapState, "isSet">;
  view: View;
  size: Size;
  items: ReadonlyMap<string, ShownItem>;
  isNear: boolean;
  face: number | null;
  onFace: (face: number) => void;
  onView: (change: (view: View) => View) => void;
};

/** The canvas, and what the hand does on it. */
function Plane({ state, view, size, items, isNear, face, onFace, onView }: PlaneProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const held = useRef<{ x: number; y: number; hasMoved: boolean } | null>(null);
  const { map, faceIn } = state;
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context || !canvas.current) return;
    const ratio = window.devicePixelRatio || 1;
    if (canvas.current.width !== size.width * ratio || canvas.current.height !== size.height * ratio) {
      canvas.current.width = size.width * ratio;
      canvas.current.height = size.height * ratio;
    }
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    const isSet = (f: number) => isNear && items.has(map.faces[f]!.styleId);
    drawMap(context, view, size, { ...state, isSet }, readColours(canvas.current));
  });
  useEffect(() => {
    const on = canvas.current;
    if (!on) return;
    // Not passive: the page behind is not to scroll.
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      const at = placeIn(on, event);
      onView((v) => zoomAt(v, Math.exp(-event.deltaY / 500), at, map, size));
    };
    on.addEventListener("wheel", onWheel, { passive: false });
    return () => on.removeEventListener("wheel", onWheel);
  }, [onView, map, size]);
  const onMove = (event: PointerEvent) => {
    if (!held.current) return;
    const [dx, dy] = [event.clientX - held.current.x, event.clientY - held.current.y];
    if (!held.current.hasMoved && Math.hypot(dx, dy) < 4) return;
    held.current = { x: event.clientX, y: event.clientY, hasMoved: true };
    onView((v) => ({ ...v, x: v.x - dx / v.zoom, y: v.y - dy / v.zoom }));
  };
  const onUp = (event: PointerEvent) => {
    if (held.current && !held.current.hasMoved && canvas.current) {
      const cell = cellAt(view, placeIn(canvas.current, event), map, size);
      const hit = cell === null ? -1 : faceIn[cell]!;
      if (hit >= 0) onFace(hit);
    }
    held.current = null;
  };
  return (
    <canvas
      ref={canvas}
      data-face={face ?? ""}
      className="absolute inset-0 h-full w-full cursor-grab active:cursor-grabbing"
      onPointerDown={(event) => {
        held.current = { x: event.clientX, y: event.clientY, hasMoved: false };
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={onMove}
      onPointerUp={onUp}
      onPointerCancel={() => (held.current = null)}
    />
  );
}

const placeIn = (on: Element, { clientX, clientY }: { clientX: number; clientY: number }) => {
  const { left, top } = on.getBoundingClientRect();
  return { x: clientX - left, y: clientY - top };
};

/** Names of the regions, while single faces are too small to be read. */
function Regions({ map, view, size }: Pick<MapState, "map"> & { view: View; size: Size }) {
  const left = size.width / 2 - view.x * view.zoom;
  const top = size.height / 2 - view.y * view.zoom;
  return map.regions.map(({ word, column, row, columns, rows }) => (
    <span
      key={`${column} ${row}`}
      className="pointer-events-none absolute rounded-sm bg-limestone/85 px-1 text-[12px] font-semibold"
      style={{
        left: left + (column + columns / 2) * CELL.width * view.zoom,
        top: top + (row + rows / 2) * CELL.height * view.zoom,
        transform: "translate(-50%, -50%)",
      }}
    >
      {word}
    </span>
  ));
}

type KeysProps = {
  map: MapState["map"] | undefined;
  faceIn: Int32Array;
  fits: readonly number[];
  face: number | null;
  item: ShownItem | undefined;
  look: (face: number) => void;
  onView: (change: (view: View) => View) => void;
  size: Size | null;
  box: React.RefObject<HTMLDivElement | null>;
};

function useMapKeys({ map, faceIn, fits, face, item, look, onView, size, box }: KeysProps) {
  const { brief, toggleKept, setAside } = useBench();
  const go = useGo();
  const isHere = ({ target }: KeyboardEvent) => target === document.body || box.current === target;
  const walk = (event: KeyboardEvent) => {
    if (!map || face === null || !isHere(event)) return false;
    const cell = neighbourOf(map.faces[face]!.cell, event.key, map, (c) => (fits[faceIn[c]!] ?? -1) >= 0);
    if (cell !== null) look(faceIn[cell]!);
  };
  const withItem = (run: (of: ShownItem) => void) => (event: KeyboardEvent) =>
    item && isHere(event) ? run(item) : false;
  const zoomBy = (factor: number) => () => {
    if (!map || !size) return false;
    onView((v) => {
      const middle = { x: size.width / 2, y: size.height / 2 };
      const zoomed = zoomAt(v, factor, middle, map, size);
      return face === null || factor < 1 ? zoomed : showCell(zoomed, map.faces[face]!.cell, map, size);
    });
  };
  useKeys("Map", [
    {
      keys: [" "],
      legend: "keep",
      run: withItem((of) => toggleKept(of.styleId, nameOf(of), { location: of.axisWanted })),
    },
    {
      keys: ["x"],
      legend: "set aside",
      run: withItem((of) => setAside(of.styleId, nameOf(of), !brief.setAside.includes(of.styleId))),
    },
    {
      keys: ["Enter"],
      legend: "open",
      run: withItem((of) => go(addressOfKept(brief.briefId, { styleId: of.styleId, location: of.axisWanted }))),
    },
    { keys: ARROWS, legend: "neighbour", shown: "← → ↑ ↓", run: walk },
    { keys: ["+", "="], legend: "nearer", shown: "+", isLesser: true, run: zoomBy(ZOOM_STEP) },
    { keys: ["-"], legend: "further", shown: "−", isLesser: true, run: zoomBy(1 / ZOOM_STEP) },
  ]);
}
