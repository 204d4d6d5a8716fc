// A motion as CSS keyframes on live text in its own font: letters stay letters, axes move as `font-variation-settings`. What text cannot do
// (outlines, shadows, joined lines, letters shaped by hand) stands as drawn paths among it.
import type { Block } from "@/contracts/lettering";
import { solidOf } from "../../letter/fills";
import type { PlacedLetter } from "../../letter/placeBlock";
import type { FrameGroup } from "../../motion/drawFrame";
import { escapeXml } from "../../typeset/pens";
import { numberAt, thin, type BakedGroup, type BakedKey, type BakedPart, type Numbers } from "./bake";
import { deviationOf, pathOf } from "../lettering/svg";
import { clipPath } from "./frameSvg";
import type { MotionSize } from "./lottie";

const n = (v: number) => String(Number(v.toFixed(4)));

/** `rest`: where the axes of its font rest; pages would set weight and slant by other rules where they are not said. */
export type CssFace = { family: string; file: string; rest: Readonly<Record<string, number>> };
type CssOptions = MotionSize & {
  repeats: boolean;
  blocks: readonly Block[];
  /** The web font that has a letter of a block. */
  faceOf: (block: Block, text: string) => CssFace;
};
export type CssMotion = { html: string; css: string };

export function writeCssMotion(groups: readonly BakedGroup[], options: CssOptions): CssMotion {
  const sheet = new Rules(options);
  const body = groups.map((group) => writeGroup(group, options, sheet)).join("\n");
  const { widthPx, heightPx, ground, title, sheet: size } = options;
  const said = options.blocks.map((b) => b.text.replace(/\s+/g, " ")).join(" / ");
  const paper = ground ? `<rect width="100%" height="100%" fill="${ground.slice(0, 7)}"/>\n` : "";
  const html = `<!doctype html>
<html lang="en">
<meta charset="utf-8">
<meta name="viewport" content="width=device-width">
<title>${escapeXml(title)}</title>
<link rel="stylesheet" href="title.css">
<svg class="title" role="img" aria-label="${escapeXml(said)}" width="${widthPx}" height="${heightPx}" viewBox="0 0 ${n(size.widthMm)} ${n(size.heightMm)}" preserveAspectRatio="none">
${paper}${body}
</svg>
</html>
`;
  return { html, css: sheet.write() };
}

/** Rules and keyframes as they are needed, and the fonts that they name. */
class Rules {
  private readonly faces = new Map<string, string>();
  private readonly rules: string[] = [];
  private count = 0;
  constructor(private readonly options: CssOptions) {}

  face({ family, file }: CssFace) {
    this.faces.set(
      family,
      `@font-face{font-family:"${family}";src:url("${file}") format("woff2");font-weight:1 1000;font-display:block}`,
    );
    return family;
  }

  /** @returns the class of an element whose property moves. */
  move<T>(property: string, keys: readonly BakedKey<T>[], tell: (value: T) => string, isStep = false): string {
    const name = `m${++this.count}`;
    const { frames, fps, repeats } = this.options;
    const all = [...(keys[0]!.frame > 0 ? [{ ...keys[0]!, frame: 0 }] : []), ...keys];
    if (all[all.length - 1]!.frame < frames) all.push({ ...all[all.length - 1]!, frame: frames });
    const stops = all.map((k) => `${n((k.frame / frames) * 100)}%{${property}:${tell(k.value)}}`).join("");
    const how = `${n(frames / fps)}s ${isStep ? "step-end" : "linear"} ${repeats ? "infinite" : "1"} both`;
    this.rules.push(`@keyframes ${name}{${stops}}`, `.${name}{animation:${name} ${how}}`);
    return name;
  }

  write(): string {
    const halfway = n(this.options.frames / this.options.fps / 2);
    const still = `animation-play-state:paused!important;animation-delay:calc(${halfway} * -1s)!important`;
    return [
      ...this.faces.values(),
      ".title{display:block;max-width:100%;height:auto}.title text{white-space:pre}.title g,.title text,.title path{transform-box:view-box;transform-origin:0 0}",
      ...this.rules,
      `@media (prefers-reduced-motion:reduce){.title *{${still}}}`,
      "",
    ].join("\n");
  }
}

const isMoving = (keys: readonly BakedKey<unknown>[]) => keys.length > 1;

function writeGroup(group: BakedGroup, options: CssOptions, rules: Rules): string {
  const block = options.blocks.find((b) => b.id === group.first.blockId)!;
  const isText = canBeText(block, group);
  const parts = group.parts.map((part) =>
    isText && part.role === "fill" ? writeLetters(group, part, block, options, rules) : writePath(part, rules),
  );
  const names = isMoving(group.opacity) ? [rules.move("opacity", group.opacity, n)] : [];
  const strength = group.opacity[0]!.value < 1 ? ` opacity="${n(group.opacity[0]!.value)}"` : "";
  const drawn = `<g${classOf(names)}${strength}>${placed(group, rules, parts.join(""))}</g>`;
  if (!group.clip) return drawn;
  const id = `clip-${group.name}`;
  return `<clipPath id="${id}"><path d="${clipPath(group.clip[0]!.value)}"/></clipPath><g clip-path="url(#${id})">${drawn}</g>`;
}

const classOf = (names: readonly string[]) => (names.length ? ` class="${names.join(" ")}"` : "");

function placed({ xMm, yMm, turnDeg, scale }: BakedGroup, rules: Rules, inner: string): string {
  const at = (frame: number) =>
    `translate(${n(numberAt(xMm, frame))}px,${n(numberAt(yMm, frame))}px) rotate(${n(numberAt(turnDeg, frame))}deg) scale(${n(numberAt(scale, frame))})`;
  const rows = [xMm, yMm, turnDeg, scale];
  return `<g${moved(rows, at, rules)}>${inner}</g>`;
}

