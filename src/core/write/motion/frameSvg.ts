// One moment as an SVG picture of just so many pixels: what frames are drawn from, and a still.
import type { LetteringDocument } from "@/contracts/lettering";
import { boundsOf, mapPolygons, type Affine } from "../../geometry/outline";
import type { Frame, FrameGroup } from "../../motion/drawFrame";
import { blurOf, Definitions, deviationOf, fillOf, pathOf } from "../lettering/svg";

const n = (v: number) => String(Number(v.toFixed(6)));
const matrixOf = ({ a, b, c, d, e, f }: Affine) => `matrix(${[a, b, c, d, e, f].map((v) => n(v)).join(" ")})`;

/** A clip's corners as a path. */
export const clipPath = (corners: Float64Array) => {
  const points: string[] = [];
  for (let i = 0; i < corners.length; i += 2) points.push(`${n(corners[i]!)} ${n(corners[i + 1]!)}`);
  return `M${points.join("L")}Z`;
};

type FrameSize = { sheet: LetteringDocument["sheet"]; widthPx: number; heightPx: number };
/** A part of a picture, in whole pixels from its top left. */
export type Region = { left: number; top: number; width: number; height: number };

/** Fainter than this nothing is seen. */
const LEAST_OPACITY = 1 / 1024;
const isSeen = ({ opacity, by }: FrameGroup) => opacity > LEAST_OPACITY && Math.hypot(by.a, by.b) > 1e-6;

/** What of a frame is drawn on; null where it is empty. Points that guide curves count: it may be a little larger than the ink. */
export function findRegion({ groups }: Frame, { sheet, widthPx, heightPx }: FrameSize): Region | null {
  const boxes = groups.filter(isSeen).flatMap(({ parts, by }) =>
    parts.flatMap(({ outline, blurMm }) => {
      const box = boundsOf(mapPolygons([outline.coords], by));
      const reach = 3 * deviationOf(blurMm) * Math.hypot(by.a, by.b);
      return box ? [Float64Array.of(box.xMin - reach, box.yMin - reach, box.xMax + reach, box.yMax + reach)] : [];
    }),
  );
  const box = boundsOf(boxes);
  if (!box) return null;
  const [x, y] = [widthPx / sheet.widthMm, heightPx / sheet.heightMm];
  // Even edges, so that colours at half the resolution fall on whole ones.
  const from = (v: number) => Math.max(0, 2 * Math.floor((v - 1) / 2));
  const to = (v: number, most: number) => Math.min(most, 2 * Math.ceil((v + 1) / 2));
  const [left, top] = [from(box.xMin * x), from(box.yMin * y)];
  const [width, height] = [to(box.xMax * x, widthPx) - left, to(box.yMax * y, heightPx) - top];
  return width > 0 && height > 0 ? { left, top, width, height } : null;
}

/** @param region - drawn alone; absent: the whole frame. */
export function writeFrameSvg(
  { groups }: Frame,
  { sheet, widthPx, heightPx }: FrameSize,
  region: Region = { left: 0, top: 0, width: widthPx, height: heightPx },
): string {
  const defs = new Definitions();
  const body = groups.filter(isSeen).map((group) => writeGroup(group, defs));
  const [x, y] = [sheet.widthMm / widthPx, sheet.heightMm / heightPx];
  const { left, top, width, height } = region;
  const box = `viewBox="${n(left * x)} ${n(top * y)} ${n(width * x)} ${n(height * y)}"`;
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" ${box} preserveAspectRatio="none">${defs.write()}${body.join("")}</svg>`;
}

function writeGroup({ parts, by, opacity, clip }: FrameGroup, defs: Definitions): string {
  const paths = parts.map(
    (part) => `<path ${fillOf(part.paint, defs)}${blurOf(part, defs)} d="${pathOf(part.outline)}"/>`,
  );
  const strength = opacity < 1 ? ` opacity="${n(opacity)}"` : "";
  const drawn = `<g transform="${matrixOf(by)}"${strength}>${paths.join("")}</g>`;
  if (!clip) return drawn;
  const id = defs.add((name) => `<clipPath id="${name}"><path d="${clipPath(clip)}"/></clipPath>`);
  return `<g clip-path="url(#${id})">${drawn}</g>`;
}
