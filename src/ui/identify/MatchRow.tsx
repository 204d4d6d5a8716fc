"use client";
// One face that may be the one: set in some words, with its name, verdict, chance and a way to keep it. Shared by pictures and questions.
import { useQueries } from "@tanstack/react-query";
import Link from "next/link";
import type { ReactNode } from "react";
import type { StyleId } from "@/contracts/ids";
import type { StyleDetail } from "@/contracts/styles";
import { useBench } from "../bench/BenchContext";
import { queryOf } from "../parts/client";
import { CareMark } from "../parts/CareMark";
import { CoreSample } from "../parts/CoreSample";
import { Sample } from "../parts/Sample";
import { VerdictMark } from "../parts/VerdictMark";

/** Details of some styles as the brief sees them, in their order; undefined until they are here. */
export function useDetails(styleIds: readonly string[]): (StyleDetail | undefined)[] {
  const { brief } = useBench();
  return useQueries({
    queries: styleIds.map((styleId) => ({
      ...queryOf("getStyle", { params: { id: styleId }, query: { briefId: brief.briefId } }),
      staleTime: 60_000,
    })),
  }).map((q) => q.data);
}

export const writeChance = (chance: number) => (chance < 0.01 ? "< 1 %" : `${Math.round(chance * 100)} %`);

type Props = {
  match: { styleId: StyleId; family: string; style: string; chance?: number };
  detail: StyleDetail | undefined;
  text: string;
  /** Axis values beside the font's defaults. */
  axes?: Record<string, number> | null;
  isFocused?: boolean;
  /** Where the words are a button: what a click does. */
  onChoose?: () => void;
  /** Lines below the name. */
  children?: ReactNode;
  /** Below the chance. */
  score?: number;
  /** Only on the way to an answer. */
  isPassing?: boolean;
};

export function MatchRow({ match, detail, text, axes, isFocused, onChoose, children, score, isPassing }: Props) {
  const { brief, toggleKept } = useBench();
  const name = `${match.family} ${match.style}`;
  const isKept = brief.kept.some((k) => k.styleId === match.styleId);
  const sample = detail && (
    <Sample
      styleId={match.styleId}
      coverage={detail.codePoints}
      parts={detail.parts.length}
      axes={{ ...Object.fromEntries(detail.axes.map((a) => [a.tag, a.default])), ...axes }}
      text={text}
      sizePx={27}
      widthEm={detail.traits.widthEm}
      owned={detail.owned}
    />
  );
  return (
    <li
      data-match={isPassing ? undefined : name}
      data-likely={match.family}
      className={`flex items-center gap-3 border-t border-rule py-2.5 pl-2 ${isFocused ? "shadow-[inset_3px_0_0_var(--tide)]" : ""}`}
    >
      {detail ? (
        <CoreSample traits={detail.traits} ranges={detail.ranges} width={16} band={8} />
      ) : (
        <span className="w-4" />
      )}
      <div className="min-w-0 flex-1">
        {onChoose ? (
          <button
            type="button"
            className="block w-full text-left"
            aria-pressed={isFocused}
            aria-label={`Lay ${name} over the picture`}
            onClick={onChoose}
          >
            {sample}
          </button>
        ) : (
          sample
        )}
        <p className="flex flex-wrap items-center gap-x-3 text-[12px]">
          <Link href={`/b/${brief.briefId}/style/${match.styleId}`} className="font-semibold hover:underline">
            {name}
          </Link>
          {detail && <VerdictMark verdict={detail.verdict} price={detail.price} />}
          {detail && <CareMark health={detail.health.degree} />}
        </p>
        {children}
      </div>
      <div className="shrink-0 text-right">
        {match.chance !== undefined && <div className="text-[16px] font-semibold">{writeChance(match.chance)}</div>}
        {score !== undefined && <div className="num">{Math.round(score * 100)} % match</div>}
        <button
          type="button"
          aria-pressed={isKept}
          className={`text-[12px] font-semibold ${isKept ? "text-oxide" : "text-basalt"}`}
          onClick={() => toggleKept(match.styleId, name)}
        >
          {isKept ? "kept" : "keep"}
        </button>
      </div>
    </li>
  );
}
