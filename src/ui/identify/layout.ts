// All lines of a picture answered at once: what is known of each, and the faces that they share.
import type { FaceGroup, Identification, LayoutStep, PixelBox } from "@/contracts/identify";
import { groupLines } from "@/core/identify/answer/groupLines";

/** @property lines - null: not answered yet; a sentence: why it could not be. */
export type Layout = {
  areas: readonly PixelBox[];
  lines: readonly (Identification | string | null)[];
  groups: readonly FaceGroup[];
  /** Whether every line was asked about. */
  isWhole: boolean;
};
export const NO_LINES: Layout = { areas: [], lines: [], groups: [], isWhole: false };

export function hearLayout(layout: Layout, step: LayoutStep): Layout {
  switch (step.step) {
    case "lines":
      return { ...layout, areas: step.areas, lines: step.areas.map(() => null) };
    case "line":
      return putLine(layout, step.at, step.answer);
    case "line refused":
      return putLine(layout, step.at, step.error.message);
    case "grouped":
      return { ...layout, groups: step.groups, isWhole: true };
    case "refused":
      return layout;
  }
}

/** The lines with one of them answered (anew), and grouped by what is known so far. */
export function putLine(layout: Layout, at: number, line: Identification | string): Layout {
  const lines = layout.lines.map((l, i) => (i === at ? line : l));
  const answers = lines.map((l) => (l && typeof l !== "string" ? l : null));
  const faces = new Map(answers.flatMap((a) => a?.matches ?? []).map((m) => [m.styleId as string, m]));
  const groups = groupLines(
    answers.map((a) => ({ matches: a?.matches ?? [], noneChance: a?.notInLibraries.chance ?? 1 })),
  ).map((group) => ({
    ...group,
    matches: group.matches.map((m) => {
      const { styleId, familyId, family, style } = faces.get(m.styleId)!;
      return { ...m, styleId, familyId, family, style };
    }),
  }));
  return { ...layout, lines, groups };
}

/** The place of a frame among the lines; −1 for one that was drawn. */
export const lineAt = (layout: Layout | null, frame: PixelBox | null): number =>
  layout && frame ? layout.areas.findIndex((a) => JSON.stringify(a) === JSON.stringify(frame)) : -1;

/** How many faces there are, in a sentence. */
export function writeLayout({ lines, groups, isWhole }: Layout): string {
  const read = lines.filter((l) => l !== null).length;
  if (!isWhole)
    return lines.length
      ? `Identifying line ${Math.min(read + 1, lines.length)} of ${lines.length} …`
      : "Finding lines …";
  const count = (n: number, what: string) => `${n} ${what}${n === 1 ? "" : "s"}`;
  return groups.length
    ? `${count(groups.length, "face")} on ${count(lines.length, "line")}.`
    : "No line could be identified.";
}
