// Identify as a person uses it: drop, frame one of two lines, correct, go through matches by keys, keep, lay over.
import { beforeAll, describe, expect, test } from "@jest/globals";
import { api, drawByBrowser, makeBrief, openBrowser, styleNamed, url } from "./browser";

const browser = openBrowser();
let briefId = "";
beforeAll(async () => {
  briefId = await makeBrief({ name: "Identify test" });
});

const first = () => browser.page.locator("[data-match]").first().getAttribute("data-match");
const settled = async () => {
  await browser.page.getByText("Comparing every style").waitFor({ state: "hidden", timeout: 40_000 });
  await browser.page.locator("[data-match]").first().waitFor({ timeout: 40_000 });
};

/** Two lines in two faces, one below the other. */
async function twoLines(): Promise<Buffer> {
  const { default: sharp } = await import("sharp");
  const upper = await drawByBrowser(browser.context, (await styleNamed("oswald bold")).styleId, "HARBOUR");
  const lower = await drawByBrowser(
    browser.context,
    (await styleNamed("pacifico")).styleId,
    "Evening",
    "font-size:48px",
  );
  const [a, b] = [await sharp(upper).metadata(), await sharp(lower).metadata()];
  const width = Math.max(a.width!, b.width!);
  return sharp({ create: { width, height: a.height! + b.height!, channels: 3, background: "#fff" } })
    .composite([
      { input: upper, left: 0, top: 0 },
      { input: lower, left: 0, top: a.height! },
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
    await page.goto(`/b/${briefId}/identify`);
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
    const box = (await image.boundingBox())!;
    await page.mouse.move(box.x + 6, box.y + box.height * 0.58);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width - 8, box.y + box.height - 6, { steps: 6 });
    await page.mouse.up();
    await page.getByLabel("Read as").fill("Evening");
    await page.getByRole("button", { name: "Identify what is framed" }).click();
    await settled();
    expect(await first()).toBe("Pacifico Regular");
    await page.getByText("whole words were compared").waitFor();
  });
});

describe("matches", () => {
  test("a wrong reading is corrected by typing", async () => {
    const { page, context } = browser;
    await page.goto(`/b/${briefId}/identify`);
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

  test("pasting a picture begins anew; pasting text says why not", async () => {
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
    await page.getByText("pasted.png", { exact: true }).waitFor();
    await settled();
    // A joined script is often misread: the reading is a suggestion.
    await page.getByLabel("Read as").fill("Lantern");
    await page.getByRole("button", { name: "Compare again" }).click();
    await settled();
    expect(await first()).toBe("Lobster Regular");
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
    const zip = new Uint8Array(await (await fetch(`${url()}${await link.getAttribute("href")}`)).arrayBuffer());
    expect(Object.keys(unzipSync(zip)).sort()).toEqual([
      "credits.txt",
      "licences/Karla.txt",
      "rights.spdx.json",
      "shortlist.csv",
      "sources.csv",
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
    const response = await fetch(`${url()}/api/v1/briefs/${own}/shortlist`);
    expect(response.headers.get("content-disposition")).toContain("List test shortlist.csv");
    const csv = await response.text();
    expect(csv.split("\r\n")[1]).toContain("Karla");
    expect(csv).toContain("'=1+1");
  });
});
