// The whole path in one sitting: brief → found → lacking & → kept → identified → contact sheet and archive, opened and checked.
import { describe, expect, test } from "@jest/globals";
import { unzipSync } from "fflate";
import { getDocument } from "pdfjs-dist/legacy/build/pdf.mjs";
import { openFont } from "@/core/open/openFont";
import { makeFont } from "../fixtures/makeFont";
import { api, boxOf, count, drawByBrowser, openBrowser, openWall, saved } from "./browser";

const browser = openBrowser();
const FACES = ["Alfa Slab One Regular", "Zilla Slab Bold", "Rokkitt Black"];
let briefId = "";

async function fontsOfPdf(bytes: Uint8Array): Promise<{ names: string[]; text: string; missing: string[] }> {
  const doc = await getDocument({ data: bytes.slice(), fontExtraProperties: true, verbosity: 0 }).promise;
  const names = new Set<string>();
  const missing = new Set<string>();
  let text = "";
  for (let n = 1; n <= doc.numPages; n++) {
    const page = await doc.getPage(n);
    await page.getOperatorList();
    text += (await page.getTextContent()).items.map((i) => ("str" in i ? i.str : "")).join(" ");
    for (const [, font] of page.commonObjs as unknown as {
      [Symbol.iterator](): Iterator<[string, { name?: string; missingFile?: boolean; data?: Uint8Array }]>;
    }) {
      if (!font?.name) continue;
      names.add(font.name);
      if (font.missingFile || !font.data?.length) missing.add(font.name);
    }
  }
  return { names: [...names], text, missing: [...missing] };
}

