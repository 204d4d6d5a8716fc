"use client";
// Two by two: two settings under each other, one question at a time; beside them the order grows. Everything is kept as it is answered.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import Link from "next/link";
import { useCallback, useEffect, useRef, useState } from "react";
import type { Round } from "@/contracts/compare";
import type { StyleId } from "@/contracts/ids";
import type { ShownItem } from "@/contracts/styles";
import { levelFactor } from "@/core/brief/level";
import { useBench } from "../bench/BenchContext";
import { useGo } from "../bench/useGo";
import { useKeys } from "../bench/useKeys";
import { writeFault } from "../messages";
import { ask, faultOf, readAgain } from "../parts/client";
import { FaultNote } from "../parts/FaultNote";
import { Sample } from "../parts/Sample";
import { sampleOf } from "../parts/sampleOf";
import { useComparing } from "../bench/comparing";
import { Ladder } from "./Ladder";
import { useFaces } from "./useCompared";

export function RoundsView() {
  const { brief } = useBench();
  const { ids: compared } = useComparing();
  const [kept] = useState(() => [...new Set(brief.kept.map((k) => k.styleId))]);
  const ids = kept.length > 1 ? kept : (compared as StyleId[]);
  if (ids.length < 2) return <TooFew />;
  return <Rounds key={ids.join()} ids={ids} />;
}

function TooFew() {
  const { brief } = useBench();
  return (
    <div className="p-8">
      <h1 className="text-[16px] font-semibold">It takes two kept faces at least.</h1>
      <p className="mt-1 text-basalt">Keep what you like on the wall; then this puts it in order, two at a time.</p>
      <Link className="btn btn-act mt-4 inline-block" href={`/b/${brief.briefId}/find`}>
        Go to the wall
      </Link>
    </div>
  );
}

function Rounds({ ids }: { ids: readonly StyleId[] }) {
  const { brief } = useBench();
  const begun = useQuery({
    queryKey: ["beginRounds", brief.briefId, ids],
    queryFn: () => ask("beginRounds", { params: { id: brief.briefId }, body: { styleIds: [...ids] } }),
    staleTime: Infinity,
    gcTime: 0,
  });
  if (begun.error) return <FaultNote fault={writeFault(faultOf(begun.error))} />;
  if (!begun.data) return <p className="p-8 text-basalt">Getting the first two …</p>;
  return <Asking begun={begun.data} />;
}

/** What was answered is sent one after another; the page shows what the server says of it. */
function useAnswers(begun: Round) {
  const { say, sayFault } = useBench();
  const [round, setRound] = useState(begun);
  const [isSending, setSending] = useState(false);
  const isBusy = useRef(false);
  const send = useCallback(
    async (work: () => Promise<Round>) => {
      if (isBusy.current) return;
      isBusy.current = true;
      setSending(true);
      try {
        setRound(await work());
      } catch (error) {
        sayFault(error);
      } finally {
        isBusy.current = false;
        setSending(false);
      }
    },
    [sayFault],
  );
  const params = { id: round.roundId };
  return {
    round,
    isSending,
    choose: (chosen: StyleId | null) => {
      const { pair } = round;
      if (pair) void send(() => ask("choose", { params, body: { ...pair, chosen } }));
    },
    back: () => {
      if (round.asked) void send(() => ask("unchoose", { params }));
      else say("No choice was made yet, so there is nothing to undo.");
    },
  };
}

function Asking({ begun }: { begun: Round }) {
  const { brief } = useBench();
  const go = useGo();
  const { round, isSending, choose, back } = useAnswers(begun);
  const faces = useFaces(round.styleIds);
  const faceOf = new Map(faces?.map((f) => [f.styleId, f]));
  const { pair } = round;
  const stop = () => go(`/b/${brief.briefId}/compare`);
  useKeys("Two by two", [
    { keys: ["ArrowUp"], legend: "choose", shown: "↑ ↓", run: () => (pair ? choose(pair.left) : false) },
    { keys: ["ArrowDown"], legend: "choose the lower", isLesser: true, run: () => (pair ? choose(pair.right) : false) },
    { keys: ["ArrowRight"], legend: "neither", shown: "→", run: () => (pair ? choose(null) : false) },
    { keys: ["u"], legend: "back", run: back },
    { keys: ["Escape"], legend: "stop here", run: stop },
  ]);
  useRoundFacts(pair && [faceOf.get(pair.left), faceOf.get(pair.right)]);
  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)_300px] max-lg:grid-cols-[minmax(0,1fr)_230px]">
      <section className="min-w-0 overflow-y-auto px-4 pt-3 pb-6" aria-label="Question" aria-busy={isSending}>
        {pair ? (
          <Question round={round} faceOf={faceOf} choose={choose} back={back} isSending={isSending} />
        ) : (
          <Settled round={round} back={back} />
        )}
      </section>
      <Ladder round={round} faceOf={faceOf} />
    </div>
  );
}

