// A motion as Lottie (Lottie Animation Format 1.0): a shape layer per group of letters, outlines as shapes, axes as shapes that change.
import type { LetteringDocument } from "@/contracts/lettering";
import type { Outline } from "../../geometry/outline";
import { solidOf } from "../../letter/fills";
import type { Paint } from "../../letter/paintLettering";
import { channelsOf } from "../../motion/valueAt";
import { deviationOf } from "../lettering/svg";
import type { BakedGroup, BakedKey, BakedPart, Numbers } from "./bake";
import { cubicsOf } from "./cubics";

type Json = Record<string, unknown>;
export type MotionSize = {
  sheet: LetteringDocument["sheet"];
  widthPx: number;
  heightPx: number;
  fps: number;
  frames: number;
  ground: string | null;
  title: string;
};

const round = (v: number, digits = 3) => Number(v.toFixed(digits));

export function writeLottie(groups: readonly BakedGroup[], size: MotionSize): string {
  const { sheet, widthPx, heightPx, fps, frames, ground, title } = size;
  const pxPerMm = widthPx / sheet.widthMm;
  const assets: Json[] = [];
  const layers: Json[] = [];
  for (const group of groups) {
    const own = layersOf(group, pxPerMm, frames);
    if (!group.clip) layers.push(...own);
    else {
      // A mask lies on the sheet, while the letters move behind it: it belongs to a composition around them.
      const id = `mask-${assets.length + 1}`;
      assets.push({ id, layers: numbered([...own].reverse()) });
      layers.push(maskedLayer(group, id, size, pxPerMm));
    }
  }
  if (ground) layers.unshift(groundLayer(ground, widthPx, heightPx, frames));
  const document = {
    ...{ v: "5.7.0", nm: title, fr: round(fps, 6), ip: 0, op: frames, w: widthPx, h: heightPx, ddd: 0 },
    ...{ assets, layers: numbered(layers.reverse()) },
  };
  return JSON.stringify(document);
}

const numbered = (layers: Json[]) => layers.map((layer, i) => ({ ...layer, ind: i + 1 }));
const layerOf = (more: Json, frames: number): Json => ({ ddd: 0, ip: 0, op: frames, st: 0, bm: 0, ...more });
const STILL = {
  ...{ o: { a: 0, k: 100 }, r: { a: 0, k: 0 }, p: { a: 0, k: [0, 0] } },
  ...{ a: { a: 0, k: [0, 0] }, s: { a: 0, k: [100, 100] } },
};

function groundLayer(colour: string, widthPx: number, heightPx: number, frames: number): Json {
  const [r, g, b, alpha] = channelsOf(colour);
  const hex = `#${[r, g, b].map((v) => v.toString(16).padStart(2, "0")).join("")}`;
  const ks = { ...STILL, o: { a: 0, k: round((alpha / 255) * 100) } };
  return layerOf({ ty: 1, nm: "Ground", ks, sc: hex, sw: widthPx, sh: heightPx }, frames);
}

function maskedLayer({ name, clip }: BakedGroup, refId: string, size: MotionSize, pxPerMm: number): Json {
  const { widthPx: w, heightPx: h, frames } = size;
  const shape = (corners: Float64Array) => {
    const points = [0, 2, 4, 6].map((i) => [round(corners[i]! * pxPerMm), round(corners[i + 1]! * pxPerMm)]);
    const none = points.map(() => [0, 0]);
    return { c: true, v: points, i: none, o: none };
  };
  const pt = clip!.length > 1 ? { a: 1, k: keyed(clip!, (v) => [shape(v)]) } : { a: 0, k: shape(clip![0]!.value) };
  const mask = { inv: false, mode: "a", nm: "Baseline", pt, o: { a: 0, k: 100 }, x: { a: 0, k: 0 } };
  return layerOf({ ty: 0, nm: name, refId, w, h, ks: STILL, hasMask: true, masksProperties: [mask] }, frames);
}

/** From the lowest up: what is blurred has layers of its own, since a blur is of a whole layer. */
function layersOf(group: BakedGroup, pxPerMm: number, frames: number): Json[] {
  const ks = transformOf(group, pxPerMm);
  const nm = group.first.letters.map((l) => l.text).join("") || group.name;
  const layers: Json[] = [];
  let plain: Json[] = [];
  const end = () => {
    // The first of the shapes lies on top.
    if (plain.length) layers.push(layerOf({ ty: 4, nm, ks, shapes: [...plain].reverse() }, frames));
    plain = [];
  };
  for (const part of group.parts) {
    if (!part.blurMm) plain.push(shapeOf(part, pxPerMm));
    else {
      end();
      const shapes = [shapeOf(part, pxPerMm)];
      layers.push(layerOf({ ty: 4, nm, ks, shapes, ef: [blurEffect(deviationOf(part.blurMm) * pxPerMm)] }, frames));
    }
  }
  end();
  return layers;
}

