"use client";
// What counts as lettering in the picture, corrected: by what it is, by a colour that is picked, by a brush.
import type { HandInk } from "@/contracts/identify";
import { lettersOf, takeLetters, type InkTool } from "./ink";

type Props = {
  ink: HandInk | null;
  tool: InkTool | null;
  brush: number;
  canUndo: boolean;
  onInk: (ink: HandInk | null) => void;
  onTool: (tool: InkTool | null) => void;
  /** Breadth of the brush, 1–10. */
  onBrush: (brush: number) => void;
  onUndo: () => void;
};

const LETTERS: Record<HandInk["letters"], string> = {
  found: "what stands out",
  dark: "the dark parts",
  light: "the light parts",
  outlines: "inside the outlines",
};
const TOOLS: [InkTool, string, string][] = [
  ["letter", "Letter colour", "Click a letter in the picture: everything of that colour is lettering"],
  ["ground", "Background", "Click what isn’t lettering: everything of that colour is left out"],
  ["paint", "Paint in", "Paint over parts of letters that were missed"],
  ["rub-out", "Erase", "Paint over what isn’t lettering"],
];

export function InkBar({ ink, tool, brush, canUndo, onInk, onTool, onBrush, onUndo }: Props) {
  return (
    <div role="group" aria-label="Ink" className="flex flex-wrap items-center gap-x-1.5 gap-y-1.5 text-[12px]">
      <label className="flex items-center gap-1.5 text-basalt">
        Letters:
        <select
          className="field w-auto py-0.5 text-slate"
          value={ink?.letterAt.length ? "picked" : lettersOf(ink)}
          onChange={(e) => onInk(takeLetters(ink, e.target.value as HandInk["letters"]))}
        >
          {Object.entries(LETTERS).map(([value, says]) => (
            <option key={value} value={value}>
              {says}
            </option>
          ))}
          {Boolean(ink?.letterAt.length) && <option value="picked">the picked colour</option>}
        </select>
      </label>
      {TOOLS.map(([name, label, title]) => (
        <button
          key={name}
          type="button"
          className="btn px-2 py-1"
          title={title}
          aria-pressed={tool === name}
          onClick={() => onTool(tool === name ? null : name)}
        >
          {label}
        </button>
      ))}
      {(tool === "paint" || tool === "rub-out") && (
        <input
          type="range"
          min={1}
          max={10}
          value={brush}
          aria-label="Brush size"
          className="w-14"
          onChange={(e) => onBrush(Number(e.target.value))}
        />
      )}
      {canUndo && (
        <button type="button" className="btn-quiet" onClick={onUndo}>
          Undo
        </button>
      )}
      {ink && (
        <button type="button" className="btn-quiet" onClick={() => onInk(null)}>
          Reset
        </button>
      )}
    </div>
  );
}
