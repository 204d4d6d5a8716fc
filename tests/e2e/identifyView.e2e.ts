// Identify as a person uses it: drop, frame one of two lines, correct, go through matches by keys, keep, lay over.
import { beforeAll, describe, expect, test } from "@jest/globals";
import type { BrowserContext } from "playwright-core";
import { VERDICT_WORDS } from "@/contracts/words";
import {
  api,
  boxOf,
  drawByBrowser,
  fetchAgain,
  fontOf,
  makeBrief,
  openBrowser,
  startIdentify,
  styleNamed,
  url,
} from "./browser";

const browser = openBrowser();
let briefId = "";
beforeAll(async () => {
  briefId = await makeBrief({ name: "Identify test" });
});

const first = () => browser.page.locator("[data-match]").first().getAttribute("data-match");
const settled = async () => {
  await browser.page.getByText("Comparing every style").waitFor({ state: "hidden", timeout: 240_000 });
  await browser.page.locator("[data-match]").first().waitFor({ timeout: 240_000 });
};

/** Two lines in two faces, one below the other. */
async function twoLines(second = "pacifico"): Promise<Buffer> {
  const { default: sharp } = await import("sharp");
  const upper = await drawByBrowser(browser.context, (await styleNamed("oswald bold")).styleId, "HARBOUR");
  const lower = await drawByBrowser(browser.context, (await styleNamed(second)).styleId, "Evening", "font-size:48px");
  const [a, b] = [await sharp(upper).metadata(), await sharp(lower).metadata()];
  const width = Math.max(a.width, b.width);
  return sharp({ create: { width, height: a.height + b.height, channels: 3, background: "#fff" } })
    .composite([
      { input: upper, left: 0, top: 0 },
      { input: lower, left: 0, top: a.height },
    ])
    .png()
    .toBuffer();
}

describe("a picture with two lines", () => {
  let picture: Buffer;
  beforeAll(async () => {
    picture = await twoLines();
  });

  test("dropped, the heavier line is read and named", async () => {
    const { page } = browser;
    await startIdentify(browser.page, briefId);
    const data = await page.evaluateHandle((base64) => {
      const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
      const transfer = new DataTransfer();
      transfer.items.add(new File([bytes], "two.png", { type: "image/png" }));
      return transfer;
    }, picture.toString("base64"));
    await page.getByText("Which face is this?").dispatchEvent("drop", { dataTransfer: data });
    await settled();
    expect(await page.getByLabel("Read as").inputValue()).toBe("HARBOUR");
    expect(await first()).toBe("Oswald Bold");
  });

  test("framed, the other line is read", async () => {
    const { page } = browser;
    const image = page.getByAltText(/^Picture two.png/);
    const box = await boxOf(image);
    await page.mouse.move(box.x + 6, box.y + box.height * 0.58);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width - 8, box.y + box.height - 6, { steps: 6 });
    await page.mouse.up();
    await page.getByLabel("Read as").fill("Evening");
    await page.getByRole("button", { name: "Identify selection" }).click();
    await settled();
    expect(await first()).toBe("Pacifico Regular");
    await page.getByText("whole words were compared").waitFor();
  });
});

describe("lines that were found", () => {
  test("are numbered in the picture; choosing one asks about it alone", async () => {
    const { page } = browser;
    await startIdentify(browser.page, briefId);
    await page.locator("input[type=file]").setInputFiles({
      name: "two.png",
      mimeType: "image/png",
      buffer: await twoLines("spectral bold"),
    });
    await settled();
    const lines = page.locator("[data-area]");
    await lines.nth(1).waitFor();
    expect(await lines.count()).toBe(2);
    await page.getByRole("button", { name: "Line 2 of lettering: identify it" }).click();
    await page.waitForTimeout(300);
    await settled();
    expect(await first()).toBe("Spectral Bold");
  });
});

describe("perspective", () => {
  test("four corners are pulled to a sign seen from the side", async () => {
    const { page, context } = browser;
    const { styleId } = await styleNamed("zilla slab bold");
    await startIdentify(browser.page, briefId);
    const picture = await slanted(context, styleId, "Harbour Plate");
    await page
      .locator("input[type=file]")
      .setInputFiles({ name: "sign.png", mimeType: "image/png", buffer: picture.png });
    // The corners will be given: the answer to the whole is not waited for.
    await page.getByRole("button", { name: "Cancel" }).click();
    await page.getByRole("button", { name: "Fix perspective" }).click();
    const box = await boxOf(page.getByAltText(/^Picture sign.png/));
    for (const [k, { x, y }] of picture.corners.entries()) {
      const handle = await boxOf(page.locator(`[data-corner="${k}"]`));
      await page.mouse.move(handle.x + handle.width / 2, handle.y + handle.height / 2);
      await page.mouse.down();
      await page.mouse.move(box.x + (x / picture.width) * box.width, box.y + (y / picture.height) * box.height, {
        steps: 4,
      });
      await page.mouse.up();
    }
    await page.getByLabel("Read as").fill("Harbour Plate");
    await page.getByRole("button", { name: "Identify selection" }).click();
    await page.waitForTimeout(200);
    await settled();
    expect(await first()).toBe("Zilla Slab Bold");
  });

  test("a corner moves by arrow keys", async () => {
    const { page } = browser;
    const corner = page.getByRole("button", { name: /^Corner bottom right/ });
    const before = await boxOf(corner);
    await corner.focus();
    for (let i = 0; i < 3; i++) await page.keyboard.press("Shift+ArrowLeft");
    expect((await boxOf(corner)).x).toBeLessThan(before.x);
  });
});

