// The style page: the parts of letters, the line as outlines, measures, the family, words of one's own, glyphs, languages, the nearest.
import { beforeAll, describe, expect, test } from "@jest/globals";
import { api, boxOf, find, makeWrenBrief, openBrowser, saved, styleNamed } from "./browser";

const browser = openBrowser();
let briefId = "";
beforeAll(async () => {
  briefId = await makeWrenBrief();
});
const settle = () => browser.page.waitForTimeout(450);

describe("the style page", () => {
  test("anatomy names parts on the real letters; the pointer is told what was measured", async () => {
    const { page } = browser;
    const { styleId } = await styleNamed("alegreya regular");
    await page.goto(`/b/${briefId}/style/${styleId}?part=anatomy`);
    for (const part of [
      "stem of h",
      "crossbar of e",
      "loop of g",
      "aperture of c",
      "bowl of p",
      "spine of s",
      "tail of Q",
    ])
      await page.getByRole("img", { name: new RegExp(`^${part}`) }).waitFor();
    await page.getByRole("img", { name: /^stem of h/ }).hover();
    await page.getByText(/vertical stroke, 0\.\d+ em/).waitFor();
  });

  test("the line is saved as outlines, set in the page's own worker with the features that are switched", async () => {
    const { page } = browser;
    const saveLine = async () => {
      const download = page.waitForEvent("download");
      await page.getByRole("button", { name: "Save line as SVG" }).click();
      const got = await download;
      expect(got.suggestedFilename()).toMatch(/^Alegreya .* - .*\.svg$/);
      return new TextDecoder().decode(await saved(Promise.resolve(got)));
    };
    const svg = await saveLine();
    expect(svg).toMatch(
      /^<svg [^>]*viewBox="0 0 [\d.]+ [\d.]+"><title>[^<]+<\/title><path fill="#[0-9A-Fa-f]{6}" d="M/,
    );
    // Drawn by the browser itself, it has the ink of the line.
    const drawn = await browser.context.newPage();
    await drawn.setContent(svg);
    const box = await boxOf(drawn.locator("path"));
    await drawn.close();
    const [width, height] = svg
      .match(/viewBox="0 0 ([\d.]+) ([\d.]+)"/)!
      .slice(1)
      .map(Number) as [number, number];
    expect(Math.abs(box.width - width)).toBeLessThan(2);
    expect(Math.abs(box.height - height)).toBeLessThan(2);
    expect(await saveLine()).toBe(svg);
  });

  test("measures stand against the library; words of one's own are found by the field", async () => {
    const { page } = browser;
    await page.getByRole("tab", { name: "Measures" }).click();
    await page
      .locator("[data-measure=weight]")
      .getByRole("img", { name: /more than \d+ % of the library/ })
      .waitFor();
    await page.getByLabel("A word of your own").fill("lamplit");
    await page.getByRole("button", { name: "Add", exact: true }).click();
    await page.getByText("lamplit added").waitFor();
    expect((await find("q=lamplit")).items.map((i) => i.family)).toContain("Alegreya");
    const measured = page.locator("[data-words] button[aria-label^='It is not']").first();
    const word = (await measured.getAttribute("aria-label"))!.replace("It is not ", "");
    const before = (await find(`moods=${encodeURIComponent(word)}&q=alegreya`)).total;
    await measured.click();
    await page.getByText(`Not ${word}`).waitFor();
    expect((await find(`moods=${encodeURIComponent(word)}&q=alegreya`)).total).toBeLessThan(before);
    await page.getByRole("button", { name: /^Undo/ }).click();
    await settle();
    expect((await find(`moods=${encodeURIComponent(word)}&q=alegreya`)).total).toBe(before);
  });

  test("the family is a tree of weights and slants", async () => {
    const { page } = browser;
    await page.getByRole("tab", { name: /^Family/ }).click();
    const table = page.getByRole("table", { name: /Weights across/ });
    expect(await table.getByRole("columnheader").allInnerTexts()).toEqual(
      expect.arrayContaining(["400", "700", "900"]),
    );
    await table.getByRole("rowheader", { name: "slanted" }).waitFor();
    await table
      .getByRole("link", { name: /Bold Italic/ })
      .last()
      .click();
    await page.getByRole("heading", { name: /^Alegreya .*Bold Italic/ }).waitFor();
  });

  test("the brief's words on four layouts and down the sizes, with a feature on", async () => {
    const { page } = browser;
    const { styleId } = await styleNamed("alegreya regular");
    await page.goto(`/b/${briefId}/style/${styleId}?part=in-use`);
    for (const layout of ["Poster", "Title card, 16 : 9", "Booklet page", "Label"])
      await page.locator("figure", { hasText: layout }).first().waitFor();
    expect(await page.locator("figure [data-sample]").allInnerTexts()).toEqual(
      expect.arrayContaining(["Wren & Tern No. 7"]),
    );
    await page.getByLabel("lining figures").check();
    const features = await page
      .locator("figure [data-sample]")
      .first()
      .evaluate((e) => getComputedStyle(e).fontFeatureSettings);
    expect(features).toBe('"lnum"');
    await page.getByRole("tab", { name: "Sizes" }).click();
    await page.getByText(/Legible from about/).waitFor();
    await page.getByText("96 px").waitFor();
  });

  test("glyphs by kind; one is added to the brief's line, with undo", async () => {
    const { page } = browser;
    await page.getByRole("tab", { name: "Glyphs" }).click();
    await page.getByLabel("Kind of glyph").selectOption("figures");
    await page
      .getByRole("button", { name: /^Copy digit seven/ })
      .first()
      .click();
    await page.getByText(/7 copied/).waitFor();
    // On the way there other glyphs are passed over: the one that was clicked counts.
    await page.getByRole("button", { name: "Add to the line" }).click();
    await page.getByText("7 added to the line").waitFor();
    expect(await page.getByLabel("Line 1 of the brief").inputValue()).toBe("Wren & Tern No. 77");
    await page.keyboard.press("Escape");
    await page.getByRole("button", { name: /^Undo/ }).click();
    await page.getByText("Undone: Line 1 changed").waitFor();
    expect(await page.getByLabel("Line 1 of the brief").inputValue()).toBe("Wren & Tern No. 7");
  });

  test("languages by what their letters need", async () => {
    const { page } = browser;
    await page.getByRole("tab", { name: "Languages" }).click();
    await page.getByLabel("Find a language").fill("germ");
    await page.getByRole("link", { name: "German", exact: true }).waitFor();
    await page.getByLabel("Find a language").fill("japanese");
    await page.getByText("It does not set such a language whole.").waitFor();
  });

  test("the nearest come with what differs in words; for a costly face the nearest that are cleared", async () => {
    const { page } = browser;
    const alike = await api<{ items: { family: string; distance: number; differs: { says: string }[] }[] }>(
      `/styles/${(await styleNamed("work sans regular")).styleId}/alike?limit=8`,
    );
    const distances = alike.body.items.map((i) => i.distance);
    expect(distances).toEqual([...distances].sort((a, b) => a - b));
    expect(alike.body.items.map((i) => i.family)).not.toContain("Work Sans");
    const heavier = await api<{ items: { traits: { weight: number }; axisWanted: object }[] }>(
      `/styles/${(await styleNamed("work sans regular")).styleId}/alike?limit=8&q=heavier`,
    );
    for (const i of heavier.body.items)
      expect(i.traits.weight > 440 || Object.keys(i.axisWanted).length > 0).toBe(true);
    const costly = await styleNamed("lanternrose");
    await page.goto(`/b/${briefId}/style/${costly.styleId}?part=alike`);
    await page.getByText("These are the nearest that may.").waitFor();
    const lines = page.locator("[data-alike]");
    await lines.first().waitFor();
    expect(await lines.count()).toBeGreaterThan(5);
    for (const text of (await lines.allInnerTexts()).slice(0, 6)) expect(text).toMatch(/Cleared/);
  });

  test("a tag or an alike of what is not there is refused", async () => {
    expect((await api("/styles/s_00000000000000000000/alike")).status).toBe(404);
    expect(
      (await api("/styles/s_00000000000000000000/tags", { method: "PUT", json: { tag: "x y", holds: true } })).status,
    ).toBe(404);
    const { styleId } = await styleNamed("lora regular");
    expect((await api(`/styles/${styleId}/tags`, { method: "PUT", json: { tag: "a,b", holds: true } })).status).toBe(
      400,
    );
  });
});
