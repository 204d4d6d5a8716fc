// Every view: axe finds nothing, by day and by night; nothing needed is cut off; the style page and the brief at work.
import { beforeAll, describe, expect, test } from "@jest/globals";
import {
  api,
  boxOf,
  drawByBrowser,
  expectNoAxeFaults,
  makeBrief,
  openBrowser,
  openWall,
  startIdentify,
  styleNamed,
} from "./browser";

const browser = openBrowser();
let briefId = "";
let variable = "";
let plain = "";
beforeAll(async () => {
  briefId = await makeBrief({
    name: "Views test",
    lines: [
      { text: "Skerrow Light", role: "title" },
      { text: "Fog + Brass ☃", role: "second" },
    ],
    uses: ["web"],
  });
  plain = (await styleNamed("lora bold")).styleId;
  variable = (await styleNamed("archivo variable")).styleId;
  for (const id of [plain, variable])
    await api(`/briefs/${briefId}/kept/${id}`, { method: "PUT", json: { role: "title" } });
});

const VIEWS = [
  "brief",
  "find?q=serif",
  "find?columns=4&set=alphabet",
  "identify",
  "shortlist",
  "hand-over",
  "libraries",
  "jobs",
];

describe("each view", () => {
  test.each(VIEWS)("%s: axe finds nothing, nothing is cut off sideways", async (view) => {
    const { page } = browser;
    await page.goto(`/b/${briefId}/${view}`);
    await page.waitForLoadState("networkidle");
    await page.waitForTimeout(500);
    await expectNoAxeFaults(page);
    const overflow = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
    expect(overflow).toBeLessThanOrEqual(0);
  });

  test("the style page with each of its tabs", async () => {
    const { page } = browser;
    await page.goto(`/b/${briefId}/style/${variable}`);
    for (const tab of [
      "Glyphs",
      "Anatomy",
      "In use",
      "Sizes",
      /^Family/,
      "Measures",
      "Similar",
      "Languages",
      "Terms",
      "File",
    ]) {
      await page.getByRole("tab", { name: tab }).click();
      await page.waitForTimeout(400);
      await expectNoAxeFaults(page);
    }
  });

  test("identify with an answer", async () => {
    const { page, context } = browser;
    await startIdentify(browser.page, briefId);
    await page.locator("input[type=file]").setInputFiles({
      name: "plate.png",
      mimeType: "image/png",
      buffer: await drawByBrowser(context, plain, "Harbour Quay"),
    });
    await page.locator("[data-match] [data-face=ready]").first().waitFor({ timeout: 40_000 });
    await expectNoAxeFaults(page);
    expect(await page.getByLabel("Read as").inputValue()).toBe("Harbour Quay");
    expect(await page.locator("[data-match]").first().getAttribute("data-match")).toBe("Lora Bold");
    await page.getByLabel("From picture to face").fill("90");
    await page.locator("[data-match]").nth(1).getByRole("button", { name: /^Lay/ }).click();
    expect(
      await page.locator("[data-match]").nth(1).getByRole("button", { name: /^Lay/ }).getAttribute("aria-pressed"),
    ).toBe("true");
  });

  test("by night", async () => {
    const { page } = browser;
    await openWall(page, briefId);
    await page.getByRole("button", { name: /^Dark theme/ }).click();
    expect(await page.evaluate(() => document.documentElement.dataset.theme)).toBe("night");
    await expectNoAxeFaults(page);
    await page.goto(`/b/${briefId}/shortlist`);
    await page.locator("[data-kept] [data-face=ready]").first().waitFor();
    expect(await page.evaluate(() => document.documentElement.dataset.theme)).toBe("night");
    await expectNoAxeFaults(page);
    await page.getByRole("button", { name: /^Dark theme/ }).click();
  });

  test.each([1024, 2560])("the wall at %i px wide", async (width) => {
    const { page } = browser;
    await page.setViewportSize({ width, height: 800 });
    await openWall(page, briefId);
    expect(await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)).toBeLessThanOrEqual(0);
    expect((await boxOf(page.locator("[data-strip]").first())).width).toBeGreaterThan(190);
    await page.setViewportSize({ width: 1280, height: 800 });
  });

  test("an address of nothing says so", async () => {
    const { page } = browser;
    await page.goto("/b/b_never-was/find");
    await page.getByText("Nothing is here").waitFor();
  });
});