describe("not in the libraries", () => {
  test("lettering that no face set is told so", async () => {
    const { page } = browser;
    await startIdentify(browser.page, briefId);
    await page.locator("input[type=file]").setInputFiles({
      name: "cut.png",
      mimeType: "image/png",
      buffer: await cutLetters(),
    });
    await page.getByRole("button", { name: "Cancel" }).click();
    await page.getByLabel("Read as").fill("HILT");
    await page.getByRole("button", { name: "Compare again" }).click();
    await page.waitForTimeout(200);
    await settled();
    await page.locator("[data-answer]").getByText("Probably not in your libraries.").waitFor();
    // What looks alike comes first, with its verdict and price beside it.
    await page.getByRole("heading", { name: /^Nearest by look: [a-z, ]+ first$/ }).waitFor();
    const verdicts = new RegExp(`^(${Object.values(VERDICT_WORDS).join("|")})$`);
    await page.locator("[data-match]").first().getByTitle(verdicts).waitFor();
  });
});

/** A sign seen from the side, and where the corners of its board came to lie. */
async function slanted(context: BrowserContext, styleId: string, text: string) {
  const page = await context.newPage();
  const font = await fontOf(styleId);
  await page.setContent(
    `<style>@font-face{font-family:probe;src:url(data:font/woff2;base64,${font.toString("base64")})}
     body{margin:0;background:#f4f0e8}#g{padding:60px;width:700px;height:260px;perspective:700px}
     #t{position:relative;display:inline-block;font:72px probe;padding:30px 36px;color:#223;white-space:pre;transform:rotateY(38deg) rotateX(14deg)}
     i{position:absolute;width:0;height:0}</style><div id=g><div id=t>${text}<i style="left:0;top:0"></i><i style="right:0;top:0"></i><i style="right:0;bottom:0"></i><i style="left:0;bottom:0"></i></div></div>`,
  );
  await page.evaluate(() => document.fonts.load("72px probe"));
  const corners = await page.locator("#t i").evaluateAll((list) =>
    list.map((e) => {
      const { x, y } = e.getBoundingClientRect();
      return { x, y };
    }),
  );
  const { width, height } = await boxOf(page.locator("#g"));
  const png = await page.locator("#g").screenshot();
  await page.close();
  return { png, width, height, corners };
}

