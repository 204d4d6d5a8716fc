// One face in a line of facts, for the foot line.
import type { ShownItem } from "@/contracts/styles";

export function factsOf(item: ShownItem): string[] {
  const { traits } = item;
  const needed = item.missing.length ? `lacks ${item.missing.join(" ")}` : "all characters";
  return [
    `${item.family} ${item.style}`,
    item.fit ? writeFit(item.fit) : "",
    traits.stemEm === null ? "stem not measured" : `stem ${traits.stemEm.toFixed(3)} em`,
    traits.contrast === null ? "" : `contrast ${traits.contrast.toFixed(1)}`,
    traits.xHeightEm === null ? "" : `x-height ${traits.xHeightEm.toFixed(2)} em`,
    needed,
  ].filter(Boolean);
}

/** "fits 82 %: slab, worn". */
export const writeFit = ({ degree, because }: NonNullable<ShownItem["fit"]>) =>
  `fits ${Math.round(100 * Math.max(0, degree))} %${because.length ? `: ${because.join(", ")}` : ""}`;

export const nameOf = ({ family, style }: Pick<ShownItem, "family" | "style">) => `${family} ${style}`;
