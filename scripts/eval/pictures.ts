// Makes evaluation pictures with renderers that are not ours (ImageMagick on FreeType, Pango on Cairo) under several conditions.
// Seeded: the same seed makes the same pictures. Families are parted by name into a tuning and a held-out half.
import { execFileSync } from "node:child_process";
import { mkdirSync, writeFileSync } from "node:fs";
import { join } from "node:path";

export type EvalStyle = {
  styleId: string;
  family: string;
  sfnt: Uint8Array;
  has: (char: string) => boolean;
  picture: boolean;
  name: string;
};
export type EvalPicture = { condition: string; file: string; text: string; style: EvalStyle; heldOut: boolean };

export const CONDITIONS = [
  "clean",
  "small capitals, JPEG",
  "colour and noise",
  "turned, warped, blurred",
  "strongly sheared",
  "tracked or shaped",
] as const;

const TEXTS = [
  "Skerrow Light",
  "Open Night",
  "Fog Bell",
  "Keepers of the Lamp",
  "Wren & Tern",
  "High water 04:52",
  "Brass Lantern",
  "Harbour Plate",
  "Storm Gallery",
  "Tidewrack",
  "Gull Rock",
  "Quiet Signal",
  "Number 7 Lamp",
  "Evening Watch",
  "Oil & Wick",
  "Salt Marsh Quay",
  "Jetty",
  "Before Dawn",
  "Kelp and Driftwood",
  "Mizzen",
  "Spring Tides",
  "Hexham Buoy",
  "Old Fog Horn",
  "Velvet Dusk",
];

/** Small seeded generator (mulberry32): evaluation must be repeatable. */
export function seeded(seed: number) {
  let s = seed >>> 0;
  return () => {
    s = (s + 0x6d2b79f5) >>> 0;
    let t = s;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A family's half, by its name alone. */
export function isHeldOut(family: string): boolean {
  let h = 2166136261;
  for (const c of family) h = Math.imul(h ^ c.charCodeAt(0), 16777619) >>> 0;
  return h % 5 < 2;
}

/**
 * Draws `count` pictures into `folder`, the conditions in turn. Needs the commands convert and pango-view.
 * Families are drawn evenly, so that large ones do not dominate.
 */
export function drawPictures(styles: EvalStyle[], count: number, seed: number, folder: string): EvalPicture[] {
  mkdirSync(folder, { recursive: true });
  const next = seeded(seed);
  const pick = <T>(list: readonly T[]) => list[Math.floor(next() * list.length)]!;
  const families = [...new Set(styles.filter((s) => !s.picture).map((s) => s.family))];
  const pictures: EvalPicture[] = [];
  while (pictures.length < count) {
    const condition = CONDITIONS[pictures.length % CONDITIONS.length]!;
    const family = pick(families);
    const style = pick(styles.filter((s) => s.family === family && !s.picture));
    let text = pick(TEXTS);
    if (condition === "small capitals, JPEG") text = text.toUpperCase();
    if (![...text].every((c) => c === " " || style.has(c))) continue;
    const font = join(folder, `${style.styleId}.ttf`);
    writeFileSync(font, style.sfnt);
    const file = join(folder, `${seed}-${pictures.length}.${condition === "small capitals, JPEG" ? "jpg" : "png"}`);
    draw(condition, { font, text, file, style, next, pick });
    pictures.push({ condition, file, text, style, heldOut: isHeldOut(style.family) });
  }
  return pictures;
}

type Draw = {
  font: string;
  text: string;
  file: string;
  style: EvalStyle;
  next: () => number;
  pick: <T>(l: readonly T[]) => T;
};

function draw(condition: (typeof CONDITIONS)[number], d: Draw) {
  const between = (a: number, b: number) => a + d.next() * (b - a);
  const colours = d.pick([
    ["#20262B", "#F3EFE6"],
    ["#F3EFE6", "#1C6B74"],
    ["#A8431A", "#FBF9F4"],
    ["#FBF9F4", "#6B7A2A"],
    ["#12304a", "#d9c27a"],
    ["#ffd23f", "#3b1f4b"],
  ] as const);
  const label = (size: number, ink: string, paper: string, more: string[] = []) => [
    "-background",
    paper,
    "-fill",
    ink,
    "-font",
    d.font,
    "-pointsize",
    size.toFixed(1),
    ...more,
    `label:${d.text.replace(/[\\%@]/g, "\\$&")}`,
    "-bordercolor",
    paper,
    "-border",
    "14x12",
  ];
  const convert = (args: string[]) => execFileSync("convert", [...args, d.file]);
  switch (condition) {
    case "clean":
      return convert(label(between(44, 96), "black", "white"));
    case "small capitals, JPEG":
      return convert([...label(between(24, 28), "#202020", "white"), "-quality", String(Math.round(between(55, 80)))]);
    case "colour and noise":
      return convert([
        ...label(between(50, 80), colours[0], colours[1]),
        "-attenuate",
        between(0.25, 0.6).toFixed(2),
        "+noise",
        "Gaussian",
      ]);
    case "turned, warped, blurred":
    case "strongly sheared": {
      // A sign seen from the side: corners pulled by shares of its height. The strong one pulls by shares of its width.
      const isStrong = condition === "strongly sheared";
      const side = isStrong ? "w" : "h";
      const pull = () => between(-1, 1) * (isStrong ? 0.03 : 0.09);
      const rise = () => between(-1, 1) * (isStrong ? 0.06 : 0.07);
      const corners = [
        [0, 0],
        [1, 0],
        [1, 1],
        [0, 1],
      ] as const;
      const map = corners
        .map(
          ([x, y]) =>
            `%[fx:${x}*w],%[fx:${y}*h] %[fx:${x}*w+${pull().toFixed(4)}*${side}],%[fx:(${y}+${rise().toFixed(4)})*h]`,
        )
        .join(" ");
      return convert([
        ...label(between(56, 84), "#1a1a1a", "#f4f0e8"),
        "-virtual-pixel",
        "edge",
        "-distort",
        "Perspective",
        map,
        "-background",
        "#f4f0e8",
        "-rotate",
        between(-7, 7).toFixed(2),
        "-blur",
        `0x${between(0.6, 1.4).toFixed(2)}`,
      ]);
    }
    case "tracked or shaped":
      if (d.next() < 0.5)
        return convert(label(between(54, 80), "#222", "#fff", ["-kerning", between(-1.5, 9).toFixed(1)]));
      return drawByPango(d, between(40, 64));
  }
}

/** Pango shapes with HarfBuzz and draws with Cairo; the font is installed for this one call in a folder of its own. */
function drawByPango(d: Draw, sizePt: number) {
  const home = `${d.font}.d`;
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
    {
      env: { ...process.env, FONTCONFIG_FILE: config },
    },
  );
}
