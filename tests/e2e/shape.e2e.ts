// Finding by shape and word in the page: suggestions, the sieve, saved searches, likeness, the parts of the style page, own words.
import { beforeAll, describe, expect, test } from "@jest/globals";
import sharp from "sharp";
import { api, saved, count, expectNoAxeFaults, makeBrief, openBrowser, openWall, styleNamed } from "./browser";

const browser = openBrowser();
let briefId = "";
beforeAll(async () => {
  briefId = await makeBrief({
    name: "Shape test",
    lines: [{ text: "Wren & Tern No. 7", role: "title" }],
    uses: ["goods-for-sale"],
  });
});
const settle = () => browser.page.waitForTimeout(450);
const first = () => browser.page.locator("[data-strip]").first().getAttribute("data-name");
type Found = {
  total: number;
  items: { family: string; style: string; traits: Record<string, number | null>; axisWanted: Record<string, number> }[];
  facets: { kinds: Record<string, number> };
};
const find = async (question: string) => (await api<Found>(`/styles?${question}&limit=40`)).body;

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
    const heavy = await count(page);
    expect(heavy).toBeLessThan(all);
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
    const box = (await drawn.locator("path").boundingBox())!;
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
      .hover();
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
    await page.getByLabel("Find a language").fill("russian");
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
