"use client";
// The picture with a frame to draw around one line, four corners to pull for perspective, and the lines that were found to choose from.
import { useCallback, useEffect, useRef, useState, type ReactNode } from "react";
import ReactCrop, { type PercentCrop } from "react-image-crop";
import "react-image-crop/dist/ReactCrop.css";
import type { Corner, HandInk } from "@/contracts/identify";
import type { InkTool } from "./ink";
import { ARROW_STEPS } from "../parts/arrowSteps";
import { InkMarks } from "./InkMarks";
import { placeUnder, type Frame, type Picture } from "./state";

type Props = {
  picture: Picture;
  frame: Frame | null;
  corners: Corner[] | null;
  baseline: Corner[] | null;
  areas: Frame[];
  ink: HandInk | null;
  /** With which its ink is corrected; null: it is framed. */
  tool: InkTool | null;
  /** Radius of the brush in pixels of the picture. */
  brushPx: number;
  onTool: (points: Corner[]) => void;
  onFrame: (f: Frame | null) => void;
  onCorners: (c: Corner[]) => void;
  onBaseline: (b: Corner[]) => void;
  onArea: (f: Frame) => void;
  /** Under the picture, beside what enlarges it. */
  caption: ReactNode;
};

const FITTED = { maxHeight: 290, minHeight: 60, display: "block" } as const;
const MAX_ZOOM = 8;

export function Framing(props: Props) {
  const { picture, corners, baseline, areas, tool, onCorners, onBaseline, onArea } = props;
  const { zoom, fit, ground, image: shownImage, zoomTo } = useZoom();
  if (!picture.widthPx)
    return (
      <div className="grid h-40 shrink-0 place-items-center bg-chalk text-basalt">
        This picture cannot be shown here.
      </div>
    );
  const image = (
    // oxlint-disable-next-line nextjs/no-img-element -- a picture of the user's, from memory: nothing to optimise
    <img
      src={picture.url}
      draggable={false}
      alt={`Picture ${picture.file.name}: drag to frame one line`}
      ref={shownImage}
      style={zoom === 1 ? FITTED : { display: "block", height: fit * zoom, maxWidth: "none" }}
    />
  );
  return (
    <div className="relative shrink-0">
      <div
        ref={ground}
        tabIndex={0}
        role="group"
        aria-label="View: the wheel or + and − zoom, arrows move it"
        data-zoom={zoom}
        className={`grid max-h-[310px] min-h-[180px] bg-[#e4ddcd] p-2 ${zoom === 1 ? "place-items-center overflow-hidden" : "overflow-auto"}`}
        onKeyDown={(e) => pressOnView(e, zoom, zoomTo)}
      >
        <div className={zoom === 1 ? "relative" : "relative w-fit"}>
          {tool || corners || baseline ? image : <Cropped {...props} image={image} />}
          {tool && (
            <InkMarks
              picture={picture}
              frame={props.frame}
              ink={props.ink}
              tool={tool}
              radiusPx={props.brushPx}
              onUsed={props.onTool}
            />
          )}
          {!tool && corners && <Handles picture={picture} points={corners} says={CORNERS} onPoints={onCorners} />}
          {!tool && !corners && baseline && (
            <Handles picture={picture} points={baseline} says={BASELINE} onPoints={onBaseline} />
          )}
          {!tool && !corners && !baseline && areas.length > 1 && (
            <Areas picture={picture} areas={areas} onArea={onArea} />
          )}
        </div>
      </div>
      <div className="mt-1 flex items-center gap-4">
        {props.caption}
        <ZoomButtons zoom={zoom} zoomTo={zoomTo} />
      </div>
    </div>
  );
}

type ZoomTo = (zoom: number) => void;

function pressOnView(event: React.KeyboardEvent, zoom: number, zoomTo: ZoomTo) {
  if (event.target !== event.currentTarget) return;
  if (event.key === "+" || event.key === "=") zoomTo(zoom * 1.4);
  else if (event.key === "-") zoomTo(zoom / 1.4);
  else if (event.key === "0") zoomTo(1);
  else return;
  event.preventDefault();
  event.stopPropagation();
}