describe("from a brief to an archive", () => {
  test("a new brief is made and its words typed", async () => {
    const { page } = browser;
    await openWall(page, "b_open-night-poster");
    await page.getByRole("button", { name: /^Open Night poster/ }).click();
    await page.getByRole("menuitem", { name: "New brief" }).click();
    await page.waitForURL(/\/brief$/);
    briefId = page.url().split("/b/")[1]!.split("/")[0]!;
    await page.getByLabel("Project").fill("Quay market sign");
    await page.getByLabel("Text of line 1").fill("Wren & Tern");
    await page.getByRole("checkbox", { name: "goods for sale" }).check();
    await page.getByRole("checkbox", { name: "print" }).check();
    await page.waitForTimeout(700);
    const { body } = await api<{ name: string; lines: { text: string }[]; uses: string[] }>(`/briefs/${briefId}`);
    expect(body).toMatchObject({
      name: "Quay market sign",
      lines: [{ text: "Wren & Tern" }],
      uses: ["goods-for-sale", "client-print"],
    });
  });

  test("a font of one's own, a heavy slab without &, comes in", async () => {
    const { page } = browser;
    await page.getByRole("link", { name: "Libraries" }).click();
    const font = makeFont({
      family: "Quay Lettering",
      style: "Black",
      stem: 190,
      serif: 60,
      serifThickness: 150,
      without: "&",
    });
    await page.getByRole("tab", { name: "Import" }).click();
    await page
      .locator("input[aria-label='Font files']")
      .setInputFiles({ name: "quay-lettering.otf", mimeType: "font/otf", buffer: Buffer.from(font) });
    await page.locator("[data-outcome=added]").waitFor();
    expect(await page.locator("[data-outcome]").allInnerTexts()).toEqual([
      expect.stringContaining("quay-lettering.otf"),
    ]);
  });

  test("“slab” and “heavy” are found and understood", async () => {
    const { page } = browser;
    await openWall(page, briefId);
    await page.keyboard.press("/");
    await page.keyboard.type("slab heavy");
    await page.locator("[data-understood]", { hasText: "slab serif" }).waitFor();
    await page.waitForFunction(() => Number(document.querySelector("[data-count]")?.textContent?.split(" ")[0]) < 60);
    expect(await count(page)).toBeGreaterThan(8);
    expect(await page.locator("[data-understood]").innerText()).toContain("heavy");
    expect(page.url()).toContain("q=slab");
    type Item = { traits: { weight: number }; kinds: string[]; axisWanted: Record<string, number> };
    const { body } = await api<{ items: Item[] }>(`/styles?q=slab%20heavy&limit=100`);
    for (const item of body.items) {
      expect(item.kinds).toContain("slab");
      // A variable font is heavy where its axis is set so.
      expect(item.traits.weight >= 650 || Object.keys(item.axisWanted).length > 0).toBe(true);
    }
  });

  test("a face without & is shown lacking it, by a box of its own and in words", async () => {
    const { page } = browser;
    await page.getByLabel("Find by name, kind or shape").fill("quay lettering");
    const strip = page.locator("[data-name='Quay Lettering Black']");
    await strip.locator("[data-face=ready]").waitFor();
    expect(await strip.locator("[data-missing]").getAttribute("data-missing")).toBe("&");
    // Names of characters come once the page is idle.
    await strip.locator("[data-missing][aria-label='missing: ampersand']").waitFor();
    expect(await strip.locator("[data-lacks]").innerText()).toBe("no &");
    expect(await strip.getAttribute("aria-label")).toContain("lacks ampersand");
    expect(await strip.locator("[data-sample]").innerText()).not.toContain("&");
    const box = await boxOf(strip.locator("[data-missing]"));
    expect(box.width).toBeGreaterThan(8);
    await page.getByRole("button", { name: "Has all characters" }).click();
    const nearest = page.locator("[data-nearest]");
    await nearest.getByText(/^Nothing is all of this/).waitFor();
    await nearest.getByRole("button", { name: /^without has all characters/ }).click();
    await nearest.waitFor({ state: "detached" });
  });

  test("three are kept by keys", async () => {
    const { page } = browser;
    for (const face of FACES) {
      await page.getByLabel("Find by name, kind or shape").fill(face);
      await page.locator(`[data-name='${face}']`).first().waitFor();
      await page
        .locator(`[data-name='${face}']`)
        .first()
        .click({ position: { x: 4, y: 4 } });
      await page.keyboard.press("Space");
      await page.getByRole("complementary", { name: "Kept" }).getByText(face).waitFor();
    }
    const { body } = await api<{ kept: { styleId: string }[] }>(`/briefs/${briefId}`);
    expect(body.kept).toHaveLength(3);
  });

  test("a picture of one of them is identified first", async () => {
    const { page, context } = browser;
    const { body } = await api<{ items: { styleId: string }[] }>(`/styles?q=${encodeURIComponent("Zilla Slab Bold")}`);
    const picture = await drawByBrowser(
      context,
      body.items[0]!.styleId,
      "Wren & Tern",
      "color:#f3efe6;background:#1c6b74",
    );
    await page.getByRole("link", { name: "Identify" }).click();
    await page.locator("input[type=file]").setInputFiles({ name: "stall.png", mimeType: "image/png", buffer: picture });
    await page.locator("[data-match]").first().waitFor({ timeout: 40_000 });
    await page.getByLabel("Read as").fill("Wren & Tern");
    await page.getByRole("button", { name: "Compare again" }).click();
    await page.getByText("Comparing every style").waitFor({ state: "hidden", timeout: 40_000 });
    expect(await page.locator("[data-match]").first().getAttribute("data-match")).toBe("Zilla Slab Bold");
    expect(await page.locator("[data-answer]").innerText()).toContain("Zilla Slab");
    expect(await page.getByRole("list", { name: "Agreement of each letter" }).locator("li").count()).toBe(9);
  });

  test("the contact sheet embeds every kept face, names attached", async () => {
    const { page } = browser;
    await page.getByRole("link", { name: /^Shortlist/ }).click();
    const download = page.waitForEvent("download");
    await page.getByRole("button", { name: "Contact sheet …" }).click();
    await page.getByRole("link", { name: "Download the contact sheet as PDF" }).click();
    const bytes = await saved(download);
    expect(new TextDecoder().decode(bytes.slice(0, 5))).toBe("%PDF-");
    const pdf = await fontsOfPdf(bytes);
    for (const part of ["AlfaSlabOne", "ZillaSlab", "Rokkitt"]) expect(pdf.names.join(" ")).toContain(part);
    expect(pdf.missing).toEqual([]);
    for (const face of FACES) expect(pdf.text).toContain(face);
    expect(pdf.text).toContain("Quay market sign");
  });

  test("the sheet in columns, at real size, as outlines, as a picture and as a page", async () => {
    const { page } = browser;
    // The list of formats is open still.
    await page.getByLabel("In columns").check();
    await page.getByLabel("3", { exact: true }).check();
    await page.getByLabel(/^Real size/).check();
    const sheets = new Map<string, Uint8Array>();
    for (const format of ["SVG", "PNG", "HTML"]) {
      const download = page.waitForEvent("download");
      await page.getByRole("link", { name: `Download the contact sheet as ${format}` }).click();
      sheets.set(format, await saved(download));
    }
    const [svg, html] = ["SVG", "HTML"].map((f) => new TextDecoder().decode(sheets.get(f)));
    for (const face of FACES) for (const text of [svg, html]) expect(text).toContain(face);
    expect(svg).toMatch(/^<svg [^>]*width="[\d.]+pt"/);
    expect(html).toContain("repeat(3,");
    expect([...sheets.get("PNG")!.subarray(0, 4)]).toEqual([0x89, 0x50, 0x4e, 0x47]);
    await page.keyboard.press("Escape");
  });

  test("the archive holds fonts that open, licences, credits, sources, the sheet", async () => {
    const { page } = browser;
    await page.getByRole("link", { name: "Hand over" }).click();
    await page.getByRole("button", { name: /Make the archive/ }).click();
    await page.getByRole("link", { name: "Save zip" }).waitFor({ timeout: 60_000 });
    const download = page.waitForEvent("download");
    await page.getByRole("link", { name: "Save zip" }).click();
    const files = unzipSync(await saved(download));
    const names = Object.keys(files);
    expect(names).toEqual(expect.arrayContaining(["credits.txt", "sources.csv", "shortlist.csv", "contact-sheet.pdf"]));
    for (const face of FACES) {
      const font = await openFont(files[`fonts/${face}.ttf`]!);
      expect(`${font.family} ${font.style}`).toContain(face.split(" ")[0]);
      expect((await openFont(files[`web/${face}.woff2`]!)).format).toBe("woff2");
    }
    expect(names.filter((n) => n.startsWith("licences/"))).toHaveLength(3);
    const text = (name: string) => new TextDecoder().decode(files[name]);
    expect(text("licences/Zilla Slab.txt")).toMatch(/SIL OPEN FONT LICENSE/i);
    expect(text("credits.txt")).toContain("Rokkitt Black");
    // Each file of a face has a line: some came in parts.
    const sources = text("sources.csv").split("\r\n").filter(Boolean);
    expect(sources.length).toBeGreaterThanOrEqual(4);
    for (const face of FACES) expect(sources.join("\n")).toContain(`"${face.replace(/ \w+$/, "")}"`);
    const pdf = await fontsOfPdf(files["contact-sheet.pdf"]!);
    expect(pdf.missing).toEqual([]);
  });
});
