// What mends a finding by itself, as a change of its block.
import type { Block, Finding } from "@/contracts/lettering";

/** Strokes are grown a little past what is asked, so that rounding does not bring them back. */
const SPARE_MM = 0.02;
/** Without a width of its own a bridge is a third as wide as it is long, and a strip so wide. */
const BRIDGE_SHARE = 1 / 3;
const LEAST_BRIDGE_MM = 1.2;
const STRIP_MM = 2;

/** @param bridgeMm - how wide bridges and strips are; absent: as suits the place. @returns null where a person has to decide. */
export function mendOf(block: Block, finding: Finding, bridgeMm?: number): { name: string; block: Block } | null {
  const { kind, letters, measuredMm = 0, wantedMm = 0 } = finding;
  const [first, second] = letters;
  if (kind === "thin") {
    // Grown by half of what is wanted, a stroke of no width at all is wide enough.
    const grown = Math.min((block.growMm ?? 0) + (wantedMm - measuredMm) / 2, wantedMm / 2);
    const growMm = Math.round((grown + SPARE_MM) * 1000) / 1000;
    if (growMm <= (block.growMm ?? 0)) return null;
    return { name: "Grow the outline", block: { ...block, growMm } };
  }
  if (kind === "overlap") return { name: "Join the letters", block: { ...block, joined: true } };
  if (kind === "filled-counter") return { name: "Keep counters open", block: { ...block, keepsCounters: true } };
  if (kind === "apart" && first !== undefined && second !== undefined) {
    const widthMm = bridgeMm ?? Math.max(LEAST_BRIDGE_MM, Math.round(measuredMm * BRIDGE_SHARE * 10) / 10);
    return {
      name: "Add a bridge",
      block: { ...block, bridges: [...(block.bridges ?? []), { at: first, to: second, widthMm }] },
    };
  }
  if (kind === "island" && first !== undefined) {
    const known = (block.bridges ?? []).some((b) => b.at === first && b.to === undefined);
    return known
      ? null
      : {
          name: "Open it with a strip",
          block: { ...block, bridges: [...(block.bridges ?? []), { at: first, widthMm: bridgeMm ?? STRIP_MM }] },
        };
  }
  return null;
}
