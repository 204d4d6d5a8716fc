// The map of Find in the browser: what it shows, how it is walked and zoomed, what is kept on it.
import { beforeAll, describe, expect, test } from "@jest/globals";
import type { FaceMap } from "@/contracts/map";
import { api, boxOf, count, expectNoAxeFaults, makeBrief, openBrowser, waitUntil } from "./browser";

const browser = openBrowser();
let briefId = "";
beforeAll(async () => {
  briefId = await makeBrief({ name: "Map" });
});

async function openMap(question = "") {
  const { page } = browser;
  await page.goto(`/b/${briefId}/find?view=map${question}`);
  await page.locator("[data-map-face] [data-face=ready]").first().waitFor();
}
const zoom = async () => Number(await browser.page.locator("[data-map]").getAttribute("data-zoom"));
const told = () => browser.page.locator("[data-map-focus]").innerText();

describe("the layout", () => {
  test("has every family once, none over another, alike beside alike, the same each time", async () => {
    // Other tests bring fonts in meanwhile: asked until nothing came between.
    let map = (await api<FaceMap>("/map")).body;
    let again = map;
    await waitUntil(async () => {
      map = again;
      const { body: health } = await api<{ families: number }>("/health");
      again = (await api<FaceMap>("/map")).body;
      return map.faces.length === health.families && again.faces.length === health.families;
    }, 120_000);
    expect(map).toEqual(again);
    expect(new Set(map.faces.map((f) => f.familyId)).size).toBe(map.faces.length);
    expect(new Set(map.faces.map((f) => f.cell)).size).toBe(map.faces.length);
    expect(Math.max(...map.faces.map((f) => f.cell))).toBeLessThan(map.columns * map.rows);
    // Scripts stand among scripts, slabs among slabs.
    const placesOf = async (kind: string) => {
      const { body } = await api<{ items: { family: string }[] }>(`/styles?kinds=${kind}&limit=200`);
      const families = new Set(body.items.map((item) => item.family));
      return map.faces
        .filter((f) => families.has(f.family))
        .map(({ cell }) => [cell % map.columns, Math.floor(cell / map.columns)]);
    };
    const apart = (some: number[][], others: number[][]) => {
      const all = some.flatMap(([x, y]) => others.map(([u, v]) => Math.hypot(x! - u!, (y! - v!) / 2)));
      return all.reduce((sum, d) => sum + d, 0) / all.length;
    };
    const [scripts, slabs] = [await placesOf("script"), await placesOf("slab")];
    expect(Math.min(scripts.length, slabs.length)).toBeGreaterThan(4);
    expect(apart(scripts, scripts)).toBeLessThan(0.75 * apart(scripts, slabs));
    expect(apart(slabs, slabs)).toBeLessThan(0.75 * apart(scripts, slabs));
    expect(map.regions.length).toBeGreaterThan(2);
  });
});

describe("on the page", () => {
  test("shows every family in the brief's words; what the question does not find is faint", async () => {
    const { page } = browser;
    await openMap();
    await waitUntil(async () => (await page.locator("[data-map-face]").count()) > 150);
    await page.getByLabel("Find by name, kind or shape").fill("blackletter");
    await waitUntil(async () => (await page.locator("[data-map-face][data-fit='-1']").count()) > 150);
    const strong = page.locator("[data-map-face]:not([data-fit='-1'])");
    expect(await strong.count()).toBe(await count(page));
    expect(await strong.evaluateAll((all) => all.map((e) => e.getAttribute("data-name")).join())).toContain(
      "Unifraktur",
    );
    const opacity = (selector: string) =>
      page
        .locator(selector)
        .last()
        .evaluate((e) => Number(getComputedStyle(e).opacity));
    expect(await opacity("[data-map-face][data-fit='-1']")).toBeLessThan(0.2);
    await page.getByLabel("Find by name, kind or shape").fill("");
  });

  test("arrows walk to what is found, Space keeps, U undoes, Enter opens, back comes back to the map", async () => {
    const { page } = browser;
    await openMap("&q=script");
    await page.locator("[data-map]").focus();
    const first = await told();
    expect(first).toMatch(/, fits /);
    const seen = new Set([first]);
    for (const key of ["ArrowRight", "ArrowDown", "ArrowLeft", "ArrowUp", "ArrowUp"]) {
      await page.keyboard.press(key);
      await page.waitForTimeout(60);
      const now = await told();
      expect(now).toMatch(/, fits /);
      seen.add(now);
    }
    expect(seen.size).toBeGreaterThan(2);
    const kept = async () => (await api<{ kept: unknown[] }>(`/briefs/${briefId}`)).body.kept.length;
    await page.keyboard.press(" ");
    await waitUntil(async () => (await kept()) === 1);
    await page.keyboard.press("u");
    await waitUntil(async () => (await kept()) === 0);
    const [family] = (await told()).split(", ");
    await page.keyboard.press("Enter");
    await page.getByRole("heading", { name: new RegExp(`^${family}`) }).waitFor();
    await page.goBack();
    await page.locator("[data-map-face]").first().waitFor();
  });

  test("plus, minus and the wheel zoom; dragging moves; the small map shows where", async () => {
    const { page } = browser;
    await openMap();
    const whole = await zoom();
    await page.locator("[data-map]").focus();
    for (let i = 0; i < 4; i++) await page.keyboard.press("+");
    expect(await zoom()).toBeGreaterThan(whole * 1.8);
    await page.locator("[data-small-map]").waitFor();
    const names = () =>
      page.locator("[data-map-face]").evaluateAll((all) => all.map((e) => e.getAttribute("data-name")));
    const before = await names();
    expect(before.length).toBeLessThan(120);
    const box = await boxOf(page.locator("[data-map]"));
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x - 400, y - 260, { steps: 8 });
    await page.mouse.up();
    await waitUntil(async () => JSON.stringify(await names()) !== JSON.stringify(before));
    await page.mouse.move(x, y);
    await page.mouse.wheel(0, 2000);
    await waitUntil(async () => Math.abs((await zoom()) - whole) < 0.02);
    expect(await page.locator("[data-small-map]").count()).toBe(0);
  });

  test("M turns to the wall and back with the same question; axe finds nothing", async () => {
    const { page } = browser;
    await openMap("&q=slab");
    await expectNoAxeFaults(page);
    await page.locator("[data-map]").focus();
    await page.keyboard.press("m");
    await page.locator("[data-strip]").first().waitFor();
    expect(page.url()).not.toContain("view=map");
    expect(page.url()).toContain("q=slab");
    await page.keyboard.press("m");
    await page.locator("[data-map-face]").first().waitFor();
  });
});
