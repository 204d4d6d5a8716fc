// What the plotter reads a file as, whatever its form: lines in millimetres on the film, y down, and which of them are one group.

/** One line of a file. `points`: x, y one after another; of a closed one the last point joins the first. */
export type CutLine = { points: number[]; isClosed: boolean; group: string | null };
export type CutFile = { ok: true; lines: CutLine[] } | { ok: false; code: CutFault; message: string };
type CutFault = "unread" | "has-text" | "too-long";

export const refuseFile = (code: CutFault, message: string): CutFile => ({ ok: false, code, message });

/** More than a plotter of this size holds. */
export const MOST_POINTS = 1_000_000;
/** Curves are taken apart to within this. */
export const STEP_MM = 0.02;

const SAME_MM = 1e-3;
/** A line whose end lies on its beginning is closed, whatever the file calls it. */
export function closeLine(points: number[], isClosed: boolean, group: string | null): CutLine {
  const n = points.length;
  const meets = n > 4 && Math.hypot(points[0]! - points[n - 2]!, points[1]! - points[n - 1]!) < SAME_MM;
  return { points: meets ? points.slice(0, -2) : points, isClosed: isClosed || meets, group };
}
