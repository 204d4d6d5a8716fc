"use client";
// The way from one pose to the next as a curve: bent by its two handles, by keys, or chosen by name.
import { useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import type { Ease } from "@/contracts/poses";
import { curveOf, easeAt } from "@/core/motion/ease";
import { Choice } from "../../parts/Choice";

const NAMES = [
  { value: "linear", name: "even" },
  { value: "in", name: "eases in" },
  { value: "out", name: "eases out" },
  { value: "in-out", name: "eases in and out" },
  { value: "hold", name: "holds" },
  { value: "own", name: "bent by hand" },
] as const;
type EaseName = (typeof NAMES)[number]["value"];

/** Of the square from 0, 0 to 1, 1, and of what swings over it above and below. */
const [WIDE_PX, HIGH_PX, OVER_PX] = [76, 48, 16];
const STEP = 0.05;
const POINTS = 32;

type Props = {
  from: string;
  to: string;
  seconds: number;
  ease: Ease;
  onPreview: (ease: Ease | null) => void;
  onChange: (ease: Ease) => void;
};
type Curve = [number, number, number, number];

const x = (v: number) => v * WIDE_PX;
const y = (v: number) => OVER_PX + (1 - v) * HIGH_PX;
const round = (v: number) => Math.round(v * 100) / 100;

export function EaseCurve({ from, to, seconds, ease, onPreview, onChange }: Props) {
  const name: EaseName = typeof ease === "string" ? ease : "own";
  const curve = curveOf(ease);
  const choose = (next: EaseName) => {
    const own = curve ?? [0.4, 0, 0.2, 1];
    onChange(next === "own" ? ([...own] as Curve) : next);
  };
  return (
    <div className="flex w-[96px] shrink-0 flex-col items-center gap-1 pt-1 text-[12px]" data-ease={name}>
      <Drawn {...{ from, to, ease, curve, onPreview, onChange }} />
      <span className="num text-basalt">{Number(seconds.toFixed(2))} s</span>
      <Choice label={`From ${from} to ${to}`} value={name} options={[...NAMES]} onChange={choose} strong={false} />
    </div>
  );
}

type DrawnProps = Omit<Props, "seconds"> & { curve: readonly number[] | null };

function Drawn({ from, to, ease, curve, onPreview, onChange }: DrawnProps) {
  const points = Array.from({ length: POINTS + 1 }, (_, i) => {
    const share = i / POINTS;
    return `${x(share).toFixed(1)},${y(easeAt(ease, share)).toFixed(1)}`;
  });
  return (
    <svg
      width={WIDE_PX + 16}
      height={HIGH_PX + 2 * OVER_PX}
      viewBox={`-8 0 ${WIDE_PX + 16} ${HIGH_PX + 2 * OVER_PX}`}
      role="group"
      aria-label={`Easing from ${from} to ${to}`}
      className="touch-none overflow-visible"
    >
      <path d={`M0 ${y(1)}V${y(0)}H${WIDE_PX}`} fill="none" stroke="var(--rule)" />
      <polyline points={points.join(" ")} fill="none" stroke="var(--oxide)" strokeWidth={2} />
      {curve &&
        [0, 1].map((i) => (
          <Handle key={i} index={i as 0 | 1} curve={curve as Curve} onPreview={onPreview} onChange={onChange} />
        ))}
    </svg>
  );
}

type HandleProps = {
  index: 0 | 1;
  curve: Curve;
  onPreview: (ease: Ease | null) => void;
  onChange: (ease: Ease) => void;
};

function Handle({ index, curve, onPreview, onChange }: HandleProps) {
  const [isHeld, setHeld] = useState(false);
  const last = useRef<Curve | null>(null);
  const [hx, hy] = [curve[2 * index]!, curve[2 * index + 1]!];
  const at = (nx: number, ny: number): Curve => {
    const next = [...curve] as Curve;
    next[2 * index] = round(Math.max(0, Math.min(1, nx)));
    next[2 * index + 1] = round(Math.max(-0.3, Math.min(1.3, ny)));
    return next;
  };
  const onMove = (event: PointerEvent<SVGElement>) => {
    if (!isHeld) return;
    const box = event.currentTarget.ownerSVGElement!.getBoundingClientRect();
    last.current = at((event.clientX - box.left - 8) / WIDE_PX, 1 - (event.clientY - box.top - OVER_PX) / HIGH_PX);
    onPreview(last.current);
  };
  const onUp = () => {
    setHeld(false);
    if (last.current) onChange(last.current);
    last.current = null;
  };
  const onKey = (event: KeyboardEvent) => {
    const by = { ArrowLeft: [-STEP, 0], ArrowRight: [STEP, 0], ArrowUp: [0, STEP], ArrowDown: [0, -STEP] }[event.key];
    if (!by) return;
    event.preventDefault();
    event.stopPropagation();
    onChange(at(hx + by[0]!, hy + by[1]!));
  };
  const corner = index === 0 ? [0, 0] : [1, 1];
  return (
    <g>
      <line x1={x(corner[0]!)} y1={y(corner[1]!)} x2={x(hx)} y2={y(hy)} stroke="var(--basalt)" strokeDasharray="2 2" />
      <circle cx={x(hx)} cy={y(hy)} r={4} fill="var(--oxide)" pointerEvents="none" />
      <circle
        role="slider"
        tabIndex={0}
        aria-label={index === 0 ? "How it sets out" : "How it comes in"}
        aria-valuenow={hy}
        aria-valuetext={`${hx} of the time, ${hy} of the way`}
        aria-valuemin={-0.3}
        aria-valuemax={1.3}
        cx={x(hx)}
        cy={y(hy)}
        r={12}
        fill="transparent"
        className="cursor-move"
        data-handle={index}
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          setHeld(true);
        }}
        onPointerMove={onMove}
        onPointerUp={onUp}
        onPointerCancel={onUp}
        onKeyDown={onKey}
      />
    </g>
  );
}
