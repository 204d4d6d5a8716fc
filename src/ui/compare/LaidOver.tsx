"use client";
// Two faces laid over each other: what is of one alone keeps its colour, what both share is dark. The second is dragged, or moved by keys.
import { useRef, useState, type RefObject } from "react";
import type { Brief } from "@/contracts/brief";
import type { ShownItem } from "@/contracts/styles";
import { levelFactor } from "@/core/brief/level";
import { sharedFit } from "@/core/brief/sharedFit";
import { BASELINE_EM, Sample } from "../parts/Sample";
import { sampleOf } from "../parts/sampleOf";
import { ARROW_STEPS } from "../parts/arrowSteps";
import { Choice } from "../parts/Choice";

const BASE_PX = 150;
/** On chalk in both themes: the two colours are made to be seen through each other there. */
const GROUND = "#FBF9F4";
const COLOURS = ["#C4603A", "#2E8C97"] as const;
type Place = [number, number];
type Two = readonly [ShownItem, ShownItem];

/** While it is dragged nothing is drawn again: the layer moves. */
function useDrag(upper: RefObject<HTMLDivElement | null>, at: Place, setAt: (at: Place) => void) {
  return (event: React.PointerEvent) => {
    const from = [event.clientX - at[0], event.clientY - at[1]] as const;
    let now = at;
    const target = event.currentTarget;
    target.setPointerCapture(event.pointerId);
    const move = (e: Event) => {
      const { clientX, clientY } = e as PointerEvent;
      now = [clientX - from[0], clientY - from[1]];
      upper.current!.style.transform = `translate(${now[0]}px, ${now[1]}px)`;
    };
    const end = () => {
      target.removeEventListener("pointermove", move);
      setAt(now);
    };
    target.addEventListener("pointermove", move);
    target.addEventListener("pointerup", end, { once: true });
    target.addEventListener("pointercancel", end, { once: true });
  };
}

type TwoFacesProps = {
  two: Two;
  options: { value: number; name: string }[];
  pair: readonly [number, number];
  onPair: (pair: [number, number]) => void;
};

function TwoFaces({ two, options, pair, onPair }: TwoFacesProps) {
  return two.map((face, k) => (
    <span key={k} className="flex items-center gap-2">
      <span className="h-3 w-3" style={{ background: COLOURS[k] }} />
      <Choice
        label={k ? "Laid over it" : "Underneath"}
        value={k ? pair[1] : pair[0]}
        options={options.filter((o) => o.value !== (k ? pair[0] : pair[1]))}
        onChange={(value) => onPair(k ? [pair[0], value] : [value, pair[1]])}
      />
      <span className="sr-only">{face.family}</span>
    </span>
  ));
}

type LayersProps = {
  brief: Brief;
  two: Two;
  text: string;
  fit: number;
  at: Place;
  upper: RefObject<HTMLDivElement | null>;
};

function Layers({ brief, two, text, fit, at, upper }: LayersProps) {
  return two.map((face, k) => {
    const sizePx = BASE_PX * fit * levelFactor(face.traits, brief.levelBy);
    const baselinePx = BASE_PX * 1.35 * Math.max(0.7, fit);
    return (
      <div
        key={k}
        ref={k ? upper : undefined}
        className="pointer-events-none absolute inset-0 px-6"
        style={{
          mixBlendMode: "multiply",
          ...(k && { transform: `translate(${at[0]}px, ${at[1]}px)`, willChange: "transform" }),
        }}
      >
        <div style={{ marginTop: baselinePx - sizePx * BASELINE_EM }}>
          <Sample {...sampleOf(face)} text={text} sizePx={sizePx} ink={COLOURS[k]} fit={1} />
        </div>
      </div>
    );
  });
}

export function LaidOver({
  brief,
  faces,
  text,
  widthPx,
  pair,
  onPair,
}: {
  brief: Brief;
  faces: readonly ShownItem[];
  text: string;
  widthPx: number;
  pair: readonly [number, number];
  onPair: (pair: [number, number]) => void;
}) {
  const upper = useRef<HTMLDivElement>(null);
  const [at, setAt] = useState<Place>([0, 0]);
  const two = [faces[pair[0]] ?? faces[0]!, faces[pair[1]] ?? faces[1]!] as const;
  const fit = sharedFit(two, text, { basePx: BASE_PX, levelBy: brief.levelBy, roomPx: widthPx - 64 });
  const options = faces.map((f, i) => ({ value: i, name: `${f.family} ${f.style}` }));
  const drag = useDrag(upper, at, setAt);
  return (
    <div>
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1 py-2">
        <TwoFaces two={two} options={options} pair={pair} onPair={onPair} />
        <span className="text-basalt">Drag the second one, or focus it and use the arrows; Shift moves further.</span>
        {(at[0] !== 0 || at[1] !== 0) && (
          <button type="button" className="btn-quiet underline" onClick={() => setAt([0, 0])}>
            Put it back
          </button>
        )}
      </div>
      <div
        role="group"
        aria-label={`${two[1].family} ${two[1].style} laid over ${two[0].family} ${two[0].style}`}
        tabIndex={0}
        data-over={`${Math.round(at[0])},${Math.round(at[1])}`}
        className="relative cursor-grab touch-none overflow-hidden active:cursor-grabbing"
        style={{ background: GROUND, height: BASE_PX * 2 * Math.max(0.7, fit), isolation: "isolate" }}
        onPointerDown={drag}
        onKeyDown={(event) => {
          const way = ARROW_STEPS[event.key];
          if (!way) return;
          event.preventDefault();
          event.stopPropagation();
          const by = event.shiftKey ? 10 : 1;
          setAt([at[0] + way[0] * by, at[1] + way[1] * by]);
        }}
      >
        <Layers two={two} {...{ brief, text, fit, at, upper }} />
      </div>
    </div>
  );
}
