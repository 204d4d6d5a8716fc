"use client";
// The answer as a sentence first, then the matches; arrows go through them, Space keeps, O lays over.
import { useQueries } from "@tanstack/react-query";
import Link from "next/link";
import { useEffect, type Dispatch } from "react";
import type { IdentifyMatch } from "@/contracts/identify";
import type { StyleDetail } from "@/contracts/styles";
import { isTyping } from "../bench/Bench";
import { useBench } from "../bench/BenchContext";
import { callApi } from "../parts/api";
import { CoreSample } from "../parts/CoreSample";
import { CareMark } from "../parts/CareMark";
import { Sample } from "../parts/Sample";
import { VerdictMark } from "../parts/VerdictMark";
import { writeAnswer, type IdentifyAction, type IdentifyState } from "./state";

export function Answer({ state, dispatch }: { state: IdentifyState; dispatch: Dispatch<IdentifyAction> }) {
  const { brief, toggleKept } = useBench();
  const { result, focus, lay } = state;
  const matches = result?.matches ?? NO_MATCHES;
  const details = useQueries({
    queries: matches.map((m) => ({
      queryKey: ["style", m.styleId, brief.briefId],
      queryFn: () => callApi<StyleDetail>(`/styles/${m.styleId}?briefId=${brief.briefId}`),
      staleTime: 60_000,
    })),
  });
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
        {matches.map((m, i) => {
          const d = details[i]?.data;
          const isKept = brief.kept.some((k) => k.styleId === m.styleId);
          return (
            <li
              key={m.styleId}
              data-match={`${m.family} ${m.style}`}
              className={`flex items-center gap-3 border-t border-rule py-2.5 pl-2 ${i === focus ? "shadow-[inset_3px_0_0_var(--tide)]" : ""}`}
            >
              {d ? <CoreSample traits={d.traits} ranges={d.ranges} width={16} band={8} /> : <span className="w-4" />}
              <div className="min-w-0 flex-1">
                <button
                  type="button"
                  className="block w-full text-left"
                  aria-pressed={i === focus}
                  aria-label={`Lay ${m.family} ${m.style} over the picture`}
                  onClick={() => dispatch({ type: "focused", index: i })}
                >
                  {d && (
                    <Sample
                      styleId={m.styleId}
                      coverage={d.codePoints}
                      axes={{ ...defaultsOf(d), ...m.coordinates }}
                      text={result!.reading.text}
                      sizePx={27}
                      widthEm={d.traits.widthEm}
                      owned={d.owned}
                    />
                  )}
                </button>
                <p className="flex flex-wrap items-center gap-x-3 text-[12px]">
                  <Link href={`/b/${brief.briefId}/style/${m.styleId}`} className="font-semibold hover:underline">
                    {m.family} {m.style}
                  </Link>
                  {d && <VerdictMark verdict={d.verdict} price={d.price} />}
                  {d && <CareMark health={d.health.degree} />}
                </p>
                {m.besideFirst && (m.besideFirst.isSameHere || m.besideFirst.tellingLetter) && (
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
              </div>
              <div className="shrink-0 text-right">
                <div className="text-[16px] font-semibold">{writeChance(m.chance)}</div>
                <div className="num">agrees {m.score.toFixed(2)}</div>
                <button
                  type="button"
                  aria-pressed={isKept}
                  className={`text-[12px] font-semibold ${isKept ? "text-oxide" : "text-basalt"}`}
                  onClick={() => toggleKept(m.styleId, `${m.family} ${m.style}`)}
                >
                  {isKept ? "kept" : "keep"}
                </button>
              </div>
            </li>
          );
        })}
      </ol>
    </section>
  );
}

const defaultsOf = (d: StyleDetail) => Object.fromEntries(d.axes.map((a) => [a.tag, a.default]));
const NO_MATCHES: IdentifyMatch[] = [];
const writeChance = (chance: number) => (chance < 0.01 ? "< 1 %" : `${Math.round(chance * 100)} %`);
