// A moment on a canvas: paths filled where they lie, groups faded as a whole.
import type { DrawnGroup, DrawnMoment } from "./moveTasks";

type Paths = (outline: number) => Path2D | undefined;
type Onto = { context: CanvasRenderingContext2D; pxPerMm: number };

let scratch: HTMLCanvasElement | null = null;

export function drawMoment(onto: Onto, moment: DrawnMoment, pathOf: Paths) {
  for (const group of moment.groups) if (group.opacity > 0.001) drawGroup(onto, group, pathOf);
}

function drawGroup(onto: Onto, group: DrawnGroup, pathOf: Paths) {
  const { context } = onto;
  // Parts that lie over one another must not shine through: they are drawn apart, and faded as one.
  const isApart = group.opacity < 1 && group.parts.length > 1;
  const target = isApart ? openScratch(context.canvas) : context;
  target.save();
  if (group.clip) {
    const { a, b, c, d, e, f } = target.getTransform();
    target.setTransform(onto.pxPerMm, 0, 0, onto.pxPerMm, 0, 0);
    target.beginPath();
    for (let i = 0; i < group.clip.length; i += 2) target.lineTo(group.clip[i]!, group.clip[i + 1]!);
    target.clip();
    target.setTransform(a, b, c, d, e, f);
  }
  if (!isApart) target.globalAlpha = group.opacity;
  const { pxPerMm } = onto;
  const { a, b, c, d, e, f } = group.by;
  target.setTransform(a * pxPerMm, b * pxPerMm, c * pxPerMm, d * pxPerMm, e * pxPerMm, f * pxPerMm);
  for (const part of group.parts) {
    const path = pathOf(part.outline);
    if (!path) continue;
    target.filter = part.blurMm ? `blur(${(part.blurMm / 2) * pxPerMm * Math.hypot(a, b)}px)` : "none";
    target.fillStyle = fillOf(target, part.paint);
    target.fill(path);
  }
  target.restore();
  if (!isApart) return;
  context.save();
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.globalAlpha = group.opacity;
  context.drawImage(target.canvas, 0, 0);
  context.restore();
}

function openScratch({ width, height }: HTMLCanvasElement): CanvasRenderingContext2D {
  scratch ??= window.document.createElement("canvas");
  if (scratch.width !== width || scratch.height !== height) [scratch.width, scratch.height] = [width, height];
  const context = scratch.getContext("2d")!;
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.clearRect(0, 0, width, height);
  return context;
}

function fillOf(context: CanvasRenderingContext2D, paint: DrawnGroup["parts"][number]["paint"]) {
  if (typeof paint === "string") return paint;
  const gradient = context.createLinearGradient(paint.x1, paint.y1, paint.x2, paint.y2);
  gradient.addColorStop(0, paint.from);
  gradient.addColorStop(1, paint.to);
  return gradient;
}
