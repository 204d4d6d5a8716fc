// npm run bench -- --large: a library of a hundred thousand styles, made by varying measured records of the demo's, asked in many ways
// over HTTP and scrolled through in Chromium. Called by bench.mjs; gives rows of figures, writes nothing else.
import { readFileSync } from "node:fs";
import { spawnSync } from "node:child_process";
import { benchIdentify, launchBrowser } from "./benchIdentify.mjs";
import { quantile } from "./quantile.mjs";
import { startServer, waitFor } from "../tests/e2e/globalSetup.mjs";
import { fetchAgain, stopServer } from "./server.mjs";

export const WORDS = [
  "slab heavy",
  "",
  "zilla slab",
  "playfair",
  "script",
  "tall thin capitals",
  "has & and +",
  "old typewriter",
  "rounded friendly",
  "dancng script",
  "variable",
  "not pictures",
  "like Lora but narrower and free to sell",
  "at least 6 weights",
  "elegant high contrast serif",
  "lantrenamber",
  "harvest fair",
  "pirate ship",
  "gentle bakery",
  "quiet library",
];
const BRIEF = "b_open-night-poster";

/** @param data - folder of a demo that was read; it is filled. @param note - as in bench.mjs. @param pictures - of benchIdentify.mjs. */
export async function benchLarge({ data, port, note, pictures }) {
  spawnSync("node", ["scripts/runScript.mjs", "scripts/makeLarge.ts", data, "100000"], { stdio: "inherit" });
  const url = `http://127.0.0.1:${port}`;
  const started = performance.now();
  const server = startServer(port, data, { FOND_QUARRY_CHECK_ANSWERS: "" });
  try {
    await waitFor(url, () => true, 60_000);
    await (await fetchAgain(`${url}/api/v1/styles?limit=1`)).text();
    note(
      "100,000 styles: start until the first question is answered",
      (performance.now() - started) / 1000,
      "s",
      30,
      "lower",
    );
    // Fonts that were not read the first time are read again at every start: that must not be measured along.
    await waitFor(url, (health) => health.jobsWaiting === 0, 300_000);
    await ask(url, note);
    note("100,000 styles: a tag until it is found", await findAfterTag(url), "ms", 200, "lower");
    note("100,000 styles: memory of the server", memoryMb(server.pid), "MB", 600, "lower");
    await benchIdentify({ url, pictures, what: "100,000 styles: ", note, rounds: 2 });
    note("100,000 styles: memory after pictures were identified", memoryMb(server.pid), "MB", 1200, "lower");
    await look(url, note);
    note("100,000 styles: memory after the wall was scrolled", memoryMb(server.pid), "MB", 1500, "lower");
  } finally {
    await stopServer(server);
  }
}

async function ask(url, note) {
  const time = async (path) => {
    const t = performance.now();
    const reply = await fetchAgain(`${url}/api/v1${path}`);
    await reply.arrayBuffer();
    inServer = Number(/dur=([\d.]+)/.exec(reply.headers.get("server-timing") ?? "")?.[1] ?? 0);
    return performance.now() - t;
  };
  let inServer = 0;
  const find = [];
  const alone = [];
  const bare = [];
  const alike = [];
  const { items } = await (await fetchAgain(`${url}/api/v1/styles?limit=20&sort=name`)).json();
  for (let i = 0; i < 240; i++) {
    // No question is asked twice, so that no kept answer is given.
    const range = i < WORDS.length ? "" : `&traits=weight:${(i * 3) % 400}~,contrast:1.${i % 10}~`;
    const ms = await time(
      `/styles?briefId=${BRIEF}&limit=48&fold=true&nearest=true&q=${encodeURIComponent(WORDS[i % WORDS.length])}${range}`,
    );
    const findingMs = inServer;
    const floor = await time("/suggestions?q=");
    if (i >= 48) {
      alone.push(findingMs);
      find.push(ms);
      bare.push(floor);
    }
    if (i % 12 === 0) alike.push(await time(`/styles/${items[(i / 12) % 20].styleId}/alike?limit=16`));
  }
  const floor = `a request that computes nothing: median ${quantile(bare, 0.5).toFixed(1)}, p95 ${quantile(bare, 0.95).toFixed(1)} ms`;
  note("100,000 styles: find with all counts, in the server, p95", quantile(alone, 0.95), "ms", 50, "lower");
  note("100,000 styles: find with all counts, median", quantile(find, 0.5), "ms", 50, "lower", floor);
  note("100,000 styles: find with all counts, p95", quantile(find, 0.95), "ms", 50, "lower", floor);
  note(
    "100,000 styles: find p95 against three bare requests",
    quantile(find, 0.95) / quantile(bare, 0.95),
    "times",
    3,
    "lower",
  );
  note("100,000 styles: more like this, p95", quantile(alike, 0.95), "ms", 300, "lower");
}

