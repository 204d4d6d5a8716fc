// Files of motions, played by the browser and by independent players: they show what the frames show, and keep their alpha.
import { beforeAll, describe, expect, test } from "@jest/globals";
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import sharp from "sharp";
import { unzipSync } from "fflate";
import type { LetteringDocument } from "@/contracts/lettering";
import { api, fetchAgain, makeBrief, openBrowser, styleNamed, url, waitUntil } from "./browser";
import { makeFile, startJob, type Asked } from "./motionJobs";

const browser = openBrowser();
let styleId = "";
let briefId = "";
beforeAll(async () => {
  briefId = await makeBrief({ name: "Keepers of the Lamp", paper: "#20262B", ink: "#F3EFE6" });
  ({ styleId } = await styleNamed("commissioner variable"));
});

describe("files show what the frames show", () => {
  const WIDE = 480;
  const HIGH = 270;
  const moving = (): Asked => ({
    document: {
      sheet: { widthMm: 320, heightMm: 180, ground: null },
      blocks: [
        {
          id: "title",
          text: "Keepers",
          styleId,
          size: { emMm: 52 },
          align: "centre",
          at: { xMm: 160, yMm: 105 },
          fill: "#c8641e",
        },
      ] as LetteringDocument["blocks"],
    },
    motion: {
      durationMs: 800,
      fps: 25,
      tracks: [
        {
          target: "title",
          property: "axis:wght",
          keys: [
            // At rest in the end: such frames are shown again, not coded.
            { timeMs: 0, value: 100, ease: "in-out" },
            { timeMs: 600, value: 900 },
          ],
        },
        {
          ...{ target: "title", property: "opacity", perLetter: { staggerMs: 40, order: "first" } },
          keys: [
            { timeMs: 0, value: 0, ease: "out" },
            { timeMs: 300, value: 1 },
          ],
        },
      ],
    },
    format: "png-frames",
    widthPx: WIDE,
    ground: null,
  });
  const SEEN = [2, 9, 19];
  let frames: Uint8Array[] = [];
  const raw = (bytes: Uint8Array) => sharp(bytes).ensureAlpha().raw().toBuffer();
  beforeAll(async () => {
    const files = unzipSync(await makeFile(moving()));
    const names = Object.keys(files)
      .filter((n) => n.endsWith(".png"))
      .sort();
    expect(names).toHaveLength(20);
    expect(JSON.parse(new TextDecoder().decode(files["frames.json"]))).toMatchObject({
      frames: 20,
      rate: { num: 25, den: 1 },
      hasAlpha: true,
    });
    frames = await Promise.all(SEEN.map((n) => raw(files[names[n]!]!)));
  });

  /** Mean difference where there is ink, of colours on white, 0–1. */
  function differ(a: Uint8Array, b: Uint8Array): number {
    let [sum, count] = [0, 0];
    for (let i = 0; i < a.length; i += 4) {
      const [p, q] = [a[i + 3]! / 255, b[i + 3]! / 255];
      if (p < 0.02 && q < 0.02) continue;
      for (let c = 0; c < 3; c++) sum += Math.abs(a[i + c]! * p + 255 * (1 - p) - b[i + c]! * q - 255 * (1 - q)) / 255;
      count += 3;
    }
    return count ? sum / count : 1;
  }

  /** A page of a film's own size that shows a time, photographed without background. */
  async function photograph(html: string, seek: string, times: number[]): Promise<Uint8Array[]> {
    const page = await browser.context.newPage();
    await page.setViewportSize({ width: WIDE, height: HIGH });
    await page.setContent(
      `<style>html,body{margin:0;background:transparent;overflow:hidden}svg,video{display:block}</style>${html}`,
    );
    await page.waitForTimeout(300);
    const shots: Uint8Array[] = [];
    for (const t of times) {
      await page.evaluate(`(async (t) => { ${seek} })(${t})`);
      shots.push(await raw(await page.screenshot({ omitBackground: true })));
    }
    await page.close();
    return shots;
  }
  const expectSame = (shots: readonly Uint8Array[], most: number) =>
    shots.forEach((shot, i) => expect(differ(shot, frames[i]!)).toBeLessThan(most));
  const msOf = (n: number) => n * 40 + 0.01;

  test("APNG", async () => {
    const bytes = await makeFile({ ...moving(), format: "apng" });
    const { pages, delay } = await sharp(bytes, { animated: true })
      .metadata()
      .catch(() => ({ pages: undefined, delay: undefined }));
    // Readers that know no animation see the first frame alone.
    expect(pages ?? 1).toBeGreaterThanOrEqual(1);
    expect(delay ?? [40]).toContain(40);
    const text = Buffer.from(bytes);
    expect(text.readUInt32BE(text.indexOf("acTL") + 4)).toBe(20);
    expect(text.toString("latin1").split("fcTL")).toHaveLength(21);
  });

  test("WebM keeps its alpha, decoded by the browser", async () => {
    const bytes = await makeFile({ ...moving(), format: "webm" });
    const src = `data:video/webm;base64,${Buffer.from(bytes).toString("base64")}`;
    const seek = `const v=document.querySelector("video"); await new Promise(r=>{v.onseeked=()=>requestAnimationFrame(()=>requestAnimationFrame(r)); v.currentTime=t/1000});`;
    const shots = await photograph(
      `<video muted width="${WIDE}" height="${HIGH}" src="${src}"></video>`,
      seek,
      SEEN.map((n) => n * 40 + 10),
    );
    expectSame(shots, 0.08);
  });

  test("Lottie, played by an independent player", async () => {
    const bytes = await makeFile({ ...moving(), format: "lottie" });
    const player = readFileSync(
      createRequire(import.meta.url).resolve("lottie-web/build/player/lottie.min.js"),
      "utf8",
    );
    const json = new TextDecoder().decode(bytes);
    const html = `<div id="at" style="width:${WIDE}px;height:${HIGH}px"></div><script>${player}</script><script>window.a=lottie.loadAnimation({container:document.getElementById("at"),renderer:"svg",loop:false,autoplay:false,animationData:${json}})</script>`;
    expectSame(await photograph(html, "window.a.goToAndStop(t, true)", SEEN), 0.05);
  });

  test("animated SVG", async () => {
    const svg = new TextDecoder().decode(await makeFile({ ...moving(), format: "svg" })).replace(/<\?xml[^>]*>/, "");
    const seek = `const s=document.querySelector("svg"); s.pauseAnimations(); s.setCurrentTime(t/1000)`;
    expectSame(await photograph(svg, seek, SEEN.map(msOf)), 0.05);
  });

  test("CSS: live text in its own font", async () => {
    const files = unzipSync(await makeFile({ ...moving(), format: "css" }));
    const text = (name: string) => new TextDecoder().decode(files[name]);
    const font = Object.keys(files).find((n) => n.endsWith(".woff2"))!;
    const css = text("title.css").replace(
      font,
      `data:font/woff2;base64,${Buffer.from(files[font]!).toString("base64")}`,
    );
    const svg = text("index.html").match(/<svg[\s\S]*<\/svg>/)![0];
    expect(svg).toContain(">K</text>");
    expect(Object.keys(files).some((n) => n.startsWith("licences/"))).toBe(true);
    const seek = `await document.fonts.ready; for (const a of document.getAnimations()) { a.pause(); a.currentTime = t }`;
    expectSame(await photograph(`<style>${css}</style>${svg}`, seek, SEEN.map(msOf)), 0.08);
  });

  test("GIF and MP4 have their frames and their ground", async () => {
    const gif = await makeFile({ ...moving(), format: "gif", ground: "#20262b" });
    const { pages, delay, width, pageHeight } = await sharp(gif, { animated: true }).metadata();
    expect({ pages, width, pageHeight, delay: delay![0] }).toEqual({
      pages: 20,
      width: WIDE,
      pageHeight: HIGH,
      delay: 40,
    });
    const mp4 = await makeFile({ ...moving(), format: "mp4", briefId });
    const src = `data:video/mp4;base64,${Buffer.from(mp4).toString("base64")}`;
    const page = await browser.context.newPage();
    await page.setContent(`<video muted src="${src}"></video>`);
    const told = await page.evaluate(async () => {
      const v = document.querySelector("video")!;
      // A frame of its middle: the first one may be counted as loaded before it can be drawn.
      await new Promise<void>((r) => {
        v.onseeked = () => r();
        v.currentTime = 0.4;
      });
      const canvas = Object.assign(document.createElement("canvas"), { width: v.videoWidth, height: v.videoHeight });
      const context = canvas.getContext("2d")!;
      const cornerAlpha = () => context.getImageData(4, 4, 1, 1).data[3];
      for (let i = 0; i < 100 && cornerAlpha() !== 255; i++) {
        context.drawImage(v, 0, 0);
        await new Promise((r) => setTimeout(r, 50));
      }
      return {
        size: [v.videoWidth, v.videoHeight],
        seconds: v.duration,
        corner: [...context.getImageData(4, 4, 1, 1).data],
      };
    });
    await page.close();
    expect(told.size).toEqual([WIDE, HIGH]);
    expect(told.seconds).toBeCloseTo(0.8, 2);
    // The brief's paper.
    [0x20, 0x26, 0x2b].forEach((v, c) => expect(Math.abs(told.corner[c]! - v)).toBeLessThan(6));
  });

  test("what cannot be made is refused before it is begun", async () => {
    const ask = (over: object) =>
      api<{ error: { code: string; message: string } }>("/motion", { method: "POST", json: { ...moving(), ...over } });
    const { document, motion: tracks } = moving();
    expect(await ask({ motion: undefined })).toMatchObject({ status: 422, body: { error: { code: "nothing-moves" } } });
    expect(await ask({ widthPx: 9000 })).toMatchObject({ status: 400 });
    expect(await ask({ motion: { ...tracks, durationMs: 600_000 }, format: "lottie" })).toMatchObject({
      status: 422,
      body: { error: { code: "motion-too-long" } },
    });
    const block = { ...document.blocks[0]!, text: "Keepers 灯" };
    expect(await ask({ document: { ...document, blocks: [block] } })).toMatchObject({
      status: 422,
      body: { error: { code: "letters-missing" } },
    });
    expect(await ask({ motion: { ...tracks, tracks: [{ ...tracks.tracks[0]!, target: "nobody" }] } })).toMatchObject({
      status: 400,
    });
    expect(
      await ask({ document: { ...document, blocks: [{ ...block, text: "a", path: { kind: "drawn", d: "M0" } }] } }),
    ).toMatchObject({ status: 422 });
  });

  test("cancelled in the middle, and made again: no frame is missing", async () => {
    const asked = { ...moving(), motion: { ...moving().motion, durationMs: 8000 } };
    const jobId = await startJob(asked);
    const job = async () => (await api<{ state: string; done: number }>(`/jobs/${jobId}`)).body;
    await waitUntil(async () => (await job()).done > 0);
    await api(`/jobs/${jobId}`, { method: "DELETE" });
    await waitUntil(async () => (await job()).state === "cancelled");
    await api(`/jobs/${jobId}/retry`, { method: "POST" });
    await waitUntil(async () => (await job()).state === "done", 120_000);
    const files = unzipSync(
      new Uint8Array(await (await fetchAgain(`${url()}/api/v1/jobs/${jobId}/file`)).arrayBuffer()),
    );
    expect(Object.keys(files).filter((n) => n.endsWith(".png"))).toHaveLength(200);
  });
});
