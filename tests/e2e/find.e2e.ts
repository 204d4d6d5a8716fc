// The wall by keys, the sieve, the address, undo, the brief's words re-set as one types.
import { beforeAll, describe, expect, test } from "@jest/globals";
import { api, count, makeBrief, openWall, waitUntil, openBrowser } from "./browser";

const browser = openBrowser();
let briefId = "";
beforeAll(async () => {
  briefId = await makeBrief({
    name: "Wall test",
    lines: [
      { text: "Skerrow Light", role: "title" },
      { text: "12 lamps & one tide", role: "text" },
    ],
  });
});
const focused = () => browser.page.evaluate(() => document.activeElement?.getAttribute("data-name") ?? null);
const settle = () => browser.page.waitForTimeout(500);

describe("the wall", () => {
  test("shows every style, but only few in the page at a time", async () => {
    const { page } = browser;
    await openWall(page, briefId, "?sort=name");
    expect(await count(page)).toBeGreaterThanOrEqual(798);
    expect(await page.locator("[data-strip]").count()).toBeLessThan(60);
    const family = await page
      .locator("[data-sample]")
      .first()
      .evaluate((e) => getComputedStyle(e).fontFamily);
    expect(family).toMatch(/^"?fq-s_[0-9a-f]+"?$/);
  });

  test("samples are levelled by measured x-height, and by point size when asked", async () => {
    const { page } = browser;
    const sizes = () =>
      page
        .locator("[data-strip] [data-sample]")
        .evaluateAll((all) => all.slice(0, 6).map((e) => parseFloat(getComputedStyle(e).fontSize)));
    const levelled = await sizes();
    expect(new Set(levelled.map((s) => s.toFixed(1))).size).toBeGreaterThan(2);
    await page.getByRole("button", { name: /^Match size by/ }).click();
    await page.getByRole("option", { name: "point size" }).click();
    await settle();
    expect((await sizes()).filter((s) => s === 42).length).toBeGreaterThan(3);
    await page.getByRole("button", { name: /^Match size by/ }).click();
    await page.getByRole("option", { name: "x-height" }).click();
  });

  test("far down, faces arrive and those left behind are let go from the page", async () => {
    const { page } = browser;
    await page.getByRole("grid", { name: "Faces" }).evaluate((e) => (e.scrollTop = e.scrollHeight * 0.7));
    await page.locator("[data-strip] [data-face=ready]").first().waitFor();
    await settle();
    expect(await page.locator("[data-strip]").count()).toBeLessThan(60);
    await page.getByRole("grid", { name: "Faces" }).evaluate((e) => (e.scrollTop = 0));
    await settle();
  });

  test("arrows move, Space keeps, X sets aside, U undoes", async () => {
    const { page } = browser;
    await page
      .locator("[data-strip]")
      .first()
      .click({ position: { x: 4, y: 4 } });
    const first = await focused();
    await page.keyboard.press("ArrowRight");
    const second = await focused();
    expect(second).not.toBe(first);
    await page.keyboard.press("ArrowDown");
    await page.keyboard.press("ArrowUp");
    expect(await focused()).toBe(second);
    await page.keyboard.press("Space");
    await page.getByText(`${second} kept`).waitFor();
    await settle();
    expect((await api<{ kept: unknown[] }>(`/briefs/${briefId}`)).body.kept).toHaveLength(1);
    const keptThere = async () => (await api<{ kept: unknown[] }>(`/briefs/${briefId}`)).body.kept.length;
    await page.keyboard.press("u");
    await waitUntil(async () => (await keptThere()) === 0);
    // Kept and undone in one breath: the wall, the tray and the server agree.
    await page.keyboard.press("Space");
    await page.keyboard.press("u");
    await page.getByText(/^Undone: .* kept/).waitFor();
    await settle();
    expect(await keptThere()).toBe(0);
    expect(await page.locator("[data-strip] button[aria-pressed=true]").count()).toBe(0);
    const before = await count(page);
    await page.keyboard.press("x");
    await page.getByText(`${second} set aside`).waitFor();
    await page.waitForFunction(
      (n) => Number(document.querySelector("[data-count]")?.textContent?.split(" ")[0]) === n - 1,
      before,
    );
    expect(await page.locator(`[data-name='${second}']`).count()).toBe(0);
    await page.keyboard.press("u");
    await page.waitForFunction(
      (n) => Number(document.querySelector("[data-count]")?.textContent?.split(" ")[0]) === n,
      before,
    );
  });

  test("Enter opens, back comes back to the same question", async () => {
    const { page } = browser;
    await openWall(page, briefId, "?q=slab&columns=3");
    await page
      .locator("[data-strip]")
      .nth(2)
      .click({ position: { x: 4, y: 4 } });
    const name = await focused();
    await page.keyboard.press("Enter");
    await page.getByRole("heading", { name: name! }).waitFor();
    await page.goBack();
    await page.locator("[data-strip]").first().waitFor();
    expect(page.url()).toContain("q=slab");
    expect(page.url()).toContain("columns=3");
    expect(await page.getByLabel("Find by name, kind or shape").inputValue()).toBe("slab");
  });

  test("digits go to the steps", async () => {
    const { page } = browser;
    for (const [digit, path] of [
      ["1", "brief"],
      ["3", "identify"],
      ["5", "shortlist"],
      ["7", "hand-over"],
      ["2", "find"],
    ] as const) {
      await page.locator("body").press(digit);
      await page.waitForURL(new RegExp(`/${path}`));
    }
  });

  test("plus and minus change the size", async () => {
    const { page } = browser;
    await openWall(page, briefId);
    const height = () =>
      page
        .locator("[data-strip]")
        .first()
        .evaluate((e) => e.getBoundingClientRect().height);
    const before = await height();
    await page.locator("body").press("+");
    await page.locator("body").press("+");
    await settle();
    expect(await height()).toBeGreaterThan(before + 8);
  });
});

