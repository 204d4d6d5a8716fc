"use client";
// Families that go by a word which was read as something else: a row of their own above the wall.
import Link from "next/link";
import type { ShownItem } from "@/contracts/styles";
import { useBench } from "../bench/BenchContext";
import { useActiveLine } from "../bench/BriefStrip";
import { CoreSample, type Ranges } from "../parts/CoreSample";
import { Sample } from "../parts/Sample";
import { addressOfKept, sampleOf } from "../parts/sampleOf";

const SIZE_PX = 22;

export function NamedRow({ faces, ranges }: { faces: ShownItem[]; ranges: Ranges }) {
  const { brief } = useBench();
  const [active] = useActiveLine();
  const text = brief.lines[active]?.text || "Rg4&";
  return (
    <section aria-label="By name" className="mx-3.5 flex items-center gap-4 border-b border-rule py-1.5" data-named>
      <h2 className="head shrink-0">By name</h2>
      <ul className="flex min-w-0 gap-5 overflow-x-auto">
        {faces.map((face) => (
          <li key={face.styleId} className="shrink-0">
            <Link
              href={addressOfKept(brief.briefId, { styleId: face.styleId, location: {} })}
              prefetch={false}
              className="flex items-center gap-2 hover:underline"
            >
              <CoreSample traits={face.traits} ranges={ranges} width={10} band={5} />
              <span className="block max-w-[220px] min-w-[90px] overflow-hidden">
                <Sample {...sampleOf(face)} text={text} sizePx={SIZE_PX} />
                <span className="block truncate text-[12px] font-semibold">
                  {face.family}{" "}
                  <span className="font-normal text-basalt">
                    {face.stylesInFamily} {face.stylesInFamily === 1 ? "style" : "styles"}
                  </span>
                </span>
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
