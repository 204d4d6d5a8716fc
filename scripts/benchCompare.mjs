// Compare with eight faces in the page: until they are first drawn, a letter typed, the longest task, frames while one is dragged over another.
import { quantile } from "./quantile.mjs";
import { fetchAgain } from "./server.mjs";

const FACES = [
  ...["zilla slab bold", "arvo bold", "rokkitt extrabold", "lobster"],
  ...["lora bold", "work sans bold", "oswald bold", "playfair display bold"],
];
const BRIEF = "b_open-night-poster";

/** @param {{ url: string, browser: import("playwright-core").Browser, note: Function }} asked */
export async function benchCompare({ url, browser, note }) {
  const ids = [];
  for (const q of FACES) {
    const { items } = await (await fetchAgain(`${url}/api/v1/styles?limit=1&q=${encodeURIComponent(q)}`)).json();
    ids.push(items[0].styleId);
  }
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await watchTasks(page);
  await page.goto(`${url}/b/${BRIEF}/compare?faces=${ids.join(",")}`);
  await page.locator('[data-column="7"] [data-face=ready]').nth(3).waitFor();
  await page.waitForTimeout(1000);
  const [drawn, longest] = [[], []];
  for (let i = 0; i < 5; i++) {
    await page.keyboard.press("1");
    await page.waitForURL(/brief$/);
    await page.waitForTimeout(700);
    await page.evaluate(() => (window.tasks.length = 0));
    drawn.push(await page.evaluate(untilDrawn));
    await page.waitForTimeout(600);
    longest.push(await page.evaluate(() => Math.max(0, ...window.tasks)));
  }
  note("compare: eight faces first drawn, median", quantile(drawn, 0.5), "ms", 500, "lower");
  note("compare: longest task until they stand, of five", Math.max(...longest), "ms", 100, "lower");
  note(
    "compare: a letter typed until it is set, p95",
    quantile(await page.evaluate(typeLetters), 0.95),
    "ms",
    50,
    "lower",
  );
  await page.evaluate(() => document.activeElement.blur());
  await page.keyboard.press("o");
  await page.locator("[data-over]").waitFor();
  await page.waitForTimeout(800);
  note("compare: laid over and dragged", await page.evaluate(dragOver), "frames/s", 55, "higher");
  await page.close();
}

/** Long tasks of the page, as `window.tasks`, in milliseconds. */
export const watchTasks = (page) =>
  page.addInitScript(() => {
    window.tasks = [];
    new PerformanceObserver((list) => window.tasks.push(...list.getEntries().map((e) => e.duration))).observe({
      type: "longtask",
      buffered: true,
    });
  });

/** From the key until every sample stands and one more frame. */
async function untilDrawn() {
  const frame = () => new Promise((r) => requestAnimationFrame(r));
  const t = performance.now();
  document.body.dispatchEvent(new KeyboardEvent("keydown", { key: "4", bubbles: true }));
  while (document.querySelectorAll("[data-column] [data-face=ready]").length < 32) await frame();
  await frame();
  return performance.now() - t;
}

async function typeLetters() {
  const frame = () => new Promise((r) => requestAnimationFrame(r));
  const input = document.querySelector("input[aria-label^='Line 1']");
  const put = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set;
  const took = [];
  for (let i = 0; i < 20; i++) {
    const t = performance.now();
    put.call(input, `Lamp ${i}`);
    input.dispatchEvent(new Event("input", { bubbles: true }));
    const isSet = () =>
      [...document.querySelectorAll("[data-column] [data-sample]")].some((e) => e.textContent.includes(`Lamp ${i}`));
    while (!isSet()) await frame();
    await frame();
    took.push(performance.now() - t);
    await new Promise((r) => setTimeout(r, 400));
  }
  return took;
}

/** Four seconds of dragging; @returns frames a second. */
function dragOver() {
  const stage = document.querySelector("[data-over]");
  const { left, top } = stage.getBoundingClientRect();
  stage.setPointerCapture = () => {};
  const send = (type, dx) =>
    stage.dispatchEvent(
      new PointerEvent(type, {
        pointerId: 1,
        bubbles: true,
        clientX: left + 300 + dx,
        clientY: top + 80 + dx / 4,
        buttons: 1,
      }),
    );
  send("pointerdown", 0);
  const t = performance.now();
  let frames = 0;
  return new Promise((resolve) => {
    const step = (now) => {
      frames++;
      send("pointermove", 200 * Math.sin(frames / 20));
      if (now - t < 4000) return requestAnimationFrame(step);
      send("pointerup", 0);
      resolve((1000 * frames) / (now - t));
    };
    requestAnimationFrame(step);
  });
}
