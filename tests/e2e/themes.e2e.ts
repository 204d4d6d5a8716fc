// Words for what lettering is for: how they are read, corrected, remembered; names beside them; one style per family; what marks teach.
import { beforeAll, describe, expect, test } from "@jest/globals";
import { api, count, expectNoAxeFaults, makeBrief, openBrowser, styleNamed } from "./browser";

const browser = openBrowser();
let briefId = "";
beforeAll(async () => {
  briefId = await makeBrief({ name: "Theme test", lines: [{ text: "Keepers of the Lamp", role: "title" }] });
});
type Found = { items: { family: string; styleId: string; fit: { degree: number; because: string[] } | null }[] };
const find = async (q: string) => (await api<Found>(`/styles?q=${encodeURIComponent(q)}&fold=true&limit=12`)).body;
const open = async (question: string) => {
  await browser.page.goto(`/b/${briefId}/find${question}`);
  await browser.page.locator("[data-strip] [data-face=ready]").first().waitFor();
};
const first = () => browser.page.locator("[data-strip]").first().getAttribute("data-name");
const themes = async () => (await api<{ themes: { phrase: string; looks: object }[] }>("/themes")).body.themes;

describe("the wall without a question", () => {
  test("shows one style per family, and its first screen spans what there is", async () => {
    const { page } = browser;
    await open("");
    expect(await page.locator("[data-count]").innerText()).toMatch(/^\d+ families of \d+ styles$/);
    const names = await page
      .locator("[data-strip]")
      .evaluateAll((all) => all.slice(0, 10).map((e) => e.getAttribute("data-name")));
    expect(new Set(names.map((n) => n![0])).size).toBeGreaterThan(4);
  });

  test("a family opens in its place and closes again", async () => {
    const { page } = browser;
    await open("?q=Work+Sans");
    const before = await page.locator("[data-strip]").count();
    await page
      .getByRole("button", { name: /^\d+ (of \d+ fit|styles)$/ })
      .first()
      .click();
    await page.waitForFunction((n) => document.querySelectorAll("[data-strip]").length > n, before);
    expect(page.url()).toContain("open=");
    await page
      .getByRole("button", { expanded: true, name: /styles$|fit$/ })
      .first()
      .click();
    await page.waitForFunction((n) => document.querySelectorAll("[data-strip]").length === n, before);
  });
});

describe("a theme", () => {
  test("any word reads: each result says how well it fits, and why", async () => {
    for (const q of ["pirate", "gentle bakery", "colourful circuses", "hospital"]) {
      const { items } = await find(q);
      expect(items.length).toBeGreaterThan(5);
      expect(items[0]!.fit!.degree).toBeGreaterThan(0.5);
      expect(items[0]!.fit!.because.length).toBeGreaterThan(0);
    }
  });

  test("says what it read; a look is left out, remembered, undone", async () => {
    const { page } = browser;
    await open("?q=pirate+ship");
    const before = await first();
    await page.getByRole("button", { name: /^pirate ship → pirate/ }).click();
    const panel = page.locator("[data-theme-panel]");
    await panel.getByText("broken letters").waitFor();
    await expectNoAxeFaults(page);
    await panel.getByRole("button", { name: "Not broken letters" }).click();
    await page.getByText("“pirate ship” is not broken letters").waitFor();
    await page.waitForFunction(
      (name) => document.querySelector("[data-strip]")?.getAttribute("data-name") !== name,
      before,
    );
    expect(await themes()).toMatchObject([{ phrase: "pirate ship", looks: { "broken letters": 0 } }]);
    await panel.getByText("Words you corrected (1)").click();
    await panel.getByRole("link", { name: "Save them as JSON" }).waitFor();
    await page.keyboard.press("Escape");
    await page.locator("body").press("u");
    await page.waitForFunction(
      (name) => document.querySelector("[data-strip]")?.getAttribute("data-name") === name,
      before,
    );
    expect(await themes()).toEqual([]);
  });

  test("rather like the face in focus: its looks come in", async () => {
    const { page } = browser;
    const { items } = await find("typewriter");
    await open(`?q=hospital`);
    await api(`/themes/hospital`, { method: "PUT", json: { like: items[0]!.styleId } });
    await open(`?q=hospital`);
    await page.getByRole("button", { name: /^hospital → / }).click();
    const panel = page.locator("[data-theme-panel]");
    await panel.getByText("typewriter", { exact: true }).waitFor();
    await panel.getByRole("button", { name: /^Rather like / }).waitFor();
    await panel.getByRole("button", { name: "Back to the first reading" }).click();
    await panel.getByText("typewriter", { exact: true }).waitFor({ state: "detached" });
    expect(await themes()).toEqual([]);
  });

  test("families that go by the word stand in a row of their own", async () => {
    const { page } = browser;
    await open("?q=rock");
    const row = page.locator("[data-named]");
    await row.getByText("Rock Salt").waitFor();
    await page.getByRole("button", { name: /^rock → / }).waitFor();
    await open("?q=Rock+Salt");
    expect(await page.locator("[data-named]").count()).toBe(0);
    expect(await first()).toMatch(/^Rock Salt/);
  });
});