/** The picture with a frame that is drawn and moved. */
function Cropped({ picture, frame, onFrame, image }: Props & { image: ReactNode }) {
  return (
    <ReactCrop
      crop={frame ? percentOf(frame, picture) : undefined}
      ruleOfThirds={false}
      ariaLabels={HANDLES}
      onChange={(_px, p) =>
        onFrame({
          x: Math.round((p.x * picture.widthPx) / 100),
          y: Math.round((p.y * picture.heightPx) / 100),
          width: Math.round((p.width * picture.widthPx) / 100),
          height: Math.round((p.height * picture.heightPx) / 100),
        })
      }
      // While it is drawn a frame may be of no size; what stays as small as a click is none.
      onDragEnd={() => frame && Math.min(frame.width, frame.height) < 4 && onFrame(null)}
    >
      {image}
    </ReactCrop>
  );
}

/** The lines of lettering that were found, each with its number to press. */
function Areas({ picture, areas, onArea }: Pick<Props, "picture" | "areas" | "onArea">) {
  return (
    <div className="pointer-events-none absolute inset-0">
      {areas.map((a, i) => (
        <button
          key={i}
          type="button"
          data-area={i + 1}
          aria-label={`Line ${i + 1} of lettering: identify it`}
          className="num pointer-events-auto absolute min-h-6 min-w-6 -translate-x-full bg-slate px-1 text-[11px] text-chalk hover:bg-oxide"
          style={{ left: `max(24px, ${(100 * a.x) / picture.widthPx}%)`, top: `${(100 * a.y) / picture.heightPx}%` }}
          onClick={() => onArea(a)}
        >
          {i + 1}
        </button>
      ))}
    </div>
  );
}

function ZoomButtons({ zoom, zoomTo }: { zoom: number; zoomTo: ZoomTo }) {
  const button = (sign: string, says: string, to: number) => (
    <button
      type="button"
      aria-label={says}
      className="num min-h-6 min-w-6 bg-chalk px-2 text-[12px]"
      onClick={() => zoomTo(to)}
    >
      {sign}
    </button>
  );
  return (
    <div className="ml-auto flex w-fit gap-px bg-rule" role="group" aria-label="Zoom">
      {button("−", "Smaller", zoom / 1.4)}
      {button("+", "Larger", zoom * 1.4)}
      {button("Fit", "All of it", 1)}
    </div>
  );
}

/** How large the picture is shown. The point under the pointer stays where it is while the wheel zooms. */
function useZoom() {
  const [zoom, setZoom] = useState(1);
  const [fit, setFit] = useState(0);
  const ground = useRef<HTMLDivElement>(null);
  const image = useRef<HTMLImageElement>(null);
  const zoomTo = useCallback((to: number, at?: { clientX: number; clientY: number }) => {
    const [room, shown] = [ground.current, image.current];
    if (!room || !shown) return;
    const next = Math.min(MAX_ZOOM, Math.max(1, to < 1.05 ? 1 : to));
    const before = shown.getBoundingClientRect();
    const frame = room.getBoundingClientRect();
    const [x, y] = [at?.clientX ?? frame.left + frame.width / 2, at?.clientY ?? frame.top + frame.height / 2];
    const share = [(x - before.left) / before.width, (y - before.top) / before.height] as const;
    setZoom((now) => {
      if (now === 1) setFit(before.height);
      return next;
    });
    requestAnimationFrame(() => {
      const after = shown.getBoundingClientRect();
      room.scrollLeft += after.left + share[0] * after.width - x;
      room.scrollTop += after.top + share[1] * after.height - y;
    });
  }, []);
  const now = useRef(zoom);
  useEffect(() => {
    now.current = zoom;
  }, [zoom]);
  useEffect(() => {
    const room = ground.current;
    if (!room) return;
    // React listens passively: the page would scroll as well.
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      zoomTo(now.current * Math.exp(-event.deltaY / 400), event);
    };
    room.addEventListener("wheel", onWheel, { passive: false });
    return () => room.removeEventListener("wheel", onWheel);
  }, [zoomTo]);
  return { zoom, fit, ground, image, zoomTo };
}

