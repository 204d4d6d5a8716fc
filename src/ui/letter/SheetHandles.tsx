"use client";
// What is taken hold of on the sheet to bend a line or a letter: the points of an outline, the measures of an arc or a wave.
import { useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import type { Block, TextPath } from "@/contracts/lettering";
import { editLetter } from "@/core/letter/editBlock";
import { contoursOf, movePoint } from "@/core/letter/movePoint";
import type { LaidPoints } from "./letterTasks";
import { nudgeOf } from "./moveBy";

type HandleProps = {
  name: string;
  xMm: number;
  yMm: number;
  pxPerMm: number;
  isRound?: boolean;
  /** How far it was moved from where it was taken hold of, in mm of the sheet. */
  onDrag: (dxMm: number, dyMm: number) => void;
  onDrop: (dxMm: number, dyMm: number) => void;
};
const HANDLE_PX = 4;
const HIT_PX = 12;

/** Dragged, or moved by arrow keys as everything on the sheet is. */
function Handle({ name, xMm, yMm, pxPerMm, isRound, onDrag, onDrop }: HandleProps) {
  const from = useRef<{ x: number; y: number } | null>(null);
  const [isHeld, setHeld] = useState(false);
  const by = (e: PointerEvent): [number, number] => [
    (e.clientX - from.current!.x) / pxPerMm,
    (e.clientY - from.current!.y) / pxPerMm,
  ];
  const onKeyDown = (event: KeyboardEvent) => {
    const nudge = nudgeOf(event);
    if (!nudge) return;
    event.preventDefault();
    event.stopPropagation();
    onDrop(...nudge);
  };
  const r = HANDLE_PX / pxPerMm;
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={name}
      className="cursor-move text-tide"
      onKeyDown={onKeyDown}
      onPointerDown={(e) => {
        if (e.button !== 0) return;
        e.currentTarget.setPointerCapture(e.pointerId);
        from.current = { x: e.clientX, y: e.clientY };
        setHeld(true);
      }}
      onPointerMove={(e) => from.current && onDrag(...by(e))}
      onPointerUp={(e) => {
        if (!from.current) return;
        const moved = by(e);
        from.current = null;
        setHeld(false);
        onDrop(...moved);
      }}
    >
      <circle cx={xMm} cy={yMm} r={HIT_PX / pxPerMm} fill="transparent" />
      {isRound ? (
        <circle
          {...{ cx: xMm, cy: yMm, r }}
          fill={isHeld ? "currentColor" : "var(--chalk)"}
          stroke="currentColor"
          vectorEffect="non-scaling-stroke"
        />
      ) : (
        <rect
          {...{ x: xMm - r, y: yMm - r, width: 2 * r, height: 2 * r }}
          fill={isHeld ? "currentColor" : "var(--chalk)"}
          stroke="currentColor"
          vectorEffect="non-scaling-stroke"
        />
      )}
    </g>
  );
}

type Putting = { onPreview: (block: Block | null) => void; onChange: (block: Block) => void };
type PointsProps = Putting & { block: Block; points: LaidPoints; pxPerMm: number };

/** The points of the letter that is chosen: squares the contour runs through, round ones that pull at it. */
export function PointHandles({ block, points, pxPerMm, onPreview, onChange }: PointsProps) {
  const { at, outline, unitsPerEm, placesMm, mmPerEm, turnRad } = points;
  const held = useRef<{ block: Block; points: LaidPoints } | null>(null);
  const contours = contoursOf(outline);
  const place = (i: number) => ({ x: placesMm[2 * i]!, y: placesMm[2 * i + 1]! });
  const moved = (from: Block, point: number, dxMm: number, dyMm: number): Block => {
    const [c, s] = [Math.cos(turnRad) / mmPerEm, Math.sin(turnRad) / mmPerEm];
    const by = { dxEm: dxMm * c + dyMm * s, dyEm: dyMm * c - dxMm * s };
    const known = from.letters?.find((l) => l.at === at)?.points;
    return editLetter(from, at, { points: movePoint(outline, unitsPerEm, known, point, by) });
  };
  const knots = contours.flat();
  return (
    <g data-points>
      {contours.map((contour, k) => (
        <g key={k} stroke="var(--tide)" strokeDasharray="2 2" pointerEvents="none">
          {contour.map((knot, i) => {
            if (knot.isOn) return null;
            const p = place(knot.points[0]!);
            return [contour[(i + 1) % contour.length]!, contour[(i + contour.length - 1) % contour.length]!]
              .filter((n) => n.isOn)
              .map((n) => {
                const q = place(n.points[0]!);
                return (
                  <line
                    key={`${knot.points[0]} ${n.points[0]}`}
                    {...{ x1: p.x, y1: p.y, x2: q.x, y2: q.y }}
                    vectorEffect="non-scaling-stroke"
                  />
                );
              });
          })}
        </g>
      ))}
      {knots.map(({ points: ids, isOn }, i) => {
        const { x, y } = place(ids[0]!);
        return (
          <Handle
            key={ids[0]}
            name={`Point ${i + 1} of ${knots.length}${isOn ? "" : ", pulls at the curve"}`}
            {...{ xMm: x, yMm: y, pxPerMm }}
            isRound={!isOn}
            onDrag={(dx, dy) => {
              held.current ??= { block, points };
              onPreview(moved(held.current.block, ids[0]!, dx, dy));
            }}
            onDrop={(dx, dy) => {
              const from = held.current?.block ?? block;
              held.current = null;
              if (Math.hypot(dx, dy) * pxPerMm < 0.5) onPreview(null);
              else onChange(moved(from, ids[0]!, dx, dy));
            }}
          />
        );
      })}
    </g>
  );
}

