// Pictures as clients send them, made by the browser: a title in coded video, lettering on a mug, a sign seen from the side.
import type { BrowserContext, Page } from "playwright-core";
import { fontOf } from "./browser";

/** A page in which the face of a style is loaded as "probe". */
async function openProbe(context: BrowserContext, styleId: string): Promise<Page> {
  const page = await context.newPage();
  const font = await fontOf(styleId);
  await page.setContent(
    `<style>@font-face{font-family:probe;src:url(data:font/woff2;base64,${font.toString("base64")})}</style><p style="font:40px probe">probe</p>`,
  );
  await page.evaluate(() => document.fonts.load("64px probe"));
  return page;
}

/**
 * A frame of a film with a title over moving ground, as the browser's own encoder leaves it (VP8, WebM).
 * @returns the frame, and a place inside of its first letter.
 */
export async function filmTitle(context: BrowserContext, styleId: string, title: string) {
  const page = await openProbe(context, styleId);
  const drawn = await page.evaluate(filmInPage, title);
  await page.close();
  return { picture: Buffer.from(drawn.jpeg, "base64"), onLetter: drawn.onLetter, box: drawn.box };
}

/** Runs in the page. */
async function filmInPage(words: string) {
  const [width, height, size] = [720, 404, 74];
  const canvas = Object.assign(document.createElement("canvas"), { width, height });
  const pen = canvas.getContext("2d")!;
  pen.font = `${size}px probe`;
  const across = pen.measureText(words).width;
  const at = { x: (width - across) / 2, y: 236 };
  const draw = (time: number) => {
    pen.fillStyle = "#5d86a8";
    pen.fillRect(0, 0, width, height);
    for (let k = 0; k < 46; k++) {
      const [x, y] = [(k * 157 + time * (30 + (k % 5) * 22)) % (width + 120), 30 + ((k * 83) % height)];
      pen.fillStyle = ["#d9c7a0", "#2d3f52", "#8a5a3c", "#b9d0da", "#3f6b57"][k % 5]!;
      pen.beginPath();
      pen.ellipse(x - 60, y, 18 + (k % 7) * 9, 10 + (k % 4) * 9, k, 0, 7);
      pen.fill();
    }
    pen.lineJoin = "round";
    pen.lineWidth = 9;
    pen.strokeStyle = "#20140c";
    pen.strokeText(words, at.x, at.y);
    pen.fillStyle = "#f4a51c";
    pen.fillText(words, at.x, at.y);
  };
  const recorder = new MediaRecorder(canvas.captureStream(25), {
    mimeType: "video/webm;codecs=vp8",
    videoBitsPerSecond: 1_800_000,
  });
  const parts: Blob[] = [];
  recorder.ondataavailable = (event) => parts.push(event.data);
  const ended = new Promise((resolve) => (recorder.onstop = resolve));
  recorder.start();
  for (let k = 0; k < 25; k++) {
    draw(k / 25);
    await new Promise((resolve) => setTimeout(resolve, 40));
  }
  recorder.stop();
  await ended;
  const video = document.createElement("video");
  video.src = URL.createObjectURL(new Blob(parts, { type: "video/webm" }));
  video.muted = true;
  await video.play();
  await new Promise((resolve) => setTimeout(resolve, 500));
  video.pause();
  const frame = Object.assign(document.createElement("canvas"), { width, height });
  frame.getContext("2d")!.drawImage(video, 0, 0, width, height);
  const stem = pen.measureText(words[0]!);
  return {
    jpeg: frame.toDataURL("image/jpeg", 0.9).split(",")[1]!,
    // The first letter is an H: its left stem.
    onLetter: { x: at.x + stem.actualBoundingBoxLeft * -1 + size * 0.09, y: at.y - size * 0.3 },
    box: { x: at.x - 14, y: at.y - size - 4, width: across + 28, height: size * 1.35 },
  };
}

/** Lettering around a mug, seen from a little above: columns of a cylinder, lit from one side. @returns the picture and a box around it. */
export async function wrapMug(context: BrowserContext, styleId: string, words: string) {
  const page = await openProbe(context, styleId);
  const drawn = await page.evaluate(mugInPage, words);
  await page.close();
  return { picture: Buffer.from(drawn.jpeg, "base64"), box: drawn.box };
}

