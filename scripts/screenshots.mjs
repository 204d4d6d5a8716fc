// npm run pictures: one PNG of each main view at 1280 × 800 on the demo data, into docs/screenshots/. Look at them before committing.
import { mkdtempSync, mkdirSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { chromium } from "playwright-core";
import sharp from "sharp";
import { build, drawFoundry, prepareDemo, startLibraries } from "./setup.mjs";
import { startServer, waitFor } from "../tests/e2e/globalSetup.mjs";
import { stopServer } from "./server.mjs";

await build();
const data = process.env.PICTURES_DATA || mkdtempSync(join(tmpdir(), "fond-quarry-pictures-"));
const port = 4799;
const url = `http://127.0.0.1:${port}`;
const libraries = await startLibraries(0, await drawFoundry());
const server = startServer(port, data, await prepareDemo(libraries.url));
const out = "docs/screenshots";
mkdirSync(out, { recursive: true });
const briefId = "b_open-night-poster";
/** Where the browser tests kept what pictures from outside look like (tests/e2e/identifyWild.e2e.ts); none: that picture is left as it is. */
const keptByTests = process.env.FOND_QUARRY_PICTURES;

try {
  await waitFor(url, (h) => h.styles > 700 && h.jobsWaiting === 0, 300_000);
  const browser = await chromium.launch({
    executablePath: "/usr/bin/chromium-headless-shell",
    args: ["--no-sandbox", "--disable-gpu", "--disable-background-networking"],
  });
  const page = await (
    await browser.newContext({ viewport: { width: 1280, height: 800 }, colorScheme: "light" })
  ).newPage();
  const styleOf = async (q) =>
    (await (await fetch(`${url}/api/v1/styles?limit=1&q=${encodeURIComponent(q)}`)).json()).items[0].styleId;
  for (const [q, role] of [
    ["alfa slab one", "title"],
    ["rokkitt black", "title"],
    ["arvo bold", "second"],
    ["zilla slab bold", "text"],
  ])
    await fetch(`${url}/api/v1/briefs/${briefId}/kept/${await styleOf(q)}`, {
      method: "PUT",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ role }),
    });
  const shot = async (path, name, act, folder = out) => {
    await page.goto(`${url}/b/${briefId}/${path}`);
    await page.waitForLoadState("networkidle");
    await page.waitForTimeout(800);
    await act?.();
    await page.waitForTimeout(700);
    await page.screenshot({ path: `${folder}/${name}.png` });
    console.log(`${folder}/${name}.png`);
  };
  /** Hull letters on an arc. */
  const drawLettering = async () => {
    const hull = "../b_hull-letters/letter";
    for (const q of ["kaushan script", "lobster", "rokkitt extrabold"])
      await fetch(`${url}/api/v1/briefs/b_hull-letters/kept/${await styleOf(q)}`, { method: "PUT", body: "{}" });
    await shot(hull, "letter", async () => {
      await page.getByRole("button", { name: "Start lettering" }).click();
      await page.getByRole("button", { name: /^Lies on/ }).click();
      await page.getByRole("option", { name: "an arc, outside" }).click();
      await page.getByLabel("Radius").waitFor();
      await page.waitForTimeout(1500);
      await page.getByRole("button", { name: "Fit to the letters" }).click();
      await page.getByRole("button", { name: /^Letter &/ }).click();
      await page.waitForTimeout(1500);
    });
  };
  /** Titles of the film: poses over a frame of it, and the film that was made of them. */
  const drawMotion = async () => {
    const film = "../b_keepers-of-the-lamp/letter";
    const face = await styleOf("commissioner variable");
    await fetch(`${url}/api/v1/briefs/b_keepers-of-the-lamp/kept/${face}`, { method: "PUT", body: "{}" });
    const form = new FormData();
    form.set("image", new Blob([await drawHarbour(browser)], { type: "image/png" }), "harbour.png");
    await fetch(`${url}/api/v1/briefs/b_keepers-of-the-lamp/picture`, { method: "PUT", body: form });
    await shot(`${film}?way=move`, "move", async () => {
      await page.getByRole("button", { name: "Start lettering" }).click();
      await page.getByRole("button", { name: "thin and heavy" }).click();
      await page.getByRole("button", { name: "Begin in another way" }).click();
      await page.getByRole("button", { name: "Lamp is lit" }).click();
      await page.getByRole("button", { name: "Keep this motion" }).click();
      await page.getByRole("button", { name: /^Over/ }).click();
      await page.getByRole("option", { name: "the brief’s picture" }).click();
      await page.getByLabel("16:9", { exact: true }).check();
      await page.locator("[data-contrast]").waitFor();
      await page.waitForTimeout(1500);
      await page.getByLabel("Time", { exact: true }).fill("800");
    });
    await shot(`${film}?way=save`, "move-out", async () => {
      await page.getByRole("button", { name: "Make WebM" }).click();
      await page.locator("[data-made=done]").waitFor({ timeout: 90_000 });
      await page.getByRole("button", { name: "Hand to the cutting room" }).click();
      await page.locator("[data-taken]").waitFor();
      await page.locator("[data-taken]").scrollIntoViewIfNeeded();
    });
  };
  await shot("brief", "brief");
  await shot("find?q=sturdy%20slab%20with%20an%20ampersand,%20to%20sell%20with", "find");
  await shot("find?view=map&q=harvest%20fair", "map", async () => {
    await page.locator("[data-map-face] [data-face=ready]").first().waitFor();
    await page.locator("[data-map]").focus();
    for (const key of ["+", "+", "+", "ArrowRight", "ArrowDown"]) await page.keyboard.press(key);
    await page.waitForTimeout(2000);
  });
  await shot(`style/${await styleOf("fraunces variable")}`, "style");
  await shot("identify", "identify", async () => {
    const picture = await drawPlate(browser, await styleOf("abril fatface"));
    await page
      .locator("input[type=file]")
      .setInputFiles({ name: "harbour-plate.png", mimeType: "image/png", buffer: picture });
    await page.locator("[data-match] [data-face=ready]").first().waitFor({ timeout: 60_000 });
  });
  await shot("shortlist", "shortlist");
  await shot("hand-over", "hand-over", async () => {
    await page.getByRole("button", { name: /Make the archive/ }).click();
    await page.getByRole("link", { name: "Save zip" }).waitFor({ timeout: 60_000 });
    // The message goes by itself after a while.
    const close = page.getByRole("button", { name: "Close" });
    if (await close.isVisible()) await close.click();
  });
  await fetch(`${libraries.url}/faults/commons`, { method: "PUT", body: JSON.stringify({ down: true }) });
  await fetch(`${url}/api/v1/libraries/tidewrack-commons/sync`, { method: "POST" });
  await page.waitForTimeout(1500);
  await shot("libraries", "libraries");
  const tabOf = async (name) => {
    await page.getByRole("tab", { name }).click();
    await page
      .locator("[role=tabpanel]:not([hidden])")
      .last()
      .evaluate((e) => e.parentElement.scrollIntoView());
  };
  await shot(`style/${await styleOf("bytebuoy")}`, "rights", () => tabOf("Terms"));
  const compared = await Promise.all(["zilla slab bold", "arvo bold", "rokkitt extrabold"].map(styleOf));
  await shot(`compare?faces=${compared.join(",")}`, "compare", () =>
    page.locator('[data-column="2"] [data-face=ready]').nth(3).waitFor(),
  );
  await shot("compare/two-by-two", "two-by-two", async () => {
    for (const key of ["ArrowUp", "ArrowDown", "ArrowUp"]) {
      await page.keyboard.press(key);
      await page.waitForTimeout(400);
    }
  });
  await shot(`compare/companions?of=${compared[1]}`, "companions", () =>
    page.locator("[data-pair] [data-face=ready]").nth(7).waitFor(),
  );
  await drawClientPage(page);
  await shot("find?q=handwritten%20not%20joined", "sorting-through", async () => {
    await page.getByRole("button", { name: /^Review one by one/ }).click();
    await page.getByRole("menuitem", { name: /^Start with these/ }).click();
    await page.locator("[data-face-name]").waitFor();
    for (const key of [" ", "x", "ArrowRight", "x", " ", "ArrowRight"]) await page.keyboard.press(key);
    await page.waitForTimeout(1200);
  });
  await drawLettering();
  await drawMotion();
  await page.goto(url);
  await page.locator("[data-brief] [data-face=ready]").first().waitFor();
  await page.waitForTimeout(600);
  await page.screenshot({ path: join(out, "all-briefs.png") });
  await page.evaluate(() => localStorage.setItem("theme", "night"));
  const drawPosterFaces = async () => {
    const poster = await drawPoster(browser, [
      ["Skerrow Light", await styleOf("titan one"), 84],
      ["An evening among lamps", await styleOf("lora bold"), 44],
      ["Friday 12 June, 7 pm", await styleOf("barlow condensed semibold"), 52],
      ["Doors open at six", await styleOf("lora bold"), 38],
    ]);
    await page.getByRole("button", { name: /^New, and kept/ }).click();
    await page
      .getByLabel("Picture", { exact: true })
      .first()
      .setInputFiles({ name: "open-night.png", mimeType: "image/png", buffer: poster });
    await page.getByRole("button", { name: /^Identify all/ }).click({ timeout: 60_000 });
    await page.getByText("3 faces on 4 lines.").waitFor({ timeout: 60_000 });
  };
  if (keptByTests) {
    await shot("identify", "night", drawPosterFaces, keptByTests);
    await layOutThings(keptByTests);
  }
  await browser.close();
} finally {
  libraries.stop();
  await stopServer(server);
  if (!process.env.PICTURES_DATA) rmSync(data, { recursive: true, force: true });
}

