"use client";
// Over the picture while its ink is corrected: where colours were picked, what was painted in and rubbed out, and the tool in hand.
import { useRef, useState } from "react";
import type { Corner, HandInk } from "@/contracts/identify";
import { ARROW_STEPS } from "../parts/arrowSteps";
import type { InkTool } from "./ink";
import { placeUnder, type Frame, type Picture } from "./state";

type Props = {
  picture: Picture;
  frame: Frame | null;
  ink: HandInk | null;
  tool: InkTool;
  /** Radius of the brush in pixels of the picture. */
  radiusPx: number;
  /** A place was picked, or a stroke has ended. */
  onUsed: (points: Corner[]) => void;
};

const SAYS: Record<InkTool, string> = {
  letter: "Click a letter: its colour becomes ink",
  ground: "Click what isn’t lettering: its colour is left out",
  paint: "Paint over what belongs to the letters",
  "rub-out": "Paint over what doesn’t belong to the letters",
};
const TIDE = "#1c6b74";
const OXIDE = "#a8431a";

export function InkMarks({ picture, frame, ink, tool, radiusPx, onUsed }: Props) {
  const { widthPx, heightPx } = picture;
  const ground = useRef<HTMLDivElement>(null);
  const [stroke, setStroke] = useState<Corner[]>([]);
  /** Where the keys have moved the tool. */
  const [aim, setAim] = useState<Corner | null>(null);
  const isBrush = tool === "paint" || tool === "rub-out";
  const placeOf = (event: React.PointerEvent) => placeUnder(event, ground.current!.getBoundingClientRect(), picture);
  const end = () => {
    if (stroke.length) onUsed(stroke);
    setStroke([]);
  };
  const press = (event: React.KeyboardEvent) => {
    const step = ARROW_STEPS[event.key];
    const from = aim ?? { x: Math.round(widthPx / 2), y: Math.round(heightPx / 2) };
    const by = Math.max(1, Math.round(widthPx / (event.shiftKey ? 40 : 200)));
    if (step)
      setAim({
        x: Math.min(widthPx - 1, Math.max(0, from.x + by * step[0])),
        y: Math.min(heightPx - 1, Math.max(0, from.y + by * step[1])),
      });
    else if (event.key === "Enter" || event.key === " ") onUsed([from]);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <div
      ref={ground}
      role="group"
      tabIndex={0}
      aria-label={`${SAYS[tool]}. Arrow keys move, Enter ${isBrush ? "paints a dot" : "picks"}.`}
      data-ink-tool={tool}
      className="absolute inset-0 cursor-crosshair touch-none"
      onKeyDown={press}
      onPointerDown={(event) => {
        if (event.button !== 0) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        setAim(null);
        setStroke([placeOf(event)]);
      }}
      onPointerMove={(event) => stroke.length > 0 && setStroke([...stroke, placeOf(event)])}
      onPointerUp={end}
      onPointerCancel={() => setStroke([])}
    >
      <svg
        viewBox={`0 0 ${widthPx} ${heightPx}`}
        preserveAspectRatio="none"
        className="pointer-events-none absolute inset-0 h-full w-full"
        aria-hidden
      >
        {frame && <rect {...frame} fill="none" stroke="#20262b" strokeWidth={1.5} vectorEffect="non-scaling-stroke" />}
        {ink?.strokes.map((s, i) => (
          <Painted key={i} points={s.points} radiusPx={s.radiusPx} colour={s.rubsOut ? OXIDE : TIDE} />
        ))}
        {isBrush && stroke.length > 0 && (
          <Painted points={stroke} radiusPx={radiusPx} colour={tool === "rub-out" ? OXIDE : TIDE} />
        )}
        {ink?.letterAt.map((p, i) => (
          <Picked key={i} at={p} widthPx={widthPx} colour={TIDE} />
        ))}
        {ink?.groundAt.map((p, i) => (
          <Picked key={i} at={p} widthPx={widthPx} colour={OXIDE} />
        ))}
        {aim && (
          <path
            d={`M${aim.x - widthPx / 40},${aim.y}h${widthPx / 20}M${aim.x},${aim.y - widthPx / 40}v${widthPx / 20}`}
            stroke="#fbf9f4"
            strokeWidth={2}
            vectorEffect="non-scaling-stroke"
            style={{ mixBlendMode: "difference" }}
          />
        )}
      </svg>
    </div>
  );
}

const Painted = ({ points, radiusPx, colour }: { points: readonly Corner[]; radiusPx: number; colour: string }) => (
  <path
    d={`M${points.map((p) => `${p.x},${p.y}`).join("L")}${points.length === 1 ? "h0.01" : ""}`}
    fill="none"
    stroke={colour}
    strokeWidth={2 * radiusPx}
    strokeLinecap="round"
    strokeLinejoin="round"
    opacity={0.55}
  />
);

const Picked = ({ at, widthPx, colour }: { at: Corner; widthPx: number; colour: string }) => (
  <circle
    cx={at.x}
    cy={at.y}
    r={widthPx / 90}
    fill={colour}
    fillOpacity={0.35}
    stroke="#fbf9f4"
    strokeWidth={1.5}
    vectorEffect="non-scaling-stroke"
  />
);
