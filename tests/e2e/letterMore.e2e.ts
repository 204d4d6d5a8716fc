// Letter, further: a word sent to the plotter, glyphs by their look and name, points and curves by hand, a picture in colours, axes, looks,
// several letterings of one brief; by night.
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import type { Block, Lettering, LetteringDocument } from "@/contracts/lettering";
import type { GlyphList } from "@/contracts/styles";
import {
  api,
  boxOf,
  expectNoAxeFaults,
  fetchAgain,
  makeBrief,
  openBrowser,
  saved,
  standIns,
  styleNamed,
  url,
  waitUntil,
} from "./browser";

const browser = openBrowser();
let briefId = "";
let letteringId = "";
let script = "";
let slab = "";
let variable = "";
let picture = "";

const INK = "#20262b";
const block = (id: string, text: string, styleId: string, more: Partial<Block> = {}): Block =>
  ({ id, text, styleId, size: { emMm: 60 }, at: { xMm: 30, yMm: 90 }, fill: INK, ...more }) as Block;
const documentOf = (...blocks: Block[]): LetteringDocument => ({
  sheet: { widthMm: 300, heightMm: 200, ground: null },
  blocks,
});

beforeAll(async () => {
  briefId = await makeBrief({
    name: "Hull letters",
    lines: [{ text: "Wren & Tern", role: "title" }],
    uses: ["cutting"],
    size: 60,
    unit: "mm",
  });
  [script, slab, variable] = (await Promise.all(
    ["kaushan script", "alfa slab one", "fraunces variable"].map(async (q) => (await styleNamed(q)).styleId),
  )) as [string, string, string];
  const pictures = await api<{ items: { styleId: string; owned: boolean }[] }>("/styles?kinds=picture&limit=50");
  picture = pictures.body.items.find((i) => i.owned)!.styleId;
  for (const id of [script, slab, variable, picture])
    await api(`/briefs/${briefId}/kept/${id}`, { method: "PUT", json: {} });
  const made = await api<Lettering>(`/briefs/${briefId}/letterings`, {
    method: "POST",
    json: { name: "Hull letters", document: documentOf(block("l_0", "Wren & Tern", script)) },
  });
  letteringId = made.body.letteringId;
}, 60_000);
afterAll(() => setFilm(610));

const lettering = async () => (await api<Lettering>(`/letterings/${letteringId}`)).body;
const first = async () => (await lettering()).document.blocks[0]!;
const savedOn = () => browser.page.locator("[data-saved=true]").waitFor();
const setFilm = (widthMm: number) =>
  fetch(`${standIns()}/plotter/film`, { method: "PUT", body: JSON.stringify(widthMm) });
/** Begins a test with a document of its own. What the page has not saved yet would be saved over it when the page is loaded again. */
async function begin(document: LetteringDocument, query: string) {
  if (await browser.page.locator("[data-saved]").count()) await savedOn();
  await api(`/letterings/${letteringId}`, { method: "PATCH", json: { document } });
  await browser.page.goto(`/b/${briefId}/letter${query}`);
  await browser.page.locator("[data-sheet] [data-block] path").first().waitFor();
}

