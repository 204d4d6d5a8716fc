"use client";
// What stands over the sheet: the four ways in working order, what is in the way, the lines as blocks.
import type { ReactNode } from "react";
import type { Block, LetteringDocument } from "@/contracts/lettering";
import { editText, replaceBlock } from "@/core/letter/editBlock";
import { useBench } from "../bench/BenchContext";
import type { LaidBlock } from "./letterTasks";
import { SheetSize } from "./SheetSize";
import type { LaidOut } from "./useLaid";
import type { Editing } from "./useLettering";

export const WAYS = [
  { way: "set", name: "Set" },
  { way: "shape", name: "Shape" },
  { way: "check", name: "Check" },
  { way: "move", name: "Move" },
  { way: "save", name: "Save as" },
] as const;
export type Way = (typeof WAYS)[number]["way"];
type TabsProps = {
  way: Way;
  editing: Editing;
  found: number | undefined;
  onWay: (way: Way) => void;
  children: ReactNode;
};

export function WayTabs({ way, editing, found, onWay, children }: TabsProps) {
  const { unsaved, isFailing, retry, stepsBack } = editing;
  const steps = stepsBack === 1 ? "1 step back" : `${stepsBack} steps back`;
  return (
    <div className="flex flex-wrap items-end justify-between gap-x-4 border-b-2 border-slate">
      <div role="group" aria-label="Ways of working" className="flex gap-6">
        {WAYS.map((w) => (
          <button
            key={w.way}
            type="button"
            aria-pressed={way === w.way}
            onClick={() => onWay(w.way)}
            className={`-mb-0.5 min-w-6 border-b-[3px] pb-1.5 text-[15px] font-semibold ${way === w.way ? "border-oxide" : "border-transparent text-basalt"}`}
          >
            {w.name}
            {w.way === "check" && found ? <span className="num ml-1.5 text-ochre">{found}</span> : null}
          </button>
        ))}
      </div>
      <span className="flex items-baseline gap-3 pb-1.5 text-[12px] text-basalt">
        {children}
        <span role="status" data-saved={unsaved === 0 && !isFailing}>
          {unsaved ? "saving …" : isFailing ? "not saved" : "saved"} · {steps}
        </span>
        {isFailing && !unsaved && (
          <button type="button" className="btn-quiet underline" onClick={retry}>
            Save again
          </button>
        )}
      </span>
    </div>
  );
}

const LAYOUT_FAULTS = {
  "path-crosses": "crosses itself, so letters would lie on one another. The line is shown as it was before.",
  "path-unread": "cannot be read. The line is shown as it was before.",
  "no-size": "has no letter to measure its size by. Set the size by em instead.",
  "face-unread": "cannot be drawn: the face breaks what reads it.",
} as const;

/** What stands in the way: another tab, a clash, a path, characters that are missing. */
export function Told({ editing, laid, blocks }: { editing: Editing; laid: LaidOut; blocks: readonly Block[] }) {
  const notes: { key: string; text: string; deeds?: [string, () => void][] }[] = [];
  if (editing.clash)
    notes.push({
      key: "clash",
      text: "This lettering was changed elsewhere meanwhile. Nothing of either is lost: choose which goes on.",
      deeds: [
        ["Go on with mine", () => editing.settle("mine")],
        ["Go on with theirs", () => editing.settle("theirs")],
      ],
    });
  else if (editing.holding === "elsewhere")
    notes.push({
      key: "held",
      text: "This lettering is open in another tab, which is the one that changes it.",
      deeds: [["Work here instead", editing.takeOver]],
    });
  if (laid.isUnreached)
    notes.push({ key: "font", text: "A font could not be fetched. It is tried again with the next change." });
  if (laid.fault) {
    const text = blocks.find((b) => b.id === laid.fault!.blockId)?.text ?? "";
    const isPath = laid.fault.code.startsWith("path");
    notes.push({
      key: "fault",
      text: `${isPath ? `The curve of “${text}”` : `The face of “${text}”`} ${LAYOUT_FAULTS[laid.fault.code]}`,
    });
  }
  const lacking = laid.blocks.filter((b) => b.missing.length);
  for (const { id, missing } of lacking)
    notes.push({
      key: `missing ${id}`,
      text: `The face of “${blocks.find((b) => b.id === id)?.text ?? ""}” has no ${missing.join(" ")}. Choose another face, or other words.`,
    });
  return notes.map(({ key, text, deeds }) => (
    <p
      key={key}
      role="alert"
      className="mt-2 flex flex-wrap items-center gap-3 border-l-[3px] border-ochre bg-chalk px-3 py-1.5"
      data-note={key}
    >
      {text}
      {deeds?.map(([name, onDo]) => (
        <button key={name} type="button" className="btn" onClick={onDo}>
          {name}
        </button>
      ))}
    </p>
  ));
}

type LinesProps = {
  document: LetteringDocument;
  blocks: readonly LaidBlock[];
  chosenId: string | null;
  isHere: boolean;
  onChoose: (id: string) => void;
  change: (document: LetteringDocument) => void;
};

/** The lines as blocks: one is chosen; words that the brief has changed since are taken over by a button. */
export function LineTabs({ document, blocks, chosenId, isHere, onChoose, change }: LinesProps) {
  const { brief } = useBench();
  const block = document.blocks.find((b) => b.id === chosenId);
  const own = brief.lines.find((l) => l.id === chosenId);
  const others = brief.lines.filter((l) => l.id && l.text.trim() && !document.blocks.some((b) => b.id === l.id));
  const add = (line: (typeof others)[number]) => {
    const last = document.blocks[document.blocks.length - 1];
    if (!last) return;
    const { path: _, letters: __, pairs: ___, bridges: ____, ...look } = last;
    const at = { xMm: last.at.xMm, yMm: Math.round(last.at.yMm + document.sheet.heightMm / 6) };
    change({ ...document, blocks: [...document.blocks, { ...look, id: line.id!, text: line.text, at }] });
  };
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1 py-2 text-[12.5px]">
      <div role="group" aria-label="Lines" className="flex flex-wrap gap-x-4">
        {document.blocks.map((b) => (
          <button
            key={b.id}
            type="button"
            aria-pressed={b.id === chosenId}
            onClick={() => onChoose(b.id)}
            className={`border-b-2 ${b.id === chosenId ? "border-oxide font-semibold" : "border-transparent text-basalt"}`}
          >
            {b.text.replace(/\s+/g, " ") || "empty line"}
          </button>
        ))}
      </div>
      {isHere && block && own && own.text !== block.text && (
        <button
          type="button"
          className="btn-quiet underline"
          onClick={() => change(replaceBlock(document, editText(block, own.text)))}
        >
          Use the brief’s words: {own.text}
        </button>
      )}
      {isHere &&
        others.map((line) => (
          <button key={line.id} type="button" className="btn-quiet underline" onClick={() => add(line)}>
            Add “{line.text}”
          </button>
        ))}
      {isHere && <SheetSize {...{ document, blocks, change }} />}
    </div>
  );
}
