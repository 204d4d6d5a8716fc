"use client";
// The frame of the film as it stands at the clock's time, over its ground; lines are dragged to where they stand in the chosen pose.
import { useCallback, useEffect, useRef, type DragEvent, type PointerEvent, type RefObject } from "react";
import type { LetteringDocument } from "@/contracts/lettering";
import type { Pose } from "@/contracts/poses";
import { boundsOf, type Bounds } from "@/core/geometry/outline";
import { changeBlockPose, shareOf, type Ratio } from "@/core/motion/editPoses";
import { SAFE_SHARE } from "@/core/motion/titleCards";
import { readInner, useMeasured } from "../../parts/useMeasured";
import { drawMoment } from "./drawMoment";
import type { MotionClock } from "./motionClock";
import type { MomentStore } from "./momentStore";
import type { DrawnMoment } from "./moveTasks";
import { paintGround, type Ground } from "./useGround";
import { useTime } from "./useMotion";
import type { Told } from "./useTold";

type Props = {
  document: LetteringDocument;
  store: MomentStore | null;
  clock: MotionClock;
  ground: Ground;
  /** Grows when the ground has something new to show. */
  news: number;
  safe: readonly Ratio[];
  told: Told | null;
  pose: Pose | null;
  chosenId: string | null;
  onChoose: (blockId: string) => void;
  onPreview: (document: LetteringDocument | null) => void;
  onChange: (document: LetteringDocument) => void;
};

export function MoveStage(props: Props) {
  const { document, clock } = props;
  const { sheet } = document;
  const frame = useRef<HTMLDivElement>(null);
  const size = useMeasured(frame, readInner);
  const pxPerMm = size ? Math.min(size.widthPx / sheet.widthMm, size.heightPx / sheet.heightMm) : 0;
  const [width, height] = [sheet.widthMm * pxPerMm, sheet.heightMm * pxPerMm];
  const onDrop = (event: DragEvent) => {
    const file = [...event.dataTransfer.files].find((f) => f.type.startsWith("video/"));
    if (!file) return;
    event.preventDefault();
    props.ground.takeClip(file);
  };
  return (
    <div
      ref={frame}
      className="relative min-h-0 min-w-0 flex-1 overflow-hidden"
      data-stage
      onDragOver={(e) => e.preventDefault()}
      onDrop={onDrop}
    >
      {pxPerMm > 0 && (
        <div className="absolute top-0 left-1/2 -translate-x-1/2" style={{ width, height }}>
          <Picture {...props} {...{ width, height, pxPerMm }} />
          {props.safe.map((ratio) => (
            <SafeArea key={ratio} {...{ ratio, width, height }} />
          ))}
          <TimeLine {...{ clock, document }} told={props.told} />
        </div>
      )}
    </div>
  );
}

type PictureProps = Props & { width: number; height: number; pxPerMm: number };

/** Drawn without React: sixty times a second while it plays. */
function Picture(props: PictureProps) {
  const { store, clock, ground, news, width, height, pxPerMm } = props;
  const canvas = useRef<HTMLCanvasElement>(null);
  const drawn = useRef<{ moment: DrawnMoment | null; count: number }>({ moment: null, count: 0 });
  const draw = useCallback(() => {
    const context = canvas.current?.getContext("2d");
    if (!context) return;
    const scale = context.canvas.width / width;
    const { timeMs, isPlaying } = clock.now;
    const moment = store?.at(timeMs, isPlaying) ?? null;
    paintGround(context, ground, context.canvas.width, context.canvas.height);
    if (!moment || !store) return;
    drawMoment({ context, pxPerMm: pxPerMm * scale }, moment, store.pathOf);
    context.canvas.dataset.clock = String(timeMs);
    context.setTransform(1, 0, 0, 1, 0, 0);
    if (drawn.current.moment === moment) return;
    drawn.current = { moment, count: drawn.current.count + 1 };
    context.canvas.dataset.moments = String(drawn.current.count);
    context.canvas.dataset.at = String(moment.timeMs);
  }, [store, clock, ground, width, pxPerMm]);
  useEffect(() => {
    draw();
    const leave = [clock.subscribe(draw), store?.subscribe(draw)];
    return () => leave.forEach((l) => l?.());
  }, [draw, clock, store, news]);
  const scale = Math.min(2, window.devicePixelRatio || 1);
  return (
    <>
      <canvas
        ref={canvas}
        width={Math.round(width * scale)}
        height={Math.round(height * scale)}
        style={{ width, height }}
        data-preview
        aria-label="Preview"
        role="img"
      />
      <Grips {...props} />
    </>
  );
}

/** Around all letters of each line, by block. */
function boxesOf({ groups }: DrawnMoment): Map<string, Bounds> {
  const corners = new Map<string, Float64Array[]>();
  for (const { blockId, box } of groups) {
    if (!box) continue;
    const own = Float64Array.of(box.xMin, box.yMin, box.xMax, box.yMax);
    corners.set(blockId, [...(corners.get(blockId) ?? []), own]);
  }
  return new Map([...corners].map(([blockId, list]) => [blockId, boundsOf(list)!]));
}