describe("the brief's words", () => {
  test("typing re-sets every visible sample within two frames", async () => {
    const { page } = browser;
    await openWall(page, briefId);
    const line = page.getByLabel("Line 1 of the brief");
    await line.focus();
    await page.keyboard.press("End");
    const frames = await page.evaluate(async () => {
      const input = document.querySelector<HTMLInputElement>("[aria-label='Line 1 of the brief']")!;
      const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")!.set!;
      set.call(input, "Skerrow Lights");
      input.dispatchEvent(new Event("input", { bubbles: true }));
      for (let frame = 1; frame < 20; frame++) {
        await new Promise((r) => requestAnimationFrame(r));
        if (
          [...document.querySelectorAll("[data-strip] [data-sample]")].every((e) => e.textContent === "Skerrow Lights")
        )
          return frame;
      }
      return 99;
    });
    expect(frames).toBeLessThanOrEqual(2);
  });

  test("a character that some faces lack appears as boxes while it is typed", async () => {
    const { page } = browser;
    await page.getByLabel("Line 1 of the brief").fill("Lamp ☃");
    await page.locator("[data-missing='☃']").first().waitFor();
    expect(await page.locator("[data-strip] [data-missing]").count()).toBe(
      await page.locator("[data-strip] [data-sample]").count(),
    );
    await page.getByLabel("Line 1 of the brief").fill("Skerrow Light");
    await page.locator("[data-missing]").first().waitFor({ state: "detached" });
  });

  test("the other line, sentences, alphabets and figures can be set", async () => {
    const { page } = browser;
    await page.getByLabel("Line 2 of the brief").focus();
    await page.waitForFunction(
      () => document.querySelector("[data-strip] [data-sample]")?.textContent === "12 lamps & one tide",
    );
    expect(page.url()).toContain("line=1");
    for (const [choice, words] of [
      ["Alphabet", "ABCDEFGHIJ"],
      ["Figures", "0123456789"],
      ["Paragraph", "Twelve lamps"],
    ] as const) {
      await page.getByRole("button", { name: /^Set in/ }).click();
      await page.getByRole("option", { name: choice }).click();
      await page.waitForFunction(
        (w) => document.querySelector("[data-strip] [data-sample]")?.textContent?.includes(w),
        words,
      );
    }
  });

  test("ink and paper swap", async () => {
    const { page } = browser;
    await openWall(page, briefId);
    await page.getByRole("button", { name: "Swap ink and paper" }).click();
    await page.waitForFunction(
      () => getComputedStyle(document.querySelector("[data-strip] [data-sample]")!).color === "rgb(243, 239, 230)",
    );
    await page.getByRole("button", { name: "Swap ink and paper" }).click();
    await settle();
    expect((await api<{ ink: string }>(`/briefs/${briefId}`)).body.ink).toBe("#20262B");
  });
});