describe("from text to cut letters", () => {
  test("a word is joined, checked, mended, and sent to the plotter, which packs what is not kept together", async () => {
    const { page } = browser;
    await begin(documentOf(block("l_0", "Wren & Tern", script, { size: { emMm: 80 } })), "?way=shape");
    await page.getByLabel("Joined to one outline").check();
    await savedOn();
    await page.getByRole("button", { name: "Check" }).click();
    await page.getByLabel("Thinnest stroke").fill("2.5");
    await page.keyboard.press("Enter");
    const grow = page.getByRole("button", { name: "Grow the outline" });
    await grow.first().waitFor();
    for (let i = 0; i < 6 && (await grow.count()); i++) {
      await grow.first().click();
      await savedOn();
      await page.locator("[data-check][aria-busy=false]").waitFor();
    }
    expect(await grow.count()).toBe(0);
    expect((await first()).growMm).toBeGreaterThan(0);
    await page.getByText(/m to cut, \d+ s/).waitFor();
    await page.getByRole("button", { name: "Save as" }).click();
    await page.getByRole("radio", { name: /^HPGL/ }).check();
    await page.getByText("Roll cutter, film 610 mm wide").waitFor();
    await page.getByRole("button", { name: "Send to the plotter" }).click();
    const plot = page.getByRole("region", { name: "What the plotter cuts" });
    await plot.getByText(/^Sent\. \d+ pieces in \d+ cuts\.$/).waitFor();
    await plot.getByText(/would not lie as they were set/).waitFor();
    await expectNoAxeFaults(page);
    await plot.getByRole("button", { name: "Keep them together and send again" }).click();
    await plot.getByText("All pieces lie as they were set: they are kept together.").waitFor();
    await savedOn();
    expect((await first()).keepTogether).toBeDefined();
    // Cut by cut: the order can be followed.
    const slider = plot.getByLabel("Cuts shown");
    await slider.fill("2");
    await plot.getByRole("img", { name: /^2 of \d+ cuts/ }).waitFor();
    await plot.getByRole("button", { name: "Back to the sheet" }).click();
    await page.locator("[data-sheet]").waitFor();
  });

  test("what the film cannot hold is refused in the plotter's words, and a plotter that is away is told", async () => {
    const { page } = browser;
    await setFilm(60);
    await begin(documentOf(block("l_0", "Wren", script, { size: { emMm: 150 }, joined: true })), "?way=save");
    await page.getByRole("radio", { name: /^DXF/ }).check();
    await page.getByRole("button", { name: "Send to the plotter" }).click();
    await page.getByText("A part is higher than the 40 mm that the film holds. Nothing was cut.").waitFor();
    await setFilm(610);
    const faults = (down: boolean) =>
      fetch(`${standIns()}/faults/plotter`, { method: "PUT", body: JSON.stringify({ down }) });
    await faults(true);
    await page.getByRole("button", { name: "Send to the plotter" }).click();
    await page.getByText("The plotter does not answer.", { exact: false }).first().waitFor();
    await faults(false);
    await page.getByRole("button", { name: "Send to the plotter" }).click();
    await page.getByText(/^Sent\./).waitFor();
  });
});

describe("letters no key reaches", () => {
  test("a glyph is found by what it looks like, by name and by code point, put in place and inserted", async () => {
    const { page } = browser;
    await begin(documentOf(block("l_0", "No. 0", slab)), "");
    await page.getByRole("button", { name: /^Letter 0/ }).click();
    await page.getByRole("button", { name: "All glyphs of this face" }).click();
    const glyphs = page.getByRole("region", { name: "All glyphs of this face" });
    await glyphs.getByLabel("Like 0").check();
    // The nearest to a nought are rounds of capital height.
    await glyphs
      .getByRole("button", { name: /^Choose latin capital letter o(?: with .*)?, U\+/i })
      .first()
      .waitFor();
    await glyphs.getByLabel("Like 0").uncheck();
    await glyphs.getByLabel("Find a glyph").fill("ampersand");
    await glyphs.getByRole("button", { name: /^Choose ampersand, U\+0026/i }).click();
    await glyphs.getByRole("button", { name: "Put in place of 0" }).click();
    await savedOn();
    await waitUntil(async () => (await first()).letters?.[0]?.at === 4);
    const list = (await api<GlyphList>(`/styles/${slab}/glyphs?q=U%2B0026`)).body;
    expect((await first()).letters).toEqual([{ at: 4, glyphId: list.glyphs[0]!.id }]);
    await glyphs.getByLabel("Find a glyph").fill("U+0037");
    await glyphs
      .getByRole("button", { name: /digit seven/i })
      .first()
      .click();
    await glyphs.getByRole("button", { name: /^Insert after/ }).click();
    await waitUntil(async () => (await first()).text === "No. 07");
    await page
      .getByRole("button", { name: /^Letter 7/ })
      .first()
      .waitFor();
    // What was done before stays with its letter.
    expect((await first()).letters![0]!.at).toBe(4);
  });

  test("look-alikes over HTTP: the nearest first, without itself", async () => {
    const of = async (q: string) => (await api<GlyphList>(`/styles/${slab}/glyphs?q=${q}`)).body.glyphs[0]!;
    const like = async (q: string) =>
      (await api<GlyphList>(`/styles/${slab}/glyphs?alike=${(await of(q)).id}`)).body.glyphs;
    const [o, bar] = [await like("O"), await like("l")];
    expect(o.map((g) => g.id)).not.toContain((await of("O")).id);
    const characters = (list: typeof o) =>
      list.slice(0, 12).flatMap((g) => g.codePoints.map((c) => String.fromCodePoint(c)));
    expect(characters(o).some((c) => "0QÖÓÒÔÕ".includes(c))).toBe(true);
    expect(characters(bar).some((c) => "I1|!ĺľļ".includes(c))).toBe(true);
    expect((await api(`/styles/${slab}/glyphs?alike=-1`)).status).toBe(400);
  });
});