/** Blurriness counts four times the deviation to players. */
const BLUR_PER_DEVIATION = 4;
const blurEffect = (deviationPx: number): Json => ({
  ...{ ty: 29, nm: "Blur", en: 1 },
  ef: [
    { ty: 0, nm: "Blurriness", v: { a: 0, k: round(deviationPx * BLUR_PER_DEVIATION) } },
    { ty: 7, nm: "Blur Dimensions", v: { a: 0, k: 1 } },
    { ty: 7, nm: "Repeat Edge Pixels", v: { a: 0, k: 0 } },
  ],
});

function transformOf({ xMm, yMm, scale, turnDeg, opacity }: BakedGroup, pxPerMm: number): Json {
  const both = (keys: Numbers) => animated(keys, (v) => [round(v * 100), round(v * 100)]);
  return {
    ...{ a: STILL.a, o: animated(opacity, (v) => round(v * 100)), r: animated(turnDeg, (v) => round(v)) },
    p: { s: true, x: animated(xMm, (v) => round(v * pxPerMm)), y: animated(yMm, (v) => round(v * pxPerMm)) },
    s: both(scale),
  };
}

function animated(keys: Numbers, tell: (v: number) => number | number[]): Json {
  if (keys.length < 2) return { a: 0, k: tell(keys[0]!.value) };
  return { a: 1, k: keyed(keys, (v) => [tell(v)].flat()) };
}

/** Straight ways between keys; with `isStep` each holds until the next. */
function keyed<T>(keys: readonly BakedKey<T>[], tell: (value: T) => unknown, isStep = false): Json[] {
  return keys.map(({ frame, value }, i) => ({
    ...{ t: frame, s: tell(value) },
    ...(i < keys.length - 1 && (isStep ? { h: 1 } : { i: { x: [1], y: [1] }, o: { x: [0], y: [0] } })),
  }));
}

function shapeOf(part: BakedPart, pxPerMm: number): Json {
  return {
    ...{ ty: "gr", nm: part.role },
    it: [...pathsOf(part, pxPerMm), fillOf(part.paint, pxPerMm), { ty: "tr", ...STILL }],
  };
}

/** One path per contour; contours of outlines that do not have the same points at all times stand in steps. */
function pathsOf({ outline, isMorph }: BakedPart, pxPerMm: number): Json[] {
  const drawn = outline.map(({ frame, value }) => ({ frame, value: shapesOf(value, pxPerMm) }));
  const most = Math.max(...drawn.map((d) => d.value.length));
  return Array.from({ length: most }, (_, i) => {
    const keys = drawn.map(({ frame, value }) => ({ frame, value: value[i] ?? NO_SHAPE }));
    const isSteady = isMorph && keys.every((k) => k.value.v.length === keys[0]!.value.v.length);
    const ks = keys.length < 2 ? { a: 0, k: keys[0]!.value } : { a: 1, k: keyed(keys, (v) => [v], !isSteady) };
    return { ty: "sh", ks };
  });
}

type LottieShape = { c: boolean; v: number[][]; i: number[][]; o: number[][] };
const NO_SHAPE: LottieShape = { c: true, v: [[0, 0]], i: [[0, 0]], o: [[0, 0]] };

const shapesOf = (outline: Outline, pxPerMm: number): LottieShape[] => {
  const scaled = (list: readonly [number, number][]) => list.map(([x, y]) => [round(x * pxPerMm), round(y * pxPerMm)]);
  return cubicsOf(outline).map(({ points, into, out }) => ({
    c: true,
    v: scaled(points),
    i: scaled(into),
    o: scaled(out),
  }));
};

function fillOf(paint: readonly BakedKey<Paint>[], pxPerMm: number): Json {
  const first = paint[0]!.value;
  const base = { nm: "Fill", o: { a: 0, k: 100 }, r: 1 };
  if (typeof first !== "string") return gradientOf(first, base, pxPerMm);
  const solid = paint.map((key) => ({
    frame: key.frame,
    value: solidOf(key.value),
  }));
  const colour = (v: string) => [
    ...channelsOf(v)
      .slice(0, 3)
      .map((c) => round(c / 255, 4)),
    1,
  ];
  const alpha = solid.map(({ frame, value }) => ({ frame, value: channelsOf(value)[3] / 255 }));
  const isFaint = alpha.some((k) => k.value < 1);
  return {
    ...{ ...base, ty: "fl" },
    c: solid.length < 2 ? { a: 0, k: colour(solid[0]!.value) } : { a: 1, k: keyed(solid, colour) },
    ...(isFaint && { o: animated(alpha, (v) => round(v * 100)) }),
  };
}

function gradientOf({ from, to, x1, y1, x2, y2 }: Exclude<Paint, string>, base: Json, pxPerMm: number): Json {
  const stop = (colour: string) => channelsOf(colour).map((v) => round(v / 255, 4));
  const [a, b] = [stop(from), stop(to)];
  const k = [0, ...a.slice(0, 3), 1, ...b.slice(0, 3), 0, a[3], 1, b[3]];
  const point = (x: number, y: number) => ({ a: 0, k: [round(x * pxPerMm), round(y * pxPerMm)] });
  return { ...base, ty: "gf", t: 1, s: point(x1, y1), e: point(x2, y2), g: { p: 2, k: { a: 0, k } } };
}