/** Runs in the page. */
function mugInPage(words: string) {
  const [width, height, radius, size] = [900, 700, 250, 96];
  const flat = Object.assign(document.createElement("canvas"), { width: 1600, height: 260 });
  const ink = flat.getContext("2d")!;
  ink.font = `${size}px probe`;
  const across = ink.measureText(words).width;
  ink.fillStyle = "#7a1f2b";
  ink.fillText(words, 800 - across / 2, 150);
  const canvas = Object.assign(document.createElement("canvas"), { width, height });
  const pen = canvas.getContext("2d")!;
  const wall = pen.createLinearGradient(0, 0, width, height);
  wall.addColorStop(0, "#8d9a94");
  wall.addColorStop(1, "#5c6a66");
  pen.fillStyle = wall;
  pen.fillRect(0, 0, width, height);
  const middle = width / 2;
  /** Seen from above: what is nearer stands lower. */
  const dip = (angle: number) => 70 * Math.cos(angle);
  for (let x = -radius; x < radius; x++) {
    const angle = Math.asin(x / radius);
    const light = 0.62 + 0.38 * Math.cos(angle + 0.5);
    pen.fillStyle = `rgb(${244 * light},${240 * light},${230 * light})`;
    pen.fillRect(middle + x, 90 + dip(angle), 1, 480);
    const along = 800 + radius * angle;
    const next = radius * (Math.asin(Math.min(1, (x + 1) / radius)) - angle);
    pen.globalAlpha = light;
    pen.drawImage(flat, along, 0, Math.max(0.5, next), 260, middle + x, 190 + dip(angle), 1, 260);
    pen.globalAlpha = 1;
  }
  const reach = radius * Math.sin(Math.min(1.5, across / 2 / radius));
  return {
    jpeg: canvas.toDataURL("image/jpeg", 0.85).split(",")[1]!,
    box: {
      x: middle - reach - 16,
      y: 190 + 150 - size + dip(across / 2 / radius) - 6,
      width: 2 * reach + 32,
      height: size * 1.35 + 70 * (1 - Math.cos(across / 2 / radius)),
    },
  };
}

/** A sign on a wall, seen from the side (CSS perspective), as a photograph of few colours would show it. */
export async function hangSign(context: BrowserContext, styleId: string, words: string): Promise<Buffer> {
  const page = await openProbe(context, styleId);
  await page.setViewportSize({ width: 900, height: 560 });
  await page.evaluate((text) => {
    document.body.innerHTML = `<div id=wall style="width:900px;height:560px;overflow:hidden;background:linear-gradient(100deg,#b9b2a4,#8f887a);perspective:760px"><div style="position:absolute;left:60px;top:180px;width:800px;height:190px;background:linear-gradient(90deg,#214a3f,#2f6455);transform:rotateY(44deg) rotateX(5deg);color:#f2e9cf;font:104px probe;line-height:190px;text-align:center;white-space:nowrap"></div></div>`;
    document.querySelector("#wall div")!.textContent = text;
  }, words);
  const picture = await page.locator("#wall").screenshot({ type: "jpeg", quality: 82 });
  await page.close();
  return picture;
}

/** A poster with lines in several faces. @param lines - style, words and size of each. */
export async function setPoster(
  context: BrowserContext,
  lines: readonly { styleId: string; words: string; sizePx: number }[],
): Promise<Buffer> {
  const page = await context.newPage();
  const faces = await Promise.all(
    lines.map(async ({ styleId }, i) => {
      const font = await fontOf(styleId);
      return `@font-face{font-family:probe${i};src:url(data:font/woff2;base64,${font.toString("base64")})}`;
    }),
  );
  await page.setContent(
    `<style>${faces.join("")}body{margin:0}#poster{width:760px;padding:40px 30px;background:#f1e7d2;color:#23303c;text-align:center;white-space:nowrap}</style>
     <div id=poster>${lines.map((l, i) => `<p style="margin:0 0 34px;font:${l.sizePx}px/1.15 probe${i}">${l.words}</p>`).join("")}</div>`,
  );
  await page.evaluate(() => document.fonts.ready);
  const picture = await page.locator("#poster").screenshot();
  await page.close();
  return picture;
}
