"use client";
// What is taken hold of on the sheet to bend a line or a letter: the points of an outline, the measures of an arc or a wave.
import { useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import type { Block, TextPath } from "@/contracts/lettering";
import { editLetter } from "@/core/letter/editBlock";
import { contoursOf, movePoint } from "@/core/letter/movePoint";
import type { LaidPoints } from "./letterTasks";
import { nudgeOf } from "./moveBy";

type Putting = { pxPerMm: number; onPreview: (block: Block | null) => void; onChange: (block: Block) => void };
type HandleProps = Putting & {
  name: string;
  xMm: number;
  yMm: number;
  isRound?: boolean;
  /** The block with this moved so far, in mm of the sheet. */
  bend: (dxMm: number, dyMm: number) => Block;
};
const HANDLE_PX = 4;
const HIT_PX = 12;
/** Moved by less than this is not moved. */
const LEAST_PX = 0.5;

/** Dragged, or moved by arrow keys as everything on the sheet is. */
function Handle({ name, xMm, yMm, isRound, bend, pxPerMm, onPreview, onChange }: HandleProps) {
  // What is previewed is the block by then: it is bent from how it was when it was taken hold of.
  const held = useRef<{ x: number; y: number; bend: HandleProps["bend"] } | null>(null);
  const [isHeld, setHeld] = useState(false);
  const by = (e: PointerEvent): [number, number] => [
    (e.clientX - held.current!.x) / pxPerMm,
    (e.clientY - held.current!.y) / pxPerMm,
  ];
  const onKeyDown = (event: KeyboardEvent) => {
    const nudge = nudgeOf(event);
    if (!nudge) return;
    event.preventDefault();
    event.stopPropagation();
    onChange(bend(...nudge));
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
        held.current = { x: e.clientX, y: e.clientY, bend };
        setHeld(true);
      }}
      onPointerMove={(e) => held.current && onPreview(held.current.bend(...by(e)))}
      onPointerUp={(e) => {
        if (!held.current) return;
        const moved = by(e);
        if (Math.hypot(...moved) * pxPerMm < LEAST_PX) onPreview(null);
        else onChange(held.current.bend(...moved));
        held.current = null;
        setHeld(false);
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

type PointsProps = Putting & { block: Block; points: LaidPoints };

/** The points of the letter that is chosen: squares the contour runs through, round ones that pull at it. */
export function PointHandles({ block, points, ...putting }: PointsProps) {
  const { at, outline, unitsPerEm, placesMm, mmPerEm, turnRad } = points;
  const contours = contoursOf(outline);
  const place = (i: number) => ({ x: placesMm[2 * i]!, y: placesMm[2 * i + 1]! });
  const move = (point: number) => (dxMm: number, dyMm: number) => {
    const [c, s] = [Math.cos(turnRad) / mmPerEm, Math.sin(turnRad) / mmPerEm];
    const by = { dxEm: dxMm * c + dyMm * s, dyEm: dyMm * c - dxMm * s };
    const known = block.letters?.find((l) => l.at === at)?.points;
    return editLetter(block, at, { points: movePoint(outline, unitsPerEm, known, point, by) });
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
            {...{ xMm: x, yMm: y, ...putting }}
            isRound={!isOn}
            bend={move(ids[0]!)}
          />
        );
      })}
    </g>
  );
}

type PathProps = Putting & { block: Block };
/** To tenths; never a zero with a sign. */
const round = (v: number) => Math.round(v * 10) / 10 + 0;

/** The line that a block lies on, with what is dragged to bend it: the middle of an arc, the crest of a wave. */
export function PathHandles({ block, ...putting }: PathProps) {
  const { path, at } = block;
  if (!path) return null;
  const turn = ((block.turnDeg ?? 0) * Math.PI) / 180;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const handle = path.kind === "drawn" ? null : handleOf(path);
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
          isRound
          bend={(dx, dy) => ({ ...block, path: bendTo(path, handle.x + dx * c + dy * s, handle.y + dy * c - dx * s) })}
          {...putting}
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
