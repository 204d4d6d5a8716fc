"use client";
// The parts of letters, named on this face's own outlines: heights as lines, parts as points with their terms.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Anatomy as AnatomyData, AnatomyMark } from "@/contracts/anatomy";
import type { StyleDetail } from "@/contracts/styles";
import { queryOf } from "../parts/client";

const HEIGHT_PX = 250;
const GAP_EM = 0.16;

export function Anatomy({ style }: { style: StyleDetail }) {
  const anatomy = useQuery({
    ...queryOf("getAnatomy", { params: { id: style.styleId } }),
    staleTime: Infinity,
    enabled: style.owned,
  });
  const [looked, setLooked] = useState<AnatomyMark | null>(null);
  if (!style.owned)
    return <p className="text-basalt">Only a trial of this face is here: its parts can be shown when it is bought.</p>;
  if (!anatomy.data) return <p className="text-basalt">…</p>;
  const { letters, lines, unitsPerEm } = anatomy.data;
  if (!letters.length) return <p className="text-basalt">This face has no Latin letters to name the parts of.</p>;
  const half = Math.ceil(letters.length / 2);
  return (
    <div className="max-w-[1060px]">
      {[letters.slice(0, half), letters.slice(half)].map((row, i) => (
        <Row key={i} letters={row} lines={lines} em={unitsPerEm} looked={looked} onLook={setLooked} />
      ))}
      <p className="mt-1 min-h-[18px]" aria-live="polite">
        {looked ? (
          <>
            <b>{looked.term}</b>: {looked.says}
          </>
        ) : (
          <span className="text-basalt">Point at a part, or Tab to it, to see what it is and its measurement.</span>
        )}
      </p>
    </div>
  );
}

type RowProps = {
  letters: AnatomyData["letters"];
  lines: AnatomyData["lines"];
  em: number;
  looked: AnatomyMark | null;
  onLook: (m: AnatomyMark | null) => void;
};

function Row({ letters, lines, em, looked, onLook }: RowProps) {
  const top = Math.max(...lines.map((l) => l.y), ...letters.map((l) => l.bounds.yMax)) + 0.16 * em;
  const bottom = Math.min(...lines.map((l) => l.y), ...letters.map((l) => l.bounds.yMin)) - 0.16 * em;
  const label = 0.052 * em;
  const left = 0.62 * em;
  const starts = letters.reduce<number[]>(
    (at, l) => [...at, at[at.length - 1]! + Math.max(l.bounds.xMax - l.bounds.xMin, 0.36 * em) + GAP_EM * em * 2],
    [left],
  );
  const width = starts[starts.length - 1]!;
  return (
    <svg
      viewBox={`0 ${-top} ${width} ${top - bottom}`}
      className="block w-full"
      style={{ maxHeight: HEIGHT_PX }}
      role="group"
      aria-label="Parts of letters"
      preserveAspectRatio="xMinYMid meet"
    >
      {lines.map((l) => (
        <g key={l.term}>
          <line x1={0} x2={width} y1={-l.y} y2={-l.y} stroke="var(--rule)" strokeWidth={em * 0.004} />
          <text x={0} y={-l.y - label * 0.3} fontSize={label} fill="var(--basalt)">
            {l.term}
          </text>
        </g>
      ))}
      {letters.map((l, i) => (
        <g key={l.char} transform={`translate(${starts[i]! - l.bounds.xMin} 0)`}>
          <path d={l.path} fill="var(--slate)" opacity={0.82} pointerEvents="none" />
          {placeLabels(l, em).map(({ mark, x, y }) => (
            <g
              key={mark.term}
              role="img"
              tabIndex={0}
              aria-label={`${mark.term} of ${l.char}: ${mark.says}`}
              onMouseEnter={() => onLook(mark)}
              onFocus={() => onLook(mark)}
              onMouseLeave={() => onLook(null)}
              onBlur={() => onLook(null)}
              className="cursor-help outline-none"
            >
              <line x1={mark.x} y1={-mark.y} x2={x} y2={-y} stroke="var(--oxide)" strokeWidth={em * 0.004} />
              {/* Wider than what is seen, so that it is easily pointed at. */}
              <line x1={mark.x} y1={-mark.y} x2={x} y2={-y} stroke="transparent" strokeWidth={em * 0.05} />
              <circle
                cx={mark.x}
                cy={-mark.y}
                r={em * (looked === mark ? 0.022 : 0.014)}
                fill="var(--oxide)"
                stroke="var(--limestone)"
                strokeWidth={em * 0.005}
              />
              <text
                x={x}
                y={-y + label * 0.35}
                fontSize={label}
                fontWeight={600}
                textAnchor="middle"
                fill="var(--oxide)"
                stroke="var(--limestone)"
                strokeWidth={label * 0.22}
                paintOrder="stroke"
              >
                {mark.term}
              </text>
            </g>
          ))}
        </g>
      ))}
    </svg>
  );
}

/** Names stand above or below the letter, the nearer way, so that they do not lie on the ink; several on one side are stacked. */
function placeLabels(l: AnatomyData["letters"][number], em: number) {
  const { yMin, yMax } = l.bounds;
  let [above, below] = [0, 0];
  return [...l.marks]
    .sort((a, b) => a.x - b.x)
    .map((mark) => {
      const goesUp = mark.y > (yMin + yMax) / 2;
      const n = goesUp ? above++ : below++;
      const y = goesUp ? yMax + em * (0.05 + 0.062 * n) : yMin - em * (0.05 + 0.062 * n);
      return { mark, x: mark.x, y };
    });
}
