// Makes evaluation pictures with three renderers that are not ours (ImageMagick on FreeType, Pango on Cairo, Chromium on Skia) under ten
// conditions. Seeded: the same seed makes the same pictures. Families are separated by name into a tuning and a held-out part.
import { execFileSync } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { chromium, type Page } from "playwright-core";
import sharp, { type Sharp } from "sharp";
import { seededRandom } from "../../src/core/geometry/numbers";
import { EVAL_FOLDER, type EvalStyle } from "./library";
import { isSetting, maySet, setAs, type SettingCondition } from "./settings";
import { FIGURES, TEXTS } from "./texts";
import type { WildCondition } from "./wild/draw";

export type EvalPicture = {
  condition: Condition;
  renderer: Renderer;
  file: string;
  text: string;
  styleId: string;
  family: string;
  heldOut: boolean;
  /** Where the lettering stands when there is more than one, in pixels. */
  at?: { x: number; y: number; width: number; height: number };
};
export type Renderer = "magick" | "pango" | "chromium" | "wild";

export const CONDITIONS = [
  "clean",
  "small, JPEG",
  "coloured ground",
  "perspective, blur, noise",
  "tight or joined",
  "white on black",
  "outline or shadow",
  "two fonts",
  "capitals",
  "figures",
] as const;
export type Condition = (typeof CONDITIONS)[number] | SettingCondition | WildCondition;

const COLOURS = [
  ["#20262B", "#F3EFE6"],
  ["#F3EFE6", "#1C6B74"],
  ["#A8431A", "#FBF9F4"],
  ["#FBF9F4", "#6B7A2A"],
  ["#12304a", "#d9c27a"],
  ["#ffd23f", "#3b1f4b"],
  ["#0d5c3f", "#e8a49c"],
  ["#7a1f3d", "#9fc8d8"],
] as const;

/** Two families of five are kept out of tuning, by their name alone. */
export function isHeldOut(family: string): boolean {
  let h = 2166136261;
  for (const c of family) h = Math.imul(h ^ c.charCodeAt(0), 16777619) >>> 0;
  return h % 5 < 2;
}

type Drawing = {
  style: EvalStyle;
  other: EvalStyle;
  text: string;
  otherText: string;
  next: () => number;
  folder: string;
  file: string;
  page: Page;
};
const between = (d: Drawing, a: number, b: number) => a + d.next() * (b - a);
const pick = <T>(d: Pick<Drawing, "next">, list: readonly T[]) => list[Math.floor(d.next() * list.length)]!;

/**
 * Draws `count` pictures, the conditions in turn, families evenly; pictures of an earlier run are taken as they are.
 * Needs the commands convert and pango-view, and Debian's Chromium.
 */
export async function drawPictures(
  styles: EvalStyle[],
  count: number,
  seed: number,
  set: string,
  conditions: readonly Condition[] = CONDITIONS,
  texts: readonly string[] = TEXTS,
): Promise<EvalPicture[]> {
  const folder = join(EVAL_FOLDER, `pictures-${set}-${seed}-${count}`);
  const list = join(folder, "list.json");
  if (existsSync(list)) return JSON.parse(readFileSync(list, "utf8")) as EvalPicture[];
  mkdirSync(folder, { recursive: true });
  const browser = await chromium.launch({ executablePath: "/usr/bin/chromium-headless-shell", args: ["--no-sandbox"] });
  const page = await browser.newPage({ viewport: { width: 1400, height: 500 } });
  const next = seededRandom(seed);
  const has = (s: EvalStyle, t: string) => [...t].every((c) => c === " " || s.characters.includes(c));
  const words = styles.filter((s) => !s.picture && (texts === TEXTS || texts.every((t) => has(s, t))));
  const families = [...new Set(words.map((s) => s.family))].sort();
  const made = conditions.filter((c) => !isSetting(c) || words.some((s) => maySet(s, c)));
  const pictures: EvalPicture[] = [];
  let tries = 0;
  while (pictures.length < count && tries++ < count * 200) {
    const condition = made[pictures.length % made.length]!;
    const family = pick({ next }, families);
    const style = pick(
      { next },
      words.filter((s) => s.family === family),
    );
    if (isSetting(condition) && !maySet(style, condition)) continue;
    const other = pick(
      { next },
      words.filter((s) => s.family !== family),
    );
    let text = pick({ next }, condition.includes("figures") && texts === TEXTS ? FIGURES : texts);
    const otherText = pick({ next }, texts);
    if (condition === "capitals" || (condition === "small, JPEG" && next() < 0.6)) text = text.toUpperCase();
    if (!has(style, text) || !has(other, otherText)) continue;
    const file = join(folder, `${pictures.length}.${condition === "small, JPEG" ? "jpg" : "png"}`);
    const drawn = await draw(condition, { style, other, text, otherText, next, folder, file, page });
    if (drawn)
      pictures.push({
        condition,
        file,
        text,
        styleId: style.styleId,
        family: style.family,
        heldOut: isHeldOut(style.family),
        ...drawn,
      });
  }
  await browser.close();
  writeFileSync(list, JSON.stringify(pictures));
  return pictures;
}

