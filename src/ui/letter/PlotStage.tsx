"use client";
// What the plotter cuts of a file: pieces on the film, the way of the tool between them, cut by cut.
import { useRef, useState } from "react";
import type { Plot } from "@/contracts/plotter";
import { convertLength, writeLength, type LengthUnit } from "@/contracts/units";
import { readInner, useMeasured } from "../parts/useMeasured";
import { writeSeconds } from "../parts/words";

/** More numbers than these lie on one another. */
const MOST_NUMBERS = 60;

type Props = { plot: Plot; unit: LengthUnit; onKeepTogether: (() => void) | null; onClose: () => void };

export function PlotStage({ plot, unit, onKeepTogether, onClose }: Props) {
  const { cuts, toolUps, cutMm, travelMm, seconds, pieces, groups, movedPieces } = plot;
  const [shown, setShown] = useState(cuts.length);
  const length = (mm: number) => writeLength(convertLength(mm, "mm", unit), unit);
  return (
    <section aria-label="What the plotter cuts" className="flex min-h-0 flex-1 flex-col" data-plot={plot.plotId}>
      <div className="flex flex-wrap items-center gap-x-6 gap-y-1 pb-1.5 text-[12.5px]">
        <p role="status" className="font-semibold">
          Sent. {pieces === 1 ? "1 piece" : `${pieces} pieces`} in {cuts.length} cuts.
        </p>
        <p className="num text-basalt">
          {(cutMm / 1000).toFixed(2)} m to cut · {(travelMm / 1000).toFixed(2)} m with the tool up · {toolUps} tool-up
          moves · {writeSeconds(seconds)} · {length(plot.widthMm)} of film
        </p>
        <label className="flex items-center gap-2">
          <span className="text-basalt">Cuts shown</span>
          <input
            type="range"
            min={0}
            max={cuts.length}
            value={shown}
            aria-valuetext={`${shown} of ${cuts.length}`}
            onChange={(e) => setShown(Number(e.target.value))}
          />
          <span className="num w-14">
            {shown}/{cuts.length}
          </span>
        </label>
        <button type="button" className="btn" onClick={onClose}>
          Back to the sheet
        </button>
      </div>
      {movedPieces > 0 && (
        <p role="alert" className="mb-1.5 flex items-center gap-3 border-l-[3px] border-ochre bg-chalk px-3 py-1.5">
          The plotter packs pieces to save film: {movedPieces} of {pieces} would not lie as they were set.
          {onKeepTogether && (
            <button type="button" className="btn" onClick={onKeepTogether}>
              Keep them together and send again
            </button>
          )}
        </p>
      )}
      {groups > 0 && movedPieces === 0 && (
        <p className="mb-1 text-[12.5px] text-basalt">All pieces lie as they were set: they are kept together.</p>
      )}
      <Film plot={plot} shown={shown} />
    </section>
  );
}

/** The film lies along the stage, the roll's width from top to bottom. */
function Film({ plot, shown }: { plot: Plot; shown: number }) {
  const frame = useRef<HTMLDivElement>(null);
  const size = useMeasured(frame, readInner);
  const { widthMm, heightMm, cuts } = plot;
  const pxPerMm = size ? Math.min((size.widthPx - 16) / widthMm, (size.heightPx - 16) / heightMm) : 1;
  const way = cuts.slice(0, shown).map((c, i) => {
    const [fromX, fromY] = i ? cuts[i - 1]!.points : [0, 0];
    return `M${fromX} ${fromY}L${c.points[0]} ${c.points[1]}`;
  });
  return (
    <div ref={frame} className="relative min-h-0 flex-1 overflow-hidden border border-rule bg-limestone">
      {size && (
        <svg
          role="img"
          aria-label={`${shown} of ${cuts.length} cuts on the film`}
          width={widthMm * pxPerMm}
          height={heightMm * pxPerMm}
          viewBox={`0 0 ${widthMm} ${heightMm}`}
          className="absolute top-1/2 left-1/2 -translate-x-1/2 -translate-y-1/2 bg-chalk"
        >
          <g fill="none" strokeWidth={1} strokeLinejoin="round">
            {cuts.map((c, i) => (
              <path
                key={i}
                d={`M${pairs(c.points)}Z`}
                stroke={i < shown ? "var(--slate)" : "var(--rule)"}
                vectorEffect="non-scaling-stroke"
              />
            ))}
            <path
              d={way.join("")}
              stroke="var(--oxide)"
              strokeDasharray="3 3"
              vectorEffect="non-scaling-stroke"
              data-tool-up
            />
          </g>
          {cuts.length <= MOST_NUMBERS &&
            cuts.map((c, i) => (
              <text
                key={i}
                x={c.points[0]! + 3 / pxPerMm}
                y={c.points[1]! - 3 / pxPerMm}
                fontSize={10 / pxPerMm}
                fill="var(--basalt)"
                className="font-mono"
              >
                {i + 1}
              </text>
            ))}
        </svg>
      )}
    </div>
  );
}

function pairs(points: readonly number[]): string {
  const out: string[] = [];
  for (let i = 0; i < points.length; i += 2) out.push(`${points[i]} ${points[i + 1]}`);
  return out.join("L");
}
