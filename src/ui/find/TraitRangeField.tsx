"use client";
// One measured trait: two thumbs over the histogram of what the wall would hold without this range.
import { useEffect, useState } from "react";
import type { Facets } from "@/contracts/styles";
import { TRAIT_WORDS, writeTrait } from "@/contracts/words";

type Props = {
  trait: string;
  facet: Facets["traits"][string] | undefined;
  low: number | null;
  high: number | null;
  onChange: (low: number | null, high: number | null) => void;
};
const STEPS = 48;
const keyOf = (low: number | null, high: number | null) => `${low} ${high}`;
/** While a thumb is dragged the question is asked this often, not for every pixel. */
const ASK_AFTER_MS = 60;

export function TraitRangeField({ trait, facet, low, high, onChange }: Props) {
  const [min, max] = facet?.range ?? [0, 1];
  const step = (max - min) / STEPS;
  const [[a, b], setHeld] = useThumbs({ trait, min, max, low, high, onChange });
  const bins = facet?.bins ?? [];
  const tallest = Math.max(1, ...bins);
  const share = (v: number) => `${Math.min(100, Math.max(0, ((v - min) / (max - min)) * 100))}%`;
  const inside = (i: number) => {
    const middle = min + ((i + 0.5) / bins.length) * (max - min);
    return middle >= a - step && middle <= b + step;
  };
  const name = TRAIT_WORDS[trait]?.name ?? trait;
  const isOn = low !== null || high !== null;
  return (
    <div className="mt-2.5 first:mt-0" data-trait={trait}>
      <div className="flex items-baseline justify-between" title={TRAIT_WORDS[trait]?.method}>
        <span className={`head ${isOn ? "text-tide" : ""}`}>{name}</span>
        <span className="num">
          {writeTrait(trait, a).replace(/ .*/, "")}–{writeTrait(trait, b)}
        </span>
      </div>
      <svg
        viewBox={`0 0 ${Math.max(1, bins.length) * 10} 24`}
        preserveAspectRatio="none"
        className="block h-[22px] w-full"
        aria-hidden
      >
        {bins.map((n, i) => (
          <rect
            key={i}
            x={i * 10 + 0.5}
            width={9}
            y={24 - (n / tallest) * 23}
            height={(n / tallest) * 23 || 0.5}
            fill={inside(i) ? "var(--basalt)" : "var(--rule)"}
          />
        ))}
      </svg>
      <div className="range-pair relative h-[14px]">
        <div className="absolute inset-x-0 top-[6px] h-[3px] bg-rule" />
        <div
          className="absolute top-[6px] h-[3px] bg-tide"
          style={{ left: share(a), right: `calc(100% - ${share(b)})` }}
        />
        <input
          type="range"
          aria-label={`${name} from`}
          aria-valuetext={writeTrait(trait, a)}
          min={min}
          max={max}
          step={step}
          value={a}
          onChange={(e) => setHeld([Math.min(Number(e.target.value), b), b])}
        />
        <input
          type="range"
          aria-label={`${name} to`}
          aria-valuetext={writeTrait(trait, b)}
          min={min}
          max={max}
          step={step}
          value={b}
          onChange={(e) => setHeld([a, Math.max(Number(e.target.value), a)])}
        />
      </div>
    </div>
  );
}

type ThumbsProps = Omit<Props, "facet"> & { min: number; max: number };
type Thumbs = [low: number, high: number];

/** Where the thumbs are, and what moves them: they are ahead of the address while the hand is on them. */
function useThumbs({ trait, min, max, low, high, onChange }: ThumbsProps): [Thumbs, (held: Thumbs) => void] {
  const step = (max - min) / STEPS;
  const given: Thumbs = [low ?? min, high ?? max];
  const [held, setHeld] = useState<Thumbs | null>(null);
  /** What the address was asked to hold, and what it held then: the thumbs stay where they are until it follows. */
  const [asked, setAsked] = useState<{ held: Thumbs; from: string; to: string } | null>(null);
  const isAt = keyOf(low, high);
  if (asked && (asked.to === isAt || asked.from !== isAt)) {
    setAsked(null);
    if (asked.held === held) setHeld(null);
  }
  const isAsked = held !== null && asked?.held === held;
  useEffect(() => {
    if (!held || isAsked) return;
    const timer = setTimeout(() => {
      const round = (v: number) => Number(v.toFixed((TRAIT_WORDS[trait]?.digits ?? 2) + 1));
      const from = held[0] <= min + step / 2 ? null : round(held[0]);
      const to = held[1] >= max - step / 2 ? null : round(held[1]);
      setAsked({ held, from: isAt, to: keyOf(from, to) });
      onChange(from, to);
    }, ASK_AFTER_MS);
    return () => clearTimeout(timer);
  }, [held, isAsked, isAt, min, max, step, trait, onChange]);
  return [held ?? given, setHeld];
}
