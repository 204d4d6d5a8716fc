// The programs that draw pictures in the wild, and what a camera, a film, a press or a screen makes of lettering. Called by draw.ts. Texts are words
// of letters and spaces, colours and numbers our own: nothing of it is escaped.
import { execFileSync } from "node:child_process";
import { mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import type { Page } from "playwright-core";
import sharp from "sharp";
import type { EvalStyle } from "../library";
import { busyGround, paints, type Dice, type Lettering, type Scene } from "./scenes";

export type Drawing = Dice & { style: EvalStyle; text: string; base: string; page: Page };
/** A picture as scenes and pages are drawn, in pixels. */
export const SIZE = { width: 720, height: 450 };

/** Options without spaces of their own, as they are written in a shell. */
const options = (line: string) => line.split(" ");
/** ImageMagick; noise is the same each time. */
const magick = (...args: string[]) =>
  execFileSync("/usr/bin/convert", ["-seed", "1", ...args], { stdio: ["ignore", "pipe", "ignore"], maxBuffer: 1e8 });
const hex = (c: readonly number[]) =>
  c
    .map((v) =>
      Math.round(255 * v)
        .toString(16)
        .padStart(2, "0"),
    )
    .join("");
const css = (c: readonly number[]) => `#${hex(c)}`;

export function fontFile({ base, style }: Drawing): string {
  const file = `${base}.ttf`;
  writeFileSync(file, style.sfnt);
  return file;
}

/** `+size`: a size that was asked for before would cut off what is longer. */
const label = (font: string, text: string, ink: string, sizePt: number, ground = "none") => [
  ...["+size", "-background", ground, "-fill", ink, "-font", font, "-pointsize", String(sizePt)],
  `label:${text}`,
];

type Range = [number, number];
/** What a camera or a scanner adds: focus, noise, JPEG. Ranges of blur in pixels, of noise and of quality. */
const asTaken = (d: Drawing, blurPx: Range, noise: Range, quality: Range) =>
  options(
    `-blur 0x${d.between(...blurPx).toFixed(2)} -attenuate ${d.between(...noise).toFixed(2)} +noise Gaussian -quality ${d.between(...quality).toFixed(0)}`,
  );

/**
 * Lettering in the middle of a ground, to be laid over a thing: `.wrap.png` in its colours, `.white.png` white on black.
 * @param size - width x height. @param after - what is done to the lettering before it is laid, and @param place where.
 */
export function printWrap(
  d: Drawing,
  [ink, ground]: readonly [readonly number[], readonly number[]],
  size: string,
  sizePt: number,
  after: string[] = [],
  place = "+0+0",
) {
  const lay = (out: string, a: string, b: string) =>
    magick(
      ...["-size", size, `xc:${b}`, "(", ...label(`${d.base}.ttf`, d.text, a, sizePt), ...after, ")"],
      ...["-gravity", "center", "-geometry", place, "-composite", out],
    );
  const [wrap, white] = [`${d.base}.wrap.png`, `${d.base}.white.png`];
  lay(wrap, css(ink), css(ground));
  lay(white, "white", "black");
  return { wrap, white };
}

export function lettering(d: Drawing): Lettering {
  const size = String(magick(...label(`${d.base}.ttf`, d.text, "black", 100), "-trim", "-format", "%w", "info:"));
  return { fontFile: `${d.base}.ttf`, text: d.text, widthEm: Number(size) / 100 };
}

/** Places within the letters, in em from the middle of their ink, y up. */
export async function lampsIn(d: Drawing): Promise<[number, number][]> {
  const { data, info } = await sharp(
    magick(
      ...label(`${d.base}.ttf`, d.text, "black", 100),
      ...options("-trim +repage -background white -flatten png:-"),
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

function render(scene: string, out: string) {
  writeFileSync(`${out}.pov`, scene);
  execFileSync(
    "/usr/bin/povray",
    [`+I${out}.pov`, `+O${out}`, `+W${SIZE.width}`, `+H${SIZE.height}`, "+A0.3", "-D", "+FN", "+WT1", "-GA"],
    { stdio: "ignore", timeout: 25_000 },
  );
}

/** A scene rendered and photographed: glow of bright parts, focus, noise, JPEG. */
export function shoot(d: Drawing, scene: Scene) {
  render(scene(false), `${d.base}.raw.png`);
  render(scene(true), `${d.base}.mask.png`);
  photograph(d, `${d.base}.raw.png`);
}

function photograph(d: Drawing, raw: string) {
  const scale = options(`-resize ${(100 * d.between(0.75, 1.25)).toFixed(0)}%`);
  const bloom = d.between(2, 9).toFixed(1);
  magick(
    raw,
    ...options(`-colorspace sRGB ( +clone -blur 0x${bloom} -evaluate multiply ${d.between(0, 0.4).toFixed(2)} )`),
    ...options("-compose screen -composite"),
    ...options(`-modulate ${d.between(80, 120).toFixed(0)},${d.between(60, 120).toFixed(0)}`),
    ...scale,
    ...asTaken(d, [0.2, 1.1], [0.05, 0.6], [45, 92]),
    `${d.base}.jpg`,
  );
  magick(`${d.base}.mask.png`, ...scale, `${d.base}.mask.png`);
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
    `<svg width="${SIZE.width}" height="${SIZE.height}" style="position:absolute;left:0;top:0"><defs>${defs}</defs><g font-family="probe" font-size="${size.toFixed(1)}" text-anchor="middle" transform="translate(${SIZE.width / 2} 240) rotate(${turn})" ${isMask ? 'fill="#fff"' : `style="filter:${shadow || "none"}"`}>${isMask ? "" : `<text stroke="${line}" stroke-width="${(2 * width).toFixed(1)}" stroke-linejoin="round" fill="${line}">${d.text}</text>`}<text ${isMask ? "" : own}>${d.text}</text></g></svg>`;
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
  const ink = d.pick(["white", "white", "yellow", `0x${hex(d.pick(paints(d)))}`]);
  const extra = d.pick([
    "",
    `:borderw=${d.between(1, 4).toFixed(0)}:bordercolor=black`,
    ":shadowx=3:shadowy=3:shadowcolor=black@0.7",
    ":box=1:boxborderw=14:boxcolor=black@0.45",
  ]);
  const place = `fontfile=${font}:text='${d.text}':fontsize=${size.toFixed(0)}:x=(w-tw)/2:y=h*${d.between(0.25, 0.7).toFixed(2)}`;
  const wide = Math.round((height * 16) / 9 / 2) * 2;
  const run = (...args: string[]) =>
    execFileSync("/usr/bin/ffmpeg", ["-v", "error", "-y", ...args], { stdio: ["ignore", "ignore", "pipe"] });
  const codec = d.pick([["libx264", "-crf", d.between(28, 40).toFixed(0), "-preset", "veryfast"], ["mpeg2video", "-q:v", d.between(8, 24).toFixed(0)], ["libvpx", "-b:v", `${d.between(150, 500).toFixed(0)}k`, "-deadline", "realtime"]]); // oxfmt-ignore
  const film = `${d.base}.${codec[0] === "libvpx" ? "webm" : codec[0] === "mpeg2video" ? "mpg" : "mp4"}`;
  const filters = [
    `zoompan=z='1.2+0.01*on':d=1:x='on*4':y='on*2':s=${wide}x${height}:fps=25`,
    `noise=alls=${d.between(0, 14).toFixed(0)}:allf=t`,
    `drawtext=${place}:fontcolor=${ink}${extra}`,
    "format=yuv420p",
  ];
  const ground = `${d.base}.ground.png`;
  run("-loop", "1", "-i", ground, ...options("-t 1 -r 25 -vf"), filters.join(), "-c:v", ...codec, film);
  run("-ss", "0.6", "-i", film, ...options("-frames:v 1 -q:v 2"), `${d.base}.jpg`);
  const black = options(`-f lavfi -i color=black:s=${wide}x${height} -frames:v 1 -vf`);
  run(...black, `drawtext=${place}:fontcolor=white`, `${d.base}.mask.png`);
}

/** Printed with a screen by Ghostscript, ink spread, scanned askew. */
export function byGhostscript(d: Drawing) {
  // Ghostscript finds a font by its PostScript name in a folder of fonts.
  mkdirSync(`${d.base}.fonts`, { recursive: true });
  writeFileSync(join(`${d.base}.fonts`, "own.ttf"), d.style.sfnt);
  const name = String(execFileSync("/usr/bin/fc-scan", ["-f", "%{postscriptname}\n", `${d.base}.ttf`])).split("\n")[0]!;
  const grey = d.pick([0, 0, 0, d.between(0.2, 0.55)]);
  const dpi = d.pick([150, 200, 300]);
  const inches = 960 / dpi;
  const size = ((inches * 72) / lettering(d).widthEm) * d.between(0.55, 0.85);
  const page = (ink: number) =>
    `/${name} findfont ${size.toFixed(2)} scalefont setfont ${ink.toFixed(3)} setgray (${d.text}) dup stringwidth pop 2 div neg ${(inches * 36).toFixed(1)} add ${(size * 0.6).toFixed(1)} moveto show showpage`;
  const sheet = options(
    `-dDEVICEWIDTHPOINTS=${Math.round(inches * 72)} -dDEVICEHEIGHTPOINTS=${Math.round(size * 1.8)}`,
  );
  const gs = (device: string, res: number, ink: number, out: string) => {
    const set = [...options("-q -dBATCH -dNOPAUSE --permit-file-read=/tmp/"), `-sFONTPATH=${d.base}.fonts`, ...sheet];
    execFileSync("/usr/bin/gs", [...set, `-sDEVICE=${device}`, `-r${res}`, `-o${out}`, "-c", page(ink)], {
      stdio: ["ignore", "pipe", "pipe"],
    });
  };
  gs("pngmono", dpi * 4, grey, `${d.base}.plate.png`);
  gs("pnggray", dpi, 0, `${d.base}.black.png`);
  const paper = css([d.between(0.85, 1), d.between(0.83, 0.97), d.between(0.75, 0.95)]);
  const ink = css(d.pick([[0.1, 0.1, 0.1], [0.1, 0.12, 0.35], [0.4, 0.08, 0.08]])); // oxfmt-ignore
  const turn = options(`-rotate ${d.between(-2.5, 2.5).toFixed(2)}`);
  magick(
    `${d.base}.plate.png`,
    ...options(`-colorspace Gray -attenuate ${d.between(0.3, 1).toFixed(2)} +noise Gaussian`),
    ...options(`-blur 0x${d.between(1.5, 5).toFixed(1)}`),
    ...options(`-level ${d.between(20, 45).toFixed(0)}%,${d.between(55, 85).toFixed(0)}% -resize 25%`),
    ...options(`+level-colors ${ink},${paper} -background ${paper}`),
    ...turn,
    ...asTaken(d, [0.3, 0.9], [0.1, 0.5], [40, 90]),
    `${d.base}.jpg`,
  );
  magick(`${d.base}.black.png`, ...options("-negate -background black"), ...turn, `${d.base}.mask.png`);
}

/** A screen photographed: its dots of three colours, seen askew, moiré. */
export function fromScreen(d: Drawing, font: string) {
  const [ink, ground] = paints(d);
  const size = d.between(26, 48);
  const cell = 6;
  const draw = (a: string, b: string, out: string) =>
    magick(
      ...label(font, d.text, a, Math.round(size), b),
      ...options(`-bordercolor ${b} -border 12x10 -scale ${100 * cell}%`),
      out,
    );
  draw(css(ink), css(ground), `${d.base}.plain.png`);
  draw("white", "black", `${d.base}.white.png`);
  const [w, h] = String(magick(`${d.base}.plain.png`, "-format", "%w %h", "info:"))
    .split(" ")
    .map(Number) as [number, number];
  const stripe = (fill: string, from: number) => ["-fill", fill, "-draw", `rectangle ${from},0 ${from + 1},4`];
  const stripes = [...stripe("#ff4040", 0), ...stripe("#40ff40", 2), ...stripe("#4040ff", 4)];
  magick("-size", `${cell}x${cell}`, "xc:black", ...stripes, `${d.base}.cell.png`);
  const pull = () => d.between(-0.13, 0.13) * h;
  const corners = [[0, 0], [w, 0], [w, h], [0, h]].map(([x, y]) => `${x},${y} ${(x! + pull()).toFixed(1)},${(y! + pull()).toFixed(1)}`).join(" "); // oxfmt-ignore
  const scale = d.between(520, 940) / w;
  const seen = [
    ...["-distort", "Perspective", corners],
    ...options(`-filter Triangle -resize ${(100 * scale).toFixed(1)}%`),
  ];
  magick(
    `${d.base}.plain.png`,
    ...options(`( -size ${w}x${h} tile:${d.base}.cell.png ) -compose multiply -composite -evaluate multiply 2.2`),
    ...options("-virtual-pixel edge"),
    ...seen,
    ...asTaken(d, [0.3, 1], [0.1, 0.5], [45, 90]),
    `${d.base}.jpg`,
  );
  magick(`${d.base}.white.png`, ...options("-virtual-pixel black"), ...seen, `${d.base}.mask.png`);
}