/** Six views of Identify at half their size, in one picture. */
async function layOutThings(folder) {
  const [w, h, gap] = [640, 400, 6];
  const views = await Promise.all(
    ["mug", "sign", "film", "poster", "scan", "night"].map((name) =>
      sharp(join(folder, `${name}.png`))
        .resize(w, h)
        .png()
        .toBuffer(),
    ),
  );
  const at = (i) => ({ left: gap + (i % 2) * (w + gap), top: gap + Math.floor(i / 2) * (h + gap) });
  await sharp({ create: { width: 2 * w + 3 * gap, height: 3 * h + 4 * gap, channels: 3, background: "#d8d0c2" } })
    .composite(views.map((input, i) => ({ input, ...at(i) })))
    .png({ palette: true })
    .toFile(join(out, "identify-things.png"));
}

/** The page that a client gets, as it stands on a wide screen. */
async function drawClientPage(page) {
  const asked = { method: "POST", headers: { "content-type": "application/json" } };
  const body = JSON.stringify({ mayComment: true, days: 14 });
  const share = await (await fetch(`${url}/api/v1/briefs/${briefId}/shares`, { ...asked, body })).json();
  await page.goto(share.url);
  await page.evaluate(() => document.fonts.ready);
  await page.screenshot({ path: join(out, "client.png") });
}