describe("bent by hand", () => {
  test("a point of a letter is moved by keys: the contour stays smooth, and undo brings it back", async () => {
    const { page } = browser;
    await begin(documentOf(block("l_0", "o", script)), "?way=shape&letter=0");
    await page.getByLabel("Points").check();
    const point = page.getByRole("button", { name: /^Point 1 of \d+$/ });
    await point.focus();
    await page.keyboard.press("Shift+ArrowRight");
    await waitUntil(async () => (await first()).letters?.[0]?.points !== undefined);
    const { points } = (await first()).letters![0]!;
    const moved = points!.find((p) => p.point === 0)!;
    expect(moved.dxEm).toBeCloseTo(10 / 60, 4);
    expect(points!.length).toBeGreaterThan(1);
    const handle = await boxOf(page.getByRole("button", { name: /^Point 3 of/ }));
    const [x, y] = [handle.x + handle.width / 2, handle.y + handle.height / 2];
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x + 12, y + 9, { steps: 4 });
    await page.mouse.up();
    await waitUntil(async () => ((await first()).letters?.[0]?.points?.length ?? 0) > points!.length);
    await page.keyboard.press("u");
    await waitUntil(async () => JSON.stringify((await first()).letters?.[0]?.points) === JSON.stringify(points));
  });

  test("a wave is bent at its crest, a curve is drawn by a stroke", async () => {
    const { page } = browser;
    const path = { kind: "wave" as const, heightMm: 20, lengthMm: 200 };
    await begin(documentOf(block("l_0", "High water", slab, { size: { emMm: 20 }, path })), "");
    await page.getByRole("button", { name: "Crest of the wave" }).focus();
    await page.keyboard.press("Shift+ArrowUp");
    await waitUntil(async () => ((await first()).path as typeof path).heightMm === 40);
    await page.getByRole("button", { name: /^Lies on/ }).click();
    await page.getByRole("option", { name: "a drawn curve" }).click();
    await page.getByRole("button", { name: "Draw it on the sheet" }).click();
    const sheet = await boxOf(page.locator("[data-stroke]"));
    const at = (u: number, v: number): [number, number] => [sheet.x + u * sheet.width, sheet.y + v * sheet.height];
    await page.mouse.move(...at(0.1, 0.6));
    await page.mouse.down();
    for (let i = 1; i <= 20; i++) await page.mouse.move(...at(0.1 + 0.04 * i, 0.6 - 0.15 * Math.sin(i / 5)));
    await page.mouse.up();
    await waitUntil(async () => (await first()).at.xMm < 35 && (await first()).path?.kind === "drawn");
    const drawn = (await first()).path as { d: string };
    expect(drawn.d).toMatch(/^M0 0C/);
    // Few curves, not a corner a move of the hand.
    expect(drawn.d.split("C").length).toBeLessThan(8);
  });

  test("a line that is dragged comes to rest on the baseline of another", async () => {
    const { page } = browser;
    const two = [
      block("l_0", "Wren", slab, { size: { emMm: 30 } }),
      block("l_1", "Tern", slab, { size: { emMm: 30 }, at: { xMm: 170, yMm: 150 } }),
    ];
    await begin(documentOf(...two), "?line=l_1");
    const line = page.getByRole("button", { name: "Line Tern" });
    const box = await boxOf(line);
    const svg = await boxOf(page.locator("[data-sheet] svg").first());
    const pxPerMm = svg.width / 300;
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2 - 58 * pxPerMm, { steps: 6 });
    await page.locator("[data-guide]").first().waitFor({ state: "attached" });
    await page.mouse.up();
    await waitUntil(async () => (await lettering()).document.blocks[1]!.at.yMm === 90);
  });
});