/** Says a word of a family and asks for it, until it is there. @returns milliseconds. */
async function findAfterTag(url) {
  const { items } = await (await fetchAgain(`${url}/api/v1/styles?limit=1&sort=name`)).json();
  const t = performance.now();
  await fetchAgain(`${url}/api/v1/styles/${items[0].styleId}/tags`, {
    method: "PUT",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ tag: "bench word", holds: true }),
  });
  for (let total = 0; !total;)
    ({ total } = await (await fetchAgain(`${url}/api/v1/styles?limit=1&moods=bench%20word`)).json());
  return performance.now() - t;
}

/** Resident memory of a process and its children, from /proc. */
function memoryMb(pid) {
  const children = readFileSync(`/proc/${pid}/task/${pid}/children`, "utf8").trim().split(/\s+/).filter(Boolean);
  const own = Number(readFileSync(`/proc/${pid}/status`, "utf8").match(/VmRSS:\s+(\d+)/)?.[1] ?? 0) / 1024;
  return own + children.reduce((sum, c) => sum + memoryMb(c), 0);
}

async function look(url, note) {
  const browser = await launchBrowser();
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const open = async (question = "") => {
    const t = performance.now();
    await page.goto(`${url}/b/${BRIEF}/find${question}`, { waitUntil: "commit" });
    await page.waitForSelector("[data-strip] [data-face=ready]");
    return performance.now() - t;
  };
  await open();
  const opened = [];
  for (let i = 0; i < 5; i++) opened.push(await open());
  note("100,000 styles: the wall until its first face, median of 5", quantile(opened, 0.5), "ms", 1000, "lower");
  for (const columns of [1, 2, 3, 6]) {
    await open(`?columns=${columns}`);
    await page.waitForTimeout(1200);
    note(`100,000 styles: scrolling, ${columns} columns`, await page.evaluate(scroll), "frames/s", 55, "higher");
  }
  await open();
  await page.waitForTimeout(2000);
  const typed = await page.evaluate(type);
  note(
    "100,000 styles: a letter typed into the brief until samples are set again, median",
    quantile(typed, 0.5),
    "ms",
    50,
    "lower",
  );
  await lookAtMap(page, url, note);
  await browser.close();
}

/** The map from far away to near: how long until it is there, and how it moves under the hand. */
async function lookAtMap(page, url, note) {
  const started = performance.now();
  await page.goto(`${url}/b/${BRIEF}/find?view=map`, { waitUntil: "commit" });
  await page.locator("[data-map] canvas").first().waitFor({ timeout: 300_000 });
  note(
    "100,000 styles: the map until it stands, laid out from scratch",
    (performance.now() - started) / 1000,
    "s",
    120,
    "lower",
  );
  await page.locator("[data-map]").focus();
  for (const [name, presses] of [
    ["whole", 0],
    ["core samples", 14],
    ["words", 6],
  ]) {
    for (let i = 0; i < presses; i++) await page.keyboard.press("+");
    await page.waitForTimeout(1500);
    note(`100,000 styles: dragging the map, ${name}`, await page.evaluate(drag), "frames/s", 55, "higher");
  }
}

/** In the page: the map is dragged to and fro for four seconds. */
async function drag() {
  const canvas = document.querySelector("[data-map] canvas");
  const { left, top, width, height } = canvas.getBoundingClientRect();
  const [x, y] = [left + width / 2, top + height / 2];
  const send = (type, dx) =>
    canvas.dispatchEvent(
      new PointerEvent(type, { pointerId: 1, bubbles: true, clientX: x + dx, clientY: y + dx / 3, buttons: 1 }),
    );
  canvas.setPointerCapture = () => {};
  send("pointerdown", 0);
  let frames = 0;
  const started = performance.now();
  return new Promise((resolve) => {
    const step = (now) => {
      frames++;
      send("pointermove", 300 * Math.sin(frames / 20));
      if (now - started < 4000) return requestAnimationFrame(step);
      send("pointerup", 0);
      resolve((1000 * frames) / (now - started));
    };
    requestAnimationFrame(step);
  });
}

/** In the page: forty pixels a frame for four seconds. */
async function scroll() {
  const wall = document.querySelector("[role=grid]");
  let frames = 0;
  const started = performance.now();
  return new Promise((resolve) => {
    const step = (now) => {
      frames++;
      wall.scrollTop += 40;
      if (now - started < 4000) requestAnimationFrame(step);
      else resolve((1000 * frames) / (now - started));
    };
    requestAnimationFrame(step);
  });
}

/** In the page: letters into the first line; each until the first sample shows it and the frame is drawn. */
async function type() {
  const input = document.querySelector("input[aria-label^='Line 1']");
  const put = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set;
  const frame = () => new Promise((r) => requestAnimationFrame(r));
  const took = [];
  for (let i = 0; i < 20; i++) {
    const started = performance.now();
    put.call(input, `Lamp ${i}`);
    input.dispatchEvent(new Event("input", { bubbles: true }));
    while (!document.querySelector("[data-strip] [data-sample]")?.textContent.includes(`Lamp ${i}`)) await frame();
    await frame();
    took.push(performance.now() - started);
    await new Promise((r) => setTimeout(r, 150));
  }
  return took;
}