type PathProps = Putting & { block: Block; pxPerMm: number };
/** To tenths; never a zero with a sign. */
const round = (v: number) => Math.round(v * 10) / 10 + 0;

/** The line that a block lies on, with what is dragged to bend it: the middle of an arc, the crest of a wave. */
export function PathHandles({ block, pxPerMm, onPreview, onChange }: PathProps) {
  const held = useRef<TextPath | null>(null);
  const { path, at } = block;
  if (!path) return null;
  const turn = ((block.turnDeg ?? 0) * Math.PI) / 180;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const handle = path.kind === "drawn" ? null : handleOf(path);
  const bent = (from: TextPath, dxMm: number, dyMm: number): Block => {
    const own = handleOf(from as Exclude<TextPath, { kind: "drawn" }>);
    const next = bendTo(from, own.x + dxMm * c + dyMm * s, own.y + dyMm * c - dxMm * s);
    return { ...block, path: next };
  };
  return (
    <g data-path-handles>
      <path
        d={lineOf(path)}
        transform={`translate(${at.xMm} ${at.yMm}) rotate(${block.turnDeg ?? 0})`}
        fill="none"
        stroke="var(--tide)"
        strokeDasharray="4 4"
        vectorEffect="non-scaling-stroke"
        pointerEvents="none"
      />
      {handle && (
        <Handle
          name={path.kind === "arc" ? "Middle of the arc" : "Crest of the wave"}
          xMm={at.xMm + handle.x * c - handle.y * s}
          yMm={at.yMm + handle.x * s + handle.y * c}
          pxPerMm={pxPerMm}
          isRound
          onDrag={(dx, dy) => {
            held.current ??= path;
            onPreview(bent(held.current, dx, dy));
          }}
          onDrop={(dx, dy) => {
            const from = held.current ?? path;
            held.current = null;
            if (Math.hypot(dx, dy) * pxPerMm < 0.5) onPreview(null);
            else onChange(bent(from, dx, dy));
          }}
        />
      )}
    </g>
  );
}

const rad = (deg: number) => (deg * Math.PI) / 180;

/** Where the handle of a path lies, from the block's place. */
function handleOf(path: Exclude<TextPath, { kind: "drawn" }>) {
  if (path.kind === "wave") return { x: path.lengthMm / 4, y: -path.heightMm / 2 };
  return { x: -path.radiusMm * Math.cos(rad(path.startDeg)), y: -path.radiusMm * Math.sin(rad(path.startDeg)) };
}

const LEAST_RADIUS_MM = 2;
export function bendTo(path: TextPath, x: number, y: number): TextPath {
  if (path.kind === "wave") return { ...path, lengthMm: Math.max(1, round(4 * x)), heightMm: round(-2 * y) };
  if (path.kind === "drawn") return path;
  const sign = Math.sign(path.radiusMm);
  const radiusMm = sign * Math.max(LEAST_RADIUS_MM, round(Math.hypot(x, y)));
  return { ...path, radiusMm, startDeg: round((Math.atan2(-y * sign, -x * sign) * 180) / Math.PI) };
}

const WAVE_STEPS = 24;
const WAVES = 3;
/** A path as it is drawn on the sheet, from the block's place. */
function lineOf(path: TextPath): string {
  if (path.kind === "drawn") return path.d;
  if (path.kind === "wave") {
    const points = Array.from({ length: WAVES * WAVE_STEPS + 1 }, (_, i) => {
      const x = (i / WAVE_STEPS) * path.lengthMm;
      return `${x} ${(-path.heightMm / 2) * Math.sin((2 * Math.PI * i) / WAVE_STEPS)}`;
    });
    return `M${points.join("L")}`;
  }
  const r = Math.abs(path.radiusMm);
  const { x, y } = handleOf(path);
  return `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0`;
}