/** Letters of triangles and bars that are in no library. */
async function cutLetters(): Promise<Buffer> {
  const { default: sharp } = await import("sharp");
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="640" height="220"><rect width="640" height="220" fill="#fff"/>
    <path d="M40 30 L70 30 L58 100 L112 100 L100 30 L150 30 L130 190 L104 190 L112 126 L62 126 L84 190 L30 190Z"/>
    <path d="M200 30 L262 60 L228 190 L180 170Z"/><path d="M310 30 L340 40 L322 150 L420 120 L410 190 L290 180Z"/>
    <path d="M450 60 L600 30 L590 64 L544 70 L560 190 L520 180 L516 74 L456 92Z"/></svg>`;
  return sharp(Buffer.from(svg)).png().toBuffer();
}

describe("matches", () => {
  test("a wrong reading is corrected by typing", async () => {
    const { page, context } = browser;
    await startIdentify(browser.page, briefId);
    const { styleId } = await styleNamed("spectral bold");
    await page.locator("input[type=file]").setInputFiles({
      name: "quay.png",
      mimeType: "image/png",
      buffer: await drawByBrowser(context, styleId, "Salt Quay 7"),
    });
    await settled();
    await page.getByLabel("Read as").fill("Salt Quay 7");
    await page.getByLabel("Read as").press("Enter");
    await settled();
    expect(await first()).toBe("Spectral Bold");
    const letters = await page.getByRole("list", { name: "Agreement of each letter" }).locator("li").allInnerTexts();
    expect(letters.map((l) => l[0]).join("")).toBe("SaltQuay7");
  });

  test("arrows go through them, the foot line tells, O lays over and away", async () => {
    const { page } = browser;
    await page.locator("body").click({ position: { x: 700, y: 90 } });
    const second = await page.locator("[data-match]").nth(1).getAttribute("data-match");
    await page.keyboard.press("ArrowDown");
    await page.getByRole("contentinfo").getByText(second!).waitFor();
    const slider = page.getByLabel("From picture to face");
    await page.keyboard.press("o");
    expect(await slider.inputValue()).toBe("0");
    await page.keyboard.press("o");
    expect(await slider.inputValue()).toBe("50");
    await page.keyboard.press("ArrowUp");
  });

  test("Space keeps the one in focus, U lets it go", async () => {
    const { page } = browser;
    await page.keyboard.press("Space");
    await page.getByRole("complementary", { name: "Kept" }).getByText("Spectral Bold").waitFor();
    await page.waitForTimeout(500);
    expect((await api<{ kept: unknown[] }>(`/briefs/${briefId}`)).body.kept).toHaveLength(1);
    await page.keyboard.press("u");
    await page.waitForTimeout(500);
    expect((await api<{ kept: unknown[] }>(`/briefs/${briefId}`)).body.kept).toHaveLength(0);
  });

  test("a pasted picture opens beside the first; pasting text says why not", async () => {
    const { page, context } = browser;
    const picture = await drawByBrowser(context, (await styleNamed("lobster")).styleId, "Lantern");
    const paste = (base64: string | null) =>
      page.evaluate((data) => {
        const transfer = new DataTransfer();
        if (data)
          transfer.items.add(
            new File([Uint8Array.from(atob(data), (c) => c.charCodeAt(0))], "pasted.png", { type: "image/png" }),
          );
        else transfer.setData("text/plain", "words");
        document.body.dispatchEvent(new ClipboardEvent("paste", { clipboardData: transfer, bubbles: true }));
      }, base64);
    await paste(null);
    await page.getByText("The clipboard holds no picture.").waitFor();
    await paste(picture.toString("base64"));
    const own = page.locator("[data-case='pasted.png']");
    await own.locator("[data-match]").first().waitFor({ timeout: 240_000 });
    // A joined script is often misread: the reading is a suggestion.
    await own.getByLabel("Read as").fill("Lantern");
    await own.getByRole("button", { name: "Compare again" }).click();
    // What was misread may have it further down: it comes first once the words are right.
    const first = "[data-case='pasted.png'] [data-match]";
    await page.waitForFunction(
      (at) => document.querySelector(at)?.getAttribute("data-match") === "Lobster Regular",
      first,
      { timeout: 40_000 },
    );
    await page.getByRole("list", { name: "Pictures" }).getByRole("button", { name: "quay.png", exact: true }).click();
    expect(await own.isVisible()).toBe(false);
    await page.getByRole("button", { name: "Close pasted.png" }).click();
    expect(await page.locator("[data-case]").count()).toBe(1);
  });
});

describe("hand over", () => {
  test("only what is ticked goes into the archive; a lacking character is told before", async () => {
    const { page } = browser;
    const own = await makeBrief({ name: "Thin archive", lines: [{ text: "☃ Quay", role: "title" }], uses: ["web"] });
    const { styleId } = await styleNamed("karla bold");
    await api(`/briefs/${own}/kept/${styleId}`, { method: "PUT", json: { role: "title" } });
    await page.goto(`/b/${own}/hand-over`);
    await page.getByText(/It lacks ☃ \(snowman, U\+2603\)\./).waitFor();
    await page.getByText(/allowed when the credit or licence goes along/).waitFor();
    for (const part of ["Font files", "Contact sheet"]) await page.getByLabel(new RegExp(part)).uncheck();
    await page.getByRole("button", { name: "Make the archive (1 face)" }).click();
    const link = page.getByRole("link", { name: "Save zip" });
    await link.waitFor({ timeout: 40_000 });
    const { unzipSync } = await import("fflate");
    const zip = new Uint8Array(await (await fetchAgain(`${url()}${await link.getAttribute("href")}`)).arrayBuffer());
    expect(Object.keys(unzipSync(zip)).sort()).toEqual([
      "brief.json",
      "credits.txt",
      "licences/Karla.txt",
      // It came cut by character: said, and all of it inside.
      "notes.txt",
      "rights.spdx.json",
      "shortlist.csv",
      "sources.csv",
      "tokens.json",
      "web/Karla Bold - Latin.woff2",
      "web/Karla Bold.woff2",
    ]);
  });

  test("the job is listed with its file", async () => {
    const { page } = browser;
    await page.getByRole("link", { name: "Jobs" }).click();
    const row = page.getByRole("listitem").filter({ hasText: "Hand over Thin archive" });
    await row.getByText(/Done · \d+ of \d+/).waitFor();
    expect(await row.getByRole("link", { name: "Save" }).getAttribute("href")).toMatch(
      /^\/api\/v1\/jobs\/j_[0-9a-f]+\/file$/,
    );
  });

  test("the list is saved as CSV", async () => {
    const { body } = await api<{ items: { styleId: string }[] }>("/styles?q=karla&limit=1");
    const own = await makeBrief({ name: "List test" });
    await api(`/briefs/${own}/kept/${body.items[0]!.styleId}`, { method: "PUT", json: { role: "text", note: "=1+1" } });
    const response = await fetchAgain(`${url()}/api/v1/briefs/${own}/shortlist`);
    expect(response.headers.get("content-disposition")).toContain("List test shortlist.csv");
    const csv = await response.text();
    expect(csv.split("\r\n")[1]).toContain("Karla");
    expect(csv).toContain("'=1+1");
  });
});
