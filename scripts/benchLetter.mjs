// Letter: laying out, joining and checking over HTTP, and frames of the page while a letter of forty is dragged.
import { quantile } from "./benchLarge.mjs";

const BRIEF = "b_open-night-poster";
const TWENTY = "Wrens and terns ashore";
const FORTY = "High water at the lighthouse until half past";
const ROUNDS = 15;

/** @param {{ url: string, browser: import("playwright-core").Browser, note: Function }} asked */
export async function benchLetter({ url, browser, note }) {
  const { items } = await (await fetch(`${url}/api/v1/styles?limit=1&q=kaushan%20script`)).json();
  const documentOf = (text, emMm, more = {}) => ({
    sheet: { widthMm: 1600, heightMm: 300, ground: null },
    blocks: [
      {
        ...{ id: "l_0", text, styleId: items[0].styleId, size: { emMm }, at: { xMm: 40, yMm: 200 }, fill: "#20262b" },
        ...more,
      },
    ],
  });
  const median = async (path, body) => {
    const took = [];
    for (let i = 0; i <= ROUNDS; i++) {
      const t = performance.now();
      const answer = await fetch(`${url}/api/v1${path}`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify(body),
      });
      await answer.arrayBuffer();
      if (!answer.ok) throw new Error(`${path}: ${answer.status}`);
      // The first opens the face.
      if (i) took.push(performance.now() - t);
    }
    return quantile(took, 0.5);
  };
  const letters = "Sphinx of quartz at low tide ".repeat(8).slice(0, 200);
  const layout = await median("/lettering/layout", { document: documentOf(letters, 12) });
  note("letter: 200 letters laid out over HTTP, median", layout, "ms", 20, "lower");
  const apart = await median("/lettering", { document: documentOf(TWENTY, 80), format: "svg" });
  const joined = await median("/lettering", { document: documentOf(TWENTY, 80, { joined: true }), format: "svg" });
  const floor = `written without joining ${apart.toFixed(0)} ms`;
  note("letter: 20 letters joined to one outline, median", joined - apart, "ms", 100, "lower", floor);
  const material = { minStrokeMm: 1, minGapMm: 0.8, minPieceMm2: 4 };
  const check = await median("/lettering/check", { document: documentOf(TWENTY, 80), material });
  note("letter: 20 letters checked at an em of 80 mm, median", check, "ms", 300, "lower");
  const checkJoined = await median("/lettering/check", {
    document: documentOf(TWENTY, 80, { joined: true }),
    material,
  });
  note("letter: the same joined", checkJoined, "ms", 300, "lower");
  note(
    "letter: dragged in a line of 40",
    await frames({ url, browser, document: documentOf(FORTY, 40) }),
    "frames/s",
    55,
    "higher",
  );
}

/** Frames a second of the page while a letter follows the mouse. */
async function frames({ url, browser, document }) {
  const made = await fetch(`${url}/api/v1/briefs/${BRIEF}/letterings`, {
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
  await fetch(`${url}/api/v1/letterings/${letteringId}`, { method: "DELETE" });
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
