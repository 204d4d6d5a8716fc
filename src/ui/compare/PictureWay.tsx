"use client";
// The faces on the brief's picture: the words are dragged to their place for all faces at once, and what is drawn by hand stands in front of them.
import Link from "next/link";
import { useId, useRef, useState, type PointerEvent } from "react";
import type { Brief, FrontShape, Scene } from "@/contracts/brief";
import type { ShownItem } from "@/contracts/styles";
import { levelFactor } from "@/core/brief/level";
import { pathOfShape, thinPoints } from "@/core/brief/scene";
import { useBench } from "../bench/BenchContext";
import { useKeys } from "../bench/useKeys";
import { nameOf } from "../find/facts";
import { addressOfPicture } from "../parts/briefPicture";
import { BASELINE_EM, Sample } from "../parts/Sample";
import { sampleOf } from "../parts/sampleOf";

const TOOLS = [
  { tool: "move", name: "Move the words" },
  { tool: "outline", name: "Outline" },
  { tool: "brush", name: "Brush" },
  { tool: "eraser", name: "Eraser" },
] as const;
type Tool = (typeof TOOLS)[number]["tool"];
type Point = [number, number];

const GAP_PX = 16;
const LEAST_CARD_PX = 300;
const MOST_CARDS = 4;

type Props = { faces: readonly ShownItem[]; text: string; widthPx: number };

