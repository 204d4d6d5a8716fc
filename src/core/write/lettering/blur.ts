// A shadow with a soft edge as a picture of its ink: filled, then blurred by three box filters, which come near to a Gaussian.
import { boundsOf, flattenOutline, mapPolygons, type Bounds, type Outline } from "../../geometry/outline";
import { addPolygons } from "../../geometry/raster";

/** `alpha`: uint8, [heightPx, widthPx], row-major from the top left. `box`: where it lies, in mm. */
type BlurredInk = { widthPx: number; heightPx: number; alpha: Uint8Array; box: Bounds };

/** Pixels per deviation: what is blurred needs no more. */
const PX_PER_DEVIATION = 4;
const MOST_PX = 2000;

/** @param deviationMm - above 0. @returns null where nothing is drawn. */
export function blurredInk(outline: Outline, deviationMm: number): BlurredInk | null {
  const polygons = flattenOutline(outline, Math.max(deviationMm / 50, 0.002));
  const ink = boundsOf(polygons);
  if (!ink) return null;
  const reach = 3 * deviationMm;
  const box = { xMin: ink.xMin - reach, yMin: ink.yMin - reach, xMax: ink.xMax + reach, yMax: ink.yMax + reach };
  const longest = Math.max(box.xMax - box.xMin, box.yMax - box.yMin);
  const pxPerMm = Math.min(PX_PER_DEVIATION / deviationMm, MOST_PX / longest);
  const [widthPx, heightPx] = [box.xMax - box.xMin, box.yMax - box.yMin].map((v) =>
    Math.max(1, Math.ceil(v * pxPerMm)),
  ) as [number, number];
  const [sx, sy] = [widthPx / (box.xMax - box.xMin), heightPx / (box.yMax - box.yMin)];
  const picture = { widthPx, heightPx, ink: new Float32Array(widthPx * heightPx) };
  const mapped = mapPolygons(polygons, { a: sx, b: 0, c: 0, d: sy, e: -box.xMin * sx, f: -box.yMin * sy });
  addPolygons(picture, mapped, boundsOf(mapped)!);
  const radius = boxRadius(deviationMm * pxPerMm);
  for (let i = 0; i < 3; i++) {
    blurRows(picture.ink, widthPx, heightPx, radius, 1, widthPx);
    blurRows(picture.ink, heightPx, widthPx, radius, widthPx, 1);
  }
  return {
    widthPx,
    heightPx,
    box,
    alpha: Uint8Array.from(picture.ink, (v) => Math.round(Math.max(0, Math.min(1, v)) * 255)),
  };
}

/** Three boxes of this radius have the deviation together. */
const boxRadius = (deviationPx: number) => Math.max(1, Math.round((Math.sqrt(4 * deviationPx ** 2 + 1) - 1) / 2));

/** Mean over 2 × radius + 1 along one direction. @param ink - modified. @param step - from one to the next. @param stride - from row to row. */
function blurRows(ink: Float32Array, length: number, rows: number, radius: number, step: number, stride: number) {
  const row = new Float32Array(length);
  const share = 1 / (2 * radius + 1);
  for (let r = 0; r < rows; r++) {
    const from = r * stride;
    for (let i = 0; i < length; i++) row[i] = ink[from + i * step]!;
    let sum = 0;
    for (let i = 0; i < Math.min(radius, length); i++) sum += row[i]!;
    for (let i = 0; i < length; i++) {
      if (i + radius < length) sum += row[i + radius]!;
      if (i - radius - 1 >= 0) sum -= row[i - radius - 1]!;
      ink[from + i * step] = sum * share;
    }
  }
}