const Key = ({ children }: { children: string }) => (
  <kbd className="justify-self-center rounded-sm border border-rule bg-chalk px-1.5 font-mono text-[11px]">
    {children}
  </kbd>
);

type QuestionProps = {
  round: Round;
  faceOf: ReadonlyMap<string, ShownItem>;
  choose: (chosen: StyleId | null) => void;
  back: () => void;
  isSending: boolean;
};

function Question({ round, faceOf, choose, back, isSending }: QuestionProps) {
  const { left, right } = round.pair!;
  return (
    <>
      <h1 className="text-[16px] font-bold">Which one says it better?</h1>
      <p className="text-basalt" aria-live="polite" data-asked={round.asked}>
        {round.asked} asked, about {round.expectedLeft} to go. You can stop at any time; the order stands.
      </p>
      <div className="mt-3 grid gap-4">
        <Setting face={faceOf.get(left)} mark="↑" onChoose={() => choose(left)} isSending={isSending} />
        <Setting face={faceOf.get(right)} mark="↓" onChoose={() => choose(right)} isSending={isSending} />
      </div>
      <div className="mt-3 flex gap-6">
        <button type="button" className="btn-quiet flex items-center gap-2" onClick={() => choose(null)}>
          <Key>→</Key> Neither is better
        </button>
        <button type="button" className="btn-quiet flex items-center gap-2" onClick={back} disabled={!round.asked}>
          <Key>U</Key> Take the last answer back
        </button>
      </div>
    </>
  );
}

type SettingProps = { face: ShownItem | undefined; mark: string; onChoose: () => void; isSending: boolean };

/** The brief's first two lines in one face: a button as large as the setting. */
function Setting({ face, mark, onChoose, isSending }: SettingProps) {
  const { brief } = useBench();
  const [first, second] = brief.lines.filter((l) => l.text.trim());
  const level = face ? levelFactor(face.traits, brief.levelBy) : 1;
  return (
    <button
      type="button"
      onClick={onChoose}
      aria-disabled={isSending}
      aria-label={face ? `Choose ${face.family} ${face.style}` : "Choose"}
      className="grid min-h-[200px] w-full grid-cols-[40px_minmax(0,1fr)] items-center border-t border-rule py-4 pr-4 text-left hover:bg-chalk focus-visible:bg-chalk"
    >
      <Key>{mark}</Key>
      <span className="block min-w-0">
        {face && first && <Sample {...sampleOf(face)} text={first.text} sizePx={78 * level} />}
        {face && second && <Sample {...sampleOf(face)} text={second.text} sizePx={36 * level} />}
        <span className="mt-2 block text-[12px] text-basalt">{face && `${face.family} ${face.style}`}</span>
      </span>
    </button>
  );
}

function Settled({ round, back }: { round: Round; back: () => void }) {
  const { brief, sayDone, sayFault, arrive, who } = useBench();
  const queries = useQueryClient();
  const [isTaken, setTaken] = useState(false);
  const take = async () => {
    try {
      const { brief: ordered, says } = await ask(
        "takeOrder",
        { params: { id: round.roundId } },
        { headers: { "x-who": who() } },
      );
      arrive(ordered);
      void readAgain(queries, "kept", "decisions");
      setTaken(true);
      sayDone(says);
    } catch (error) {
      sayFault(error);
    }
  };
  return (
    <>
      <h1 className="text-[16px] font-bold">The order is settled.</h1>
      <p className="text-basalt" aria-live="polite" data-asked={round.asked}>
        {round.asked} asked. More questions would not change it.
      </p>
      <div className="mt-4 flex flex-wrap gap-3">
        <button type="button" className="btn btn-act" onClick={() => void take()} disabled={isTaken}>
          {isTaken ? "Written into the shortlist" : "Write it into the shortlist"}
        </button>
        <Link className="btn" href={`/b/${brief.briefId}/compare`}>
          Back to Compare
        </Link>
        <button type="button" className="btn-quiet flex items-center gap-2" onClick={back}>
          <Key>U</Key> Take the last answer back
        </button>
      </div>
    </>
  );
}

function useRoundFacts(two: readonly (ShownItem | undefined)[] | null) {
  const { dispatch } = useBench();
  const says = two?.map((f) => (f ? `${f.family} ${f.style}` : "")).join(" against ") ?? "The order is settled";
  useEffect(() => dispatch({ type: "facts", facts: [says] }), [dispatch, says]);
}
