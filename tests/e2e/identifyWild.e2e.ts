// Pictures as clients send them: a frame of a film whose ink is corrected by one click, a poster with several faces, a mug, a sign seen
// from the side; what is told on the way to an answer, and giving a question up. With FOND_QUARRY_PICTURES=folder each is kept there as it looked.
import { join } from "node:path";
import { beforeAll, describe, expect, test } from "@jest/globals";
import { PDFDocument } from "pdf-lib";
import sharp from "sharp";
import { expectNoAxeFaults, makeBrief, openBrowser, startIdentify, styleNamed, waitUntil } from "./browser";
import { filmTitle, hangSign, setPoster, wrapMug } from "./scenes";

const browser = openBrowser();
let briefId = "";
beforeAll(async () => {
  briefId = await makeBrief({ name: "Pictures from outside" });
});
const idOf = async (name: string) => (await styleNamed(name)).styleId;
const settled = async () => {
  await browser.page.locator("[data-answer]").filter({ hasNotText: "Comparing" }).waitFor({ timeout: 240_000 });
};
const first = () => browser.page.locator("[data-match]").first().getAttribute("data-match");

/** @param isFramed - a line of it will be framed: the answer to the whole is not waited for. */
async function show(name: string, picture: Buffer, isFramed = false) {
  await startIdentify(browser.page, briefId);
  await browser.page
    .getByLabel("Picture", { exact: true })
    .setInputFiles({ name, mimeType: "image/jpeg", buffer: picture });
  if (isFramed) await browser.page.getByRole("button", { name: "Cancel" }).click();
  else await settled();
}

const PICTURES = process.env.FOND_QUARRY_PICTURES;
/** Keeps what the page shows, where pictures are wanted. */
async function keep(name: string) {
  if (!PICTURES) return;
  await browser.page.waitForTimeout(1200);
  await browser.page.screenshot({ path: join(PICTURES, `${name}.png`) });
}

type Box = { x: number; y: number; width: number; height: number };
/** Where a place of the picture stands on the page. */
async function placer() {
  const image = browser.page.locator("img[alt^='Picture']");
  const shown = (await image.boundingBox())!;
  const [w, h] = await image.evaluate((i: HTMLImageElement) => [i.naturalWidth, i.naturalHeight] as const);
  return (x: number, y: number): [number, number] => [
    shown.x + (x * shown.width) / w,
    shown.y + (y * shown.height) / h,
  ];
}
async function frame({ x, y, width, height }: Box, words: string) {
  const { page } = browser;
  const at = await placer();
  await page.mouse.move(...at(x, y));
  await page.mouse.down();
  await page.mouse.move(...at(x + width, y + height), { steps: 6 });
  await page.mouse.up();
  await page.getByLabel("Read as").fill(words);
  await page.getByRole("button", { name: "Compare again" }).click();
  await settled();
}

describe("a frame of a film", () => {
  test("one click on a letter tells its fill from its outline and from what moves behind it", async () => {
    const { page, context } = browser;
    const film = await filmTitle(context, await idOf("zilla slab bold"), "Harbour Film");
    await show("film.jpg", film.picture, true);
    await frame(film.box, "Harbour Film");
    // Its rim and what is dark behind it: not the letters.
    await page.getByLabel("Letters:").selectOption("dark");
    await settled();
    expect(await page.locator("[data-cuts]").getAttribute("data-cuts")).not.toBe("11");
    await page.getByRole("button", { name: "Letter colour" }).click();
    const at = await placer();
    await page.mouse.click(...at(film.onLetter.x, film.onLetter.y));
    await page.getByText("Comparing every style").waitFor();
    await settled();
    // The question that was asked before may end meanwhile.
    await waitUntil(async () => (await first()) === "Zilla Slab Bold");
    expect(await page.locator("[data-cuts]").getAttribute("data-cuts")).toBe("11");
    expect(await page.getByLabel("Letters:").inputValue()).toBe("picked");
    await expectNoAxeFaults(page);
    await keep("film");
  });

  test("the click is taken back, and what is rubbed out is left out", async () => {
    const { page } = browser;
    const ink = page.getByRole("group", { name: "Ink" });
    await page.getByRole("button", { name: "Erase" }).click();
    await page.getByLabel("Brush size").fill("10");
    const at = await placer();
    // The second word.
    await page.mouse.move(...at(440, 212));
    await page.mouse.down();
    await page.mouse.move(...at(640, 212), { steps: 12 });
    await page.mouse.up();
    await settled();
    await waitUntil(async () => Number(await page.locator("[data-cuts]").getAttribute("data-cuts")) < 11);
    await ink.getByRole("button", { name: "Undo" }).click();
    await settled();
    expect(await page.locator("[data-cuts]").getAttribute("data-cuts")).toBe("11");
    await ink.getByRole("button", { name: "Reset" }).click();
    await settled();
    expect(await page.getByLabel("Letters:").inputValue()).toBe("found");
  });

  test("a colour is picked with the keys alone, and stays after a reload", async () => {
    const { page } = browser;
    await page.getByRole("button", { name: "Letter colour" }).focus();
    await page.keyboard.press("Enter");
    const marks = page.locator("[data-ink-tool='letter']");
    await marks.focus();
    const [left, up] = [Math.round((720 / 2 - 157) / 4), Math.round((404 / 2 - 214) / 4)];
    for (let k = 0; k < left; k++) await page.keyboard.press("ArrowLeft");
    for (let k = 0; k < Math.abs(up); k++) await page.keyboard.press(up > 0 ? "ArrowUp" : "ArrowDown");
    await page.keyboard.press("Enter");
    await page.getByText("Comparing every style").waitFor();
    await settled();
    const answer = await first();
    // A pixel beside the place that was clicked: neighbouring weights may change places.
    expect(answer).toMatch(/^Zilla Slab (Semi)?Bold$/);
    // What was picked is saved after the answer.
    await page.waitForLoadState("networkidle");
    await page.reload();
    await page.locator("[data-match]").first().waitFor();
    expect(await page.getByLabel("Letters:").inputValue()).toBe("picked");
    expect(await first()).toBe(answer);
  });
});

