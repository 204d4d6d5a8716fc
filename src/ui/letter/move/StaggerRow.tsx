"use client";
// Letters one after another: who comes when, as steps over the line.
import type { Block, LetteringDocument } from "@/contracts/lettering";
import type { Stagger } from "@/contracts/poses";
import { changeMask, changeStagger } from "@/core/motion/editPoses";
import { turnsOf } from "@/core/motion/order";
import { Choice } from "../../parts/Choice";
import { Tick } from "../../parts/Tick";
import { NumberField } from "../NumberField";

const UNITS = [
  { value: "together", name: "all at once" },
  { value: "letter", name: "letter by letter" },
  { value: "word", name: "word by word" },
  { value: "line", name: "line by line" },
] as const;
const ORDERS = [
  { value: "first", name: "from the first" },
  { value: "last", name: "from the last" },
  { value: "middle", name: "from the middle" },
  { value: "shuffled", name: "shuffled" },
] as const;
const START: Stagger = { unit: "letter", order: "first", stepMs: 40 };

type Props = { document: LetteringDocument; block: Block; onChange: (document: LetteringDocument) => void };

export function StaggerRow({ document, block, onChange }: Props) {
  const { stagger, mask } = document.motion!;
  const put = (by: Partial<Stagger>) => onChange(changeStagger(document, { ...START, ...stagger, ...by }));
  return (
    <div
      className="flex flex-wrap items-end gap-x-5 gap-y-1 py-1.5 text-[12.5px]"
      data-stagger={stagger?.unit ?? "together"}
    >
      <div className="flex flex-col gap-0.5">
        <span className="flex items-baseline gap-1.5">
          <span className="text-basalt">Letters come</span>
          <Choice
            label="Letters come"
            value={stagger?.unit ?? "together"}
            options={[...UNITS]}
            onChange={(unit) => (unit === "together" ? onChange(changeStagger(document, undefined)) : put({ unit }))}
          />
        </span>
        {stagger && (
          <span className="flex items-baseline gap-3">
            <Choice label="Order" value={stagger.order} options={[...ORDERS]} onChange={(order) => put({ order })} />
            <NumberField
              label="Apart"
              unit="ms"
              step={10}
              least={0}
              most={10_000}
              widthPx={36}
              value={stagger.stepMs}
              onChange={(stepMs) => put({ stepMs })}
            />
          </span>
        )}
        <Tick
          name="Seen above their baseline only"
          checked={mask === "baseline"}
          onChange={(isOn) => onChange(changeMask(document, isOn))}
        />
      </div>
      {stagger && <Steps {...{ block, stagger }} />}
    </div>
  );
}

const STEP_PX = 2;
const MOST_PX = 34;

/** Each letter with a bar: the higher, the later. */
function Steps({ block, stagger }: { block: Block; stagger: Stagger }) {
  const lines = block.text.split("\n");
  const letters = lines
    .flatMap((text, line) => [...text].map((char) => ({ text: char, line })))
    .map((l, at) => ({ ...l, at }));
  const turns = turnsOf(letters, { staggerMs: stagger.stepMs, order: stagger.order, unit: stagger.unit });
  const last = Math.max(1, ...turns.values());
  const step = Math.min(STEP_PX * 3, MOST_PX / last);
  return (
    <div
      className="flex items-end overflow-x-auto"
      role="img"
      aria-label={`The last letter comes ${Math.round(last * stagger.stepMs)} ms after the first`}
    >
      {letters.slice(0, 80).map(({ at, text }) => (
        <span key={at} className="flex w-[15px] flex-col items-center">
          <span className="h-[3px] w-full bg-tide" style={{ marginBottom: (turns.get(at) ?? 0) * step }} />
          <span className="h-5 text-[14px] font-semibold">{text}</span>
        </span>
      ))}
    </div>
  );
}
