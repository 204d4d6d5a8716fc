"use client";
// More like this: the nearest faces, by outlines and measures, with what differs in words; or nearest with something changed.
import { useQuery } from "@tanstack/react-query";
import Link from "next/link";
import { useState } from "react";
import type { AlikeList, StyleDetail } from "@/contracts/styles";
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
  const { brief } = useBench();
  const [change, setChange] = useState("");
  const isCostly =
    style.verdict === "buy-first" || style.verdict === "not-for-this-use" || style.verdict === "ask-maker";
  const [isCleared, setCleared] = useState(isCostly);
  const [isCheaper, setCheaper] = useState(false);
  const q = [change, isCheaper ? "cheaper" : ""].filter(Boolean).join(" ");
  const query = {
    briefId: brief.briefId,
    limit: 16,
    ...(q && { q }),
    ...(isCleared && { verdicts: "cleared,cleared-with-credit" }),
  };
  const alike = useQuery({
    ...queryOf("listAlike", { params: { id: style.styleId }, query }),
    placeholderData: (before) => before,
  });
  const items = alike.data?.items ?? [];
  return (
    <div className="max-w-[1060px]">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1 pb-2" role="group" aria-label="Like it, but">
        <span className="text-basalt">Like it, but</span>
        {CHANGES.map((c) => (
          <Option key={c} isOn={change === c} label={c} onClick={() => setChange(change === c ? "" : c)} />
        ))}
        <span className="h-4 w-px bg-rule" aria-hidden />
        <Option isOn={isCleared} label="cleared for this brief" onClick={() => setCleared(!isCleared)} />
        {style.offer && <Option isOn={isCheaper} label="cheaper" onClick={() => setCheaper(!isCheaper)} />}
        <Link className="ml-auto py-1 underline" href={`/b/${brief.briefId}/find?near=${style.styleId}&sort=near`}>
          Sort all faces by similarity
        </Link>
      </div>
      {isCostly && isCleared && items.length > 0 && (
        <p className="border-t border-rule py-1.5 text-basalt">
          {style.family} {style.style} may not be used for this brief as it is. These are the nearest that may.
        </p>
      )}
      <ul className="border-t border-rule">
        {items.map((i) => (
          <Row key={i.styleId} item={i} ranges={alike.data?.ranges ?? {}} />
        ))}
      </ul>
      {alike.data && !items.length && <p className="py-4 text-basalt">No other face answers to this.</p>}
    </div>
  );
}

const Option = ({ isOn, label, onClick }: { isOn: boolean; label: string; onClick: () => void }) => (
  <button
    type="button"
    aria-pressed={isOn}
    onClick={onClick}
    className={`hover:text-tide ${isOn ? "font-semibold text-tide underline underline-offset-4" : ""}`}
  >
    {label}
  </button>
);

function Row({ item, ranges }: { item: AlikeList["items"][number]; ranges: AlikeList["ranges"] }) {
  const { brief, toggleKept } = useBench();
  const [active] = useActiveLine();
  const name = `${item.family} ${item.style}`;
  const isKept = brief.kept.some((k) => k.styleId === item.styleId);
  return (
    <li
      className="grid grid-cols-[22px_minmax(0,1fr)_300px] items-center gap-4 border-b border-rule py-2"
      data-alike={name}
    >
      <CoreSample traits={item.traits} ranges={ranges} width={18} band={8} />
      <Sample
        {...sampleOf(item)}
        text={brief.lines[active]?.text || item.family}
        sizePx={34 * levelFactor(item.traits, brief.levelBy)}
      />
      <div className="text-[12.5px]">
        <p className="flex items-baseline justify-between gap-2">
          <Link href={`/b/${brief.briefId}/style/${item.styleId}`} className="truncate font-semibold hover:underline">
            {name}
          </Link>
          <button
            type="button"
            className="btn-quiet shrink-0"
            aria-pressed={isKept}
            onClick={() => toggleKept(item.styleId, name)}
          >
            {isKept ? "kept" : "keep"}
          </button>
        </p>
        <p className="flex gap-3">
          <VerdictMark verdict={item.verdict} price={item.price} />
          <CareMark health={item.health} compact />
        </p>
        <p className="text-basalt">
          {item.differs.length ? item.differs.map((d) => d.says).join(", ") : "no measure differs noticeably"}
        </p>
      </div>
    </li>
  );
}
