"use client";
// One face on the wall: core sample, setting, one line of facts.
import { memo, useState } from "react";
import Link from "next/link";
import type { StyleListItem } from "@/contracts/styles";
import { nameCharacter } from "@/core/open/characterNames";
import { CoreSample, type Ranges } from "../parts/CoreSample";
import { BASELINE_EM, Sample } from "../parts/Sample";
import { CareMark } from "../parts/CareMark";
import { VerdictMark } from "../parts/VerdictMark";
import { VERDICT_WORDS } from "@/contracts/words";

export type StripLook = {
  basePx: number;
  wrap: boolean;
  heightPx: number;
  ink: string;
  paper: string;
  coloured: boolean;
  compact: boolean;
};

type Props = {
  item: StyleListItem;
  text: string;
  sizePx: number;
  look: StripLook;
  ranges: Ranges;
  isKept: boolean;
  isAside: boolean;
  isFocus: boolean;
  href: string;
  onFocus: () => void;
  onKeep: () => void;
};

/** What a screen reader hears: name, verdict, what is missing. */
export const describeStrip = (item: StyleListItem, isKept: boolean) =>
  [
    `${item.family} ${item.style}`,
    VERDICT_WORDS[item.verdict],
    item.missing.length
      ? `lacks ${item.missing.map((c) => nameCharacter(c.codePointAt(0)!)).join(", ")}`
      : "has all characters",
    item.health === "with-care" ? "usable with care" : "",
    item.owned ? "" : "not bought",
    isKept ? "kept" : "",
  ]
    .filter(Boolean)
    .join(", ");

export const Strip = memo(function Strip({
  item,
  text,
  sizePx,
  look,
  ranges,
  isKept,
  isAside,
  isFocus,
  href,
  onFocus,
  onKeep,
}: Props) {
  const [fit, setFit] = useState(1);
  const baseline = look.basePx * 1.18;
  const keepButton = (
    <button
      type="button"
      tabIndex={-1}
      aria-pressed={isKept}
      aria-label={`Keep ${item.family} ${item.style}`}
      onClick={onKeep}
      className={`ml-auto shrink-0 pl-1 font-semibold ${isKept ? "text-oxide" : "text-basalt opacity-0 group-hover/wall:opacity-100"}`}
    >
      {isKept ? "kept" : "keep"}
    </button>
  );
  return (
    <div
      role="gridcell"
      tabIndex={isFocus ? 0 : -1}
      data-strip={item.styleId}
      data-name={`${item.family} ${item.style}`}
      aria-label={describeStrip(item, isKept)}
      onFocus={onFocus}
      onClick={(e) => {
        if (!(e.target as HTMLElement).closest("a, button")) (e.currentTarget as HTMLElement).focus();
      }}
      style={{ height: look.heightPx }}
      className={`relative flex min-w-0 gap-3 overflow-hidden border-r border-b border-rule px-3 py-2.5 outline-none ${isFocus ? "shadow-[inset_0_0_0_2px_var(--tide)]" : ""} ${isAside ? "opacity-30" : ""}`}
    >
      <div className="self-center">
        <CoreSample traits={item.traits} ranges={ranges} width={look.compact ? 14 : 24} band={look.compact ? 8 : 11} />
      </div>
      <div className="flex min-w-0 flex-1 flex-col justify-between">
        <div className="min-h-0 flex-1 overflow-hidden" style={{ background: look.coloured ? look.paper : undefined }}>
          <div style={look.wrap ? undefined : { marginTop: baseline - sizePx * BASELINE_EM }}>
            <Sample
              styleId={item.styleId}
              coverage={item.coverage}
              axes={item.axisDefaults}
              text={text}
              sizePx={sizePx}
              widthEm={item.traits.widthEm}
              ink={look.coloured ? look.ink : undefined}
              wrap={look.wrap}
              onFit={setFit}
              owned={item.owned}
            />
          </div>
        </div>
        <div
          className={`flex overflow-hidden pt-1 text-[12px] whitespace-nowrap ${look.compact ? "flex-col" : "items-center gap-3"}`}
        >
          <div className="flex min-w-0 shrink-0 items-baseline gap-3">
            <Link href={href} tabIndex={-1} className="truncate font-semibold hover:underline">
              {item.family} {item.style}
            </Link>
            {look.compact && keepButton}
          </div>
          <div className="flex min-w-0 items-center gap-3 overflow-hidden">
            {!look.compact && !item.price && (
              <span className="min-w-0 truncate text-basalt">
                {item.stylesInFamily} {item.stylesInFamily === 1 ? "style" : "styles"}
              </span>
            )}
            <span className="shrink-0">
              <VerdictMark verdict={item.verdict} price={item.price} />
            </span>
            {item.missing.length > 0 && (
              <span className="shrink-0 font-semibold text-madder" data-lacks>
                no {item.missing.slice(0, 4).join(" ")}
                {item.missing.length > 4 ? ` +${item.missing.length - 4}` : ""}
              </span>
            )}
            <CareMark health={item.health} />
            {fit < 0.985 && !look.wrap && (
              <span className="num shrink-0" title="Set smaller, so that the whole line is seen">
                at {Math.round(fit * 100)} %
              </span>
            )}
          </div>
          {!look.compact && <span className="ml-auto">{keepButton}</span>}
        </div>
      </div>
    </div>
  );
});
