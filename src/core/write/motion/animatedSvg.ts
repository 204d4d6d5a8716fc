// A motion as one SVG that moves by itself (SMIL, as SVG Animations Level 2 has it): outlines, no font needed.
import { escapeXml } from "../../typeset/pens";
import { solidOf } from "../../letter/fills";
import type { Paint } from "../../letter/paintLettering";
import { alphaOf, blurOf, Definitions, fillOf, paintOf, pathOf } from "../lettering/svg";
import { numberAt, type BakedGroup, type BakedKey, type BakedPart, type Numbers } from "./bake";
import { clipPath } from "./frameSvg";
import type { MotionSize } from "./lottie";

const n = (v: number) => String(Number(v.toFixed(4)));

type SvgOptions = MotionSize & { repeats: boolean };

export function writeAnimatedSvg(groups: readonly BakedGroup[], options: SvgOptions): string {
  const { sheet, widthPx, heightPx, ground, title } = options;
  const clock = clockOf(options);
  const defs = new Definitions();
  const body = groups.map((group) => writeGroup(group, clock, defs)).join("\n");
  const paper = ground ? `<rect width="100%" height="100%" ${paintOf("fill", ground)}/>\n` : "";
  const box = `viewBox="0 0 ${n(sheet.widthMm)} ${n(sheet.heightMm)}"`;
  return `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" width="${widthPx}" height="${heightPx}" ${box} preserveAspectRatio="none">
<title>${escapeXml(title)}</title>
${defs.write()}${paper}${body}
</svg>
`;
}

/** Turns keys into what an element of animation says. */
type Clock = <T>(keys: readonly BakedKey<T>[], tell: (value: T) => string, isStep?: boolean) => string;

function clockOf({ frames, fps, repeats }: SvgOptions): Clock {
  const head = `dur="${n(frames / fps)}s" repeatCount="${repeats ? "indefinite" : "1"}" fill="freeze"`;
  return (keys, tell, isStep = false) => {
    // The last value holds to the end; what begins late holds from the start.
    const all = [...(keys[0]!.frame > 0 ? [{ ...keys[0]!, frame: 0 }] : []), ...keys];
    if (!isStep && all[all.length - 1]!.frame < frames) all.push({ ...all[all.length - 1]!, frame: frames });
    const times = all.map((k) => (k.frame / frames).toFixed(6).replace(/\.?0+$/, "") || "0").join(";");
    const values = all.map((k) => tell(k.value)).join(";");
    return `${head} calcMode="${isStep ? "discrete" : "linear"}" keyTimes="${times}" values="${values}"`;
  };
}

const isMoving = (keys: readonly BakedKey<unknown>[]) => keys.length > 1;

function writeGroup(group: BakedGroup, clock: Clock, defs: Definitions): string {
  const { opacity, clip } = group;
  const parts = group.parts.map((part) => writePart(part, clock, defs)).join("");
  const fade = isMoving(opacity) ? `<animate attributeName="opacity" ${clock(opacity, n)}/>` : "";
  const strength = opacity[0]!.value < 1 ? ` opacity="${n(opacity[0]!.value)}"` : "";
  const drawn = `<g id="${escapeXml(group.name)}"${strength}>${fade}${placed(group, clock, parts)}</g>`;
  if (!clip) return drawn;
  const moves = isMoving(clip) ? `<animate attributeName="d" ${clock(clip, clipPath)}/>` : "";
  const id = defs.add(
    (name) => `<clipPath id="${name}"><path d="${clipPath(clip[0]!.value)}">${moves}</path></clipPath>`,
  );
  return `<g clip-path="url(#${id})">${drawn}</g>`;
}

/** Place, turn and scale, from the outside in; those that rest are said once. */
function placed({ xMm, yMm, turnDeg, scale }: BakedGroup, clock: Clock, inner: string): string {
  const both = together(xMm, yMm);
  const sized = wrap(
    "scale",
    scale.map((k) => ({ ...k, value: n(k.value) })),
    clock,
    inner,
  );
  const turned = wrap(
    "rotate",
    turnDeg.map((k) => ({ ...k, value: n(k.value) })),
    clock,
    sized,
  );
  return wrap("translate", both, clock, turned);
}

function wrap(type: string, keys: BakedKey<string>[], clock: Clock, inner: string): string {
  const rest = keys[0]!.value;
  if (!isMoving(keys))
    return (type === "rotate" && rest === "0") || (type === "scale" && rest === "1")
      ? inner
      : `<g transform="${type}(${rest})">${inner}</g>`;
  const moves = `<animateTransform attributeName="transform" type="${type}" ${clock(keys, (v) => v)}/>`;
  return `<g transform="${type}(${rest})">${moves}${inner}</g>`;
}

/** Two rows of keys as one, with a key wherever either has one. */
function together(xMm: Numbers, yMm: Numbers): BakedKey<string>[] {
  const frames = [...new Set([...xMm, ...yMm].map((k) => k.frame))].sort((a, b) => a - b);
  return frames.map((frame) => ({ frame, value: `${n(numberAt(xMm, frame))} ${n(numberAt(yMm, frame))}` }));
}

function writePart(part: BakedPart, clock: Clock, defs: Definitions): string {
  const [first, outline] = [part.paint[0]!.value, part.outline[0]!.value];
  const moves = isMoving(part.outline)
    ? `<animate attributeName="d" ${clock(part.outline, pathOf, !part.isMorph)}/>`
    : "";
  const blur = blurOf({ role: part.role, outline, paint: first, blurMm: part.blurMm }, defs);
  return `<path ${fillOf(first, defs)}${blur} d="${pathOf(outline)}">${moves}${colours(part.paint, clock)}</path>`;
}

function colours(paint: readonly BakedKey<Paint>[], clock: Clock): string {
  if (!isMoving(paint)) return "";
  const solid = paint.map(({ frame, value }) => ({ frame, value: solidOf(value) }));
  const fade = solid.some((k) => k.value.length === 9)
    ? `<animate attributeName="fill-opacity" ${clock(solid, (v) => n(alphaOf(v)))}/>`
    : "";
  return `<animate attributeName="fill" ${clock(solid, (v) => v.slice(0, 7))}/>${fade}`;
}
