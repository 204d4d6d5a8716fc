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
  traits: Traits,
  ranges: Ranges,
  trait: (typeof CORE_BANDS)[number]["trait"],
): number | null {
  const value = traits[trait];
  const range = ranges[trait];
  if (value === null || !range) return null;
  const [low, high] = range;
  return Math.min(1, Math.max(0, (Math.abs(value) - low) / (high - low)));
}

/** Text equivalent, read out. */
export const describeCore = (traits: Traits) =>
  CORE_BANDS.map(
    ({ trait, name, write }) => `${name} ${traits[trait] === null ? "not measured" : write(traits[trait])}`,
  ).join(", ");

const troughs = (width: number, band: number) =>
  CORE_BANDS.map((_, i) => `M0 ${i * band}h${width}v${band - 1}h${-width}z`).join("");

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
  const height = CORE_BANDS.length * band;
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={`Core sample: ${describeCore(traits)}`}
      className="shrink-0"
    >
      {/* One path for all troughs, one rectangle a band: hundreds of these stand on a wall. */}
      <path d={troughs(width, band)} fill="var(--rule)" opacity={0.5} />
      {CORE_BANDS.map(({ trait }, i) => {
        const share = placeInRange(traits, ranges, trait);
        return share === null ? null : (
          <rect
            key={trait}
            x={0}
            y={i * band}
            width={Math.max(1.5, share * width)}
            height={band - 1}
            fill={`var(--core-${i + 1})`}
          />
        );
      })}
    </svg>
  );
});
