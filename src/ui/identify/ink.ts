// What a person takes for ink in a picture: a list of corrections that can be taken back one by one.
import type { Corner, HandInk } from "@/contracts/identify";

/** What the pointer does on the picture: shows a colour, or is a brush. */
export type InkTool = "letter" | "ground" | "paint" | "rub-out";

const AS_FOUND: HandInk = { letters: "found", letterAt: [], groundAt: [], strokes: [] };
/** The contract takes no more of either. */
const MOST_COLOURS = 12;

export const lettersOf = (ink: HandInk | null): HandInk["letters"] => ink?.letters ?? "found";

/** Colours that were picked would go before it: they are let go. */
export const takeLetters = (ink: HandInk | null, letters: HandInk["letters"]): HandInk | null =>
  nothingAsNull({ ...(ink ?? AS_FOUND), letters, letterAt: [], groundAt: [] });

/** @param radiusPx - of the brush, in pixels of the picture. */
export function applyTool(ink: HandInk | null, tool: InkTool, points: readonly Corner[], radiusPx: number): HandInk {
  const before = ink ?? AS_FOUND;
  const last = points[points.length - 1]!;
  switch (tool) {
    case "letter":
      return { ...before, letterAt: [...before.letterAt, last].slice(-MOST_COLOURS) };
    case "ground":
      return { ...before, groundAt: [...before.groundAt, last].slice(-MOST_COLOURS) };
    default:
      return {
        ...before,
        strokes: [...before.strokes, { rubsOut: tool === "rub-out", radiusPx, points: thinOut(points, radiusPx / 3) }],
      };
  }
}

function nothingAsNull(ink: HandInk): HandInk | null {
  return JSON.stringify(ink) === JSON.stringify(AS_FOUND) ? null : ink;
}

/** Points at least so far apart, and the last. */
function thinOut(points: readonly Corner[], apartPx: number): Corner[] {
  const out = [points[0]!];
  for (const p of points) {
    const { x, y } = out[out.length - 1]!;
    if (Math.hypot(p.x - x, p.y - y) >= apartPx) out.push(p);
  }
  if (out[out.length - 1] !== points[points.length - 1]) out.push(points[points.length - 1]!);
  return out.slice(0, MOST_POINTS);
}
const MOST_POINTS = 2000;