/** A transform that moves by a class, or one that rests as a style. */
function moved(rows: readonly Numbers[], at: (frame: number) => string, rules: Rules): string {
  if (!rows.some(isMoving)) return ` style="transform:${at(0)}"`;
  const frames = [...new Set(rows.flat().map((k) => k.frame))].sort((a, b) => a - b);
  return classOf([
    rules.move(
      "transform",
      frames.map((frame) => ({ frame, value: at(frame) })),
      (v) => v,
    ),
  ]);
}

/** Letters of one fill, as the font has them. */
function canBeText(block: Block, { first, parts }: BakedGroup): boolean {
  const isPlain = !block.joined && !block.growMm && !block.bridges?.length && typeof block.fill === "string";
  const edits = new Map((block.letters ?? []).map((l) => [l.at, l]));
  const isOwn = (at: number) => {
    const edit = edits.get(at);
    return !edit || (edit.glyphId === undefined && !edit.points && !edit.fills);
  };
  return isPlain && parts.filter((p) => p.role === "fill").length === 1 && first.letters.every((l) => isOwn(l.at));
}

function writeLetters(
  { groups }: BakedGroup,
  part: BakedPart,
  block: Block,
  options: CssOptions,
  rules: Rules,
): string {
  const colour = part.paint.map((k) => ({ frame: k.frame, value: solidOf(k.value) }));
  const fill = isMoving(colour) ? classOf([rules.move("fill", colour, (v) => v)]) : ` fill="${colour[0]!.value}"`;
  const features = Object.entries(block.features ?? {}).map(([tag, value]) => `"${tag}" ${value}`);
  const style = features.length ? ` style='font-feature-settings:${features.join()}'` : "";
  const letters = groups[0]!.letters.flatMap((letter, i) =>
    letter.text.trim()
      ? [
          writeLetter(
            letter,
            groups.map((g) => ({ letter: g.letters[i] ?? letter, group: g })),
            block,
            options,
            rules,
          ),
        ]
      : [],
  );
  return `<g${fill}${style}>${letters.join("")}</g>`;
}

type Moment = { letter: PlacedLetter; group: FrameGroup };

function writeLetter(
  first: PlacedLetter,
  moments: readonly Moment[],
  block: Block,
  options: CssOptions,
  rules: Rules,
): string {
  const face = options.faceOf(block, first.text);
  const family = rules.face(face);
  const origins = moments.map(({ letter }) => letter.glyphs[0]!.origin);
  const xMm = thin(
    origins.map((o) => o.xMm),
    0.01,
  );
  const yMm = thin(
    origins.map((o) => o.yMm),
    0.01,
  );
  const turnDeg = thin(
    origins.map((o) => o.turnDeg),
    0.02,
  );
  const at = (frame: number) =>
    `translate(${n(numberAt(xMm, frame))}px,${n(numberAt(yMm, frame))}px) rotate(${n(numberAt(turnDeg, frame))}deg)`;
  const axes = axisKeys(moments, face.rest);
  const varied = isMoving(axes) ? classOf([rules.move("font-variation-settings", axes, (v) => v)]) : "";
  const rest =
    !isMoving(axes) && axes[0]!.value !== "normal" ? ` style='font-variation-settings:${axes[0]!.value}'` : "";
  const size = ` font-family="${family}" font-size="${n(sizeOf(first, moments[0]!, block))}"`;
  return `<g${moved([xMm, yMm, turnDeg], at, rules)}><text${varied}${rest}${size}>${escapeXml(first.text)}</text></g>`;
}

function sizeOf(letter: PlacedLetter, { group }: Moment, block: Block): number {
  const edit = block.letters?.find((l) => l.at === letter.at);
  return group.emMm * (edit?.scale ?? 1);
}

function axisKeys(moments: readonly Moment[], rest: CssFace["rest"]): BakedKey<string>[] {
  const tags = [
    ...new Set([...Object.keys(rest), ...moments.flatMap(({ group }) => Object.keys(group.state.coordinates ?? {}))]),
  ];
  if (!tags.length) return [{ frame: 0, value: "normal" }];
  const rows = tags.map((tag) =>
    thin(
      moments.map(({ group }) => group.state.coordinates?.[tag] ?? rest[tag] ?? 0),
      0.2,
    ),
  );
  const frames = [...new Set(rows.flat().map((k) => k.frame))].sort((a, b) => a - b);
  return frames.map((frame) => ({
    frame,
    value: rows.map((row, i) => `"${tags[i]}" ${n(numberAt(row, frame))}`).join(),
  }));
}

function writePath({ paint, outline, isMorph, blurMm }: BakedPart, rules: Rules): string {
  const colour = paint.map((k) => ({ frame: k.frame, value: solidOf(k.value) }));
  const names = [
    ...(isMoving(outline) ? [rules.move("d", outline, (o) => `path("${pathOf(o)}")`, !isMorph)] : []),
    ...(isMoving(colour) ? [rules.move("fill", colour, (v) => v)] : []),
  ];
  const blur = blurMm ? ` style="filter:blur(${n(deviationOf(blurMm))}px)"` : "";
  // Two animations of one element would have to share a rule: the second stands around.
  const [first, second] = names;
  const fill = second ? "" : ` fill="${colour[0]!.value}"`;
  const path = `<path${classOf(first ? [first] : [])}${blur}${fill} d="${pathOf(outline[0]!.value)}"/>`;
  return second ? `<g${classOf([second])}>${path}</g>` : path;
}
