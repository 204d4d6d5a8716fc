"use client";
// The sheet at its true proportions: blocks are dragged to their place, single letters where shaping is on; sizes, arcs and points by handles.
import { useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import type { Block, Finding, LetteringDocument } from "@/contracts/lettering";
import type { LengthUnit } from "@/contracts/units";
import type { Bounds } from "@/core/geometry/outline";
import { replaceBlock } from "@/core/letter/editBlock";
import { solidOf } from "@/core/letter/fills";
import { readInner, useMeasured } from "../parts/useMeasured";
import type { LaidBlock, LaidLetter } from "./letterTasks";
import { moveBy, nudgeOf } from "./moveBy";
import { nameLetter } from "./nameLetter";
import { PathHandles, PointHandles } from "./SheetHandles";
import { SizeHandle } from "./SizeHandle";
import { snapMove, type Guide } from "./snapMove";
import { GuideLine, Mark, Missing, ScaleBar } from "./SheetMarks";

export type Chosen = { blockId: string; at: number | null };
type Props = {
  document: LetteringDocument;
  blocks: readonly LaidBlock[];
  way: "set" | "shape" | "check" | "move" | "save";
  chosen: Chosen | null;
  onChoose: (chosen: Chosen) => void;
  onPreview: (document: LetteringDocument | null) => void;
  onChange: (document: LetteringDocument) => void;
  findings: readonly Finding[];
  /** The part of the sheet that is shown large, in mm; null: all of it. */
  closeUp: Bounds | null;
  onWhole: () => void;
  /** What a line drawn on the sheet is for, its points in mm; null: nothing is drawn. */
  onStroke: ((points: number[]) => void) | null;
  /** Rests on baselines and margins leave so much at the edges of the sheet. */
  marginMm: number;
  paper: string;
  unit: LengthUnit;
};

/** What is dragged: moved by so many millimetres until it is let go of. */
type Drag = { blockId: string; at: number | null; x: number; y: number; dxMm: number; dyMm: number; guides: Guide[] };
/** A block comes to rest where it is so near; Alt leaves it where the hand is. */
const REACH_PX = 6;

/** Pixels per millimetre at which all of a view is seen, with a little room around. */
const fitInside = ({ widthPx, heightPx }: { widthPx: number; heightPx: number }, widthMm: number, heightMm: number) =>
  Math.max(0.01, Math.min((widthPx - 24) / widthMm, (heightPx - 24) / heightMm));

export function Sheet(props: Props) {
  const { document, blocks, way, chosen, onChoose, onChange } = props;
  const frame = useRef<HTMLDivElement>(null);
  const size = useMeasured(frame, readInner);
  const { widthMm, heightMm, ground } = document.sheet;
  // The whole sheet, or a part of it that is looked at closely.
  const view = props.closeUp ?? { xMin: 0, yMin: 0, xMax: widthMm, yMax: heightMm };
  const [viewWidthMm, viewHeightMm] = [view.xMax - view.xMin, view.yMax - view.yMin];
  const pxPerMm = size ? fitInside(size, viewWidthMm, viewHeightMm) : 1;
  const [drag, setDrag] = useState<Drag | null>(null);
  const move = (block: Block, at: number | null, dxMm: number, dyMm: number) => {
    const next = moveBy(block, at, dxMm, dyMm);
    if (next !== block) onChange(replaceBlock(document, next));
  };
  const onDown = (event: PointerEvent, blockId: string, at: number | null) => {
    onChoose({ blockId, at });
    if ((way !== "set" && way !== "shape") || event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    setDrag({ blockId, at, x: event.clientX, y: event.clientY, dxMm: 0, dyMm: 0, guides: [] });
  };
  const onMove = (event: PointerEvent) => {
    if (!drag) return;
    const by = { dxMm: (event.clientX - drag.x) / pxPerMm, dyMm: (event.clientY - drag.y) / pxPerMm };
    const block = document.blocks.find((b) => b.id === drag.blockId);
    const rests = block && drag.at === null && !event.altKey;
    setDrag({
      ...drag,
      guides: [],
      ...(rests ? snapMove(document, blocks, block, by, REACH_PX / pxPerMm, props.marginMm) : by),
    });
  };
  const onUp = () => {
    const block = drag && document.blocks.find((b) => b.id === drag.blockId);
    if (block && Math.hypot(drag.dxMm, drag.dyMm) * pxPerMm > 2) move(block, drag.at, drag.dxMm, drag.dyMm);
    setDrag(null);
  };
  return (
    <div ref={frame} className="relative min-h-0 flex-1 overflow-hidden border border-rule bg-limestone" data-sheet>
      {size && (
        <svg
          role="group"
          aria-label={`Sheet, ${Math.round(widthMm)} by ${Math.round(heightMm)} mm`}
          width={viewWidthMm * pxPerMm}
          height={viewHeightMm * pxPerMm}
          viewBox={`${view.xMin} ${view.yMin} ${viewWidthMm} ${viewHeightMm}`}
          className="absolute overflow-visible top-1/2 left-1/2 -translate-x-1/2 -translate-y-1/2 touch-none"
        >
          <rect width={widthMm} height={heightMm} fill={ground ?? props.paper} />
          {document.blocks.map((block) => {
            const laid = blocks.find((b) => b.id === block.id);
            return laid ? (
              <BlockOnSheet
                key={block.id}
                {...{ block, laid, way, chosen, pxPerMm, onDown, onMove, onUp }}
                drag={drag?.blockId === block.id ? drag : null}
                onNudge={(at, dx, dy) => move(block, at, dx, dy)}
              />
            ) : null;
          })}
          <Bending {...props} pxPerMm={pxPerMm} />
          {props.onStroke && <Stroke {...{ widthMm, heightMm, pxPerMm }} onStroke={props.onStroke} />}
          {drag?.guides.map((g) => (
            <GuideLine key={JSON.stringify(g)} guide={g} {...{ widthMm, heightMm }} />
          ))}
          {props.findings.map((f, i) => (
            <Mark key={`${f.kind} ${f.xMm} ${f.yMm}`} finding={f} number={i + 1} pxPerMm={pxPerMm} />
          ))}
          <ScaleBar {...{ view, pxPerMm }} unit={props.unit} />
        </svg>
      )}
      {props.closeUp && (
        <button type="button" className="btn absolute top-2 right-2" onClick={props.onWhole}>
          Whole sheet
        </button>
      )}
    </div>
  );
}

type BlockProps = {
  block: Block;
  laid: LaidBlock;
  way: Props["way"];
  chosen: Chosen | null;
  pxPerMm: number;
  drag: Drag | null;
  onDown: (event: PointerEvent, blockId: string, at: number | null) => void;
  onMove: (event: PointerEvent) => void;
  onUp: () => void;
  onNudge: (at: number | null, dxMm: number, dyMm: number) => void;
};

function BlockOnSheet({ block, laid, way, chosen, pxPerMm, drag, onDown, onMove, onUp, onNudge }: BlockProps) {
  const isChosen = chosen?.blockId === block.id;
  const byLetter = way === "shape";
  const onKey = (at: number | null) => (event: KeyboardEvent) => {
    const nudge = nudgeOf(event);
    if (!nudge) return;
    event.preventDefault();
    event.stopPropagation();
    onNudge(at, ...nudge);
  };
  const moved = drag && drag.at === null ? `translate(${drag.dxMm} ${drag.dyMm})` : undefined;
  // A letter on the move leaves what it is joined to: the whole is made again when it is let go of.
  const showsLetters = byLetter && (drag?.at ?? null) !== null;
  return (
    <g transform={moved} data-block={block.id}>
      <g pointerEvents="none">
        {showsLetters ? (
          laid.letters.map((l) => <path key={l.at} d={l.d} fill={solidOf(block.fill)} transform={byDrag(drag, l)} />)
        ) : (
          <Painted laid={laid} id={block.id} />
        )}
      </g>
      {laid.letters
        .filter((l) => l.isMissing)
        .map((l) => (
          <Missing key={l.at} letter={l} emMm={laid.emMm} />
        ))}
      {byLetter
        ? laid.letters
            .filter((l) => l.box)
            .map((l) => (
              <LetterTarget
                key={l.at}
                letter={l}
                isChosen={isChosen && chosen.at === l.at}
                drag={drag?.at === l.at ? drag : null}
                pxPerMm={pxPerMm}
                onPointerDown={(e) => onDown(e, block.id, l.at)}
                onPointerMove={onMove}
                onPointerUp={onUp}
                onKeyDown={onKey(l.at)}
              />
            ))
        : laid.ink && (
            <rect
              role="button"
              tabIndex={0}
              aria-label={`Line ${block.text}`}
              aria-pressed={isChosen}
              {...rectOf(laid.ink, 4 / pxPerMm, LEAST_PX / pxPerMm)}
              fill="transparent"
              stroke={isChosen ? "var(--tide)" : "none"}
              strokeDasharray="4 3"
              vectorEffect="non-scaling-stroke"
              className={way === "set" ? "cursor-move" : "cursor-pointer"}
              onPointerDown={(e) => onDown(e, block.id, null)}
              onPointerMove={onMove}
              onPointerUp={onUp}
              onPointerCancel={onUp}
              onKeyDown={onKey(null)}
            />
          )}
    </g>
  );
}

/** Around a box, and never too small to be hit. */
function rectOf(b: Bounds, padMm: number, leastMm: number) {
  const [width, height] = [b.xMax - b.xMin, b.yMax - b.yMin].map((v) => Math.max(leastMm, v + 2 * padMm)) as [
    number,
    number,
  ];
  return { x: (b.xMin + b.xMax - width) / 2, y: (b.yMin + b.yMax - height) / 2, width, height };
}
const LEAST_PX = 25;
const byDrag = (drag: Drag | null, letter: LaidLetter) =>
  drag && drag.at === letter.at ? `translate(${drag.dxMm} ${drag.dyMm})` : undefined;

/** Parts of a block as they are painted, gradients and blurs with them. */
function Painted({ laid, id }: { laid: LaidBlock; id: string }) {
  return laid.parts.map((part, i) => {
    const name = `${id}-${i}`;
    const { paint, blurMm, d } = part;
    return (
      <g key={name}>
        {typeof paint !== "string" && (
          <linearGradient
            id={`paint-${name}`}
            gradientUnits="userSpaceOnUse"
            {...{ x1: paint.x1, y1: paint.y1, x2: paint.x2, y2: paint.y2 }}
          >
            <stop offset="0" stopColor={paint.from} />
            <stop offset="1" stopColor={paint.to} />
          </linearGradient>
        )}
        {blurMm > 0 && (
          <filter id={`blur-${name}`} x="-50%" y="-50%" width="200%" height="200%">
            <feGaussianBlur stdDeviation={blurMm / 2} />
          </filter>
        )}
        <path
          d={d}
          fill={typeof paint === "string" ? paint : `url(#paint-${name})`}
          filter={blurMm > 0 ? `url(#blur-${name})` : undefined}
        />
      </g>
    );
  });
}

type TargetProps = {
  letter: LaidLetter;
  isChosen: boolean;
  drag: Drag | null;
  pxPerMm: number;
  onPointerDown: (event: PointerEvent) => void;
  onPointerMove: (event: PointerEvent) => void;
  onPointerUp: () => void;
  onKeyDown: (event: KeyboardEvent) => void;
};

/** What is taken hold of to move one letter. */
function LetterTarget({ letter, isChosen, drag, pxPerMm, ...events }: TargetProps) {
  return (
    <rect
      role="button"
      tabIndex={0}
      aria-label={`Letter ${nameLetter(letter)}`}
      aria-pressed={isChosen}
      data-letter={letter.at}
      {...rectOf(letter.box!, 2 / pxPerMm, LEAST_PX / pxPerMm)}
      transform={byDrag(drag, letter)}
      fill="transparent"
      stroke={isChosen ? "var(--tide)" : "none"}
      vectorEffect="non-scaling-stroke"
      className="cursor-move"
      {...events}
    />
  );
}

type StrokeProps = { widthMm: number; heightMm: number; pxPerMm: number; onStroke: (points: number[]) => void };

/** Takes a stroke of the hand over the whole sheet. */
function Stroke({ widthMm, heightMm, pxPerMm, onStroke }: StrokeProps) {
  const [points, setPoints] = useState<number[]>([]);
  const pointOf = (e: PointerEvent) => {
    const box = (e.currentTarget as SVGElement).getBoundingClientRect();
    return [(e.clientX - box.left) / pxPerMm, (e.clientY - box.top) / pxPerMm];
  };
  const pairs = Array.from({ length: points.length / 2 }, (_, i) => `${points[2 * i]},${points[2 * i + 1]}`);
  return (
    <g>
      <rect
        width={widthMm}
        height={heightMm}
        fill="transparent"
        className="cursor-crosshair"
        data-stroke
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          setPoints(pointOf(e));
        }}
        onPointerMove={(e) => points.length && setPoints([...points, ...pointOf(e)])}
        onPointerUp={() => {
          if (points.length > 4) onStroke(points);
          setPoints([]);
        }}
      />
      <polyline
        points={pairs.join(" ")}
        fill="none"
        stroke="var(--tide)"
        strokeWidth={2}
        vectorEffect="non-scaling-stroke"
        pointerEvents="none"
      />
    </g>
  );
}

/** Handles of how large the chosen line is and what it lies on, or of the points of the chosen letter. */
function Bending({ document, blocks, way, chosen, onPreview, onChange, pxPerMm, unit }: Props & { pxPerMm: number }) {
  const block = document.blocks.find((b) => b.id === chosen?.blockId);
  if (!block) return null;
  const putting = {
    onPreview: (next: Block | null) => onPreview(next && replaceBlock(document, next)),
    onChange: (next: Block) => onChange(replaceBlock(document, next)),
  };
  const laid = blocks.find((b) => b.id === block.id);
  if (way === "set")
    return (
      <>
        <SizeHandle {...{ block, laid, pxPerMm, unit, ...putting }} />
        <PathHandles {...{ block, pxPerMm, ...putting }} />
      </>
    );
  const points = laid?.points;
  return way === "shape" && points?.at === chosen?.at && points ? (
    <PointHandles {...{ block, points, pxPerMm, ...putting }} />
  ) : null;
}
