"use client";
// More like this: the nearest faces, by outlines and measures, with what differs in words; or nearest with something changed.
import { useQuery } from "@tanstack/react-query";
import Link from "next/link";
import { useState } from "react";
import type { StyleDetail } from "@/contracts/styles";
import { levelFactor } from "@/core/brief/level";
import { useBench } from "../bench/BenchContext";
import { useActiveLine } from "../bench/BriefStrip";
import { queryOf } from "../parts/client";
import { CareMark } from "../parts/CareMark";
import { CoreSample } from "../parts/CoreSample";
import { Sample } from "../parts/Sample";
import { sampleOf } from "../parts/sampleOf";
import { VerdictMark } from "../parts/VerdictMark";

const CHANGES = ["heavier", "lighter", "wider", "narrower", "rounder", "sharper", "more contrast", "less contrast"];

export function Alike({ style }: { style: StyleDetail }) {
  const { brief, toggleKept } = useBench();
  const [active] = useActiveLine();
  const [change, setChange] = useState("");
  const isCostly =
    style.verdict === "buy-first" || style.verdict === "not-for-this-use" || style.verdict === "ask-maker";
  const [cleared, setCleared] = useState(isCostly);
  const [cheaper, setCheaper] = useState(false);
  const q = [change, cheaper ? "cheaper" : ""].filter(Boolean).join(" ");
  const query = {
    briefId: brief.briefId,
    limit: 16,
    ...(q && { q }),
    ...(cleared && { verdicts: "cleared,cleared-with-credit" }),
  };
  const alike = useQuery({
    ...queryOf("listAlike", { params: { id: style.styleId }, query }),
    placeholderData: (before) => before,
  });
  const items = alike.data?.items ?? [];
  const kept = new Set(brief.kept.map((k) => k.styleId));
  const option = (on: boolean, label: string, onClick: () => void) => (
    <button
      key={label}
      type="button"
      aria-pressed={on}
      onClick={onClick}
      className={`hover:text-tide ${on ? "font-semibold text-tide underline underline-offset-4" : ""}`}
    >
      {label}
    </button>
  );
  return (
    <div className="max-w-[1060px]">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1 pb-2" role="group" aria-label="Like it, but">
        <span className="text-basalt">Like it, but</span>
        {CHANGES.map((c) => option(change === c, c, () => setChange(change === c ? "" : c)))}
        <span className="h-4 w-px bg-rule" aria-hidden />
        {option(cleared, "cleared for this brief", () => setCleared(!cleared))}
        {style.offer && option(cheaper, "cheaper", () => setCheaper(!cheaper))}
        <Link className="ml-auto underline" href={`/b/${brief.briefId}/find?near=${style.styleId}&sort=near`}>
          Sort all faces by similarity
        </Link>
      </div>
      {isCostly && cleared && items.length > 0 && (
        <p className="border-t border-rule py-1.5 text-basalt">
          {style.family} {style.style} may not be used for this brief as it is. These are the nearest that may.
        </p>
      )}
      <ul className="border-t border-rule">
        {items.map((i) => (
          <li
            key={i.styleId}
            className="grid grid-cols-[22px_minmax(0,1fr)_300px] items-center gap-4 border-b border-rule py-2"
            data-alike={`${i.family} ${i.style}`}
          >
            <CoreSample traits={i.traits} ranges={alike.data?.ranges ?? {}} width={18} band={8} />
            <Sample
              {...sampleOf(i)}
              text={brief.lines[active]?.text || i.family}
              sizePx={34 * levelFactor(i.traits, brief.levelBy)}
            />
            <div className="text-[12.5px]">
              <p className="flex items-baseline justify-between gap-2">
                <Link
                  href={`/b/${brief.briefId}/style/${i.styleId}`}
                  className="truncate font-semibold hover:underline"
                >
                  {i.family} {i.style}
                </Link>
                <button
                  type="button"
                  className="btn-quiet shrink-0"
                  aria-pressed={kept.has(i.styleId)}
                  onClick={() => toggleKept(i.styleId, `${i.family} ${i.style}`)}
                >
                  {kept.has(i.styleId) ? "kept" : "keep"}
                </button>
              </p>
              <p className="flex gap-3">
                <VerdictMark verdict={i.verdict} price={i.price} />
                <CareMark health={i.health} compact />
              </p>
              <p className="text-basalt">
                {i.differs.length ? i.differs.map((d) => d.says).join(", ") : "no measure differs noticeably"}
              </p>
            </div>
          </li>
        ))}
      </ul>
      {alike.data && !items.length && <p className="py-4 text-basalt">No other face answers to this.</p>}
    </div>
  );
}