type Drawn = Pick<EvalPicture, "renderer" | "at"> | null;

async function draw(condition: Condition, d: Drawing): Promise<Drawn> {
  const renderer = pick(d, ["magick", "chromium", "chromium", "pango"] as const);
  switch (condition) {
    case "clean":
    case "capitals":
    case "figures":
      return renderer === "magick"
        ? byMagick(d, between(d, 40, 96), "black", "white")
        : renderer === "pango"
          ? byPango(d, between(d, 40, 64))
          : byChromium(d, { sizePx: between(d, 36, 110), ink: "#111", ground: "#fff" });
    case "small, JPEG": {
      // Capitals of about 16 to 20 pixels.
      const drawn =
        renderer === "magick"
          ? byMagick(d, between(d, 24, 28), "#202020", "white")
          : await byChromium(d, { sizePx: between(d, 23, 28), ink: "#222", ground: "#fafafa" });
      await finish(d.file, (p) => p.jpeg({ quality: Math.round(between(d, 55, 80)) }));
      return drawn;
    }
    case "coloured ground": {
      const [ink, ground] = pick(d, COLOURS);
      if (renderer === "magick")
        return byMagick(d, between(d, 50, 80), ink, ground, [
          "-attenuate",
          between(d, 0.25, 0.6).toFixed(2),
          "+noise",
          "Gaussian",
        ]);
      // Light falls unevenly: a gradient of the ground's own lightness, or spots.
      const turn = Math.round(between(d, 0, 360));
      const uneven =
        d.next() < 0.5
          ? `linear-gradient(${turn}deg, rgba(0,0,0,.28), rgba(255,255,255,.2)), ${ground}`
          : `radial-gradient(circle at ${turn % 100}% 30%, rgba(255,255,255,.3), rgba(0,0,0,.2)), ${ground}`;
      const drawn = await byChromium(d, { sizePx: between(d, 40, 90), ink, ground: uneven });
      await finish(d.file, (p) => addNoise(p, between(d, 2, 8), d.next), true);
      return drawn;
    }
    case "perspective, blur, noise": {
      const drawn = renderer === "magick" ? warpByMagick(d) : await warpByChromium(d);
      await finish(d.file, (p) => addNoise(p.blur(between(d, 0.5, 1.2)), between(d, 3, 9), d.next), true);
      return drawn;
    }
    case "tight or joined":
      return renderer === "pango"
        ? byPango(d, between(d, 40, 64))
        : renderer === "magick"
          ? byMagick(d, between(d, 54, 80), "#222", "#fff", ["-kerning", between(d, -3, -1).toFixed(1)])
          : byChromium(d, {
              sizePx: between(d, 50, 90),
              ink: "#222",
              ground: "#fff",
              more: `letter-spacing:${between(d, -0.06, -0.02).toFixed(3)}em`,
            });
    case "white on black":
      return renderer === "magick"
        ? byMagick(d, between(d, 40, 80), "white", "black")
        : byChromium(d, { sizePx: between(d, 36, 90), ink: "#fff", ground: pick(d, ["#000", "#0b0b0b", "#151a20"]) });
    case "outline or shadow": {
      const [ink, ground] = pick(d, COLOURS);
      const size = between(d, 60, 100);
      const way = Math.floor(d.next() * 4);
      const px = (share: number) => `${(size * share).toFixed(1)}px`;
      const more = [
        // Hollow letters; letters with a border of another colour; a hard shadow; a soft one.
        `color:transparent;-webkit-text-stroke:${px(between(d, 0.015, 0.03))} ${ink}`,
        `paint-order:stroke fill;-webkit-text-stroke:${px(between(d, 0.03, 0.06))} ${pick(d, ["#000", "#fff"])}`,
        `text-shadow:${px(0.03)} ${px(0.03)} 0 rgba(0,0,0,.55)`,
        `text-shadow:${px(0.02)} ${px(0.03)} ${px(0.05)} rgba(0,0,0,.6)`,
      ][way]!;
      return byChromium(d, { sizePx: size, ink, ground, more });
    }
    case "two fonts":
      return twoByChromium(d);
    default:
      return isSetting(condition) ? bySetting(d, setAs(d.style, d.text, condition, d.next)) : null;
  }
}

