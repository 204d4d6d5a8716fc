"use client";
// Two faces that were kept as going together, set on a page, with a note; each pair goes into the hand-over's list.
import { useState } from "react";
import type { KeptPair } from "@/contracts/brief";
import { useBench } from "../bench/BenchContext";
import { useFaces } from "../compare/useCompared";
import { Choice } from "../parts/Choice";
import { PAIR_PAGES, PAIR_PAGE_WORDS, PairPage, type PairPageSort } from "../parts/PairPage";

/** Leading of text on these pages, where a pair says nothing else. */
const LEADING_EM = 1.4;

export function Pairs() {
  const { brief, changeBrief, changeInStep } = useBench();
  const [page, setPage] = useState<PairPageSort>("leaf");
  const faces = useFaces([...new Set(brief.pairs.flatMap((p) => p.faces.map((f) => f.styleId)))].sort());
  if (!brief.pairs.length) return null;
  const nameOf = (styleId: string) => {
    const face = faces?.find((f) => f.styleId === styleId);
    return face ? `${face.family} ${face.style}` : "…";
  };
  const remove = (pair: KeptPair) =>
    changeInStep(
      { pairs: brief.pairs.filter((p) => p.id !== pair.id) },
      `Pair removed: ${pair.faces.map((f) => nameOf(f.styleId)).join(" with ")}`,
    );
  const annotate = (pair: KeptPair, note: string) =>
    changeBrief({ pairs: brief.pairs.map((p) => (p.id === pair.id ? { ...p, note } : p)) });
  return (
    <section className="mt-10 max-w-[1080px]" data-pairs>
      <div className="flex items-baseline gap-5 border-b-2 border-slate pb-2">
        <h2 className="text-[16px] font-bold">Pairs</h2>
        <Choice
          label="Set as"
          value={page}
          options={PAIR_PAGES.map((value) => ({ value, name: PAIR_PAGE_WORDS[value] }))}
          onChange={setPage}
          strong={false}
        />
      </div>
      <ul className="grid grid-cols-2 gap-x-6 max-lg:grid-cols-1">
        {brief.pairs.map((pair) => {
          const [first, second] = pair.faces;
          return (
            <li key={pair.id} className="border-b border-rule py-4" data-kept-pair={pair.id}>
              <PairPage
                sort={page}
                brief={brief}
                heading={faces?.find((f) => f.styleId === first.styleId)}
                text={faces?.find((f) => f.styleId === second.styleId)}
                sizeRatio={pair.sizeRatio}
                leadingEm={LEADING_EM}
              />
              <p className="mt-2 flex items-baseline gap-3 text-[12px]">
                <span>
                  <b>{nameOf(first.styleId)}</b> as {first.role} with <b>{nameOf(second.styleId)}</b> as {second.role}
                </span>
                <span className="num text-basalt">{pair.sizeRatio.toFixed(1)} : 1</span>
                <button type="button" className="btn-quiet ml-auto underline" onClick={() => remove(pair)}>
                  Remove pair
                </button>
              </p>
              <input
                aria-label={`Note on ${nameOf(first.styleId)} with ${nameOf(second.styleId)}`}
                placeholder="note"
                className="field mt-1 w-full"
                maxLength={400}
                value={pair.note}
                onChange={(e) => annotate(pair, e.target.value)}
              />
            </li>
          );
        })}
      </ul>
    </section>
  );
}
