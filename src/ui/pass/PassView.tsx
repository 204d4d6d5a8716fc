"use client";
// A pass: faces come one after another, large, in the brief's words. One key keeps, one sets aside, one leaves, one undoes.
import { useQuery } from "@tanstack/react-query";
import Link from "next/link";
import { useEffect, useReducer } from "react";
import type { Mark, Pass } from "@/contracts/passes";
import type { ShownItem } from "@/contracts/styles";
import { KIND_WORDS } from "@/contracts/words";
import { levelFactor } from "@/core/brief/level";
import { useCharacterNames } from "@/ui/parts/characterNames";
import { bindUndo } from "../bench/useCommands";
import { useKeys } from "../bench/useKeys";
import { useBench } from "../bench/BenchContext";
import { useActiveLine } from "../bench/BriefStrip";
import { factsOf } from "../find/facts";
import { queryOf } from "../parts/client";
import { CareMark } from "../parts/CareMark";
import { CoreSample, type Ranges } from "../parts/CoreSample";
import { preloadFaces } from "../parts/faceLoader";
import { Sample } from "../parts/Sample";
import { sampleOf } from "../parts/sampleOf";
import { VerdictMark } from "../parts/VerdictMark";
import { countMarks, passReducer, startPass } from "./state";
import { useMarks, type Decisions } from "./useMarks";

/** Items are fetched in pieces of this many; the next piece comes before it is needed. */
const PIECE = 40;
const MARK_WORDS: Record<Mark["mark"], string> = { kept: "kept", aside: "set aside", left: "left" };

export function PassView({ pass, ranges }: { pass: Pass; ranges: Ranges }) {
  const { brief, dispatch: tellBench } = useBench();
  const [active] = useActiveLine();
  const [state, dispatch] = useReducer(passReducer, pass, startPass);
  const { item, isReady } = usePassItems(pass, state.place);
  const face = item(state.place);
  const counts = countMarks(state.marks);
  const isDone = state.marks.size === state.total;
  const wall = `/b/${brief.briefId}/find?${cleaned(pass.question)}`;
  useEffect(() => {
    tellBench({ type: "facts", facts: face ? factsOf(face) : [] });
  }, [face, tellBench]);
  const decisions = useMarks(pass, state, dispatch);
  usePassKeys({ ...decisions, wall, onBack: () => dispatch({ type: "looked at", place: state.place - 1 }) });
  const text = brief.lines[active]?.text || " ";
  return (
    <div className="flex h-full flex-col" data-pass={pass.passId} data-place={state.place} data-done={state.marks.size}>
      <header className="flex items-baseline gap-5 border-b border-rule px-6 pt-4 pb-2">
        <h1 className="min-w-0 truncate text-[16px] font-bold">{pass.title}</h1>
        <span className="num" aria-live="polite">
          {Math.min(state.place + 1, state.total)} of {state.total}
        </span>
        <span className="text-basalt">
          {counts.kept} kept, {counts.aside} set aside, {counts.left} skipped, {state.total - state.marks.size}{" "}
          remaining
        </span>
        <Link href={wall} className="btn ml-auto">
          Stop here
        </Link>
      </header>
      <Progress counts={counts} total={state.total} />
      {isDone && state.place >= state.total ? (
        <Done counts={counts} wall={wall} onUndo={decisions.undo} />
      ) : (
        <div className="flex min-h-0 flex-1 flex-col justify-center overflow-hidden px-10">
          {face ? (
            <Face key={face.styleId} face={face} text={text} ranges={ranges} mark={state.marks.get(state.place)} />
          ) : (
            <p className="text-basalt">
              {isReady ? "This face is gone: its library was disconnected. Press → to go on." : "…"}
            </p>
          )}
          <Decide {...decisions} />
          <Next items={[1, 2, 3].map((k) => item(state.place + k))} text={text} />
        </div>
      )}
    </div>
  );
}

function usePassKeys({ mark, undo, redo, wall, onBack }: Decisions & { wall: string; onBack: () => void }) {
  useKeys("Review", [
    {
      keys: [" "],
      legend: "keep",
      run: (event) => ((event.target as HTMLElement).closest("a, button") ? false : mark("kept")),
    },
    { keys: ["x"], legend: "set aside", run: () => mark("aside") },
    { keys: ["ArrowRight"], legend: "skip", run: () => mark("left") },
    { keys: ["ArrowLeft"], legend: "back", run: onBack },
    ...bindUndo({ undo, redo, isInFootLine: true }),
    { keys: ["Escape"], legend: "stop here", run: () => window.location.assign(wall) },
  ]);
}

function Decide({ mark, undo, canUndo }: Decisions) {
  return (
    <div className="mt-6 flex gap-3">
      <button type="button" className="btn btn-act" onClick={() => mark("kept")}>
        Keep
      </button>
      <button type="button" className="btn" onClick={() => mark("aside")}>
        Set aside
      </button>
      <button type="button" className="btn" onClick={() => mark("left")}>
        Skip
      </button>
      <button type="button" className="btn-quiet underline" disabled={!canUndo} onClick={undo}>
        Undo
      </button>
    </div>
  );
}