const bySetting = (d: Drawing, more: string | null) =>
  more === null ? null : byChromium(d, { sizePx: between(d, 40, 100), ink: "#111", ground: "#fff", more });

function fontFile(d: Drawing, style = d.style): string {
  const file = join(d.folder, `${style.styleId.replace(/[^\w.-]/g, "_")}.ttf`);
  if (!existsSync(file)) writeFileSync(file, style.sfnt);
  return file;
}

function byMagick(d: Drawing, sizePt: number, ink: string, ground: string, more: string[] = []): Drawn {
  const kerning = more[0] === "-kerning";
  execFileSync("/usr/bin/convert", [
    ...["-background", ground, "-fill", ink, "-font", fontFile(d), "-pointsize", sizePt.toFixed(1)],
    ...(kerning ? more : []),
    `label:${d.text.replace(/[\\%@]/g, "\\$&")}`,
    ...["-bordercolor", ground, "-border", "14x12"],
    ...(kerning ? [] : more),
    d.file,
  ]);
  return { renderer: "magick" };
}

/** A sign seen from the side: corners pulled by shares of its height, and turned. */
function warpByMagick(d: Drawing): Drawn {
  const pull = () => between(d, -0.09, 0.09);
  const map = (
    [
      [0, 0],
      [1, 0],
      [1, 1],
      [0, 1],
    ] as const
  )
    .map(
      ([x, y]) => `%[fx:${x}*w],%[fx:${y}*h] %[fx:${x}*w+${pull().toFixed(4)}*h],%[fx:(${y}+${pull().toFixed(4)})*h]`,
    )
    .join(" ");
  return byMagick(d, between(d, 56, 84), "#1a1a1a", "#f4f0e8", [
    ...["-virtual-pixel", "edge", "-distort", "Perspective", map, "-background", "#f4f0e8"],
    ...["-rotate", between(d, -7, 7).toFixed(2)],
  ]);
}

const warpByChromium = (d: Drawing) =>
  byChromium(d, {
    sizePx: between(d, 56, 84),
    ink: "#1a1a1a",
    ground: "#f4f0e8",
    more: `transform:perspective(1200px) rotateX(${between(d, -28, 28).toFixed(1)}deg) rotateY(${between(d, -28, 28).toFixed(1)}deg) rotateZ(${between(d, -6, 6).toFixed(1)}deg)`,
    marginPx: 40,
  });

/** Pango shapes with HarfBuzz and draws with Cairo; the font is installed for this one call in a folder of its own. */
function byPango(d: Drawing, sizePt: number): Drawn {
  const home = `${fontFile(d)}.d`;
  mkdirSync(home, { recursive: true });
  const alias = `Eval ${d.style.styleId.replace(/[^a-z0-9]/gi, "")}`;
  const config = join(home, "fonts.conf");
  writeFileSync(
    config,
    `<?xml version="1.0"?><!DOCTYPE fontconfig SYSTEM "fonts.dtd"><fontconfig><dir>${home}</dir><cachedir>${home}</cachedir><match target="scan"><edit name="family" mode="assign"><string>${alias}</string></edit><edit name="weight" mode="assign"><int>80</int></edit><edit name="slant" mode="assign"><int>0</int></edit></match></fontconfig>`,
  );
  writeFileSync(join(home, "font.ttf"), d.style.sfnt);
  execFileSync(
    "pango-view",
    [
      "--no-display",
      "-q",
      `--font=${alias} ${sizePt.toFixed(0)}`,
      "--margin=12",
      `--text=${d.text}`,
      `--output=${d.file}`,
    ],
    { env: { ...process.env, FONTCONFIG_FILE: config } },
  );
  return { renderer: "pango" };
}

const faceRule = (name: string, style: EvalStyle) =>
  `@font-face{font-family:${name};src:url(data:font/ttf;base64,${Buffer.from(style.sfnt).toString("base64")})}`;
