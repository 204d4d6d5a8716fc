// The core sample: six bands, always stem, contrast, width, x-height, slant, roundness; the fill shows the place in the library's range.
import { memo } from "react";
import type { Traits } from "@/contracts/traits";

export const CORE_BANDS = [
  { trait: "stemEm", name: "stem", write: (v: number) => `${v.toFixed(3)} em` },
  { trait: "contrast", name: "contrast", write: (v: number) => `${v.toFixed(1)} : 1` },
  { trait: "width", name: "width", write: (v: number) => `${v.toFixed(1)} of 9` },
  { trait: "xHeightEm", name: "x-height", write: (v: number) => `${v.toFixed(2)} em` },
  { trait: "slantDeg", name: "slant", write: (v: number) => `${v.toFixed(1)}°` },
  { trait: "roundness", name: "roundness", write: (v: number) => v.toFixed(2) },
] as const;

export type Ranges = Record<string, [number, number]>;

/** Place of a value in the library's range, 0–1; null where it was not measured. */
export function placeInRange(
  value: number | null,
  ranges: Ranges,
  trait: (typeof CORE_BANDS)[number]["trait"],
): number | null {
  const range = ranges[trait];
  if (value === null || !range) return null;
  const [low, high] = range;
  return Math.min(1, Math.max(0, (Math.abs(value) - low) / (high - low)));
}

/** Text equivalent, read out. */
const describeCore = (traits: Traits) =>
  CORE_BANDS.map(
    ({ trait, name, write }) => `${name} ${traits[trait] === null ? "not measured" : write(traits[trait])}`,
  ).join(", ");

export const CoreSample = memo(function CoreSample({
  traits,
  ranges,
  width = 26,
  band = 11,
}: {
  traits: Traits;
  ranges: Ranges;
  width?: number;
  band?: number;
}) {
  // Layers of one background: hundreds of these stand on a wall, and each is a single box.
  const fills = CORE_BANDS.flatMap(({ trait }, i) => {
    const share = placeInRange(traits[trait], ranges, trait);
    return share === null
      ? []
      : [
          `linear-gradient(var(--core-${i + 1}) 0 0) 0 ${i * band}px / ${Math.max(1.5, share * width)}px ${band - 1}px no-repeat`,
        ];
  });
  const troughs = `repeating-linear-gradient(var(--core-trough) 0 ${band - 1}px, transparent 0 ${band}px)`;
  return (
    <span
      role="img"
      aria-label={`Core sample: ${describeCore(traits)}`}
      className="inline-block shrink-0 align-top"
      style={{ width, height: CORE_BANDS.length * band, background: [...fills, troughs].join(", ") }}
    />
  );
});
