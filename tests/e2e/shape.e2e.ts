// Finding by shape and word in the page: suggestions, the sieve, the wall, saved searches.
import { beforeAll, describe, expect, test } from "@jest/globals";
import sharp from "sharp";
import { api, count, expectNoAxeFaults, find, makeWrenBrief, openBrowser, openWall, waitUntil } from "./browser";

const browser = openBrowser();
let briefId = "";
beforeAll(async () => {
  briefId = await makeWrenBrief();
});
const settle = () => browser.page.waitForTimeout(450);
const first = () => browser.page.locator("[data-strip]").first().getAttribute("data-name");

describe("the find field", () => {
  test("offers what could follow; Tab takes it", async () => {
    const { page } = browser;
    await openWall(page, briefId);
    const field = page.getByRole("combobox", { name: /^Find by/ });
    await field.fill("old standa");
    await page.getByRole("option", { name: /Old Standard TT/ }).waitFor();
    await page.keyboard.press("ArrowDown");
    await page.keyboard.press("Tab");
    expect((await field.inputValue()).trim()).toBe("Old Standard TT");
    await settle();
    expect(await first()).toMatch(/^Old Standard TT/);
    await field.fill("stur");
    await page.getByRole("option", { name: /^sturdy/ }).click();
    await page.getByRole("button", { name: "sturdy", exact: true }).waitFor();
  });

  test("says what it understood of a long sentence, and takes one of its words away", async () => {
    const { page } = browser;
    const field = page.getByRole("combobox", { name: /^Find by/ });
    await field.fill("like Lora but narrower and free to sell, qwrtz");
    for (const word of ["like Lora", "narrower", "may be sold with"])
      await page.getByRole("button", { name: word, exact: true }).waitFor();
    await page.getByText("Ignored: qwrtz").waitFor();
    const narrow = await count(page);
    expect(await page.locator("[data-strip]").first().getAttribute("data-name")).not.toMatch(/^Lora/);
    await page.getByRole("button", { name: "narrower", exact: true }).click();
    await settle();
    expect(await count(page)).toBeGreaterThan(narrow);
  });
});

describe("the sieve", () => {
  test("a thumb of a histogram narrows the wall; the word above removes it", async () => {
    const { page } = browser;
    await openWall(page, briefId);
    const all = await count(page);
    const thumb = page.getByLabel("Weight from");
    await thumb.focus();
    for (let i = 0; i < 30; i++) await page.keyboard.press("ArrowRight");
    await page
      .locator("[data-understood]")
      .getByRole("button", { name: /^weight from/ })
      .waitFor();
    await settle();
    await waitUntil(async () => (await count(page)) < all);
    expect(await count(page)).toBeLessThan(all);
    expect(page.url()).toMatch(/traits=weight/);
    await page.getByRole("button", { name: /more measures/ }).click();
    await page.getByLabel("Aperture from").waitFor();
    await page.getByRole("button", { name: /^weight from/ }).click();
    await settle();
    expect(await count(page)).toBe(all);
  });

  test("parts open, count and combine; the address holds them", async () => {
    const { page } = browser;
    await page.locator("summary", { hasText: "Family" }).click();
    await page.getByRole("button", { name: /^8 weights or more/ }).click();
    await page.locator("summary", { hasText: "Mood" }).click();
    await page.getByRole("button", { name: /^airy/ }).click();
    await settle();
    const two = await count(page);
    expect(two).toBeGreaterThan(0);
    await page.reload();
    await page.locator("[data-strip]").first().waitFor();
    expect(await count(page)).toBe(two);
    await expectNoAxeFaults(page);
  });

  test("a variable font is set at the weight that was asked for", async () => {
    const heavy = await find("traits=weight:750~&axes=wght&sort=name");
    expect(heavy.items.length).toBeGreaterThan(3);
    const moved = heavy.items.filter((i) => (i.traits.weight ?? 0) < 750);
    expect(moved.length).toBeGreaterThan(0);
    for (const i of moved) expect(Object.keys(i.axisWanted)).not.toHaveLength(0);
  });

  test("every filter of the interface is answered, nonsense is refused", async () => {
    const all = (await find("sort=name")).total;
    for (const q of [
      "features=tnum",
      "axes=any",
      "moods=book text",
      "vox=didone",
      "cases=capitals-only",
      "figures=old-style",
      "weightsMin=8",
      "italics=true",
      "chars=%E2%82%AC",
      "health=fine",
      "formats=woff2",
      "libraries=open-collection",
      "priceMax=0",
      "languages=de",
    ]) {
      const { total } = await find(q);
      expect([q, total > 0 && total < all]).toEqual([q, true]);
    }
    for (const bad of ["traits=weight", "traits=colour:1~2", "kinds=serious", "sort=1;drop", "stylesMin=x"])
      expect((await api(`/styles?${bad}`)).status).toBe(400);
  });
});