describe("the style page", () => {
  test("a glyph is found by code point and copied", async () => {
    const { page } = browser;
    await page.goto(`/b/${briefId}/style/${plain}`);
    // What is typed before the page is at work is lost to it.
    await page
      .getByRole("button", { name: /^Copy / })
      .first()
      .waitFor();
    await page.getByLabel("Find a glyph").fill("U+0026");
    await page.getByRole("button", { name: "Copy ampersand, U+0026" }).click();
    await page.getByText("& copied (ampersand, U+0026)").waitFor();
    expect(await page.evaluate(() => navigator.clipboard.readText())).toBe("&");
    await page.getByLabel("Find a glyph").fill("snowman");
    await page.getByText("This font has no such glyph.").waitFor();
  });

  test("all glyphs are there, few at a time", async () => {
    const { page } = browser;
    await page.getByLabel("Find a glyph").fill("");
    await page.waitForTimeout(500);
    // Those of all its parts.
    const { body } = await api<{ total: number }>(`/styles/${plain}/glyphs?limit=1`);
    await page.getByText(`${body.total} glyphs`, { exact: true }).first().waitFor();
    expect(await page.getByRole("group", { name: "Glyphs" }).locator("button").count()).toBeLessThan(body.total);
  });

  test("axes change the setting, named instances too", async () => {
    const { page } = browser;
    await page.goto(`/b/${briefId}/style/${variable}`);
    const setting = () =>
      page
        .locator("main [data-sample]")
        .first()
        .evaluate((e) => getComputedStyle(e).fontVariationSettings);
    const before = await setting();
    expect(before).toContain('"wght"');
    const width = () =>
      page
        .locator("main [data-sample] span")
        .first()
        .evaluate((e) => e.getBoundingClientRect().width);
    await page.locator("main [data-face=ready]").first().waitFor();
    const narrow = await width();
    await page.getByLabel("Weight", { exact: true }).fill("850");
    expect(await setting()).not.toBe(before);
    await page.waitForTimeout(300);
    expect(await width()).not.toBe(narrow);
    await page.getByRole("button", { name: "Reset axes" }).click();
    expect(await setting()).toBe(before);
    await page.getByLabel("Preset").selectOption({ index: 3 });
    expect(await setting()).not.toBe(before);
  });

  test("terms quote the sentence and its line; measures and file are told", async () => {
    const { page } = browser;
    await page.getByRole("tab", { name: "Terms" }).click();
    await page.getByText("Recognised as").waitFor();
    await page
      .getByText(/does not apply to any document created using the fonts/)
      .first()
      .waitFor();
    await page
      .getByText(/LICENSE, line \d+/)
      .first()
      .waitFor();
    await page.getByRole("tab", { name: "Measures" }).click();
    await page.locator("[data-measure=stemEm]").waitFor();
    await page.getByRole("tab", { name: "File" }).click();
    await page.getByText("no fault was found in its tables").waitFor();
  });

  test("missing characters of the brief are named", async () => {
    await browser.page.getByText(/lacks ☃ \(snowman\)/).waitFor();
  });
});

