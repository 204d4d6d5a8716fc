"use client";
// The answer as a sentence first, then the matches and what was tried; arrows go through them, Space keeps, O lays over.
import { startTransition, useEffect, useMemo, useState, type Dispatch } from "react";
import type { Identification, IdentifyMatch } from "@/contracts/identify";
import { KIND_WORDS, TREATMENT_WORDS, writeFeature } from "@/contracts/words";
import { useKeys } from "../bench/useKeys";
import { useBench } from "../bench/BenchContext";
import { AskPeople } from "./AskPeople";
import type { Keeping } from "./kept";
import { MatchRow, useDetails } from "./MatchRow";
import { NearestUsable } from "./NearestUsable";
import {
  isTapered,
  matchesInOrder,
  selectMatches,
  writeAnswer,
  type IdentifyAction,
  type IdentifyState,
} from "./state";
import { TellApart } from "./TellApart";
import { TryFace } from "./TryFace";

type Props = {
  state: IdentifyState;
  dispatch: Dispatch<IdentifyAction>;
  /** False: another picture is in front. */
  isShown: boolean;
  onTry: (styleId: string) => void;
  /** Puts four corners around the line. */
  onCorners: () => void;
  onGiveUp: () => void;
  keeping: Keeping;
};

export function Answer({ state, dispatch, isShown, onTry, onCorners, onGiveUp, keeping }: Props) {
  const { result, focus, tried, busy } = state;
  const matches = useMemo(() => (result ? matchesInOrder(result) : NO_MATCHES), [result]);
  const all = selectMatches(state);
  const details = useDetails(all.map((m) => m.styleId));
  const rows = useRowsInTurn(result, focus + 1);
  useMatchKeys(state, dispatch, isShown);
  const row = (match: IdentifyMatch, i: number, isTried: boolean) => (
    <MatchRow
      key={`${isTried} ${match.styleId}`}
      match={isTried ? { styleId: match.styleId, family: match.family, style: match.style } : match}
      detail={details[i]}
      text={result!.reading.text}
      axes={match.coordinates}
      score={match.score}
      isFocused={i === focus}
      onChoose={() => dispatch({ type: "focused", index: i })}
    >
      <MatchNotes match={match} first={result!.byLook ? null : matches[0]!} />
      {i === focus && <NearestUsable detail={details[i]} text={state.text} />}
    </MatchRow>
  );
  return (
    <section aria-label="Matches" className="min-h-0 overflow-y-auto border-l border-rule bg-chalk px-4 py-3">
      {state.layout && (
        <button
          type="button"
          className="mb-1 font-semibold text-tide underline"
          onClick={() => dispatch({ type: "layout shown" })}
        >
          Back to all {state.layout.lines.length} lines
        </button>
      )}
      <div className="flex items-start gap-3">
        <h1 className="text-[17px] font-bold" aria-live="polite" data-answer>
          {busy ? "Comparing every style …" : result ? writeAnswer(result) : state.fault ? "No answer yet." : "…"}
        </h1>
        {result && (
          <button
            type="button"
            className="btn ml-auto shrink-0"
            disabled={keeping.busy || state.savedAs !== null}
            onClick={() => void keeping.keep()}
          >
            {state.savedAs ? "Kept with the brief" : "Keep with the brief"}
          </button>
        )}
      </div>
      {busy && <OnTheWay progress={state.progress} onGiveUp={onGiveUp} />}
      {result && !busy && <AboutAnswer result={result} />}
      {result && isTapered(state) && (
        <p className="mt-1">
          The lettering tapers, like a sign photographed at an angle.{" "}
          <button type="button" className="font-semibold text-tide underline" onClick={onCorners}>
            Pull four corners around it
          </button>{" "}
          for a surer answer.
        </p>
      )}
      {result && <TryFace onTry={onTry} busy={busy} />}
      {result && <AskPeople savedAs={state.savedAs} keeping={keeping} onTry={onTry} busy={busy} />}
      {tried.length > 0 && (
        <ol className="mt-2 border-b-2 border-rule" aria-label="Tried by name">
          {tried.map((t, k) => row(t, matches.length + k, true))}
        </ol>
      )}
      {result?.byLook && !busy && <h2 className="mt-3 text-basalt">{describeLook(result.byLook)}</h2>}
      {!state.progress?.nearest.length && (
        <ol className={`mt-2 ${busy ? "opacity-40" : ""}`}>
          {matches.slice(0, rows).map((match, i) => row(match, i, false))}
        </ol>
      )}
    </section>
  );
}

