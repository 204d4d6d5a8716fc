"use client";
// What differs most, in a sentence; each clause shows where, when it is pointed at or in focus.
import { useEffect } from "react";
import type { Comparison } from "@/contracts/compare";
import { tellOnce } from "@/core/compare/compareTraits";

/** A difference that is shown in its place: letters of one face, or all of its words. */
export type Shown = { face: number; letters: string } | null;

const MOST_TOLD = 4;
/** The way in which nothing is the same need not be told. */
const SAME_WORDS: Record<string, string> = {
  weight: "weight",
  widthEm: "width",
  contrast: "contrast",
  xHeightEm: "x-height",
  slantDeg: "slant",
  serif: "serifs",
};

export function Told({ comparison, onShow }: { comparison: Comparison | undefined; onShow: (shown: Shown) => void }) {
  if (!comparison) return <p className="min-h-[44px] text-[15px] text-basalt">Comparing …</p>;
  const told = tellOnce(comparison.differences).slice(0, MOST_TOLD);
  const same = comparison.same.flatMap((trait) => SAME_WORDS[trait] ?? []).slice(0, 3);
  const lacking = comparison.faces.filter((f) => f.missing.length);
  return (
    <p className="min-h-[44px] text-[15px] leading-[22px] font-semibold" data-told>
      {told.map(({ trait, says, face, shownIn }, i) => (
        <span key={trait}>
          <button
            type="button"
            className="text-left text-tide underline decoration-dotted underline-offset-4"
            onPointerEnter={() => onShow({ face, letters: shownIn })}
            onPointerLeave={() => onShow(null)}
            onFocus={() => onShow({ face, letters: shownIn })}
            onBlur={() => onShow(null)}
          >
            {says}
          </button>
          {i < told.length - 1 ? "; " : ". "}
        </span>
      ))}
      {!told.length && "Nothing that is measured sets them apart. "}
      <span className="font-normal text-basalt">
        {same.length > 0 && `Alike in ${same.join(", ")}. `}
        {lacking.length ? "" : "All have every character."}
      </span>
      {lacking.map((f) => (
        <span key={f.styleId} className="text-madder">
          {f.family} lacks {f.missing.join(" ")}.{" "}
        </span>
      ))}
    </p>
  );
}

/** Marks letters of samples without touching them (CSS Custom Highlight API): shaping stays as it is. */
export function useShown(shown: Shown, root: React.RefObject<HTMLElement | null>) {
  useEffect(() => {
    if (!shown || !root.current || !("highlights" in CSS)) return;
    const ranges: Range[] = [];
    for (const cell of root.current.querySelectorAll(`[data-column="${shown.face}"]`)) {
      const walker = document.createTreeWalker(cell, NodeFilter.SHOW_TEXT);
      while (walker.nextNode()) {
        const node = walker.currentNode as Text;
        [...node.data].forEach((char, i) => {
          if (shown.letters && !shown.letters.includes(char)) return;
          const range = new Range();
          range.setStart(node, i);
          range.setEnd(node, Math.min(node.length, i + char.length));
          ranges.push(range);
        });
      }
    }
    CSS.highlights.set("told", new Highlight(...ranges));
    return () => void CSS.highlights.delete("told");
  }, [shown, root]);
}