describe("the brief", () => {
  test("lines are added, moved, removed with undo; size keeps its length through units", async () => {
    const { page } = browser;
    await page.goto(`/b/${briefId}/brief`);
    await page.getByRole("button", { name: "Add a line" }).click();
    await page.getByLabel("Text of line 3").fill("Tide 3.8 m");
    await page.getByRole("button", { name: "Move line 3 up" }).click();
    expect(await page.getByLabel("Text of line 2").inputValue()).toBe("Tide 3.8 m");
    await page.getByRole("button", { name: "Remove line 1" }).click();
    await page.getByRole("button", { name: /Undo/ }).click();
    await page.getByText("Undone: Line removed").waitFor();
    expect(await page.getByLabel("Text of line 1").inputValue()).toBe("Skerrow Light");
    expect(await page.getByLabel("Text of line 2").inputValue()).toBe("Tide 3.8 m");
    await page.getByLabel("Final size").fill("25.4");
    await page.getByRole("button", { name: /^Unit/ }).click();
    await page.getByRole("option", { name: "in", exact: true }).click();
    await page.getByText("= 25.4 mm = 96 px = 72 pt").waitFor();
    await page.getByLabel("Extra characters").fill("€");
    await page.waitForTimeout(700);
    const { body } = await api<{ size: number; unit: string; wanted: string; lines: { text: string }[] }>(
      `/briefs/${briefId}`,
    );
    expect(body).toMatchObject({ size: 1, unit: "in", wanted: "€" });
    expect(body.lines.map((l) => l.text)).toEqual(["Skerrow Light", "Tide 3.8 m", "Fog + Brass ☃"]);
  });

  test("what was typed is there after a reload", async () => {
    const { page } = browser;
    await page.getByLabel("Notes").fill("Keep it warm.");
    await page.reload();
    await page.waitForFunction(
      () => document.querySelector<HTMLTextAreaElement>("[aria-label=Notes]")?.value === "Keep it warm.",
    );
    await page.waitForTimeout(700);
    expect((await api<{ note: string }>(`/briefs/${briefId}`)).body.note).toBe("Keep it warm.");
  });

  test("duplicated with what is kept, deleted, brought back", async () => {
    const { page } = browser;
    await page.getByRole("button", { name: "Duplicate" }).click();
    await page.waitForURL((u) => !u.pathname.includes(briefId));
    const copy = page.url().split("/b/")[1]!.split("/")[0]!;
    expect((await api<{ name: string; kept: unknown[] }>(`/briefs/${copy}`)).body).toMatchObject({
      name: "Views test (copy)",
      kept: [{}, {}],
    });
    await page.getByRole("button", { name: "Delete" }).click();
    await page.getByText("Brief “Views test (copy)” deleted").waitFor();
    expect((await api(`/briefs/${copy}`)).status).toBe(404);
    await page.getByRole("button", { name: /Undo/ }).click();
    await page.waitForURL(new RegExp(copy));
    expect((await api(`/briefs/${copy}`)).status).toBe(200);
  });
});

describe("the shortlist", () => {
  test("order by menu, by keys, by drag; role and note stay", async () => {
    const { page } = browser;
    await page.goto(`/b/${briefId}/shortlist`);
    const order = () => page.locator("[data-kept]").evaluateAll((all) => all.map((e) => e.getAttribute("data-kept")));
    await page.locator("[data-kept]").nth(1).waitFor();
    expect(await order()).toEqual([plain, variable]);
    await page.getByRole("button", { name: /^Move Lora Bold down/ }).click();
    expect(await order()).toEqual([variable, plain]);
    const handle = page.getByRole("button", { name: "Move Lora Bold", exact: true });
    await handle.focus();
    await page.keyboard.press("Space");
    await page.waitForTimeout(300);
    await page.keyboard.press("ArrowUp");
    await page.waitForTimeout(300);
    await page.keyboard.press("Space");
    await page.waitForTimeout(500);
    expect(await order()).toEqual([plain, variable]);
    const from = await boxOf(handle);
    await page.mouse.move(from.x + 6, from.y + 6);
    await page.mouse.down();
    await page.mouse.move(from.x + 8, from.y + 80, { steps: 5 });
    await page.mouse.move(from.x + 8, from.y + 170, { steps: 8 });
    await page.mouse.up();
    await page.waitForTimeout(500);
    expect(await order()).toEqual([variable, plain]);
    await page.getByLabel("Note on Lora Bold").fill("calm at small sizes");
    await page.getByLabel("Role of Lora Bold").fill("text");
    await page.getByLabel("Role of Lora Bold").blur();
    await page.waitForTimeout(500);
    const { body } = await api<{ kept: { styleId: string; role: string; note: string }[] }>(`/briefs/${briefId}`);
    expect(body.kept.map((k) => k.styleId)).toEqual([variable, plain]);
    expect(body.kept[1]).toMatchObject({ role: "text", note: "calm at small sizes" });
  });

  test("what is let go comes back with its note", async () => {
    const { page } = browser;
    await page.getByRole("button", { name: "Remove Lora Bold" }).click();
    await page.locator(`[data-kept='${plain}']`).waitFor({ state: "detached" });
    await page.locator("body").press("u");
    await page.locator(`[data-kept='${plain}']`).waitFor();
    await page.waitForTimeout(500);
    const { body } = await api<{ kept: { styleId: string; note: string }[] }>(`/briefs/${briefId}`);
    expect(body.kept.find((k) => k.styleId === plain)!.note).toBe("calm at small sizes");
  });
});