describe("coloured and changed", () => {
  test("a picture is taken apart into its parts, one is coloured, and the file has the colour", async () => {
    const { page } = browser;
    const { body } = await api<GlyphList>(`/styles/${picture}/glyphs`);
    // One with several contours that stand beside one another.
    const drawn = body.glyphs.filter((g) => g.codePoints.length && (g.path.match(/M/g) ?? []).length > 3);
    const text = drawn
      .slice(0, 6)
      .map((g) => String.fromCodePoint(g.codePoints[0]!))
      .join("");
    await begin(documentOf(block("l_0", text, picture, { size: { emMm: 40 } })), "?way=shape&letter=0");
    let at = 0;
    const second = page.getByLabel(/^Colour of part 2 of/);
    for (; at < 6; at++) {
      await page.locator(`[data-letter='${at}']`).click();
      await page.getByText(/Its parts|Its colour/).waitFor();
      if (await second.count()) break;
    }
    await second.first().fill("#9c2b3b");
    await waitUntil(async () => (await first()).letters?.some((l) => l.fills?.[1] === "#9c2b3b") ?? false);
    await page.getByRole("button", { name: "Save as" }).click();
    const download = page.waitForEvent("download");
    await page.getByRole("button", { name: "Save SVG" }).click();
    const svg = Buffer.from(await saved(download)).toString();
    expect(svg).toContain('fill="#9c2b3b"');
    expect(svg).toContain(`fill="${INK}"`);
  });

  test("an axis is dragged and typed, a feature switched", async () => {
    const { page } = browser;
    await begin(documentOf(block("l_0", "Tide", variable)), "");
    const weight = page.getByLabel("Weight", { exact: true });
    await weight.fill("500");
    await weight.press("Enter");
    await waitUntil(async () => (await first()).coordinates?.wght === 500);
    await page.getByLabel("Weight, dragged").press("Home");
    await waitUntil(async () => (await first()).coordinates?.wght === 100);
    await page.getByLabel("ligatures", { exact: true }).first().uncheck();
    await waitUntil(async () => (await first()).features?.liga === 0);
  });

  test("a look is put on, and one's own is kept under a name", async () => {
    const { page } = browser;
    await begin(documentOf(block("l_0", "Tern", slab)), "?way=shape");
    await page.getByRole("button", { name: /^Look/ }).click();
    await page.getByRole("button", { name: "Painted hull" }).click();
    await waitUntil(async () => (await first()).outline?.colour === "#1c6b74");
    expect((await first()).shadow).toMatchObject({ blurMm: 0 });
    await page.keyboard.press("Escape");
    await page.getByLabel("Width of the outline").fill("4");
    await page.keyboard.press("Enter");
    await waitUntil(async () => (await first()).outline?.widthMm === 4);
    await page.getByRole("button", { name: /^Look of its own/ }).click();
    await page.getByLabel("Name of your look").fill("Boatyard");
    await page.keyboard.press("Enter");
    await page.getByRole("button", { name: "Boatyard", exact: true }).waitFor();
    await page.getByRole("button", { name: "Plain ink" }).click();
    await waitUntil(async () => (await first()).outline === undefined);
    await page.getByRole("button", { name: "Boatyard", exact: true }).click();
    await waitUntil(async () => (await first()).outline?.widthMm === 4);
    await page.getByRole("button", { name: "Remove Boatyard" }).click();
    await page.getByRole("button", { name: "Boatyard", exact: true }).waitFor({ state: "detached" });
  });
});