describe("languages", () => {
  test.each([
    ["polish and czech", ["sets Polish", "sets Czech"]],
    ["vietnamese serif", ["sets Vietnamese", "serif"]],
    ["for Greece", ["sets Greece"]],
  ])("“%s” means what a face must set", async (q, labels) => {
    const { body } = await api<{ understood: { words: { label: string }[] } }>(`/styles?q=${encodeURIComponent(q)}`);
    expect(body.understood.words.map((w) => w.label)).toEqual(labels);
  });
});

describe("marks teach", () => {
  test("after five, more like what is kept: in words, on and off by one click", async () => {
    const { page } = browser;
    const { items } = await find("heavy slab");
    const { items: others } = await find("light script");
    for (const { styleId } of items.slice(0, 4))
      await api(`/briefs/${briefId}/kept/${styleId}`, { method: "PUT", json: {} });
    for (const { styleId } of others.slice(0, 4)) await api(`/briefs/${briefId}/aside/${styleId}`, { method: "PUT" });
    await open("");
    const all = await count(page);
    await page.getByRole("button", { name: "More like what you keep" }).click();
    await page.getByText(/^You keep .*(heavy|serifs|even strokes)/).waitFor();
    expect(page.url()).toContain("learn=true");
    expect(await count(page)).toBe(all);
    await page
      .getByText(/like what you keep$/)
      .first()
      .waitFor();
    await page.getByRole("button", { name: "More like what you keep" }).click();
    await page.getByText(/^You keep/).waitFor({ state: "detached" });
  });
});

describe("what a library says of a family", () => {
  test("is found by and shown; denied, it counts no more, until that is undone", async () => {
    const { page } = browser;
    const firstFound = async () => (await find("arcade")).items[0]!;
    expect(await firstFound()).toMatchObject({ family: "Bytebuoy" });
    expect((await firstFound()).fit!.because[0]).toBe("tagged arcade");
    await open("?q=arcade");
    expect(await first()).toMatch(/^Bytebuoy/);
    const { styleId } = await styleNamed("bytebuoy");
    await page.goto(`/b/${briefId}/style/${styleId}?part=measures`);
    await page.getByTitle("said by Ropewalk Lane").getByText("arcade").waitFor();
    await page.getByRole("button", { name: "It is not arcade" }).click();
    await page.getByRole("button", { name: "It is arcade after all" }).waitFor();
    expect((await firstFound()).family).not.toBe("Bytebuoy");
    await page.keyboard.press("u");
    await page.getByRole("button", { name: "It is not arcade" }).waitFor();
    expect((await firstFound()).family).toBe("Bytebuoy");
  });
});
