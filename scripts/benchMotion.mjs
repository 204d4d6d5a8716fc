// Move: moments a second of the preview while an axis moves in thirty letters, and frames a second of a title of five seconds at 1080p.
import { existsSync, readdirSync, readFileSync } from "node:fs";
import { fetchAgain } from "./server.mjs";

const BRIEF = "b_keepers-of-the-lamp";
const TEXT = "Keepers of the Lamp: Fog+Brass";

/** @param {{ url: string, browser: import("playwright-core").Browser, note: Function }} asked */
export async function benchMotion({ url, browser, note }) {
  const { items } = await (await fetchAgain(`${url}/api/v1/styles?limit=1&q=commissioner`)).json();
  const document = documentOf(items[0].styleId);
  const { rate, behind } = await preview({ url, browser, document });
  note("move: preview of 30 letters with an axis on its way", rate, "frames/s", 55, "higher");
  note("move: how far the preview is behind its clock, p95", behind, "ms", 34, "lower");
  for (const format of ["png-frames", "mp4", "webm"]) {
    const { perSecond, mostMb } = await written({ url, document, format });
    note(`move: 5 s at 1080p as ${format}`, perSecond, "frames/s", 15, "higher");
    if (mostMb) note(`move: memory of what writes ${format}`, mostMb, "MB", 800, "lower");
  }
}

function documentOf(styleId) {
  const pose = (id, timeMs, wght) => ({ id, name: id, timeMs, ease: "in-out", blocks: { l_0: { axes: { wght } } } });
  return {
    sheet: { widthMm: 320, heightMm: 180, ground: null },
    blocks: [
      {
        id: "l_0",
        text: TEXT,
        styleId,
        size: { emMm: 20 },
        align: "centre",
        at: { xMm: 160, yMm: 95 },
        fill: "#f3efe6",
      },
    ],
    motion: {
      durationMs: 5000,
      fps: 25,
      poses: [pose("p_a", 0, 100), pose("p_b", 4000, 900)],
      stagger: { unit: "letter", order: "first", stepMs: 30 },
    },
  };
}

const send = async (address, method, body) =>
  (
    await fetchAgain(address, {
      method,
      headers: { "content-type": "application/json" },
      body: body && JSON.stringify(body),
    })
  ).json();

async function preview({ url, browser, document }) {
  const { letteringId } = await send(`${url}/api/v1/briefs/${BRIEF}/letterings`, "POST", { name: "Bench", document });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${url}/b/${BRIEF}/letter?of=${letteringId}&way=move`);
  await page.locator("[data-preview][data-moments]").waitFor();
  // As long as somebody looks at it before playing: moments are made ready meanwhile.
  await page.waitForTimeout(6000);
  await page.getByRole("button", { name: "Play" }).click();
  const told = await page.evaluate(async () => {
    const canvas = window.document.querySelector("[data-preview]");
    const start = performance.now();
    const behind = [];
    let frames = 0;
    while (performance.now() - start < 6000) {
      await new Promise((r) => requestAnimationFrame(r));
      frames++;
      const off = Math.abs(Number(canvas.dataset.clock) - Number(canvas.dataset.at));
      if (off < 2500) behind.push(off);
    }
    behind.sort((a, b) => a - b);
    return {
      rate: (frames * 1000) / (performance.now() - start),
      behind: behind[Math.floor(behind.length * 0.95)],
    };
  });
  await page.close();
  await send(`${url}/api/v1/letterings/${letteringId}`, "DELETE");
  return told;
}

/** One in advance, so that processes run and fonts are open. */
async function written({ url, document, format }) {
  await make({ url, document, format, widthPx: 640 });
  const start = performance.now();
  const mostMb = await make({ url, document, format, widthPx: 1920 });
  return { perSecond: 125_000 / (performance.now() - start), mostMb };
}

async function make({ url, document, format, widthPx }) {
  const { jobId } = await send(`${url}/api/v1/motion`, "POST", { document, format, widthPx });
  let mostMb = 0;
  for (let look = 0; ; look++) {
    const { state } = await send(`${url}/api/v1/jobs/${jobId}`, "GET");
    // Seldom: the system walks through all pages of a process to tell its memory.
    if (look % 8 === 0) mostMb = Math.max(mostMb, memoryOf("motion.worker.mjs"));
    if (state === "done") return mostMb;
    if (state === "failed") throw new Error(`${format} was not written`);
    await new Promise((r) => setTimeout(r, 40));
  }
}

/** Memory of all processes of an entry, MB: what they share counts once (Pss of proc_pid_smaps(5)). 0 where the system does not tell. */
function memoryOf(entry) {
  if (!existsSync("/proc")) return 0;
  let mb = 0;
  for (const pid of readdirSync("/proc").filter((name) => /^\d+$/.test(name))) {
    try {
      if (!readFileSync(`/proc/${pid}/cmdline`, "latin1").includes(entry)) continue;
      const told = readFileSync(`/proc/${pid}/smaps_rollup`, "latin1");
      mb += Number(told.match(/^Pss:\s+(\d+)/m)?.[1] ?? 0) / 1024;
    } catch {
      // It has ended meanwhile.
    }
  }
  return mb;
}