const HANDLES = {
  cropArea: "Frame: move it with the arrow keys",
  nwDragHandle: "Corner top left",
  nDragHandle: "Edge top",
  neDragHandle: "Corner top right",
  eDragHandle: "Edge right",
  seDragHandle: "Corner bottom right",
  sDragHandle: "Edge bottom",
  swDragHandle: "Corner bottom left",
  wDragHandle: "Edge left",
};

const percentOf = (frame: Frame, picture: Picture): PercentCrop => ({
  unit: "%",
  x: (100 * frame.x) / picture.widthPx,
  y: (100 * frame.y) / picture.heightPx,
  width: (100 * frame.width) / picture.widthPx,
  height: (100 * frame.height) / picture.heightPx,
});

const CORNERS = {
  all: "Four corners around one line",
  each: ["top left", "top right", "bottom right", "bottom left"].map((name) => `Corner ${name}`),
  path: (points: Corner[]) => `M${points.map((c) => `${c.x},${c.y}`).join("L")}Z`,
};
const BASELINE = {
  all: "Curved baseline through three points",
  each: ["begin", "middle", "end"].map((name) => `Baseline ${name}`),
  // The arc is drawn as a parabola through the same points: near enough to see whether it runs under the letters.
  path: (points: Corner[]) => {
    const [p, q, r] = points as [Corner, Corner, Corner];
    return `M${p.x},${p.y}Q${2 * q.x - (p.x + r.x) / 2},${2 * q.y - (p.y + r.y) / 2} ${r.x},${r.y}`;
  },
};
/** Points over the picture: dragged, or moved by arrow keys (Shift: ten pixels). */
function Handles({
  picture,
  points,
  says,
  onPoints,
}: {
  picture: Picture;
  points: Corner[];
  says: typeof CORNERS;
  onPoints: (c: Corner[]) => void;
}) {
  const ground = useRef<HTMLDivElement>(null);
  const [held, setHeld] = useState<number | null>(null);
  const put = (k: number, x: number, y: number) =>
    onPoints(
      points.map((c, i) =>
        i === k
          ? {
              x: Math.round(Math.min(picture.widthPx, Math.max(0, x))),
              y: Math.round(Math.min(picture.heightPx, Math.max(0, y))),
            }
          : c,
      ),
    );
  const at = (c: Corner) => ({ left: `${(100 * c.x) / picture.widthPx}%`, top: `${(100 * c.y) / picture.heightPx}%` });
  return (
    <div ref={ground} className="absolute inset-0" aria-label={says.all} role="group">
      <svg
        viewBox={`0 0 ${picture.widthPx} ${picture.heightPx}`}
        preserveAspectRatio="none"
        className="absolute inset-0 h-full w-full"
        aria-hidden
      >
        <path
          d={says.path(points)}
          fill={points.length === 4 ? "#1c6b74" : "none"}
          fillOpacity={0.12}
          stroke="#1c6b74"
          strokeWidth={1.5}
          vectorEffect="non-scaling-stroke"
        />
      </svg>
      {points.map((c, k) => (
        <button
          key={k}
          type="button"
          aria-label={`${says.each[k]}: drag it or use the arrow keys`}
          data-corner={k}
          className="absolute h-4 w-4 -translate-x-1/2 -translate-y-1/2 touch-none border-2 border-tide bg-chalk/70"
          style={at(c)}
          onPointerDown={(e) => {
            e.currentTarget.setPointerCapture(e.pointerId);
            setHeld(k);
          }}
          onPointerMove={(e) => {
            if (held !== k) return;
            const { x, y } = placeUnder(e, ground.current!.getBoundingClientRect(), picture);
            put(k, x, y);
          }}
          onPointerUp={() => setHeld(null)}
          onPointerCancel={() => setHeld(null)}
          onKeyDown={(e) => {
            const move = ARROW_STEPS[e.key];
            if (!move) return;
            e.preventDefault();
            const by = e.shiftKey ? 10 : 1;
            put(k, c.x + by * move[0], c.y + by * move[1]);
          }}
        />
      ))}
    </div>
  );
}
