"use client";
// The answer as a sentence first, then the matches; arrows go through them, Space keeps, O lays over.
import { useEffect, type Dispatch } from "react";
import type { IdentifyMatch } from "@/contracts/identify";
import { isTyping } from "../bench/Bench";
import { useBench } from "../bench/BenchContext";
import { MatchRow, useDetails } from "./MatchRow";
import { writeAnswer, type IdentifyAction, type IdentifyState } from "./state";

export function Answer({ state, dispatch }: { state: IdentifyState; dispatch: Dispatch<IdentifyAction> }) {
  const { toggleKept } = useBench();
  const { result, focus, lay } = state;
  const matches = result?.matches ?? NO_MATCHES;
  const details = useDetails(matches.map((m) => m.styleId));
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (isTyping(event) || !matches.length) return;
      const m = matches[focus];
      const inControl = (event.target as HTMLElement).closest("button, a, .ReactCrop, input");
      if (event.key === "ArrowDown" && !inControl)
        dispatch({ type: "focused", index: Math.min(matches.length - 1, focus + 1) });
      else if (event.key === "ArrowUp" && !inControl) dispatch({ type: "focused", index: Math.max(0, focus - 1) });
      else if (event.key === " " && !inControl && m) toggleKept(m.styleId, `${m.family} ${m.style}`);
      else if (event.key.toLowerCase() === "o") dispatch({ type: "laid", lay: lay === 50 ? 0 : 50 });
      else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [matches, focus, lay, dispatch, toggleKept]);
  return (
    <section aria-label="Matches" className="min-h-0 overflow-y-auto border-l border-rule bg-chalk px-4 py-3">
      <h1 className="text-[17px] font-bold" aria-live="polite" data-answer>
        {state.busy ? "Comparing every style …" : result ? writeAnswer(result) : state.fault ? "No answer yet." : "…"}
      </h1>
      {result && (
        <p className="mt-0.5 text-basalt">
          {result.compared} styles compared in {(result.tookMs / 1000).toFixed(1)} s. Chance that it is none of yours:{" "}
          {Math.round(result.notInLibraries.chance * 100)} %.
        </p>
      )}
      <ol className={`mt-2 ${state.busy ? "opacity-40" : ""}`}>
        {matches.map((m, i) => (
          <MatchRow
            key={m.styleId}
            match={m}
            detail={details[i]}
            text={result!.reading.text}
            axes={m.coordinates}
            score={m.score}
            isFocused={i === focus}
            onChoose={() => dispatch({ type: "focused", index: i })}
          >
            {m.besideFirst && (m.besideFirst.isSameHere || matches[0]!.score - m.score < HARD_TO_TELL) && (
              <p className="text-[12px] text-basalt">
                {m.besideFirst.isSameHere ? "The same in these letters. " : ""}
                {m.besideFirst.tellingLetter
                  ? `Look at ${m.besideFirst.tellingLetter} to tell it from the first.`
                  : "No letter tells it from the first."}
              </p>
            )}
            {m.coordinates && (
              <p className="num text-[12px] text-basalt">
                nearest at{" "}
                {Object.entries(m.coordinates)
                  .map(([tag, value]) => `${tag} ${Math.round(value)}`)
                  .join(", ")}
              </p>
            )}
          </MatchRow>
        ))}
      </ol>
    </section>
  );
}

const NO_MATCHES: IdentifyMatch[] = [];
/** Matches that agree this much less than the first are told from it at a glance. */
const HARD_TO_TELL = 0.05;