const LEAST_PX = 24;
/** A line in the hand: the document when it was taken hold of, and what it has become. */
type Held = { id: string; x: number; y: number; from: LetteringDocument; next: LetteringDocument | null };

/** What is taken hold of to move a line in the chosen pose; only where the clock stands at it. */
function Grips({ document, pxPerMm, store, pose, chosenId, clock, onChoose, onPreview, onChange }: PictureProps) {
  const held = useRef<Held | null>(null);
  const { timeMs, isPlaying } = useTime(clock);
  if (!pose || isPlaying || Math.abs(timeMs - pose.timeMs) > 1) return null;
  // While a line is in the hand its moment is always on its way: those before keep hold of it.
  const moment = store?.peek(pose.timeMs) ?? store?.latest;
  const boxes = moment ? boxesOf(moment) : new Map<string, Bounds>();
  const onMove = (event: PointerEvent) => {
    const now = held.current;
    if (!now) return;
    const own = now.from.motion?.poses.find((p) => p.id === pose.id)?.blocks[now.id];
    const tenth = (v: number) => Math.round(v * 10) / 10;
    const dxMm = tenth((own?.dxMm ?? 0) + (event.clientX - now.x) / pxPerMm);
    const dyMm = tenth((own?.dyMm ?? 0) + (event.clientY - now.y) / pxPerMm);
    now.next = changeBlockPose(now.from, pose.id, now.id, { dxMm, dyMm });
    onPreview(now.next);
  };
  return <GripBoxes {...{ document, boxes, pxPerMm, chosenId, onChoose, onMove, held, onChange }} />;
}

type GripBoxesProps = Pick<PictureProps, "document" | "pxPerMm" | "chosenId" | "onChoose" | "onChange"> & {
  boxes: Map<string, Bounds>;
  onMove: (event: PointerEvent) => void;
  held: RefObject<Held | null>;
};

function GripBoxes({ document, boxes, pxPerMm, chosenId, onChoose, onMove, held, onChange }: GripBoxesProps) {
  const end = () => {
    if (held.current?.next) onChange(held.current.next);
    held.current = null;
  };
  return document.blocks.map((block) => {
    const box = boxes.get(block.id);
    if (!box) return null;
    const [w, h] = [
      Math.max(LEAST_PX, (box.xMax - box.xMin) * pxPerMm),
      Math.max(LEAST_PX, (box.yMax - box.yMin) * pxPerMm),
    ];
    return (
      <button
        key={block.id}
        type="button"
        aria-label={`Line ${block.text}`}
        aria-pressed={block.id === chosenId}
        className={`absolute cursor-move touch-none border border-dashed ${block.id === chosenId ? "border-tide" : "border-transparent"}`}
        style={{ left: box.xMin * pxPerMm, top: box.yMin * pxPerMm, width: w, height: h }}
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          onChoose(block.id);
          held.current = { id: block.id, x: e.clientX, y: e.clientY, from: document, next: null };
        }}
        onPointerMove={onMove}
        onPointerUp={end}
        onPointerCancel={end}
      />
    );
  });
}

function SafeArea({ ratio, width, height }: { ratio: Ratio; width: number; height: number }) {
  const share = shareOf(ratio);
  const [w, h] = width / height > share ? [height * share, height] : [width, width / share];
  const [sw, sh] = [w * (1 - 2 * SAFE_SHARE), h * (1 - 2 * SAFE_SHARE)];
  return (
    <div
      aria-hidden
      data-safe={ratio}
      className="pointer-events-none absolute border border-dashed border-[#fbf9f4cc] outline outline-1 outline-[#20262b66]"
      style={{ left: (width - sw) / 2, top: (height - sh) / 2, width: sw, height: sh }}
    >
      <span className="num absolute top-0 right-1 text-[11px] text-chalk [text-shadow:0_0_3px_#000]">{ratio}</span>
    </div>
  );
}

const writeTime = (ms: number) => {
  const minutes = Math.floor(ms / 60_000);
  return `${String(minutes).padStart(2, "0")}:${(Math.floor((ms % 60_000) / 10) / 100).toFixed(2).padStart(5, "0")}`;
};

function TimeLine({ clock, document, told }: { clock: MotionClock; document: LetteringDocument; told: Told | null }) {
  const { timeMs } = useTime(clock);
  const fps = document.motion?.fps ?? 25;
  return (
    <div className="num pointer-events-none absolute inset-x-2 bottom-1 flex justify-between text-[11.5px] text-[#fbf9f4] [text-shadow:0_0_3px_#000,0_0_2px_#000]">
      <span data-time={Math.round(timeMs)}>
        {writeTime(timeMs)} · frame {Math.floor((timeMs * fps) / 1000 + 1e-6)}
      </span>
      {told?.contrast && (
        <span data-contrast={told.contrast.ratio.toFixed(2)}>
          lowest contrast {told.contrast.ratio.toFixed(1)} : 1 at {writeTime(told.contrast.timeMs)}
        </span>
      )}
    </div>
  );
}
