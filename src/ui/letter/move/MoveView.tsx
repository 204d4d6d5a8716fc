"use client";
// Move: the frame of the film, its poses in a row, what the chosen line does in the chosen pose, letters one after another.
import { Pause, Play } from "lucide-react";
import { parseAsBoolean, parseAsInteger, useQueryState } from "nuqs";
import { useCallback, useEffect, useState } from "react";
import type { Block, LetteringDocument } from "@/contracts/lettering";
import { addPose, removePose, type Ratio } from "@/core/motion/editPoses";
import { frameMs } from "@/core/motion/frames";
import { useKeys } from "../../bench/useKeys";
import { Choice } from "../../parts/Choice";
import { Tick } from "../../parts/Tick";
import { useMedia } from "../../parts/useMedia";
import type { FontAddresses } from "../letter.worker";
import type { LaidBlock } from "../letterTasks";
import { BeginMove } from "./BeginMove";
import { MoveBar } from "./MoveBar";
import { MoveStage } from "./MoveStage";
import { PoseBar } from "./PoseBar";
import { PoseCards } from "./PoseCards";
import { StaggerRow } from "./StaggerRow";
import { useGround } from "./useGround";
import { newPoseId, useClock, useMomentNews, useMoments, usePose, useTime, type PoseChoice } from "./useMotion";
import { FLICKERS_PX, useTold, type Told } from "./useTold";
import type { MotionClock } from "./motionClock";

type Props = {
  document: LetteringDocument;
  fonts: FontAddresses | null;
  blocks: readonly LaidBlock[];
  block: Block | null;
  onChoose: (blockId: string) => void;
  onPreview: (document: LetteringDocument | null) => void;
  onChange: (document: LetteringDocument) => void;
};

export function MoveView(props: Props) {
  const { document, blocks, onChange } = props;
  const [begins, setBegins] = useQueryState("begin", parseAsBoolean.withDefault(false));
  if (!document.motion) return <BeginMove {...{ document, blocks, onChange }} isStarted={false} />;
  return (
    <>
      <Moving {...props} />
      <button
        type="button"
        className="btn-quiet self-start py-1 text-[12.5px] underline"
        aria-expanded={begins}
        onClick={() => void setBegins(!begins)}
      >
        {begins ? "Keep this motion" : "Begin in another way"}
      </button>
      {begins && <BeginMove {...{ document, blocks, onChange }} isStarted />}
    </>
  );
}

/** As wide as films are made where nothing was chosen. */
const FILM_PX = 1920;

function Moving({ document, fonts, block, onChoose, onPreview, onChange }: Props) {
  const motion = document.motion!;
  const clock = useClock(motion.durationMs);
  const [news, setNews] = useState(0);
  const ground = useGround(
    clock,
    useCallback(() => setNews((n) => n + 1), []),
  );
  const [safe, setSafe] = useState<Ratio[]>([]);
  const [widthPx] = useQueryState("px", parseAsInteger.withDefault(FILM_PX));
  const store = useMoments(document, fonts);
  useMomentNews(store);
  const choice = usePose(document, clock);
  const told = useTold(document, fonts, ground, widthPx);
  useStartAtPose(choice, clock);
  useMoveKeys({ document, clock, choice, onChange });
  return (
    <>
      {store?.fault && (
        <p role="alert" className="mb-1 border-l-[3px] border-ochre bg-chalk px-3 py-1.5">
          A line cannot be drawn on its way: set it on another curve, or by its em.
        </p>
      )}
      <ReducedMotion clock={clock} />
      <div className="flex min-h-[240px] flex-1">
        <MoveStage
          {...{ document, store, clock, ground, news, safe, told, onChoose, onPreview, onChange }}
          pose={choice.pose}
          chosenId={block?.id ?? null}
        />
      </div>
      <PlayRow clock={clock} durationMs={motion.durationMs} fps={motion.fps} />
      <MoveBar {...{ document, ground, safe, onChange }} onSafe={setSafe} />
      <Warnings told={told} />
      <PoseCards {...{ document, fonts, choice, clock, onPreview, onChange }} paper={ground.colour} />
      {choice.pose && block && <PoseBar {...{ document, block, onChange }} pose={choice.pose} />}
      {block && <StaggerRow {...{ document, block, onChange }} />}
    </>
  );
}

/** The first look is at a pose in which the letters stand. */
function useStartAtPose({ pose }: PoseChoice, clock: MotionClock) {
  const [timeMs] = useState(pose?.timeMs ?? 0);
  useEffect(() => clock.seek(timeMs), [clock, timeMs]);
}

const REDUCED = "(prefers-reduced-motion: reduce)";
/** Who asked their system for less motion sees still poses; it plays when they say so. */
function ReducedMotion({ clock }: { clock: MotionClock }) {
  const isReduced = useMedia(REDUCED, false);
  useEffect(() => {
    if (isReduced) clock.set({ loops: false });
  }, [clock, isReduced]);
  if (!isReduced) return null;
  return (
    <p className="mb-1 text-[12.5px] text-basalt" data-reduced>
      Your system asks for less motion: nothing plays by itself, and what is played plays once.
    </p>
  );
}