/** How far the question has come, and what comes nearest so far. */
function OnTheWay({ progress, onGiveUp }: { progress: IdentifyState["progress"]; onGiveUp: () => void }) {
  const nearest = progress?.nearest ?? [];
  const details = useDetails(nearest.map((n) => n.styleId));
  return (
    <>
      <div className="mt-2 flex items-center gap-3">
        <progress
          className="h-1.5 flex-1 accent-tide"
          max={1}
          value={progress?.share ?? 0}
          aria-label="Compared so far"
        />
        <button type="button" className="btn" onClick={onGiveUp}>
          Cancel
        </button>
      </div>
      {nearest.length > 0 && (
        <section className="mt-3" aria-label="Nearest so far">
          <h2 className="text-basalt">Nearest so far; still comparing closely</h2>
          <ol className="mt-1" data-nearest-so-far>
            {nearest.map((match, i) => (
              <MatchRow key={match.styleId} match={match} detail={details[i]} text={progress!.text} isPassing />
            ))}
          </ol>
        </section>
      )}
    </>
  );
}

/** Arrows go through the matches, Space keeps, O lays over: but for controls that have keys of their own. */
function useMatchKeys(state: IdentifyState, dispatch: Props["dispatch"], isShown: boolean) {
  const { toggleKept } = useBench();
  const { focus, lay } = state;
  const all = selectMatches(state);
  const m = all[focus];
  const outside = (run: () => void) => (event: KeyboardEvent) =>
    (event.target as HTMLElement).closest("button, a, .ReactCrop, input, [data-cuts]") ? false : run();
  const focusOn = (index: number) => dispatch({ type: "focused", index: Math.max(0, Math.min(all.length - 1, index)) });
  const keep = () => m && toggleKept(m.styleId, `${m.family} ${m.style}`, { location: m.coordinates ?? {} });
  useKeys(
    "Matches",
    [
      { keys: ["ArrowDown"], legend: "match", shown: "↑ ↓", run: outside(() => focusOn(focus + 1)) },
      { keys: ["ArrowUp"], run: outside(() => focusOn(focus - 1)) },
      { keys: [" "], legend: "keep", run: outside(keep) },
      { keys: ["o"], legend: "lay over", run: outside(() => dispatch({ type: "laid", lay: lay === 50 ? 0 : 50 })) },
    ],
    { isOn: isShown && all.length > 0 },
  );
}

/** What was assumed of where the lettering was seen from. */
function describeSeen(reading: string): string {
  if (reading.includes("evened, around")) return " Unrolled from a curved surface before comparing.";
  if (reading.includes("evened, bowed")) return " Curved line straightened before comparing.";
  return reading.includes("evened") ? " Perspective corrected before comparing." : "";
}

/** What the faces that look alike have in common. */
function describeLook({ kind, treatments }: NonNullable<Identification["byLook"]>): string {
  const words = [...(kind ? [KIND_WORDS[kind]] : []), ...treatments.map((t) => TREATMENT_WORDS[t])];
  return words.length ? `Nearest by look: ${words.join(", ").toLowerCase()} first` : "Nearest by look";
}

/** How many styles were compared, and the chance that none of them is it. */
function AboutAnswer({ result }: { result: Identification }) {
  return (
    <p className="mt-0.5 text-basalt">
      {result.compared} styles compared in {(result.tookMs / 1000).toFixed(1)} s.{" "}
      {Math.round(result.notInLibraries.chance * 100)} % chance it isn’t in your libraries.
      {result.strip.setAs === "small-capitals" && " Read as small caps."}
      {describeSeen(result.strip.reading)}
    </p>
  );
}

/** What tells a match from the first, if there is one to be told from, and how the face was set to come nearest. */
function MatchNotes({ match, first }: { match: IdentifyMatch; first: IdentifyMatch | null }) {
  const isClose =
    first && match.besideFirst && (match.besideFirst.isSameHere || first.score - match.score < HARD_TO_TELL);
  return (
    <>
      {isClose && <TellApart first={first} match={match} />}
      {match.features.length > 0 && (
        <p className="text-[12px] text-basalt">nearest with {match.features.map(writeFeature).join(", ")}</p>
      )}
      {match.coordinates && (
        <p className="num text-[12px] text-basalt">
          nearest at{" "}
          {Object.entries(match.coordinates)
            .map(([tag, value]) => `${tag} ${Math.round(value)}`)
            .join(", ")}
        </p>
      )}
    </>
  );
}

/** How many rows stand there: those that are seen at once, then all. @param least - as many at any time. */
function useRowsInTurn(result: Identification | null, least: number): number {
  const [whole, setWhole] = useState<Identification | null>(null);
  useEffect(() => {
    const timer = setTimeout(() => startTransition(() => setWhole(result)), ROWS_AFTER_MS);
    return () => clearTimeout(timer);
  }, [result]);
  return whole === result ? Infinity : Math.max(FIRST_ROWS, least);
}
const FIRST_ROWS = 7;
const ROWS_AFTER_MS = 80;

const NO_MATCHES: IdentifyMatch[] = [];
/** Matches that agree this much less than the first are told from it at a glance. */
const HARD_TO_TELL = 0.05;
