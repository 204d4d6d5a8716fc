// Draws pictures of lettering in the wild by programs that share no code with ours, nor with each other: POV-Ray, FFmpeg, Ghostscript, FreeType by
// ImageMagick, Chromium; needs povray, ffmpeg, gs, convert and fc-scan. Ten conditions in turn, families evenly. Seeded; a set of an earlier run is taken as it is.
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { chromium } from "playwright-core";
import sharp from "sharp";
import { seededRandom } from "../../../src/core/geometry/numbers";
import { WordTable } from "../../../src/core/theme/wordTable";
import { EVAL_FOLDER, type EvalStyle } from "../library";
import { isHeldOut, type EvalPicture } from "../pictures";
import {
  byChromium,
  byFfmpeg,
  byGhostscript,
  fontFile,
  fromScreen,
  lampsIn,
  lettering,
  printWrap,
  shoot,
  SIZE,
  type Drawing,
} from "./programs";
import { cloth, glowing, mug, paints, pressed, raised, signFromSide, type Dice } from "./scenes";

export const WILD = [
  "mug",
  "sign from the side",
  "raised",
  "pressed",
  "filled and outlined",
  "neon or backlit",
  "cloth",
  "coded video",
  "printed and scanned",
  "screen",
] as const;
export type WildCondition = (typeof WILD)[number];
type Box = { x: number; y: number; width: number; height: number };
/** `mask`: its letters white on black. */
export type WildPicture = EvalPicture & { mask: string; at: Box };

/** @param isApart - families kept out of tuning, or the others. */
export async function drawWild(
  styles: EvalStyle[],
  count: number,
  seed: number,
  isApart: boolean,
  only = "",
): Promise<WildPicture[]> {
  const conditions = WILD.filter((c) => c.includes(only));
  const folder = join(EVAL_FOLDER, `wild-${seed}-${count}-${isApart ? "apart" : "tuning"}${only && `-${only}`}`);
  const list = join(folder, "list.json");
  if (existsSync(list)) return JSON.parse(readFileSync(list, "utf8")) as WildPicture[];
  mkdirSync(folder, { recursive: true });
  const next = seededRandom(seed);
  const table = WordTable.parse(new Uint8Array(readFileSync("dist-workers/words.bin")))!;
  const words = table.mostUsed(20_000).filter((w) => /^[a-z]{3,9}$/.test(w));
  const dice: Dice = {
    between: (a, b) => a + next() * (b - a),
    pick: (all) => all[Math.floor(next() * all.length)]!,
  };
  // POV-Ray reads TrueType outlines alone.
  const fit = styles.filter(
    (s) =>
      !s.picture &&
      isHeldOut(s.family) === isApart &&
      new DataView(s.sfnt.buffer, s.sfnt.byteOffset).getUint32(0) === 0x10000,
  );
  const families = [...new Set(fit.map((s) => s.family))].sort();
  const browser = await chromium.launch({ executablePath: "/usr/bin/chromium-headless-shell", args: ["--no-sandbox"] });
  const page = await browser.newPage({ viewport: SIZE });
  const pictures: WildPicture[] = [];
  for (let tries = 0; pictures.length < count && tries < count * 5; tries++) {
    const condition = conditions[pictures.length % conditions.length]!;
    const family = dice.pick(families);
    const style = dice.pick(fit.filter((s) => s.family === family));
    const text = inventText(dice, words);
    if (![...text].every((c) => c === " " || style.characters.includes(c))) continue;
    const base = join(folder, String(pictures.length).padStart(4, "0"));
    try {
      await draw(condition, { ...dice, style, text, base, page });
      const at = await boxOfMask(`${base}.mask.png`);
      if (!at || at.height < 16) continue;
      pictures.push({
        condition,
        renderer: "wild",
        heldOut: isApart,
        file: `${base}.jpg`,
        mask: `${base}.mask.png`,
        text,
        styleId: style.styleId,
        family,
        at,
      });
      if (pictures.length % 20 === 0) console.error(`${pictures.length} drawn`);
    } catch (error) {
      console.error(condition, style.styleId, String((error as Error).message).slice(0, 300));
    }
  }
  await browser.close();
  writeFileSync(list, JSON.stringify(pictures));
  return pictures;
}

function inventText({ pick, between }: Dice, words: string[]): string {
  const parts = Array.from({ length: Math.ceil(between(0, 2.4)) }, () => pick(words));
  if (parts.join("").length < 4) parts.push(pick(words));
  const title = parts.map((w) => w[0]!.toUpperCase() + w.slice(1)).join(" ");
  const how = between(0, 1);
  return how < 0.6 ? title : how < 0.85 ? title.toUpperCase() : title.toLowerCase();
}

/** Where the letters stand, with a twentieth of their height around them, as a person frames it. */
async function boxOfMask(file: string): Promise<Box | null> {
  const { data, info } = await sharp(file).greyscale().raw().toBuffer({ resolveWithObject: true });
  let [x0, y0, x1, y1] = [info.width, info.height, -1, -1];
  for (let y = 0, i = 0; y < info.height; y++)
    for (let x = 0; x < info.width; x++, i += info.channels)
      if (data[i]! > 100) [x0, y0, x1, y1] = [Math.min(x0, x), Math.min(y0, y), Math.max(x1, x), Math.max(y1, y)];
  if (x1 < 0) return null;
  const pad = 3 + 0.06 * (y1 - y0);
  const [left, top] = [Math.max(0, Math.floor(x0 - pad)), Math.max(0, Math.floor(y0 - pad))];
  // Letters that leave the picture are no fair question.
  if (x0 < 3 || y0 < 3 || x1 > info.width - 4 || y1 > info.height - 4) return null;
  return {
    x: left,
    y: top,
    width: Math.min(info.width, Math.ceil(x1 + pad)) - left,
    height: Math.min(info.height, Math.ceil(y1 + pad)) - top,
  };
}

async function draw(condition: WildCondition, d: Drawing): Promise<void> {
  const file = fontFile(d);
  switch (condition) {
    case "sign from the side":
      return shoot(d, signFromSide(d, lettering(d)));
    case "raised":
      return shoot(d, raised(d, lettering(d)));
    case "pressed":
      return shoot(d, pressed(d, lettering(d)));
    case "neon or backlit":
      return shoot(d, glowing(d, lettering(d), await lampsIn(d)));
    case "mug": {
      const colours = paints(d);
      const height = d.between(1.7, 2.6);
      const [across, down] = [2000, Math.round((2000 * height) / (2 * Math.PI))];
      const arc = d.between(0.16, 0.3);
      const place = `+0+${Math.round(down * d.between(-0.14, 0.14))}`;
      const fitted = ["-trim", "+repage", "-resize", `${Math.round(arc * across)}x${Math.round(down * 0.6)}`];
      const { wrap, white } = printWrap(d, colours, `${across}x${down}`, 260, fitted, place);
      return shoot(d, mug(d, wrap, white, height, arc * 360, colours[1]));
    }
    case "cloth": {
      const colours = paints(d);
      const width = lettering(d).widthEm;
      const size = `${Math.round(width * 1.35 * 190)}x${Math.round(2.6 * 190)}`;
      const { wrap, white } = printWrap(d, colours, size, 190);
      return shoot(d, cloth(d, width, wrap, white));
    }
    case "filled and outlined":
      return byChromium(d);
    case "coded video":
      return byFfmpeg(d, file);
    case "printed and scanned":
      return byGhostscript(d);
    case "screen":
      return fromScreen(d, file);
  }
}
