// A drawing as what was done to it: strokes, and sheets wiped clean.
import type { Command } from "../bench/commands";

export type Stroke = { widthPx: number; points: [number, number][] };
export type SketchChange = { type: "draw"; stroke: Stroke } | { type: "clear" };

/** The sheet that is drawn on, in its own pixels. */
export const SHEET = { width: 1000, height: 380 };

/** What is on the sheet: everything drawn since it was last cleared. */
export function strokesOf(done: readonly Pick<Command<SketchChange>, "forward">[]): Stroke[] {
  const from = done.findLastIndex(({ forward }) => forward.type === "clear") + 1;
  return done.slice(from).flatMap(({ forward }) => (forward.type === "draw" ? [forward.stroke] : []));
}

export function drawStrokes(canvas: HTMLCanvasElement | null, strokes: readonly Stroke[]) {
  const pen = canvas?.getContext("2d");
  if (!pen) return;
  pen.fillStyle = "#fff";
  pen.fillRect(0, 0, SHEET.width, SHEET.height);
  pen.strokeStyle = "#111";
  pen.lineCap = "round";
  pen.lineJoin = "round";
  for (const { widthPx, points } of strokes) {
    pen.lineWidth = widthPx;
    pen.beginPath();
    points.forEach(([x, y], i) => (i ? pen.lineTo(x, y) : pen.moveTo(x, y)));
    // A tap is a dot.
    if (points.length === 1) pen.lineTo(points[0]![0] + 0.1, points[0]![1]);
    pen.stroke();
  }
}
