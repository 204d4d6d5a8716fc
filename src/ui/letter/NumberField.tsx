"use client";
// A value that is typed, or stepped by the arrow keys: what is typed counts when the field is left, or by Enter.
import { useState, type KeyboardEvent } from "react";

type Props = {
  label: string;
  /** Not shown where it is said beside. */
  isLabelHidden?: boolean;
  value: number;
  unit?: string;
  step?: number;
  least?: number;
  most?: number;
  widthPx?: number;
  onChange: (value: number) => void;
};

/** @returns null for what is no number; a comma is a point. */
function readNumber(text: string): number | null {
  const value = Number(text.trim().replace(",", ".").replace("−", "-"));
  return text.trim() !== "" && Number.isFinite(value) ? value : null;
}

export function NumberField({
  label,
  isLabelHidden,
  value,
  unit,
  step = 1,
  least,
  most,
  widthPx = 56,
  onChange,
}: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const within = (v: number) => Math.min(most ?? Infinity, Math.max(least ?? -Infinity, Number(v.toFixed(4))));
  const commit = () => {
    const read = typed === null ? null : readNumber(typed);
    setTyped(null);
    if (read !== null && within(read) !== value) onChange(within(read));
  };
  const onKey = (event: KeyboardEvent) => {
    if (event.key === "Enter") commit();
    if (event.key === "Escape") setTyped(null);
    if (event.key !== "ArrowUp" && event.key !== "ArrowDown") return;
    event.preventDefault();
    const by = (event.key === "ArrowUp" ? step : -step) * (event.shiftKey ? 10 : event.altKey ? 0.1 : 1);
    setTyped(null);
    onChange(within((readNumber(typed ?? "") ?? value) + by));
  };
  return (
    <label className="flex items-baseline gap-1.5 whitespace-nowrap">
      <span className={isLabelHidden ? "sr-only" : "text-basalt"}>{label}</span>
      <input
        type="text"
        inputMode="decimal"
        className="border-b border-slate bg-transparent px-0.5 font-semibold"
        style={{ width: widthPx }}
        value={typed ?? String(Number(value.toFixed(3)))}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={commit}
        onKeyDown={onKey}
      />
      {unit && <span className="text-basalt">{unit}</span>}
    </label>
  );
}
