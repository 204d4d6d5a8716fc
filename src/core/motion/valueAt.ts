// The value of a track at a time. Before its first key the first value holds, after its last key the last.
import type { Key } from "@/contracts/motion";
import { easeAt } from "./ease";

/** @param keys - in any order; at least one. Of two at one time the later in the list rules from there. */
export function valueAt(keys: readonly Key[], timeMs: number): number | string {
  const sorted = isInOrder(keys) ? keys : [...keys].sort((a, b) => a.timeMs - b.timeMs);
  let i = -1;
  while (i + 1 < sorted.length && sorted[i + 1]!.timeMs <= timeMs) i++;
  if (i < 0) return sorted[0]!.value;
  const [from, to] = [sorted[i]!, sorted[i + 1]];
  if (!to) return from.value;
  return between(
    from.value,
    to.value,
    easeAt(from.ease ?? "linear", (timeMs - from.timeMs) / (to.timeMs - from.timeMs)),
  );
}

const isInOrder = (keys: readonly Key[]) => keys.every((k, i) => i === 0 || keys[i - 1]!.timeMs <= k.timeMs);

function between(from: number | string, to: number | string, share: number): number | string {
  if (typeof from === "number" && typeof to === "number") return from + (to - from) * share;
  return mixColours(String(from), String(to), share);
}

/** Red, green, blue, alpha, 0–255. */
export const channelsOf = (colour: string): [number, number, number, number] => [
  parseInt(colour.slice(1, 3), 16),
  parseInt(colour.slice(3, 5), 16),
  parseInt(colour.slice(5, 7), 16),
  colour.length === 9 ? parseInt(colour.slice(7, 9), 16) : 255,
];

const writeColour = (channels: readonly number[]): string => {
  const hex = channels.map((v) =>
    Math.max(0, Math.min(255, Math.round(v)))
      .toString(16)
      .padStart(2, "0"),
  );
  return `#${hex.join("")}`.replace(/^(#.{6})ff$/, "$1");
};

/** Channel by channel in sRGB, weighted by alpha, as CSS mixes them. */
export function mixColours(from: string, to: string, share: number): string {
  const [a, b] = [channelsOf(from), channelsOf(to)];
  const mix = (x: number, y: number) => x + (y - x) * share;
  const alpha = Math.max(0, Math.min(255, mix(a[3], b[3])));
  const colours = [0, 1, 2].map((i) => (alpha ? mix(a[i]! * a[3], b[i]! * b[3]) / alpha : b[i]!));
  return writeColour([...colours, alpha]);
}
