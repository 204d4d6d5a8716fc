// Letter: laying out, joining and checking in a worker, and frames of the page while a letter of forty is dragged.
import { join } from "node:path";
import Database from "better-sqlite3";
import { quantile } from "./quantile.mjs";
import { fetchAgain } from "./server.mjs";

const BRIEF = "b_open-night-poster";
const TWENTY = "Wrens and terns ashore";
const FORTY = "High water at the lighthouse until half past";
const ROUNDS = 15;
/** Rounds that are not counted: the face is opened, the code is compiled. */
const WARM = 10;

/** @param {{ url: string, data: string, browser: import("playwright-core").Browser, note: Function }} asked */
export async function benchLetter({ url, data, browser, note }) {
  const { items } = await (await fetchAgain(`${url}/api/v1/styles?limit=1&q=kaushan%20script`)).json();
  const { styleId } = items[0];
  const documentOf = (text, emMm, more = {}) => ({
    sheet: { widthMm: 1600, heightMm: 300, ground: null },
    blocks: [{ id: "l_0", text, styleId, size: { emMm }, at: { xMm: 40, yMm: 200 }, fill: "#20262b", ...more }],
  });
  const rate = await frames({ url, browser, document: documentOf(FORTY, 40) });
  note("letter: dragged in a line of 40", rate, "frames/s", 55, "higher");
  await computed({ data, styleId, documentOf, note });
}

/** What a worker computes, by the worker's own module in this process. */
async function computed({ data, styleId, documentOf, note }) {
  process.env.FOND_QUARRY_DATA = data;
  const { layout, check, write } = await import("../dist-workers/letter.worker.mjs");
  const db = new Database(join(data, "fond-quarry.db"), { readonly: true });
  const read = (sql) => db.prepare(sql).all(styleId);
  const files = [
    ...read("SELECT sfnt_sha256 AS sha256 FROM styles WHERE style_id = ?"),
    ...read("SELECT sfnt_sha256 AS sha256 FROM parts WHERE style_id = ?"),
  ];
  db.close();
  const fonts = { [styleId]: files.map((f) => f.sha256) };
  const median = async (ask) => {
    const took = [];
    for (let i = 0; i < ROUNDS + WARM; i++) {
      const t = performance.now();
      const answer = await ask();
      if (!answer.ok) throw new Error(answer.code);
      if (i >= WARM) took.push(performance.now() - t);
    }
    return quantile(took, 0.5);
  };
  const letters = "Sphinx of quartz at low tide ".repeat(8).slice(0, 200);
  const laid = await median(() => layout({ document: documentOf(letters, 12), fonts }));
  note("letter: 200 letters laid out, median", laid, "ms", 20, "lower");
  const written = (more) =>
    median(() => write({ document: documentOf(TWENTY, 80, more), fonts, title: "", options: { format: "svg" } }));
  const apart = await written({});
  const joined = await written({ joined: true });
  const floor = `written without joining ${apart.toFixed(0)} ms`;
  note("letter: 20 letters joined to one outline, median", joined - apart, "ms", 100, "lower", floor);
  const material = { minStrokeMm: 1, minGapMm: 0.8, minPieceMm2: 4 };
  const checked = (more) => median(() => check({ document: documentOf(TWENTY, 80, more), fonts, material }));
  note("letter: 20 letters checked at an em of 80 mm, median", await checked({}), "ms", 300, "lower");
  note("letter: the same joined", await checked({ joined: true }), "ms", 300, "lower");
}

/** Frames a second of the page while a letter follows the mouse. */
async function frames({ url, browser, document }) {
  const made = await fetchAgain(`${url}/api/v1/briefs/${BRIEF}/letterings`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ name: "Bench", document }),
  });
  const { letteringId } = await made.json();
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${url}/b/${BRIEF}/letter?of=${letteringId}&way=shape`);
  const letter = page.locator("[data-letter='8']");
  await letter.waitFor();
  await page.waitForTimeout(1500);
  const box = await letter.boundingBox();
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  const counted = page.evaluate(countFrames);
  const end = Date.now() + 3000;
  for (let i = 0; Date.now() < end; i++) await page.mouse.move(x + 60 * Math.sin(i / 9), y + 40 * Math.cos(i / 7));
  await page.mouse.up();
  const rate = await counted;
  await page.close();
  await fetchAgain(`${url}/api/v1/letterings/${letteringId}`, { method: "DELETE" });
  return rate;
}

async function countFrames() {
  const start = performance.now();
  let n = 0;
  while (performance.now() - start < 2500) {
    await new Promise((r) => requestAnimationFrame(r));
    n++;
  }
  return (n * 1000) / (performance.now() - start);
}
