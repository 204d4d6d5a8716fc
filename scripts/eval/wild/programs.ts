// The programs that draw pictures in the wild, and what a camera, a film, a press or a screen makes of lettering. Called by draw.ts.
import { execFileSync } from "node:child_process";
import { mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import type { Page } from "playwright-core";
import sharp from "sharp";
import type { EvalStyle } from "../library";
import { busyGround, paints, type Dice, type Lettering, type Scene } from "./scenes";

export type Drawing = Dice & { style: EvalStyle; text: string; base: string; page: Page };
export const magick = (...args: string[]) =>
  execFileSync("/usr/bin/convert", args, { stdio: ["ignore", "pipe", "ignore"], maxBuffer: 1e8 });
export const css = (c: readonly number[]) => `rgb(${c.map((v) => Math.round(255 * v)).join(",")})`;

export function fontFile({ base, style }: Drawing): string {
  const file = `${base}.ttf`;
  writeFileSync(file, style.sfnt);
  return file;
}

export const label = (font: string, text: string, ink: string, sizePt: number) => [
  "-background",
  "none",
  "-fill",
  ink,
  "-font",
  font,
  "-pointsize",
  String(sizePt),
  `label:${text}`,
];

export function lettering(d: Drawing): Lettering {
  const size = String(magick(...label(`${d.base}.ttf`, d.text, "black", 100), "-trim", "-format", "%w", "info:"));
  return { fontFile: `${d.base}.ttf`, text: d.text, widthEm: Number(size) / 100 };
}

/** Places within the letters, in em from the middle of their ink, y up. */
export async function lampsIn(d: Drawing): Promise<[number, number][]> {
  const { data, info } = await sharp(
    magick(
      ...label(`${d.base}.ttf`, d.text, "black", 100),
      "-trim",
      "+repage",
      "-background",
      "white",
      "-flatten",
      "png:-",
    ),
  )
    .greyscale()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const out: [number, number][] = [];
  const wanted = Math.min(90, 12 * d.text.length);
  for (let tries = 0; out.length < wanted && tries < 20_000; tries++) {
    const [x, y] = [Math.floor(d.between(0, info.width)), Math.floor(d.between(0, info.height))];
    if (data[(y * info.width + x) * info.channels]! < 90)
      out.push([(x - info.width / 2) / 100, (info.height / 2 - y) / 100]);
  }
  return out;
}

function render(scene: string, out: string, width = 720, height = 450) {
  writeFileSync(`${out}.pov`, scene);
  execFileSync(
    "/usr/bin/povray",
    [`+I${out}.pov`, `+O${out}`, `+W${width}`, `+H${height}`, "+A0.3", "-D", "+FN", "+WT1", "-GA"],
    { stdio: "ignore", timeout: 25_000 },
  );
}

/** A scene rendered and photographed: glow of bright parts, focus, noise, JPEG. */
export function shoot(d: Drawing, scene: Scene) {
  render(scene(false), `${d.base}.raw.png`);
  render(scene(true), `${d.base}.mask.png`);
  photograph(d, `${d.base}.raw.png`);
}

function photograph(d: Drawing, raw: string, scale = d.between(0.75, 1.25)) {
  const bloom = d.between(2, 9).toFixed(1);
  magick(
    raw,
    "-colorspace",
    "sRGB",
    "(",
    "+clone",
    "-blur",
    `0x${bloom}`,
    "-evaluate",
    "multiply",
    d.between(0, 0.4).toFixed(2),
    ")",
    "-compose",
    "screen",
    "-composite",
    ...["-modulate", `${d.between(80, 120).toFixed(0)},${d.between(60, 120).toFixed(0)}`],
    "-resize",
    `${(100 * scale).toFixed(0)}%`,
    "-blur",
    `0x${d.between(0.2, 1.1).toFixed(2)}`,
    "-attenuate",
    d.between(0.05, 0.6).toFixed(2),
    "+noise",
    "Gaussian",
    "-quality",
    d.between(45, 92).toFixed(0),
    `${d.base}.jpg`,
  );
  magick(`${d.base}.mask.png`, "-resize", `${(100 * scale).toFixed(0)}%`, `${d.base}.mask.png`);
}

/** Lettering with a graded or textured fill and an outline, over things. */
export async function byChromium(d: Drawing) {
  render(busyGround(d), `${d.base}.ground.png`);
  const [a, b] = paints(d);
  const size = Math.min(d.between(56, 105), 610 / lettering(d).widthEm);
  const fill = d.pick(["graded", "textured", "plain"] as const);
  const defs = `<linearGradient id="graded" gradientTransform="rotate(${d.between(0, 180).toFixed(0)})"><stop stop-color="${css(a)}"/><stop offset="1" stop-color="${css(b)}"/></linearGradient>
<filter id="rough"><feTurbulence type="fractalNoise" baseFrequency="${d.between(0.02, 0.4).toFixed(3)}" numOctaves="3"/><feColorMatrix values="0 0 0 0 ${a[0]} 0 0 0 0 ${a[1]} 0 0 0 0 ${a[2]} 1.4 1.2 0 0 -0.9"/><feComposite in2="SourceGraphic" operator="in" result="t"/><feMerge><feMergeNode in="SourceGraphic"/><feMergeNode in="t"/></feMerge></filter>`;
  const line = d.pick(["#111", "#fff", css(d.pick(paints(d)))]);
  const width = size * d.between(0.03, 0.1);
  const shadow = d.pick([
    "",
    `drop-shadow(${(size * 0.05).toFixed(1)}px ${(size * 0.06).toFixed(1)}px ${(size * d.between(0, 0.06)).toFixed(1)}px rgba(0,0,0,.7))`,
  ]);
  const turn = d.between(-6, 6).toFixed(1);
  const own = `fill="${fill === "graded" ? "url(#graded)" : css(b)}" ${fill === "textured" ? 'filter="url(#rough)"' : ""}`;
  const svg = (isMask: boolean) =>
    `<svg width="720" height="450" style="position:absolute;left:0;top:0"><defs>${defs}</defs><g font-family="probe" font-size="${size.toFixed(1)}" text-anchor="middle" transform="translate(360 240) rotate(${turn})" ${isMask ? 'fill="#fff"' : `style="filter:${shadow || "none"}"`}>${isMask ? "" : `<text stroke="${line}" stroke-width="${(2 * width).toFixed(1)}" stroke-linejoin="round" fill="${line}">${d.text}</text>`}<text ${isMask ? "" : own}>${d.text}</text></g></svg>`;
  for (const isMask of [false, true]) {
    const ground = isMask
      ? "#000"
      : `url(data:image/png;base64,${readFileSync(`${d.base}.ground.png`).toString("base64")})`;
    await d.page.setContent(
      `<style>@font-face{font-family:probe;src:url(data:font/ttf;base64,${Buffer.from(d.style.sfnt).toString("base64")})}body{margin:0;background:${ground}}</style>${svg(isMask)}`,
    );
    await d.page.evaluate(() => document.fonts.load("40px probe"));
    await d.page.screenshot({ path: `${d.base}.${isMask ? "mask" : "raw"}.png` });
  }
  photograph(d, `${d.base}.raw.png`);
}

/** A title over a moving picture, coded tightly; one frame of it. */
export function byFfmpeg(d: Drawing, font: string) {
  render(busyGround(d), `${d.base}.ground.png`);
  const height = d.pick([360, 480, 540]);
  const size = Math.min(height * d.between(0.09, 0.2), (1.5 * height) / lettering(d).widthEm);
  const ink = d.pick(["white", "white", "yellow", css(d.pick(paints(d)))]).replace(
    /rgb\((\d+),(\d+),(\d+)\)/,
    (_, ...c) =>
      `0x${c
        .slice(0, 3)
        .map((v: string) => Number(v).toString(16).padStart(2, "0"))
        .join("")}`,
  );
  const extra = d.pick([
    "",
    `:borderw=${d.between(1, 4).toFixed(0)}:bordercolor=black`,
    `:shadowx=3:shadowy=3:shadowcolor=black@0.7`,
    ":box=1:boxborderw=14:boxcolor=black@0.45",
  ]);
  const place = `fontfile=${font}:text='${d.text}':fontsize=${size.toFixed(0)}:x=(w-tw)/2:y=h*${d.between(0.25, 0.7).toFixed(2)}`;
  const wide = Math.round((height * 16) / 9 / 2) * 2;
  const run = (...args: string[]) =>
    execFileSync("/usr/bin/ffmpeg", ["-v", "error", "-y", ...args], { stdio: ["ignore", "ignore", "pipe"] });
  const codec = d.pick([["libx264", "-crf", d.between(28, 40).toFixed(0), "-preset", "veryfast"], ["mpeg2video", "-q:v", d.between(8, 24).toFixed(0)], ["libvpx", "-b:v", `${d.between(150, 500).toFixed(0)}k`, "-deadline", "realtime"]]); // oxfmt-ignore
  const film = `${d.base}.${codec[0] === "libvpx" ? "webm" : codec[0] === "mpeg2video" ? "mpg" : "mp4"}`;
  run(
    "-loop",
    "1",
    "-i",
    `${d.base}.ground.png`,
    "-t",
    "1",
    "-r",
    "25",
    "-vf",
    `zoompan=z='1.2+0.01*on':d=1:x='on*4':y='on*2':s=${wide}x${height}:fps=25,noise=alls=${d.between(0, 14).toFixed(0)}:allf=t,drawtext=${place}:fontcolor=${ink}${extra},format=yuv420p`,
    "-c:v",
    ...codec,
    film,
  );
  run("-ss", "0.6", "-i", film, "-frames:v", "1", "-q:v", "2", `${d.base}.jpg`);
  run(
    "-f",
    "lavfi",
    "-i",
    `color=black:s=${wide}x${height}`,
    "-frames:v",
    "1",
    "-vf",
    `drawtext=${place}:fontcolor=white`,
    `${d.base}.mask.png`,
  );
}

/** Printed with a screen by Ghostscript, ink spread, scanned askew. */
export function byGhostscript(d: Drawing) {
  // Ghostscript finds a font by its PostScript name in a folder of fonts.
  mkdirSync(`${d.base}.fonts`, { recursive: true });
  writeFileSync(join(`${d.base}.fonts`, "own.ttf"), d.style.sfnt);
  const name = String(execFileSync("/usr/bin/fc-scan", ["-f", "%{postscriptname}\n", `${d.base}.ttf`])).split("\n")[0]!;
  const grey = d.pick([0, 0, 0, d.between(0.2, 0.55)]);
  const width = 960;
  const dpi = d.pick([150, 200, 300]);
  const inches = width / dpi;
  const size = ((inches * 72) / lettering(d).widthEm) * d.between(0.55, 0.85);
  const page = (ink: number) =>
    `/${name} findfont ${size.toFixed(2)} scalefont setfont ${ink.toFixed(3)} setgray (${d.text}) dup stringwidth pop 2 div neg ${(inches * 36).toFixed(1)} add ${(size * 0.6).toFixed(1)} moveto show showpage`;
  const points = `${Math.round(inches * 72)}x${Math.round(size * 1.8)}`.split("x");
  const gs = (device: string, res: number, ink: number, out: string) =>
    execFileSync(
      "/usr/bin/gs",
      [
        "-q",

        "-dBATCH",
        "-dNOPAUSE",
        "--permit-file-read=/tmp/",
        `-sFONTPATH=${d.base}.fonts`,
        `-sDEVICE=${device}`,
        `-r${res}`,
        `-dDEVICEWIDTHPOINTS=${points[0]}`,
        `-dDEVICEHEIGHTPOINTS=${points[1]}`,
        `-o${out}`,
        "-c",
        page(ink),
      ],
      { stdio: ["ignore", "pipe", "pipe"] },
    );
  gs("pngmono", dpi * 4, grey, `${d.base}.plate.png`);
  gs("pnggray", dpi, 0, `${d.base}.black.png`);
  const paper = css([d.between(0.85, 1), d.between(0.83, 0.97), d.between(0.75, 0.95)]);
  const ink = css(d.pick([[0.1, 0.1, 0.1], [0.1, 0.12, 0.35], [0.4, 0.08, 0.08]])); // oxfmt-ignore
  const turn = d.between(-2.5, 2.5).toFixed(2);
  magick(
    `${d.base}.plate.png`,
    "-colorspace",
    "Gray",
    "-attenuate",
    d.between(0.3, 1).toFixed(2),
    "+noise",
    "Gaussian",
    "-blur",
    `0x${d.between(1.5, 5).toFixed(1)}`,
    "-level",
    `${d.between(20, 45).toFixed(0)}%,${d.between(55, 85).toFixed(0)}%`,
    "-resize",
    "25%",
    "+level-colors",
    `${ink},${paper}`,
    "-background",
    paper,
    "-rotate",
    turn,
    "-blur",
    `0x${d.between(0.3, 0.9).toFixed(2)}`,
    "-attenuate",
    d.between(0.1, 0.5).toFixed(2),
    "+noise",
    "Gaussian",
    "-quality",
    d.between(40, 90).toFixed(0),
    `${d.base}.jpg`,
  );
  magick(`${d.base}.black.png`, "-negate", "-background", "black", "-rotate", turn, `${d.base}.mask.png`);
}

/** A screen photographed: its dots of three colours, seen askew, moiré. */
export function fromScreen(d: Drawing, font: string) {
  const [ink, ground] = paints(d);
  const size = d.between(26, 48);
  const cell = 6;
  const draw = (a: string, b: string, out: string) =>
    magick(
      "-background",
      b,
      "-fill",
      a,
      "-font",
      font,
      "-pointsize",
      size.toFixed(0),
      `label:${d.text}`,
      "-bordercolor",
      b,
      "-border",
      "12x10",
      "-scale",
      `${100 * cell}%`,
      out,
    );
  draw(css(ink), css(ground), `${d.base}.plain.png`);
  draw("white", "black", `${d.base}.white.png`);
  const [w, h] = String(magick(`${d.base}.plain.png`, "-format", "%w %h", "info:"))
    .split(" ")
    .map(Number) as [number, number];
  magick(
    "-size",
    `${cell}x${cell}`,
    "xc:black",
    "-fill",
    "#ff4040",
    "-draw",
    "rectangle 0,0 1,4",
    "-fill",
    "#40ff40",
    "-draw",
    "rectangle 2,0 3,4",
    "-fill",
    "#4040ff",
    "-draw",
    "rectangle 4,0 5,4",
    `${d.base}.cell.png`,
  );
  const pull = () => d.between(-0.13, 0.13) * h;
  const corners = [[0, 0], [w, 0], [w, h], [0, h]].map(([x, y]) => `${x},${y} ${(x! + pull()).toFixed(1)},${(y! + pull()).toFixed(1)}`).join(" "); // oxfmt-ignore
  const scale = d.between(520, 940) / w;
  const after = [
    "-virtual-pixel",
    "edge",
    "-distort",
    "Perspective",
    corners,
    "-filter",
    "Triangle",
    "-resize",
    `${(100 * scale).toFixed(1)}%`,
  ];
  magick(
    `${d.base}.plain.png`,
    "(",
    "-size",
    `${w}x${h}`,
    `tile:${d.base}.cell.png`,
    ")",
    "-compose",
    "multiply",
    "-composite",
    "-evaluate",
    "multiply",
    "2.2",
    ...after,
    "-blur",
    `0x${d.between(0.3, 1).toFixed(2)}`,
    "-attenuate",
    d.between(0.1, 0.5).toFixed(2),
    "+noise",
    "Gaussian",
    "-quality",
    d.between(45, 90).toFixed(0),
    `${d.base}.jpg`,
  );
  magick(`${d.base}.white.png`, "-virtual-pixel", "black", ...after.slice(2), `${d.base}.mask.png`);
}