describe("the wall", () => {
  test("families fold, and the place is kept when the wall is left", async () => {
    const { page } = browser;
    await openWall(page, briefId, "?fold=true&sort=name");
    expect(await count(page)).toBeGreaterThan(180);
    await page.locator("[data-strip]").first().focus();
    for (let i = 0; i < 12; i++) await page.keyboard.press("ArrowDown");
    await settle();
    const at = await page.evaluate(() => document.activeElement?.getAttribute("data-name"));
    await page.keyboard.press("Enter");
    await page.waitForURL(/\/style\//);
    await page.goBack();
    await page.locator(`[data-name="${at}"]`).waitFor();
    expect(await page.getByRole("grid", { name: "Faces" }).evaluate((e) => e.scrollTop)).toBeGreaterThan(300);
  });

  test("two faces stand beside each other while a key is held", async () => {
    const { page } = browser;
    await openWall(page, briefId, "?q=serif&sort=name");
    await page.locator("[data-strip]").first().focus();
    await page.keyboard.press("ArrowRight");
    await page.keyboard.down("d");
    await page.locator("[data-beside]").waitFor();
    await page
      .getByText(/is (heavier|lighter|wider|narrower|rounder|sharper|more|less|larger|smaller|g of|a of)|two are alike/)
      .waitFor();
    await page.keyboard.up("d");
    await page.locator("[data-beside]").waitFor({ state: "detached" });
  });

  test("levelled by line width, all lines are about equally long", async () => {
    const { page } = browser;
    await openWall(page, briefId, "?q=sans&columns=2");
    await page.getByRole("button", { name: /^Match size by/ }).click();
    await page.getByRole("option", { name: "line width" }).click();
    await settle();
    await settle();
    const widths = await page
      .locator("[data-strip] [data-face=ready] [data-sample]")
      .evaluateAll((all) => all.slice(0, 6).map((e) => (e as HTMLElement).offsetWidth));
    expect(Math.max(...widths) / Math.min(...widths)).toBeLessThan(1.12);
    await api(`/briefs/${briefId}`, { method: "PATCH", json: { levelBy: "x-height" } });
  });

  test("single letters large; on the brief's picture", async () => {
    const { page } = browser;
    const picture = await sharp({ create: { width: 900, height: 500, channels: 3, background: "#1c6b74" } })
      .png()
      .toBuffer();
    await page.goto(`/b/${briefId}/brief`);
    await page
      .getByLabel("Picture of the brief")
      .setInputFiles({ name: "quay.png", mimeType: "image/png", buffer: picture });
    await page.getByRole("img", { name: "The brief’s picture" }).waitFor();
    await openWall(page, briefId, "?set=letters&ground=picture");
    await page.getByLabel("Letters to show").fill("Rg4");
    await settle();
    const strip = page.locator("[data-strip]").first();
    expect((await strip.locator("[data-sample]").innerText()).replace(/\s+/g, " ").trim()).toBe("R g 4");
    const ground = await strip.evaluate((e) =>
      [...e.querySelectorAll("div")].map((d) => getComputedStyle(d).backgroundImage).find((b) => b.startsWith("url")),
    );
    expect(ground).toMatch(/\/briefs\/.*\/picture/);
  });

  test("what is no picture is refused, and the old one stays", async () => {
    const put = async (bytes: Uint8Array, name: string) => {
      const form = new FormData();
      form.append("image", new File([bytes as BlobPart], name));
      return api<{ error?: { code: string } }>(`/briefs/${briefId}/picture`, { method: "PUT", body: form });
    };
    expect(
      (
        await put(
          new TextEncoder().encode("<svg xmlns='http://www.w3.org/2000/svg'><image href='file:///etc/passwd'/></svg>"),
          "x.svg",
        )
      ).body.error?.code,
    ).toBe("picture-broken");
    expect((await put(new Uint8Array(0), "empty.png")).body.error?.code).toBe("picture-empty");
    expect(
      (
        await put(
          Uint8Array.from({ length: 5000 }, (_, i) => (i * 7919) & 255),
          "junk.jpg",
        )
      ).body.error?.code,
    ).toBe("picture-broken");
    const bomb = await sharp({ create: { width: 16000, height: 5000, channels: 3, background: "#fff" } })
      .png({ compressionLevel: 9 })
      .toBuffer();
    expect((await put(bomb, "bomb.png")).body.error?.code).toBe("picture-too-large");
    const { body } = await api<{ picture: string | null }>(`/briefs/${briefId}`);
    expect(body.picture).toMatch(/^[0-9a-f]{64}$/);
  });
});

describe("saved searches", () => {
  test("saved under its words, opened from elsewhere, forgotten with undo", async () => {
    const { page } = browser;
    await openWall(page, briefId, "?q=heavy%20slab");
    await page.getByRole("button", { name: /^Searches/ }).click();
    await page.getByRole("menuitem", { name: "Save this search" }).click();
    await page.getByText("Saved as “heavy, slab serif”.").waitFor();
    await openWall(page, briefId);
    await page.getByRole("button", { name: /^Searches/ }).click();
    await page.getByRole("menuitem", { name: "heavy, slab serif", exact: true }).click();
    await page.getByRole("button", { name: "slab serif", exact: true }).waitFor();
    await page.getByRole("button", { name: /^Searches/ }).click();
    await page.getByRole("menuitem", { name: "Forget the search heavy, slab serif" }).click();
    await page.getByRole("button", { name: /^Undo/ }).click();
    await settle();
    expect((await api<{ searches: { name: string }[] }>("/searches")).body.searches.map((s) => s.name)).toContain(
      "heavy, slab serif",
    );
  });
});