describe("a document as a file", () => {
  test("is saved, opened again as one step, and refused in words where it is none", async () => {
    const { page } = browser;
    await begin(documentOf(block("l_0", "Tern", slab, { trackingEm: 0.1 })), "?way=save");
    const download = page.waitForEvent("download");
    await page.getByRole("button", { name: "The document as JSON" }).click();
    const json = JSON.parse(Buffer.from(await saved(download)).toString()) as LetteringDocument;
    expect(json).toEqual((await lettering()).document);
    const input = page.getByLabel("A lettering as JSON");
    const open = (name: string, text: string) =>
      input.setInputFiles({ name, mimeType: "application/json", buffer: Buffer.from(text) });
    await open("notes.json", "{");
    await page.getByText("“notes.json” is no lettering document.").waitFor();
    await open("newer.json", JSON.stringify({ ...json, version: 99 }));
    await page.getByText("This document was made by a newer version.").waitFor();
    const strange = { ...json, blocks: [{ ...json.blocks[0]!, styleId: "s_0123456789abcdef0123" }] };
    await open("strange.json", JSON.stringify(strange));
    await page.getByText("The face of “Tern” is not in this library.").waitFor();
    expect((await lettering()).document).toEqual(json);
    const changed = { ...json, blocks: [{ ...json.blocks[0]!, text: "Wren", trackingEm: 0 }] };
    await open("wren.json", JSON.stringify(changed));
    await waitUntil(async () => (await first()).text === "Wren");
    await page.keyboard.press("u");
    await waitUntil(async () => (await first()).text === "Tern");
  });
});

describe("several letterings of a brief", () => {
  test("another is started from one, named, opened, deleted and brought back", async () => {
    const { page } = browser;
    await begin(documentOf(block("l_0", "Tern", slab)), "");
    const list = async () =>
      (await api<{ letterings: Lettering[] }>(`/briefs/${briefId}/letterings`)).body.letterings.map((l) => l.name);
    await page.getByRole("button", { name: "1 lettering" }).click();
    await page.getByRole("menuitem", { name: "Start another from this one" }).click();
    await page.getByRole("button", { name: "2 letterings" }).waitFor();
    const name = page.getByLabel("Name of the lettering");
    await waitUntil(async () => (await name.inputValue()) === "Hull letters 2");
    await name.fill("Stern letters");
    await name.press("Enter");
    await waitUntil(async () => (await list()).includes("Stern letters"));
    // A name is no step: what is done next is no clash.
    const spacing = page.getByLabel("Spacing");
    await spacing.fill("30");
    await spacing.press("Enter");
    await savedOn();
    expect(await page.getByText("changed elsewhere").count()).toBe(0);
    await page.getByRole("button", { name: "2 letterings" }).click();
    await page.getByRole("menuitem", { name: "Hull letters", exact: true }).click();
    await waitUntil(async () => (await name.inputValue()) === "Hull letters");
    expect(await page.getByLabel("Spacing").inputValue()).toBe("0");
    await page.getByRole("button", { name: "2 letterings" }).click();
    await page.getByRole("menuitem", { name: "Delete Stern letters" }).click();
    await page.getByText("Stern letters deleted.").waitFor();
    expect(await list()).toEqual(["Hull letters"]);
    await page.getByRole("button", { name: "Bring it back" }).click();
    await waitUntil(async () => (await list()).length === 2);
  });
});

test("by night, in all four ways, axe finds nothing", async () => {
  const { page } = browser;
  await begin(documentOf(block("l_0", "Wren & Tern", script, { size: { emMm: 40 } })), "");
  await page.evaluate(() => (document.documentElement.dataset.theme = "night"));
  for (const way of ["Set", "Shape", "Check", "Save as"]) {
    await page.getByRole("button", { name: way, exact: true }).click();
    if (way === "Check") await page.locator("[data-check][aria-busy=false]").waitFor();
    await expectNoAxeFaults(page);
  }
});

test("a file of look and layout is the same whoever asks: over HTTP with a group", async () => {
  const document = documentOf(block("l_0", "Wren", slab, { keepTogether: "hull" }));
  const answer = await fetchAgain(`${url()}/api/v1/plotter/plots`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ document, format: "svg" }),
  });
  expect(answer.status).toBe(201);
  expect(await answer.json()).toMatchObject({ groups: 1, movedPieces: 0 });
});