/** A frame of the film: the harbour at night, in fog, and the lamp. */
async function drawHarbour(browser) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 720 } });
  await page.setContent(`<body style="margin:0"><svg width="1280" height="720"><defs>
    <linearGradient id="sky" x2="0" y2="1"><stop stop-color="#141c24"/><stop offset="1" stop-color="#43525c"/></linearGradient>
    <radialGradient id="lamp"><stop stop-color="#ffe9b0"/><stop offset=".12" stop-color="#d9a54a" stop-opacity=".7"/><stop offset="1" stop-color="#d9a54a" stop-opacity="0"/></radialGradient></defs>
    <rect width="1280" height="720" fill="url(#sky)"/><rect y="520" width="1280" height="200" fill="#10181e"/>
    <path d="M0 520L220 470L420 512L700 486L1280 520Z" fill="#0c1318"/><path d="M1012 500L1028 250H1062L1078 500Z" fill="#1b262d"/>
    <circle cx="1045" cy="236" r="330" fill="url(#lamp)"/><path d="M960 530H1130L1180 720H900Z" fill="#d9a54a" opacity=".12"/></svg>`);
  const png = await page.screenshot();
  await page.close();
  return png;
}

/** A poster with lines in several faces. @param lines - words, style and size in pixels of each. */
async function drawPoster(browser, lines) {
  const page = await browser.newPage();
  const faces = lines.map(
    ([, styleId], i) => `@font-face{font-family:f${i};src:url(${url}/api/v1/styles/${styleId}/file)}`,
  );
  const set = lines.map(([words, , size], i) => `<p style="margin:0 0 34px;font:${size}px/1.15 f${i}">${words}</p>`);
  await page.goto(`${url}/api/v1/health`);
  await page.setContent(
    `<style>${faces.join("")}#poster{width:760px;padding:40px 30px;background:#f1e7d2;color:#23303c;text-align:center}</style><div id=poster>${set.join("")}</div>`,
  );
  await page.evaluate(() => document.fonts.ready);
  const picture = await page.locator("#poster").screenshot();
  await page.close();
  return picture;
}

/** A painted plate on a wall, hung a little askew. */
async function drawPlate(browser, styleId) {
  const font = Buffer.from(await (await fetch(`${url}/api/v1/styles/${styleId}/file`)).arrayBuffer()).toString(
    "base64",
  );
  const page = await browser.newPage();
  await page.setContent(`<style>@font-face{font-family:f;src:url(data:font/woff2;base64,${font})}
    #w{width:1100px;height:480px;display:grid;place-items:center;background:linear-gradient(115deg,#dfd3b8,#b9a98a)}
    #t{font:150px f;color:#1e2f3a;transform:rotate(-4.2deg);white-space:pre}</style><div id=w><div id=t>Fog Bell</div></div>`);
  await page.evaluate(() => document.fonts.ready);
  const png = await page.locator("#w").screenshot();
  await page.close();
  return png;
}
