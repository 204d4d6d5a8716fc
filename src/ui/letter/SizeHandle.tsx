"use client";
// The height of the chosen line on the sheet, dragged to another size.
import { useState, type PointerEvent } from "react";
import type { Block } from "@/contracts/lettering";
import { convertLength, writeLength, type LengthUnit } from "@/contracts/units";
import type { LaidBlock } from "./letterTasks";

type Props = {
  block: Block;
  laid: LaidBlock | undefined;
  pxPerMm: number;
  unit: LengthUnit;
  onPreview: (block: Block | null) => void;
  onChange: (block: Block) => void;
};
const round = (v: number) => Math.round(v * 100) / 100;

/** The height of capitals at the left of the chosen block, dragged to another size. */
export function SizeHandle({ block, laid, pxPerMm, unit, onPreview, onChange }: Props) {
  const [grip, setGrip] = useState<{ y: number; block: Block; heightMm: number } | null>(null);
  if (!laid?.ink || block.fitWidthMm !== undefined) return null;
  const { xMin, yMin, yMax } = laid.ink;
  const x = Math.max(10 / pxPerMm, xMin - 22 / pxPerMm);
  const scaled = (event: PointerEvent): Block => {
    // What is previewed is another height by then: the one that was taken hold of counts.
    const grown = (grip!.y - event.clientY) / pxPerMm / grip!.heightMm;
    return { ...grip!.block, size: scaleSize(grip!.block, Math.max(0.05, 1 + grown)) };
  };
  const said = sizeOf(block, laid.emMm);
  // Beside the handle where there is room for it, else over it.
  const isBeside = x * pxPerMm > LABEL_PX;
  return (
    <g className="text-tide" stroke="currentColor" fill="currentColor">
      <path
        d={`M${x - 4 / pxPerMm} ${yMin}H${x + 4 / pxPerMm}M${x} ${yMin}V${yMax}M${x - 4 / pxPerMm} ${yMax}H${x + 4 / pxPerMm}`}
        vectorEffect="non-scaling-stroke"
        fill="none"
      />
      <text
        x={isBeside ? x - 6 / pxPerMm : x - 4 / pxPerMm}
        y={isBeside ? (yMin + yMax) / 2 : yMin - 13 / pxPerMm}
        fontSize={12 / pxPerMm}
        textAnchor={isBeside ? "end" : "start"}
        stroke="none"
        className="font-mono"
      >
        {writeLength(convertLength(said, "mm", unit), unit)}
      </text>
      <circle
        cx={x}
        cy={yMin}
        r={7 / pxPerMm}
        fill="var(--chalk)"
        vectorEffect="non-scaling-stroke"
        className="cursor-ns-resize"
        data-size-handle
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          setGrip({ y: e.clientY, block, heightMm: yMax - yMin });
        }}
        onPointerMove={(e) => grip && onPreview(scaled(e))}
        onPointerUp={(e) => {
          if (grip && Math.abs(grip.y - e.clientY) > 1) onChange(scaled(e));
          else onPreview(null);
          setGrip(null);
        }}
      />
    </g>
  );
}

const LABEL_PX = 64;

/** The size of a block as it is said, in mm. */
export const sizeOf = ({ size }: Block, emMm: number) =>
  "emMm" in size ? size.emMm : "capHeightMm" in size ? size.capHeightMm : "xHeightMm" in size ? size.xHeightMm : emMm;
function scaleSize({ size }: Block, factor: number): Block["size"] {
  const [[key, value]] = Object.entries(size) as [[string, number]];
  return { [key]: Math.max(0.5, round(value * factor)) } as Block["size"];
}