export function PictureWay({ faces, text, widthPx }: Props) {
  const { brief, changeInStep } = useBench();
  const [tool, setTool] = useState<Tool>("move");
  const [brushShare, setBrushShare] = useState(0.05);
  const [ratio, setRatio] = useState(1.5);
  /** Moved or drawn just now: what is saved follows when the hand is lifted. */
  const [draft, setDraftOf] = useState<{ of: Scene; scene: Scene } | null>(null);
  // What was saved, and what another tab or an undo gave, replaces what was drawn.
  const scene = draft?.of === brief.scene ? draft.scene : brief.scene;
  const setDraft = (next: Scene) => setDraftOf({ of: brief.scene, scene: next });
  const save = (change: Partial<Scene>, message: string) => {
    const next = { ...brief.scene, ...change };
    setDraft(next);
    changeInStep({ scene: next }, message);
  };
  if (!brief.picture) return <NoPicture brief={brief} />;
  const columns = Math.min(faces.length, MOST_CARDS, Math.max(1, Math.floor(widthPx / LEAST_CARD_PX)));
  const cardPx = (widthPx - GAP_PX * (columns - 1)) / columns;
  const draw = ({ kind, points }: Pick<FrontShape, "kind" | "points">) => {
    const erases = tool === "eraser";
    const shape = { kind, points: thinPoints(points, ratio), erases, widthShare: brushShare };
    save({ front: [...brief.scene.front, shape] }, erases ? "Put behind the words again" : "Put in front of the words");
  };
  return (
    <div className="col-span-full border-t border-rule pt-3">
      <Controls {...{ scene, tool, setTool, brushShare, setBrushShare, save, setDraft }} />
      <div className="grid" style={{ gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))`, gap: GAP_PX }}>
        {faces.map((face) => (
          <figure key={face.styleId} className="min-w-0" data-on-picture={face.styleId}>
            <Composition
              {...{ face, brief, scene, text, tool, brushShare, ratio, onRatio: setRatio }}
              widthPx={cardPx}
              onMove={(at, isDone) => (isDone ? save({ at }, "Words moved") : setDraft({ ...scene, at }))}
              onDraw={draw}
            />
            <figcaption className="mt-1 truncate text-[12.5px] font-semibold">{nameOf(face)}</figcaption>
          </figure>
        ))}
      </div>
    </div>
  );
}

const NoPicture = ({ brief }: { brief: Brief }) => (
  <div className="col-span-full border-t border-rule py-6">
    <p>This brief has no picture yet. With one, the faces stand on it, and parts of it can stand in front of them.</p>
    <Link className="btn mt-3 inline-block" href={`/b/${brief.briefId}/brief`}>
      Choose a picture in the brief
    </Link>
  </div>
);

type ControlsProps = {
  scene: Scene;
  tool: Tool;
  setTool: (tool: Tool) => void;
  brushShare: number;
  setBrushShare: (share: number) => void;
  save: (change: Partial<Scene>, message: string) => void;
  setDraft: (scene: Scene) => void;
};

function Controls(props: ControlsProps) {
  const { scene, tool, setTool, save } = props;
  return (
    <div className="mb-3 text-[12.5px]">
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
        <div role="group" aria-label="What the hand does" className="flex flex-wrap gap-1">
          {TOOLS.map((t) => (
            <button
              key={t.tool}
              type="button"
              aria-pressed={tool === t.tool}
              className={`btn ${tool === t.tool ? "btn-act" : ""}`}
              onClick={() => setTool(t.tool)}
            >
              {t.name}
            </button>
          ))}
        </div>
        <button
          type="button"
          className="btn-quiet underline disabled:no-underline"
          disabled={!scene.front.length}
          onClick={() => save({ front: [] }, "Nothing in front of the words")}
        >
          Nothing in front
        </button>
      </div>
      {/* A row of its own, as high with every tool: the pictures stay where the hand has them. */}
      <div className="mt-2 flex min-h-7 flex-wrap items-center gap-x-5">
        <ToolSettings {...props} />
      </div>
    </div>
  );
}

function ToolSettings({ scene, tool, brushShare, setBrushShare, save, setDraft }: ControlsProps) {
  const say = (value: number) => `${Math.round(100 * value)} %`;
  const slide = (label: string, value: number, [min, max]: [number, number], change: (v: number) => Partial<Scene>) => (
    <Slider
      {...{ label, value, min, max, says: say(value) }}
      onSlide={(v) => setDraft({ ...scene, ...change(v) })}
      onDone={(v) => save(change(v), `${label}: ${say(v)}`)}
    />
  );
  if (tool === "move")
    return (
      <>
        {slide("Across", scene.at[0], [-0.2, 1], (v) => ({ at: [v, scene.at[1]] }))}
        {slide("Down", scene.at[1], [0, 1.2], (v) => ({ at: [scene.at[0], v] }))}
        {slide("Size", scene.sizeShare, [0.03, 1], (v) => ({ sizeShare: v }))}
        <label className="flex min-h-6 items-center gap-1.5">
          <input
            type="checkbox"
            checked={scene.isInPaper}
            onChange={(e) =>
              save({ isInPaper: e.target.checked }, e.target.checked ? "Words in the paper’s colour" : "Words in ink")
            }
          />
          in the colour of the paper
        </label>
      </>
    );
  if (tool === "outline")
    return (
      <span className="text-basalt">
        Draw around what stands in front, or click from corner to corner; Enter closes it, Escape drops it.
      </span>
    );
  return (
    <Slider
      label="Width"
      value={brushShare}
      min={0.005}
      max={0.2}
      says={say(brushShare)}
      onSlide={setBrushShare}
      onDone={setBrushShare}
    />
  );
}

type SliderProps = {
  label: string;
  value: number;
  min: number;
  max: number;
  says: string;
  onSlide: (value: number) => void;
  onDone: (value: number) => void;
};

const Slider = ({ label, value, min, max, says, onSlide, onDone }: SliderProps) => (
  <label className="flex min-h-6 items-center gap-2">
    {label}
    <input
      type="range"
      className="w-24 accent-slate"
      {...{ min, max, value }}
      step={0.005}
      aria-valuetext={says}
      onChange={(e) => onSlide(e.target.valueAsNumber)}
      onPointerUp={(e) => onDone(e.currentTarget.valueAsNumber)}
      onKeyUp={(e) => onDone(e.currentTarget.valueAsNumber)}
    />
    <span className="num w-9 text-basalt">{says}</span>
  </label>
);

type CompositionProps = {
  face: ShownItem;
  brief: Brief;
  scene: Scene;
  text: string;
  tool: Tool;
  brushShare: number;
  ratio: number;
  onRatio: (ratio: number) => void;
  widthPx: number;
  onMove: (at: Point, isDone: boolean) => void;
  onDraw: (shape: Pick<FrontShape, "kind" | "points">) => void;
};

/** Picture, words, and what of the picture is drawn again in front of them. */
function Composition(props: CompositionProps) {
  const { face, brief, scene, text, tool, brushShare, ratio, onRatio, widthPx } = props;
  const hand = useHand(props);
  const maskId = useId();
  const size = { width: 1000, height: 1000 / ratio };
  const heightPx = widthPx / ratio;
  const sizePx = scene.sizeShare * heightPx * levelFactor(face.traits, brief.levelBy);
  const src = addressOfPicture(brief);
  const own: FrontShape | null = hand.points && {
    kind: tool === "outline" ? "outline" : "brush",
    points: hand.points,
    erases: tool === "eraser",
    widthShare: brushShare,
  };
  return (
    <div
      className={`relative touch-none overflow-hidden select-none ${tool === "move" ? "cursor-move" : "cursor-crosshair"}`}
      style={{ height: heightPx }}
      {...hand.handlers}
    >
      {/* oxlint-disable-next-line nextjs/no-img-element -- the server made it small enough, and it is kept by its digest */}
      <img
        src={src}
        alt="The brief’s picture"
        draggable={false}
        className="block h-full w-full"
        onLoad={(e) => onRatio(e.currentTarget.naturalWidth / Math.max(1, e.currentTarget.naturalHeight))}
      />
      <div
        className="pointer-events-none absolute w-[400%]"
        style={{ left: `${100 * scene.at[0]}%`, top: scene.at[1] * heightPx - sizePx * BASELINE_EM }}
      >
        <Sample
          {...sampleOf(face)}
          text={text}
          sizePx={sizePx}
          fit={1}
          ink={scene.isInPaper ? brief.paper : brief.ink}
        />
      </div>
      <svg
        viewBox={`0 0 ${size.width} ${size.height}`}
        className="pointer-events-none absolute inset-0 h-full w-full"
        aria-hidden
      >
        <mask id={maskId} maskUnits="userSpaceOnUse" x={0} y={0} {...size}>
          {[...scene.front, ...(own ? [own] : [])].map((shape, i) => (
            <Shape key={i} shape={shape} size={size} />
          ))}
        </mask>
        <image href={src} {...size} preserveAspectRatio="none" mask={`url(#${maskId})`} />
        {own?.kind === "outline" && (
          <path d={pathOfShape(own, size)} fill="none" stroke="var(--tide)" strokeWidth={2} strokeDasharray="6 4" />
        )}
      </svg>
    </div>
  );
}

function Shape({ shape, size }: { shape: FrontShape; size: { width: number; height: number } }) {
  const colour = shape.erases ? "#000" : "#fff";
  const d = pathOfShape(shape, size);
  if (shape.kind === "outline") return <path d={d} fill={colour} />;
  return (
    <path
      d={d}
      fill="none"
      stroke={colour}
      strokeWidth={shape.widthShare * size.width}
      strokeLinecap="round"
      strokeLinejoin="round"
    />
  );
}

/** A press that moves no farther is a click: a corner of an outline. */
const CLICK_SHARE = 0.01;
/** An outline needs three corners. */
const LEAST_CORNERS = 3;

/** What the hand does on one picture: moves the words, draws around something, paints. */
function useHand({ tool, scene, onMove, onDraw }: CompositionProps) {
  const [drawn, setDrawn] = useState<{ by: Tool; points: Point[] } | null>(null);
  // Another tool drops what was begun.
  const points = drawn?.by === tool ? drawn.points : null;
  const setPoints = (next: Point[] | null) => setDrawn(next && { by: tool, points: next });
  const from = useRef<{ at: Point; words: Point; isClick: boolean } | null>(null);
  const drop = () => {
    setPoints(null);
    from.current = null;
  };
  const finish = (all: Point[] | null) => {
    drop();
    if (all && all.length >= LEAST_CORNERS) onDraw({ kind: "outline", points: all });
  };
  useKeys(
    "On the picture",
    [
      { keys: ["Enter"], legend: "close the outline", run: () => finish(points) },
      { keys: ["Escape"], legend: "drop it", run: drop },
    ],
    { isOn: tool === "outline" && points !== null },
  );
  const placeOf = (e: PointerEvent<HTMLElement>): Point => {
    const box = e.currentTarget.getBoundingClientRect();
    return [(e.clientX - box.left) / box.width, (e.clientY - box.top) / box.height];
  };
  const onPointerDown = (e: PointerEvent<HTMLElement>) => {
    if (e.button) return;
    e.currentTarget.setPointerCapture(e.pointerId);
    const at = placeOf(e);
    from.current = { at, words: scene.at, isClick: true };
    if (tool === "outline") setPoints([...(points ?? []), at]);
    else if (tool !== "move") setPoints([at]);
  };
  const onPointerMove = (e: PointerEvent<HTMLElement>) => {
    const start = from.current;
    if (!start) return;
    const at = placeOf(e);
    if (Math.hypot(at[0] - start.at[0], at[1] - start.at[1]) > CLICK_SHARE) start.isClick = false;
    if (tool === "move") onMove(movedBy(start, at), false);
    else if (!start.isClick) setPoints([...(points ?? []), at]);
  };
  const onPointerUp = (e: PointerEvent<HTMLElement>) => {
    const start = from.current;
    from.current = null;
    if (!start) return;
    if (tool === "move") onMove(movedBy(start, placeOf(e)), true);
    else if (tool !== "outline") {
      if (points) onDraw({ kind: "brush", points });
      drop();
    } else if (!start.isClick) finish(points);
  };
  const onDoubleClick = () => tool === "outline" && finish(points);
  return { points, handlers: { onPointerDown, onPointerMove, onPointerUp, onPointerCancel: drop, onDoubleClick } };
}

/** Where the words stand when the hand that took them is there: never so far out that they could not be taken again. */
function movedBy({ at, words }: { at: Point; words: Point }, now: Point): Point {
  const within = (v: number) => Math.round(10_000 * Math.max(-0.9, Math.min(1.2, v))) / 10_000;
  return [within(words[0] + now[0] - at[0]), within(words[1] + now[1] - at[1])];
}