describe("the sieve", () => {
  test("kinds narrow the wall to what their count said; the word can be removed", async () => {
    const { page } = browser;
    await openWall(page, briefId);
    const all = await count(page);
    const button = page
      .getByRole("region", { name: "Sieve" })
      .getByRole("button", { name: /^› Blackletter|Blackletter/ });
    const said = Number((await button.innerText()).replace(/\D+/g, ""));
    await button.click();
    await page.waitForFunction(
      (n) => Number(document.querySelector("[data-count]")?.textContent?.split(" ")[0]) === n,
      said,
    );
    await page.locator("[data-understood] button", { hasText: "blackletter" }).click();
    await page.waitForFunction(
      (n) => Number(document.querySelector("[data-count]")?.textContent?.split(" ")[0]) === n,
      all,
    );
  });

  test("what was found stays until the next answer is there: counts, strips, histograms", async () => {
    const { page } = browser;
    await openWall(page, briefId);
    const before = await page.locator("[data-count]").innerText();
    const range = () => page.getByLabel("Weight to").getAttribute("max");
    const most = await range();
    let answer = () => {};
    const isAnswered = new Promise<void>((resolve) => (answer = resolve));
    await page.route("**/api/v1/styles?**", async (route) => {
      await isAnswered;
      // What was asked before the last key is not waited for any more.
      await route.continue().catch(() => {});
    });
    await page.getByLabel("Find by name, kind or shape").fill("slab");
    await page.waitForTimeout(600);
    expect(await page.locator("[data-count]").innerText()).toBe(before);
    expect(await page.locator("[data-strip]").count()).toBeGreaterThan(3);
    expect(await range()).toBe(most);
    answer();
    await waitUntil(async () => (await page.locator("[data-count]").innerText()) !== before);
    await page.unroute("**/api/v1/styles?**");
    await page.getByLabel("Find by name, kind or shape").fill("");
  });

  test("weight by its two thumbs", async () => {
    const { page } = browser;
    const low = page.getByLabel("Weight from");
    await low.focus();
    for (let i = 0; i < 39; i++) await page.keyboard.press("ArrowRight");
    await page.locator("[data-understood]", { hasText: /weight from [78]\d\d/ }).waitFor();
    await page.waitForFunction(() => Number(document.querySelector("[data-count]")?.textContent?.split(" ")[0]) < 220);
    expect(await count(page)).toBeLessThan(220);
    expect(page.url()).toContain("traits=weight:");
  });

  test("picture fonts alone", async () => {
    const { page } = browser;
    await openWall(page, briefId);
    await page.getByRole("button", { name: /Only these/ }).click();
    await page.waitForFunction(() => Number(document.querySelector("[data-count]")?.textContent?.split(" ")[0]) < 10);
    expect(await page.locator("[data-name^='Libre Barcode']").count()).toBe(1);
  });

  test.each([
    ["playfiar display", "Playfair Display"],
    ["dancng script", "Dancing Script"],
    ["zila slab", "Zilla Slab"],
    ["roboto felx", "Roboto Flex"],
    ["unifraktur kook", "UnifrakturCook"],
  ])("the slip “%s” finds %s first", async (q, family) => {
    const { body } = await api<{ items: { family: string }[] }>(`/styles?q=${encodeURIComponent(q)}`);
    expect(body.items[0]?.family).toBe(family);
  });

  test("what is not understood is said; where nothing is all of it, the nearest are shown with what each word costs", async () => {
    const { page } = browser;
    await openWall(page, briefId);
    await page.getByLabel("Find by name, kind or shape").fill("slab wqzxk");
    await page.getByText("Ignored: wqzxk").waitFor();
    await page.getByLabel("Find by name, kind or shape").fill("slab script blackletter");
    const nearest = page.locator("[data-nearest]");
    await nearest.getByText(/^Nothing is all of this/).waitFor();
    expect(await page.locator("[data-strip]").count()).toBeGreaterThan(0);
    expect(await page.locator("[data-count]").innerText()).toMatch(/^0 of /);
    const cheapest = nearest.getByRole("button").first();
    const said = Number((await cheapest.innerText()).split(": ")[1]);
    await cheapest.click();
    await page.locator("[data-nearest]").waitFor({ state: "detached" });
    await waitUntil(async () => (await count(page)) === said);
  });
});