const escape = (t: string) => t.replace(/&/g, "&amp;").replace(/</g, "&lt;");

/** @returns null where Chromium refuses the font. */
async function loadFaces(page: Page, names: string[]): Promise<boolean> {
  return page.evaluate(async (list) => {
    const sets = await Promise.all(list.map((n) => document.fonts.load(`40px ${n}`).catch(() => [])));
    await document.fonts.ready;
    return sets.every((s) => s.length > 0 && s.every((f) => f.status === "loaded"));
  }, names);
}

async function byChromium(
  d: Drawing,
  o: { sizePx: number; ink: string; ground: string; more?: string; marginPx?: number },
): Promise<Drawn> {
  const margin = o.marginPx ?? 16;
  await d.page.setContent(
    `<style>${faceRule("Candidate", d.style)}body{margin:0}#g{display:inline-block;padding:${margin}px ${margin + 4}px;background:${o.ground}}#t{display:inline-block;font:${o.sizePx.toFixed(1)}px Candidate;font-synthesis:none;white-space:pre;color:${o.ink};padding:.15em;${o.more ?? ""}}</style><div id=g><span id=t>${escape(d.text)}</span></div>`,
  );
  if (!(await loadFaces(d.page, ["Candidate"]))) return null;
  await shoot(d, "#g");
  return { renderer: "chromium" };
}

async function shoot(d: Drawing, what: string) {
  const png = await d.page.locator(what).screenshot({ type: "png" });
  await sharp(png)
    .flatten({ background: "#fff" })
    .toFormat(d.file.endsWith("jpg") ? "jpeg" : "png", d.file.endsWith("jpg") ? { quality: 95 } : {})
    .toFile(d.file);
}

/** Two lines of two faces, the asked one above or below; which is larger varies. */
async function twoByChromium(d: Drawing): Promise<Drawn> {
  const isFirst = d.next() < 0.5;
  const sizes = [between(d, 44, 80), between(d, 44, 80)];
  const line = (id: string, face: string, size: number, text: string) =>
    `<div><span id=${id} style="font:${size.toFixed(1)}px ${face};white-space:pre">${escape(text)}</span></div>`;
  const own = line("own", "Candidate", sizes[0]!, d.text);
  const other = line("other", "Neighbour", sizes[1]!, d.otherText);
  const [ink, ground] = d.next() < 0.5 ? (["#1b1b1b", "#fff"] as const) : pick(d, COLOURS);
  await d.page.setContent(
    `<style>${faceRule("Candidate", d.style)}${faceRule("Neighbour", d.other)}body{margin:0}#g{display:inline-block;padding:20px 24px;background:${ground};color:${ink};font-synthesis:none;text-align:${pick(d, ["left", "center"])}}#g div+div{margin-top:${Math.round(between(d, 8, 30))}px}</style><div id=g>${isFirst ? own + other : other + own}</div>`,
  );
  if (!(await loadFaces(d.page, ["Candidate", "Neighbour"]))) return null;
  await shoot(d, "#g");
  const at = await d.page.evaluate(() => {
    const ground = document.querySelector("#g")!.getBoundingClientRect();
    const own = document.querySelector("#own")!.getBoundingClientRect();
    return { x: own.x - ground.x, y: own.y - ground.y, width: own.width, height: own.height };
  });
  return { renderer: "chromium", at };
}

/** Works a drawn file over. */
async function finish(file: string, work: (p: Sharp) => Sharp | Promise<Sharp>, flatten = false): Promise<void> {
  const before = sharp(readFileSync(file));
  const out = await work(flatten ? before.flatten({ background: "#fff" }) : before);
  writeFileSync(file, await out.toBuffer());
}

/** Grain as a sensor makes it: Gaussian, each channel by itself. */
async function addNoise(picture: Sharp, sigma: number, next: () => number): Promise<Sharp> {
  const { data, info } = await picture.removeAlpha().raw().toBuffer({ resolveWithObject: true });
  for (let i = 0; i < data.length; i++) {
    const gauss = Math.sqrt(-2 * Math.log(next() || 1e-9)) * Math.cos(2 * Math.PI * next());
    data[i] = Math.max(0, Math.min(255, Math.round(data[i]! + sigma * gauss)));
  }
  return sharp(data, { raw: { width: info.width, height: info.height, channels: info.channels } }).png();
}
