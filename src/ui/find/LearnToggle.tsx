"use client";
// "More like what you keep": the wall ranked by what this brief's marks say, in words, off by one click.
import { useQueryClient } from "@tanstack/react-query";
import type { StyleList } from "@/contracts/styles";
import { TASTE_FROM_MARKS } from "@/core/find/taste";
import { useBench } from "../bench/BenchContext";
import { readAgain } from "../parts/client";

type Props = { isOn: boolean; taste: StyleList["taste"] | undefined; onTurn: (isOn: boolean) => void };

export function LearnToggle({ isOn, taste, onTurn }: Props) {
  const { brief } = useBench();
  const queries = useQueryClient();
  const marks = new Set(brief.kept.map((k) => k.styleId)).size + brief.setAside.length;
  if (!isOn && (marks < TASTE_FROM_MARKS || !brief.kept.length)) return null;
  const fresh = taste ? marks - taste.marks : 0;
  return (
    <span className="flex flex-wrap items-baseline gap-x-2" data-learn>
      <button
        type="button"
        className={`btn-quiet ${isOn ? "text-tide" : ""}`}
        aria-pressed={isOn}
        onClick={() => onTurn(!isOn)}
      >
        More like what you keep
      </button>
      {isOn && taste && (
        <span>{taste.says.length ? `You keep ${taste.says.join(", ")}.` : "Learnt from your marks."}</span>
      )}
      {isOn && !taste && <span className="text-basalt">Keep and set aside {TASTE_FROM_MARKS} faces first.</span>}
      {isOn && fresh > 0 && (
        <button type="button" className="btn-quiet underline" onClick={() => void readAgain(queries, "styles")}>
          Learn from {fresh} more
        </button>
      )}
    </span>
  );
}
