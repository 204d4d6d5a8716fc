"use client";
// The sieve left of the wall: kinds, verdicts, weight and width over small histograms, pictures, completeness; each with counts.
import type { ReactNode } from "react";
import type { Facets } from "@/contracts/styles";
import { KINDS, VERDICTS } from "@/contracts/traits";
import { KIND_WORDS } from "@/contracts/words";
import { VerdictMark } from "../parts/VerdictMark";
import type { FindAddress } from "./address";

type Props = {
  address: FindAddress;
  set: (change: Partial<{ [K in keyof FindAddress]: FindAddress[K] | null }>) => void;
  facets: Facets | undefined;
  ofAll: number;
};

export function Sieve({ address, set, facets, ofAll }: Props) {
  const toggle = <T extends string>(list: T[], value: T) =>
    list.includes(value) ? list.filter((v) => v !== value) : [...list, value];
  return (
    <section aria-label="Sieve" className="h-full overflow-y-auto border-r border-rule px-4 py-3">
      <Range
        label="Weight"
        bins={facets?.weight}
        min={0}
        max={1000}
        step={50}
        low={address.weightMin}
        high={address.weightMax}
        onChange={(weightMin, weightMax) => set({ weightMin, weightMax })}
      />
      <Range
        label="Width"
        bins={facets?.width}
        min={1}
        max={9}
        step={1}
        low={address.widthMin}
        high={address.widthMax}
        onChange={(widthMin, widthMax) => set({ widthMin, widthMax })}
      />
      <Group title="Kind">
        {KINDS.filter((k) => k !== "picture").map((kind) => (
          <Toggle
            key={kind}
            on={address.kinds.includes(kind)}
            count={facets?.kinds[kind] ?? 0}
            onClick={() => set({ kinds: toggle(address.kinds, kind) })}
          >
            {KIND_WORDS[kind]}
          </Toggle>
        ))}
      </Group>
      <Group title="For the brief’s use">
        {VERDICTS.filter((v) => (facets?.verdicts[v] ?? 0) > 0 || address.verdicts.includes(v)).map((verdict) => (
          <Toggle
            key={verdict}
            on={address.verdicts.includes(verdict)}
            count={facets?.verdicts[verdict] ?? 0}
            onClick={() => set({ verdicts: toggle(address.verdicts, verdict) })}
          >
            <VerdictMark verdict={verdict} />
          </Toggle>
        ))}
      </Group>
      <Group title="Characters">
        <Toggle
          on={address.complete}
          count={facets?.complete ?? 0}
          onClick={() => set({ complete: !address.complete })}
        >
          Has all characters
        </Toggle>
      </Group>
      <Group title="At hand">
        {(
          [
            ["here", "On this machine", facets?.owned.here ?? 0],
            ["to-buy", "To be bought", facets?.owned.toBuy ?? 0],
          ] as const
        ).map(([value, name, count]) => (
          <Toggle
            key={value}
            on={address.owned === value}
            count={count}
            onClick={() => set({ owned: address.owned === value ? null : value })}
          >
            {name}
          </Toggle>
        ))}
      </Group>
      <Group title="Picture fonts">
        {(
          [
            ["in", "With the others", ofAll],
            ["out", "Left out", facets?.pictures.out ?? 0],
            ["only", "Only these", facets?.pictures.in ?? 0],
          ] as const
        ).map(([value, name, count]) => (
          <Toggle
            key={value}
            on={address.pictures === value}
            count={value === "in" ? null : count}
            onClick={() => set({ pictures: value })}
          >
            {name}
          </Toggle>
        ))}
      </Group>
    </section>
  );
}

function Group({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div className="mt-4 first:mt-0">
      <h2 className="head mb-1">{title}</h2>
      <ul>{children}</ul>
    </div>
  );
}

function Toggle({
  on,
  count,
  onClick,
  children,
}: {
  on: boolean;
  count: number | null;
  onClick: () => void;
  children: ReactNode;
}) {
  return (
    <li>
      <button
        type="button"
        aria-pressed={on}
        onClick={onClick}
        className={`flex w-full items-center justify-between py-[2px] text-left hover:text-tide ${on ? "font-semibold text-tide" : ""}`}
      >
        <span className="flex items-center gap-1.5">
          <span aria-hidden className={`inline-block w-[7px] ${on ? "" : "opacity-0"}`}>
            ›
          </span>
          {children}
        </span>
        {count !== null && <span className="num">{count}</span>}
      </button>
    </li>
  );
}

type RangeProps = {
  label: string;
  bins: number[] | undefined;
  min: number;
  max: number;
  step: number;
  low: number | null;
  high: number | null;
  onChange: (low: number | null, high: number | null) => void;
};

/** Two thumbs over a histogram of the current result. */
function Range({ label, bins, min, max, step, low, high, onChange }: RangeProps) {
  const [a, b] = [low ?? min, high ?? max];
  const tallest = Math.max(1, ...(bins ?? []));
  const inside = (i: number, n: number) => {
    const middle = min + ((i + 0.5) / n) * (max - min);
    return middle >= a - step / 2 && middle <= b + step / 2;
  };
  const clean = (v: number, edge: number) => (v === edge ? null : v);
  return (
    <div className="mt-3 first:mt-0">
      <div className="flex items-baseline justify-between">
        <span className="head">{label}</span>
        <span className="num">
          {a}–{b}
        </span>
      </div>
      <svg
        viewBox={`0 0 ${(bins?.length ?? 1) * 10} 26`}
        preserveAspectRatio="none"
        className="block h-[26px] w-full"
        aria-hidden
      >
        {bins?.map((n, i) => (
          <rect
            key={i}
            x={i * 10 + 0.5}
            width={9}
            y={26 - (n / tallest) * 25}
            height={(n / tallest) * 25 || 0.5}
            fill={inside(i, bins.length) ? "var(--basalt)" : "var(--rule)"}
          />
        ))}
      </svg>
      <div className="range-pair relative h-[14px]">
        <div className="absolute inset-x-0 top-[6px] h-[3px] bg-rule" />
        <div
          className="absolute top-[6px] h-[3px] bg-tide"
          style={{ left: `${((a - min) / (max - min)) * 100}%`, right: `${100 - ((b - min) / (max - min)) * 100}%` }}
        />
        <input
          type="range"
          aria-label={`${label} from`}
          min={min}
          max={max}
          step={step}
          value={a}
          onChange={(e) => onChange(clean(Math.min(Number(e.target.value), b), min), high)}
        />
        <input
          type="range"
          aria-label={`${label} to`}
          min={min}
          max={max}
          step={step}
          value={b}
          onChange={(e) => onChange(low, clean(Math.max(Number(e.target.value), a), max))}
        />
      </div>
    </div>
  );
}
