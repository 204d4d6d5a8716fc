"use client";
// How large the sheet is, and what it is made of: a ground in a colour, or nothing behind the letters.
import type { LetteringDocument } from "@/contracts/lettering";
import { convertLength } from "@/contracts/units";
import { fitSheet, marginFor } from "@/core/letter/fitSheet";
import { useBench } from "../bench/BenchContext";
import { ColourField } from "./ColourField";
import type { LaidBlock } from "./letterTasks";
import { NumberField } from "./NumberField";
import { Tick } from "../parts/Tick";

type Props = {
  document: LetteringDocument;
  blocks: readonly LaidBlock[];
  change: (document: LetteringDocument) => void;
};

export function SheetSize({ document, blocks, change }: Props) {
  const { brief } = useBench();
  const { sheet } = document;
  const put = (part: Partial<LetteringDocument["sheet"]>) => change({ ...document, sheet: { ...sheet, ...part } });
  const field = (label: string, key: "widthMm" | "heightMm", unit?: string) => (
    <NumberField
      label={label}
      unit={unit}
      least={0.1}
      step={10}
      value={convertLength(sheet[key], "mm", brief.unit)}
      onChange={(v) => put({ [key]: convertLength(v, brief.unit, "mm") })}
    />
  );
  const fit = () => {
    const ink = blocks.flatMap(({ ink: b }) =>
      b ? [{ xMm: b.xMin, yMm: b.yMin, widthMm: b.xMax - b.xMin, heightMm: b.yMax - b.yMin }] : [],
    );
    const longest = Math.max(0, ...ink.map((b) => Math.max(b.widthMm, b.heightMm)));
    change(fitSheet(document, ink, marginFor(longest)));
  };
  return (
    <span className="ml-auto flex flex-wrap items-center gap-x-3">
      {field("Sheet", "widthMm")}
      {field("by", "heightMm", brief.unit)}
      <button type="button" className="btn-quiet underline" onClick={fit}>
        Fit to the letters
      </button>
      <Tick
        name="Ground"
        checked={sheet.ground !== null}
        onChange={(isOn) => put({ ground: isOn ? brief.paper.toLowerCase() : null })}
      />
      {sheet.ground !== null && (
        <ColourField label="Ground" value={sheet.ground} onChange={(ground) => put({ ground })} />
      )}
    </span>
  );
}