describe("a poster", () => {
  test("its faces are answered in one go, lines in the same face together", async () => {
    const { page, context } = browser;
    const lora = await idOf("lora bold");
    const poster = await setPoster(context, [
      { styleId: await idOf("titan one regular"), words: "Harbour Light", sizePx: 84 },
      { styleId: lora, words: "Lamps along the pier", sizePx: 44 },
      { styleId: await idOf("barlow condensed semibold"), words: "Friday 12 June, 7 pm", sizePx: 52 },
      { styleId: lora, words: "Doors open at six", sizePx: 38 },
    ]);
    await show("poster.jpg", poster);
    await page.getByRole("button", { name: "Identify all 4 lines" }).click();
    await page.getByText("3 faces on 4 lines.").waitFor({ timeout: 120_000 });
    const names = await page
      .locator("[data-match]")
      .evaluateAll((rows) => rows.map((r) => r.getAttribute("data-match")));
    expect(names).toEqual(["Titan One Regular", "Lora Bold", "Barlow Condensed SemiBold"]);
    expect(
      await page
        .locator("[data-match='Lora Bold']")
        .getByRole("button", { name: /^Open line/ })
        .count(),
    ).toBe(2);
    await expectNoAxeFaults(page);
    await keep("poster");
  });

  test("a line opens by itself, and leads back to all", async () => {
    const { page } = browser;
    await page.getByRole("button", { name: /^Open line 3/ }).click();
    await page.locator("[data-answer]").waitFor();
    expect(await first()).toBe("Barlow Condensed SemiBold");
    await page.getByRole("button", { name: "Back to all 4 lines" }).click();
    await page.getByText("3 faces on 4 lines.").waitFor();
  });
});

describe("things", () => {
  test("lettering around a mug is compared as from the front", async () => {
    const { context, page } = browser;
    const mug = await wrapMug(context, await idOf("vollkorn bold"), "Harbour");
    await show("mug.jpg", mug.picture, true);
    await frame(mug.box, "Harbour");
    expect(await first()).toMatch(/^Vollkorn/);
    // Which of the ways from the front comes nearest is left open.
    await page
      .getByText(/(Unrolled from a curved surface|Curved line straightened|Perspective corrected) before/)
      .waitFor();
    await keep("mug");
  });

  test("a sign seen from the side is answered without a corner being touched", async () => {
    const { context } = browser;
    await show("sign.jpg", await hangSign(context, await idOf("josefin sans bold"), "Quayside"));
    expect(await first()).toMatch(/^Josefin Sans/);
    await keep("sign");
  });
});

describe("a scanned page of a PDF", () => {
  test("is opened from the list of a document, and its lettering identified", async () => {
    const { page, context } = browser;
    const scan = await setPoster(context, [
      { styleId: await idOf("arvo bold"), words: "Harbour Dues", sizePx: 76 },
      { styleId: await idOf("arvo regular"), words: "payable at the lamp house", sizePx: 40 },
    ]);
    const pdf = await PDFDocument.create();
    const image = await pdf.embedJpg(await sharp(scan).modulate({ saturation: 0.2 }).jpeg({ quality: 70 }).toBuffer());
    pdf.addPage([image.width, image.height]).drawImage(image);
    await startIdentify(page, briefId);
    await page.goto(`/b/${briefId}/identify/documents`);
    await page.getByLabel("Documents").setInputFiles({
      name: "dues.pdf",
      mimeType: "application/pdf",
      buffer: Buffer.from(await pdf.save()),
    });
    await page.getByText("no fonts in it").waitFor({ timeout: 60_000 });
    await expectNoAxeFaults(page);
    await page.getByRole("button", { name: "Identify its lettering" }).click();
    await page.waitForURL(/\/identify$/);
    await page.getByRole("button", { name: "dues.pdf, page 1.jpg", exact: true }).waitFor();
    await settled();
    expect(await first()).toBe("Arvo Bold");
    await page.getByRole("button", { name: "Identify all 2 lines" }).click();
    await page.getByText("2 faces on 2 lines.").waitFor({ timeout: 120_000 });
    await keep("scan");
  });
});

describe("on the way to an answer", () => {
  test("the nearest so far and how far it has come are shown, and the question can be given up", async () => {
    const { page, context } = browser;
    const film = await filmTitle(context, await idOf("lora bold"), "Hollow Tide");
    await startIdentify(page, briefId);
    await page
      .getByLabel("Picture", { exact: true })
      .setInputFiles({ name: "tide.jpg", mimeType: "image/jpeg", buffer: film.picture });
    await page.getByRole("progressbar", { name: "Compared so far" }).waitFor();
    await page.getByRole("region", { name: "The ink that is compared" }).waitFor();
    await page.getByRole("button", { name: "Cancel" }).click();
    await page.getByRole("progressbar", { name: "Compared so far" }).waitFor({ state: "hidden" });
    expect(await page.locator("[data-match]").count()).toBe(0);
    // The next question is answered by the same process, at once.
    await page.getByLabel("Read as").fill("Hollow Tide");
    await page.getByRole("button", { name: "Compare again" }).click();
    await page.locator("[data-nearest-so-far] li").first().waitFor({ timeout: 60_000 });
    await settled();
    expect(await page.locator("[data-match]").count()).toBeGreaterThan(0);
  });
});
