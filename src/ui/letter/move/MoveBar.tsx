"use client";
// What is set for the whole motion: length and rate, the frame, what lies behind, safe areas.
import { useRef } from "react";
import type { LetteringDocument } from "@/contracts/lettering";
import { FRAME_RATES } from "@/contracts/poses";
import { changeRatio, changeTiming, RATIOS, shareOf, type Ratio } from "@/core/motion/editPoses";
import { Choice } from "../../parts/Choice";
import { Tick } from "../../parts/Tick";
import { NumberField } from "../NumberField";
import type { Ground } from "./useGround";

type Props = {
  document: LetteringDocument;
  ground: Ground;
  safe: readonly Ratio[];
  onSafe: (safe: Ratio[]) => void;
  onChange: (document: LetteringDocument) => void;
};

export function MoveBar({ document, ground, safe, onSafe, onChange }: Props) {
  const motion = document.motion!;
  const rates = [...new Set([...FRAME_RATES, motion.fps])].map((fps) => ({
    value: fps,
    name: `${fps} frames a second`,
  }));
  return (
    <div
      className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule py-1.5 text-[12.5px]"
      data-move-bar
    >
      <NumberField
        label="Length"
        unit="s"
        step={0.1}
        least={0.1}
        most={600}
        widthPx={36}
        value={motion.durationMs / 1000}
        onChange={(v) =>
          onChange(changeTiming(document, { durationMs: Math.max(v * 1000, ...motion.poses.map((p) => p.timeMs)) }))
        }
      />
      <Choice
        label="Rate"
        value={motion.fps}
        options={rates}
        onChange={(fps) => onChange(changeTiming(document, { fps }))}
      />
      <FrameChoice {...{ document, onChange }} />
      <GroundChoice ground={ground} />
      <fieldset className="flex items-baseline gap-2">
        <legend className="float-left mr-2 text-basalt">Safe areas</legend>
        {RATIOS.map((ratio) => (
          <Tick
            key={ratio}
            name={ratio}
            checked={safe.includes(ratio)}
            onChange={(isOn) => onSafe(isOn ? [...safe, ratio] : safe.filter((r) => r !== ratio))}
          />
        ))}
      </fieldset>
    </div>
  );
}

/** The proportions of the frame: those of a screen, or of the sheet as it is. */
function FrameChoice({ document, onChange }: Pick<Props, "document" | "onChange">) {
  const { widthMm, heightMm } = document.sheet;
  const own = RATIOS.find((r) => Math.abs(shareOf(r) - widthMm / heightMm) < 0.01);
  const options = [
    ...(own ? [] : [{ value: "own" as const, name: "frame as the sheet" }]),
    ...RATIOS.map((r) => ({ value: r, name: `frame ${r}` })),
  ];
  return (
    <Choice<Ratio | "own">
      label="Frame"
      value={own ?? "own"}
      options={options}
      onChange={(ratio) => ratio !== "own" && ratio !== own && onChange(changeRatio(document, ratio))}
    />
  );
}

function GroundChoice({ ground }: { ground: Ground }) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <span className="flex items-baseline gap-1.5">
      <span className="text-basalt">Over</span>
      <Choice label="Over" value={ground.kind} options={ground.kinds} onChange={ground.choose} />
      <button type="button" className="btn-quiet underline" onClick={() => input.current?.click()}>
        Choose a clip
      </button>
      <input
        ref={input}
        type="file"
        accept="video/*"
        className="hidden"
        aria-label="Clip"
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) ground.takeClip(file);
          e.target.value = "";
        }}
      />
      {ground.fault && <span className="text-madder">{ground.fault}</span>}
    </span>
  );
}