type PlayRowProps = { clock: MotionClock; durationMs: number; fps: number };

const SPEEDS = [
  { value: 1, name: "at its speed" },
  { value: 0.5, name: "at half speed" },
  { value: 0.25, name: "at a quarter" },
];

/** Playing, and the time by hand, frame by frame. */
function PlayRow({ clock, durationMs, fps }: PlayRowProps) {
  const { timeMs, isPlaying, rate, loops } = useTime(clock);
  return (
    <div className="flex shrink-0 items-center gap-3 py-1 text-[12.5px]">
      <button type="button" className="btn flex items-center gap-1.5" aria-pressed={isPlaying} onClick={clock.toggle}>
        {isPlaying ? <Pause size={13} aria-hidden /> : <Play size={13} aria-hidden />}
        {isPlaying ? "Halt" : "Play"}
      </button>
      <input
        type="range"
        aria-label="Time"
        aria-valuetext={`${(timeMs / 1000).toFixed(2)} seconds`}
        className="h-6 min-w-0 flex-1 accent-oxide"
        min={0}
        max={durationMs}
        step={1000 / fps}
        value={timeMs}
        onChange={(e) => {
          clock.halt();
          clock.seek(Number(e.target.value));
        }}
      />
      <Choice
        label="Speed"
        value={rate}
        options={SPEEDS}
        onChange={(next) => clock.set({ rate: next })}
        strong={false}
      />
      <Tick name="Over and over" checked={loops} onChange={(isOn) => clock.set({ loops: isOn })} />
    </div>
  );
}

/** Large letters are told apart from here on (WCAG 2.2, 1.4.3). */
const LEAST_RATIO = 3;

function Warnings({ told }: { told: Told | null }) {
  if (!told) return null;
  const { contrast, readMs, standsMs, thinnest } = told;
  const seconds = (ms: number) => `${(ms / 1000).toFixed(1)} s`;
  const notes = [
    standsMs < readMs ? `It takes ${seconds(readMs)} to read and stands for ${seconds(standsMs)}.` : null,
    contrast && contrast.ratio < LEAST_RATIO
      ? `Faint at ${seconds(contrast.timeMs)}: ${contrast.ratio.toFixed(1)} : 1 against what lies behind it; at least ${LEAST_RATIO} : 1 can be read.`
      : null,
    thinnest && thinnest.px < FLICKERS_PX
      ? `The thinnest stroke is ${thinnest.px.toFixed(1)} px at ${seconds(thinnest.timeMs)}: under ${FLICKERS_PX} px it flickers while it moves.`
      : null,
  ].filter((n) => n !== null);
  return (
    <ul className="flex flex-wrap gap-x-6 py-0.5 text-[12.5px]" data-warnings={notes.length}>
      {notes.length ? (
        notes.map((note) => (
          <li key={note} className="border-l-[3px] border-ochre pl-2">
            {note}
          </li>
        ))
      ) : (
        <li className="border-l-[3px] border-lichen pl-2 text-basalt">
          Reads in {seconds(readMs)}, stands for {seconds(standsMs)}; no stroke is too thin.
        </li>
      )}
    </ul>
  );
}

type KeyProps = {
  document: LetteringDocument;
  clock: MotionClock;
  choice: PoseChoice;
  onChange: (document: LetteringDocument) => void;
};

function useMoveKeys({ document, clock, choice, onChange }: KeyProps) {
  const { fps } = document.motion!;
  const stepFrame = (by: number) => {
    clock.halt();
    const n = Math.round((clock.now.timeMs * fps) / 1000) + by;
    clock.seek(frameMs({ fps }, n));
  };
  const add = () => {
    const id = newPoseId();
    onChange(addPose(document, choice.pose?.id ?? null, id));
    void choice.setWanted(id);
  };
  useKeys("Move", [
    { keys: [" "], shown: "Space", legend: "play", run: () => void clock.toggle() },
    { keys: ["ArrowLeft"], legend: "frame back", isLesser: true, run: () => stepFrame(-1) },
    { keys: ["ArrowRight"], shown: "← →", legend: "frame", run: () => stepFrame(1) },
    { keys: ["ArrowUp"], legend: "pose before", isLesser: true, run: () => choice.step(-1) },
    { keys: ["ArrowDown"], shown: "↑ ↓", legend: "pose", run: () => choice.step(1) },
    { keys: ["p"], legend: "add a pose", run: add },
    {
      keys: ["Delete", "Backspace"],
      legend: "remove the pose",
      isLesser: true,
      run: () => choice.pose && onChange(removePose(document, choice.pose.id)),
    },
  ]);
}
