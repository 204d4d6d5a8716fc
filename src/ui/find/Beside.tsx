"use client";
// Two faces under one another while a key is held: the one in focus and the one before, with what differs in words.
import type { ShownItem } from "@/contracts/styles";
import { levelFactor } from "@/core/brief/level";
import { tellDifferences } from "@/core/find/alike";
import { useBench } from "../bench/BenchContext";
import { CoreSample, type Ranges } from "../parts/CoreSample";
import { Sample } from "../parts/Sample";
import { sampleOf } from "../parts/sampleOf";

export function Beside({ a, b, text, ranges }: { a: ShownItem; b: ShownItem; text: string; ranges: Ranges }) {
  const { brief } = useBench();
  const differs = tellDifferences(a.traits, b.traits, 6);
  return (
    <div
      role="status"
      aria-label="Two faces beside each other"
      className="absolute inset-0 z-30 flex flex-col bg-limestone px-8 py-6"
      data-beside
    >
      {[a, b].map((item) => (
        <div key={item.styleId} className="flex min-h-0 flex-1 items-center gap-6 border-b border-rule">
          <CoreSample traits={item.traits} ranges={ranges} width={30} band={13} />
          <div className="min-w-0 flex-1">
            <Sample {...sampleOf(item)} text={text} sizePx={84 * levelFactor(item.traits, brief.levelBy)} />
            <p className="mt-2 font-semibold">
              {item.family} {item.style}
            </p>
          </div>
        </div>
      ))}
      <p className="pt-4 text-[15px]">
        {differs.length
          ? `Against ${a.family} ${a.style}, ${b.family} ${b.style} is ${differs.map((d) => d.says).join(", ")}.`
          : "By their measures the two are alike."}
      </p>
    </div>
  );
}
