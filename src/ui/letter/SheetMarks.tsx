"use client";
// What is drawn on the sheet beside the letters: numbered findings, a scale bar, boxes for characters that a face lacks.
import type { Finding } from "@/contracts/lettering";
import type { Bounds } from "@/core/geometry/outline";
import { convertLength, type LengthUnit } from "@/contracts/units";
import type { LaidLetter } from "./letterTasks";
import type { Guide } from "./snapMove";

/** A hatched box of the letter's width, for a character that the face lacks. */
export function Missing({ letter: { from, to, text, turnRad }, emMm }: { letter: LaidLetter; emMm: number }) {
  const width = Math.max(0.3 * emMm, Math.hypot(to.xMm - from.xMm, to.yMm - from.yMm));
  return (
    <g transform={`translate(${from.xMm} ${from.yMm}) rotate(${(turnRad * 180) / Math.PI})`}>
      <title>{`${text}: not in this face`}</title>
      <rect
        {...{ width, height: 0.7 * emMm, y: -0.7 * emMm }}
        fill="color-mix(in srgb, var(--madder) 18%, transparent)"
        stroke="var(--madder)"
        strokeDasharray="5 3"
        vectorEffect="non-scaling-stroke"
      />
    </g>
  );
}

export function Mark({ finding, number, pxPerMm }: { finding: Finding; number: number; pxPerMm: number }) {
  const r = 9 / pxPerMm;
  return (
    <g pointerEvents="none" data-mark={number}>
      <circle
        cx={finding.xMm}
        cy={finding.yMm}
        r={r}
        fill="var(--chalk)"
        stroke="var(--madder)"
        vectorEffect="non-scaling-stroke"
      />
      <text
        x={finding.xMm}
        y={finding.yMm + 4 / pxPerMm}
        fontSize={11 / pxPerMm}
        textAnchor="middle"
        fill="var(--madder)"
        className="font-mono font-medium"
      >
        {number}
      </text>
    </g>
  );
}

/** What a block that is dragged rests on. */
export function GuideLine({ guide, widthMm, heightMm }: { guide: Guide; widthMm: number; heightMm: number }) {
  const d = "xMm" in guide ? `M${guide.xMm} 0V${heightMm}` : `M0 ${guide.yMm}H${widthMm}`;
  return <path d={d} stroke="var(--tide)" vectorEffect="non-scaling-stroke" pointerEvents="none" data-guide />;
}

/** A length of one, two or five of a power of ten, about a sixth of what is shown. */
export function ScaleBar({ view, pxPerMm, unit }: { view: Bounds; pxPerMm: number; unit: LengthUnit }) {
  const wanted = convertLength((view.xMax - view.xMin) / 6, "mm", unit);
  const power = 10 ** Math.floor(Math.log10(wanted));
  const length = [5, 2, 1].map((n) => n * power).find((n) => n <= wanted) ?? power;
  const mm = convertLength(length, unit, "mm");
  const [x, y] = [view.xMax - mm - 14 / pxPerMm, view.yMax - 26 / pxPerMm];
  return (
    <g aria-hidden pointerEvents="none">
      <path d={`M${x} ${y}h${mm}`} stroke="#48525a" strokeWidth={2} vectorEffect="non-scaling-stroke" />
      <text
        x={x + mm}
        y={y + 15 / pxPerMm}
        fontSize={11 / pxPerMm}
        textAnchor="end"
        fill="#48525a"
        className="font-mono"
      >
        {length} {unit}
      </text>
    </g>
  );
}