/** The wall again, without what is not its own. */
const cleaned = (question: string) => {
  const p = new URLSearchParams(question);
  for (const key of ["briefId", "limit", "cursor"]) p.delete(key);
  return p.toString();
};

function usePassItems(pass: Pass, place: number) {
  const piece = Math.floor(place / PIECE);
  const nextPiece = Math.floor((place + 12) / PIECE);
  const read = (p: number) => ({
    ...queryOf("listReviewItems", {
      params: { id: pass.briefId, passId: pass.passId },
      query: { from: p * PIECE, count: PIECE },
    }),
    staleTime: Infinity,
  });
  const here = useQuery(read(piece));
  const next = useQuery({ ...read(nextPiece), enabled: nextPiece * PIECE < pass.total });
  const byId = new Map([...(here.data?.items ?? []), ...(next.data?.items ?? [])].map((i) => [i.styleId, i]));
  const item = (at: number) => {
    const id = pass.styleIds[at];
    return id ? byId.get(id) : undefined;
  };
  const ahead = [1, 2, 3, 4, 5, 6].flatMap((k) => {
    const i = item(place + k);
    return i?.owned ? [i.styleId] : [];
  });
  const key = ahead.join();
  useEffect(() => preloadFaces(key ? key.split(",") : []), [key]);
  return { item, isReady: Boolean(here.data) };
}

type Counts = ReturnType<typeof countMarks>;

function Progress({ counts, total }: { counts: Counts; total: number }) {
  const share = (n: number) => `${(100 * n) / Math.max(1, total)}%`;
  return (
    <div
      role="progressbar"
      aria-label="Progress of the pass"
      aria-valuemin={0}
      aria-valuemax={total}
      aria-valuenow={counts.kept + counts.aside + counts.left}
      className="flex h-1.5 bg-rule/60"
    >
      <span style={{ width: share(counts.kept) }} className="bg-oxide" title={`${counts.kept} kept`} />
      <span style={{ width: share(counts.left) }} className="bg-tide" title={`${counts.left} left`} />
      <span style={{ width: share(counts.aside) }} className="bg-basalt/60" title={`${counts.aside} set aside`} />
    </div>
  );
}

function Face({
  face,
  text,
  ranges,
  mark,
}: {
  face: ShownItem;
  text: string;
  ranges: Ranges;
  mark: Mark["mark"] | undefined;
}) {
  const nameCharacter = useCharacterNames();
  const { brief } = useBench();
  const size = (px: number) => px * levelFactor(face.traits, brief.levelBy);
  const sample = sampleOf(face);
  return (
    <article aria-label={`${face.family} ${face.style}`} data-face-name={`${face.family} ${face.style}`}>
      <div className="border-y border-rule px-4 py-5" style={{ background: brief.paper, color: brief.ink }}>
        <Sample {...sample} text={text} sizePx={size(88)} ink={brief.ink} />
        <div className="mt-3">
          <Sample {...sample} text="Rag 0123456789 & ? ! Lantern" sizePx={size(28)} ink={brief.ink} />
        </div>
      </div>
      <div className="mt-3 flex items-center gap-4">
        <CoreSample traits={face.traits} ranges={ranges} width={24} band={9} />
        <div>
          <p className="text-[15px] font-semibold">
            {face.family} {face.style}
            {mark && <span className="ml-3 font-normal text-oxide">{MARK_WORDS[mark]}</span>}
          </p>
          <p className="flex gap-4 text-basalt">
            <span>{face.kinds.map((k) => KIND_WORDS[k]).join(", ")}</span>
            <span className="text-slate">
              <VerdictMark verdict={face.verdict} price={face.price} />
            </span>
            <CareMark health={face.health} />
            {face.missing.length > 0 && (
              <span className="font-semibold text-madder">
                no {face.missing.map((c) => `${c} (${nameCharacter(c.codePointAt(0)!)})`).join(", ")}
              </span>
            )}
          </p>
        </div>
      </div>
    </article>
  );
}

function Next({ items, text }: { items: (ShownItem | undefined)[]; text: string }) {
  const shown = items.filter((i): i is ShownItem => Boolean(i));
  if (!shown.length) return null;
  return (
    <div className="mt-8 border-t border-rule pt-2 opacity-55" aria-hidden>
      <p className="head">Next</p>
      <div className="mt-1 grid grid-cols-3 gap-6">
        {shown.map((i) => (
          <Sample key={i.styleId} {...sampleOf(i)} text={text} sizePx={24} />
        ))}
      </div>
    </div>
  );
}

function Done({ counts, wall, onUndo }: { counts: Counts; wall: string; onUndo: () => void }) {
  const { brief } = useBench();
  return (
    <div className="p-10">
      <p className="text-[18px] font-semibold">All done.</p>
      <p className="mt-1 text-basalt">
        {counts.kept} kept, {counts.aside} set aside, {counts.left} skipped.
      </p>
      <div className="mt-5 flex gap-3">
        <Link href={`/b/${brief.briefId}/shortlist`} className="btn btn-act">
          Order the shortlist
        </Link>
        <Link href={wall} className="btn">
          Back to the wall
        </Link>
        <button type="button" className="btn-quiet underline" onClick={onUndo}>
          Undo the last
        </button>
      </div>
    </div>
  );
}
