"use client";
// One face on the wall: core sample, setting, one line of facts.
import { lineFor } from "@/core/brief/ownWords";
import { memo, useMemo, useState } from "react";
import Link from "next/link";
import type { ShownItem } from "@/contracts/styles";
import { useCharacterNames } from "@/ui/parts/characterNames";
import { CoreSample, type Ranges } from "../parts/CoreSample";
import { BASELINE_EM, Sample } from "../parts/Sample";
import { isHeld } from "../parts/faceLoader";
import { CareMark } from "../parts/CareMark";
import { addressOfKept } from "../parts/sampleOf";
import { writeFit } from "./facts";
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
  /** Five columns and more: name, verdict and what is missing alone. */
  dense: boolean;
  /** Address of the brief's picture, when faces are set on it. */
  picture: string | null;
  byLineWidth: boolean;
};

type Props = {
  item: ShownItem;
  text: string;
  sizePx: number;
  /** What all samples of the wall share; absent where each is fitted by itself. */
  fit?: number;
  look: StripLook;
  ranges: Ranges;
  isKept: boolean;
  isAside: boolean;
  isFocus: boolean;
  index: number;
  briefId: string;
  /** The wall is being scrolled: fonts that are not here wait. */
  isPassing: boolean;
  onFocus: (index: number) => void;
  onKeep: (item: ShownItem) => void;
  /** Where one style stands for its family: whether the others are shown, and how they are. */
  isOpen?: boolean;
  onOpen?: (familyId: string) => void;
};

/** What a screen reader hears: name, verdict, what is missing. */
const describeStrip = (item: ShownItem, isKept: boolean, nameCharacter: (codePoint: number) => string) =>
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

/**
 * A strip of the wall. One that comes in while a dense wall is scrolled past is its name and its measures alone, until the wall
 * rests: hundreds pass in a second.
 */
export const Strip = memo(function Strip(props: Props) {
  const [isPassed, setPassed] = useState(props.isPassing && props.look.compact && !isHeld(props.item.styleId));
  if (isPassed && !props.isPassing) setPassed(false);
  return isPassed ? <PassedBy {...props} /> : <Whole {...props} />;
});

const STRIP = "relative flex min-w-0 gap-3 overflow-hidden border-r border-b border-rule px-3 py-2.5 outline-none";

function PassedBy({ item, look, ranges }: Props) {
  const name = `${item.family} ${item.style}`;
  return (
    <div
      role="gridcell"
      aria-busy
      data-strip={item.styleId}
      data-name={name}
      className={STRIP}
      style={{ height: look.heightPx, contain: "strict" }}
    >
      <div className="self-center">
        <CoreSample traits={item.traits} ranges={ranges} width={14} band={8} />
      </div>
      <b className="self-end truncate text-[12px] font-semibold">{name}</b>
    </div>
  );
}

function Whole(props: Props) {
  const nameCharacter = useCharacterNames();
  const { item, look, ranges, isKept, isAside, isFocus, index, onFocus } = props;
  return (
    <div
      role="gridcell"
      tabIndex={isFocus ? 0 : -1}
      data-strip={item.styleId}
      data-name={`${item.family} ${item.style}`}
      aria-label={describeStrip(item, isKept, nameCharacter)}
      onFocus={() => onFocus(index)}
      onClick={(e) => {
        if (!(e.target as HTMLElement).closest("a, button")) (e.currentTarget as HTMLElement).focus();
      }}
      style={{ height: look.heightPx, contain: "strict" }}
      className={`${STRIP} ${isFocus ? "shadow-[inset_0_0_0_2px_var(--tide)]" : ""} ${isAside ? "opacity-30" : ""}`}
    >
      <div className="self-center">
        <CoreSample traits={item.traits} ranges={ranges} width={look.compact ? 14 : 24} band={look.compact ? 8 : 11} />
      </div>
      <div className="flex min-w-0 flex-1 flex-col justify-between">
        <SetOn {...props} />
        <Caption {...props} />
      </div>
    </div>
  );
}

/** The sample, on the brief's paper or picture. */
function SetOn({ item, text, sizePx, fit, look, isPassing }: Props) {
  const axes = useMemo(() => ({ ...item.axisDefaults, ...item.axisWanted }), [item.axisDefaults, item.axisWanted]);
  const baseline = look.basePx * 1.18;
  const ground = look.picture
    ? { backgroundImage: `url(${look.picture})`, backgroundSize: "cover", backgroundPosition: "center" }
    : { background: look.coloured ? look.paper : undefined };
  return (
    <div className="min-h-0 flex-1 overflow-hidden" style={ground}>
      <div style={look.wrap ? undefined : { marginTop: baseline - sizePx * BASELINE_EM }}>
        <Sample
          styleId={item.styleId}
          coverage={item.coverage}
          parts={item.parts}
          own={item.own}
          axes={axes}
          byLineWidth={look.byLineWidth}
          isPassing={isPassing}
          text={text}
          sizePx={sizePx}
          widthEm={item.traits.widthEm}
          ink={look.coloured ? look.ink : undefined}
          wrap={look.wrap}
          fit={fit}
          owned={item.owned}
        />
      </div>
    </div>
  );
}

function Caption(props: Props) {
  const { item, text, look, isKept, isPassing, briefId } = props;
  const href = addressOfKept(briefId, { styleId: item.styleId, location: item.axisWanted });
  const wanted = Object.entries(item.axisWanted);
  return (
    <div
      className={`@container flex overflow-hidden pt-1 text-[12px] whitespace-nowrap ${look.compact ? "flex-col" : "min-h-7 items-center gap-3"}`}
    >
      <div className={`flex items-baseline gap-3 ${look.compact ? "min-w-0" : "min-w-[104px] shrink-[999]"}`}>
        <Link href={href} prefetch={false} tabIndex={-1} className="truncate font-semibold hover:underline">
          {item.family} {item.style}
        </Link>
        {look.compact && !isPassing && (!look.dense || isKept) && <KeepButton {...props} />}
      </div>
      <div className={`flex min-w-0 items-center gap-3 ${look.compact ? "overflow-hidden" : "@max-[420px]:gap-2"}`}>
        {!look.compact && !item.price && <StyleCount {...props} />}
        {/* Where a strip is very narrow the verdict is shortened, what is missing never. */}
        <span className={look.compact ? "min-w-8" : "shrink-0"}>
          <VerdictMark verdict={item.verdict} price={item.price} />
        </span>
        {item.missing.length > 0 && (
          <span className="shrink-0 font-semibold text-madder" data-lacks>
            no {item.missing.slice(0, 4).join(" ")}
            {item.missing.length > 4 ? ` +${item.missing.length - 4}` : ""}
          </span>
        )}
        <CareMark health={item.health} compact={look.compact ? false : "if-narrow"} />
        {lineFor(text, item.coverage, item.own).isOwn && (
          <span
            className="min-w-0 truncate text-basalt"
            title={`The line has no ${item.own!.script} letters: a few ${item.own!.script} words are shown instead`}
            data-own-words
          >
            {item.own!.script} sample
          </span>
        )}
        {wanted.length > 0 && (
          <span className="num shrink-0" title="Its axes are set so that it is what was asked for">
            {wanted.map(([tag, v]) => `${tag} ${Number(v.toFixed(1))}`).join(" ")}
          </span>
        )}
      </div>
      {item.fit && !look.dense && <FitOf fit={item.fit} isCompact={look.compact} />}
      {!look.compact && !isPassing && (
        // Until it is pressed it lies over the facts, and only under the pointer.
        <span className={isKept ? "ml-auto" : "absolute right-3 bottom-2.5 group-hover/wall:bg-limestone"}>
          <KeepButton {...props} />
        </span>
      )}
    </div>
  );
}

/** How well it fits always, why as far as there is room. */
function FitOf({ fit, isCompact }: { fit: NonNullable<ShownItem["fit"]>; isCompact: boolean }) {
  const whole = writeFit(fit);
  const degree = writeFit({ ...fit, because: [] });
  if (isCompact)
    return (
      <span className="num truncate text-basalt" title={whole}>
        {whole}
      </span>
    );
  return (
    <>
      <span className="shrink-0 text-basalt" title={whole}>
        {degree}
      </span>
      <span className="-ml-2 hidden min-w-0 flex-1 basis-0 truncate text-basalt @min-[520px]:block" title={whole}>
        {fit.because.join(", ")}
      </span>
    </>
  );
}

/** "4 of 12 fit", which opens the family in its place. A style that is all of its family needs no count. */
function StyleCount({ item, isOpen, onOpen }: Props) {
  const { stylesFound, stylesInFamily, familyId } = item;
  const says =
    onOpen && stylesFound < stylesInFamily ? `${stylesFound} of ${stylesInFamily} fit` : `${stylesInFamily} styles`;
  if (stylesInFamily < 2) return null;
  if (!onOpen || stylesFound < 2) return <span className="shrink-0 text-basalt">{says}</span>;
  return (
    <button
      type="button"
      tabIndex={-1}
      aria-expanded={isOpen}
      title={isOpen ? "Show one style of this family" : "Show the other styles here"}
      onClick={() => onOpen(familyId)}
      className="shrink-0 text-basalt underline decoration-dotted underline-offset-2"
    >
      {says}
    </button>
  );
}

const KeepButton = ({ item, isKept, onKeep }: Pick<Props, "item" | "isKept" | "onKeep">) => (
  <button
    type="button"
    tabIndex={-1}
    aria-pressed={isKept}
    aria-label={`Keep ${item.family} ${item.style}`}
    onClick={() => onKeep(item)}
    className={`ml-auto shrink-0 pl-1 font-semibold ${isKept ? "text-oxide" : "on-hover text-basalt opacity-0 group-hover/wall:opacity-100"}`}
  >
    {isKept ? "kept" : "keep"}
  </button>
);
