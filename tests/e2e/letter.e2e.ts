// Letter: from the lines of a brief to a joined, checked, mended cut file; letters by key, by their look, on a path; steps that outlive a
// reload; two tabs at one lettering.
import { beforeAll, describe, expect, test } from "@jest/globals";
import { unzipSync } from "fflate";
import sharp from "sharp";
import type { Lettering, LetteringCheck, LetteringDocument, LetteringLayout } from "@/contracts/lettering";
import {
  api,
  boxOf,
  expectNoAxeFaults,
  fetchAgain,
  makeBrief,
  openBrowser,
  saved,
  styleNamed,
  url,
  waitUntil,
} from "./browser";

const browser = openBrowser();
let briefId = "";
let script = "";
let alternates = "";
beforeAll(async () => {
  briefId = await makeBrief({
    name: "Hull letters",
    lines: [{ text: "Wren & Tern", role: "title" }],
    uses: ["cutting"],
    size: 120,
    unit: "mm",
    levelBy: "capitals",
  });
  script = (await styleNamed("kaushan script")).styleId;
  alternates = (await styleNamed("wrackline script regular")).styleId;
  for (const id of [script, alternates]) await api(`/briefs/${briefId}/kept/${id}`, { method: "PUT", json: {} });
});

const letterings = async () =>
  (await api<{ letterings: Lettering[] }>(`/briefs/${briefId}/letterings`)).body.letterings;
const lettering = async () => (await letterings())[0]!;
const block = async () => (await lettering()).document.blocks[0]!;
/** Waits until the server has what was done. */
const savedOn = () => browser.page.locator("[data-saved=true]").waitFor();
const open = async (query = "") => {
  await browser.page.goto(`/b/${briefId}/letter${query}`);
  await browser.page.locator("[data-sheet] [data-block] path").first().waitFor();
};

const documentOf = (text: string, more: object = {}): LetteringDocument =>
  ({
    sheet: { widthMm: 400, heightMm: 200, ground: null },
    blocks: [
      { id: "line-1", text, styleId: script, size: { emMm: 80 }, at: { xMm: 30, yMm: 120 }, fill: "#20262b", ...more },
    ],
  }) as LetteringDocument;

describe("over HTTP", () => {
  const write = (document: LetteringDocument, format: string, more: object = {}) =>
    fetchAgain(`${url()}/api/v1/lettering`, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ document, format, ...more }),
    });

  test("a layout tells every glyph, a check what would go wrong", async () => {
    const { body } = await api<LetteringLayout>("/lettering/layout", {
      method: "POST",
      json: { document: documentOf("Wren") },
    });
    expect(body.blocks[0]!.glyphs.map((g) => g.at)).toEqual([0, 1, 2, 3]);
    expect(body.blocks[0]!.missing).toEqual([]);
    const material = { minStrokeMm: 8, minGapMm: 0.5 };
    const checked = await api<LetteringCheck>("/lettering/check", {
      method: "POST",
      json: { document: documentOf("Wren"), material },
    });
    expect(checked.body.findings.some((f) => f.kind === "thin" && f.measuredMm! < 8 && f.wantedMm === 8)).toBe(true);
  });

  test("pictures are as wide as asked for, transparent without a ground; OpenRaster has a layer a block", async () => {
    const two = documentOf("Wren");
    two.blocks.push({ ...two.blocks[0]!, id: "line-2", text: "No. 7", at: { xMm: 30, yMm: 190 } });
    const png = sharp(Buffer.from(await (await write(two, "png", { widthPx: 801 })).arrayBuffer()));
    expect(await png.metadata()).toMatchObject({ width: 801, height: 401, hasAlpha: true });
    const corner = await png.extract({ left: 0, top: 0, width: 1, height: 1 }).raw().toBuffer();
    expect(corner[3]).toBe(0);
    const jpeg = await write(two, "jpeg", { widthPx: 300 });
    expect(jpeg.headers.get("content-type")).toBe("image/jpeg");
    const ora = unzipSync(new Uint8Array(await (await write(two, "ora", { widthPx: 200 })).arrayBuffer()));
    expect(Object.keys(ora).filter((name) => name.startsWith("data/"))).toHaveLength(2);
  });

  test.each(["svg", "pdf", "dxf", "hpgl"])("%s comes with its type and its name", async (format) => {
    const answer = await write(documentOf("Wren"), format);
    expect(answer.status).toBe(200);
    expect(answer.headers.get("content-disposition")).toContain(`lettering.${format === "hpgl" ? "plt" : format}`);
    expect((await answer.arrayBuffer()).byteLength).toBeGreaterThan(400);
  });

  test("live text carries its face", async () => {
    const svg = await (await write(documentOf("Wren"), "svg", { text: "live" })).text();
    expect(svg).toContain("@font-face");
    expect(svg).toContain(">W</tspan>");
  });

  test.each([
    ["letters-missing", () => documentOf("Wren ☃")],
    ["letters-too-many", () => documentOf("Wren ".repeat(2000))],
    ["lettering-newer", () => ({ ...documentOf("Wren"), version: 9 })],
    ["path-crosses-itself", () => documentOf("Wren", { path: { kind: "drawn", d: "M0 0L90 90L90 0L0 90" } })],
    ["path-unread", () => documentOf("Wren", { path: { kind: "drawn", d: "M0 0" } })],
  ])("%s is told with a sentence", async (code, make) => {
    const answer = await write(make(), "svg");
    const { error } = (await answer.json()) as { error: { code: string; message: string } };
    expect(error.code).toBe(code);
    expect(error.message).toMatch(/[.]$/);
    expect(answer.status).toBeGreaterThanOrEqual(400);
    expect(answer.status).toBeLessThan(500);
  });

  test("an old version is refused with the present state, and nothing is overwritten", async () => {
    const own = await makeBrief({ name: "Versions" });
    const made = await api<Lettering>(`/briefs/${own}/letterings`, {
      method: "POST",
      json: { name: "Hull", document: documentOf("Wren") },
    });
    const { letteringId } = made.body;
    const put = (text: string, version: number) =>
      api<Lettering & { error: { code: string; details: { lettering: Lettering } } }>(`/letterings/${letteringId}`, {
        method: "PATCH",
        json: { document: documentOf(text), version },
      });
    expect((await put("Tern", 1)).body.version).toBe(2);
    const late = await put("Fog", 1);
    expect([late.status, late.body.error.code]).toEqual([409, "changed-meanwhile"]);
    expect(late.body.error.details.lettering.document.blocks[0]!.text).toBe("Tern");
  });

  test("a hundred edits, undone to the first and redone to the last: the same bytes", async () => {
    const own = await makeBrief({ name: "Steps" });
    const path = `/letterings/${(await api<Lettering>(`/briefs/${own}/letterings`, { method: "POST", json: { name: "Hull", document: documentOf("Wren") } })).body.letteringId}`;
    const states = [JSON.stringify((await api<Lettering>(path)).body.document)];
    for (let i = 0; i < 100; i++) {
      const more = [
        { trackingEm: i / 1000 },
        { pairs: [{ at: i % 3, shiftEm: -i / 500 }] },
        { letters: [{ at: i % 4, dxMm: i, turnDeg: i }] },
        { joined: i % 2 === 0 },
      ][i % 4]!;
      const { body } = await api<Lettering>(path, { method: "PATCH", json: { document: documentOf("Wren", more) } });
      states.push(JSON.stringify(body.document));
    }
    for (let i = 99; i >= 0; i--) {
      const { body } = await api<Lettering>(`${path}/undo`, { method: "POST" });
      expect(JSON.stringify(body.document)).toBe(states[i]);
    }
    expect((await api(`${path}/undo`, { method: "POST" })).status).toBe(409);
    for (let i = 1; i <= 100; i++) await api(`${path}/redo`, { method: "POST" });
    const last = (await api<Lettering>(path)).body;
    expect(JSON.stringify(last.document)).toBe(states[100]);
    expect([last.stepsBack, last.stepsForward]).toEqual([100, 0]);
  });
});

describe("on the page", () => {
  test("the brief's lines are set at its size, in the face that is kept first", async () => {
    const { page } = browser;
    await page.goto(`/b/${briefId}/letter`);
    await page.getByRole("button", { name: "Start lettering" }).click();
    await page.locator("[data-sheet] [data-block] path").first().waitFor();
    expect(await block()).toMatchObject({ text: "Wren & Tern", styleId: script, size: { capHeightMm: 120 } });
    await page.getByRole("button", { name: "Fit to the letters" }).click();
    await savedOn();
    await expectNoAxeFaults(page);
  });

  test("a pair is kerned by keys, and undone by one", async () => {
    const { page } = browser;
    await open();
    await page.getByRole("button", { name: /^Between & space/ }).focus();
    await page.keyboard.press("ArrowLeft");
    await page.keyboard.press("ArrowLeft");
    await page.keyboard.press("Alt+ArrowLeft");
    await page.getByRole("button", { name: /^Between & space: -11 thousandths/ }).waitFor();
    await savedOn();
    expect((await block()).pairs).toEqual([{ at: 5, shiftEm: -0.011 }]);
    await page.locator("body").click({ position: { x: 700, y: 795 } });
    await page.keyboard.press("u");
    await page.getByRole("button", { name: /^Between & space: -10 thousandths/ }).waitFor();
    await savedOn();
    await page.reload();
    await page.getByRole("button", { name: /^Between & space: -10 thousandths/ }).waitFor();
  });

  test("letters stand on an arc; the size is dragged on the sheet", async () => {
    const { page } = browser;
    await open();
    await page.getByRole("button", { name: /^Lies on/ }).click();
    await page.getByRole("option", { name: "an arc, outside" }).click();
    await page.getByLabel("Radius").waitFor();
    await savedOn();
    expect((await block()).path).toMatchObject({ kind: "arc", startDeg: -90 });
    const before = (await block()).size as { capHeightMm: number };
    const handle = await boxOf(page.locator("[data-size-handle]"));
    await page.mouse.move(handle.x + 7, handle.y + 7);
    await page.mouse.down();
    await page.mouse.move(handle.x + 7, handle.y - 23, { steps: 5 });
    await page.mouse.up();
    await savedOn();
    await waitUntil(async () => ((await block()).size as { capHeightMm: number }).capHeightMm > before.capHeightMm);
  });

  test("one letter is moved by hand and by keys, and all goes back to text in one step", async () => {
    const { page } = browser;
    await open("?way=shape");
    const target = page.locator("[data-letter='0']");
    const at = await boxOf(target);
    await page.mouse.move(at.x + at.width / 2, at.y + at.height / 2);
    await page.mouse.down();
    await page.mouse.move(at.x + at.width / 2 + 20, at.y + at.height / 2 - 14, { steps: 4 });
    await page.mouse.up();
    await savedOn();
    await waitUntil(async () => ((await block()).letters?.[0]?.dxMm ?? 0) > 1);
    const moved = (await block()).letters![0]!;
    await target.focus();
    await page.keyboard.press("Shift+ArrowRight");
    await waitUntil(async () => Math.abs((await block()).letters![0]!.dxMm! - moved.dxMm! - 10) < 0.02);
    await page.getByRole("button", { name: "Back to text" }).click();
    await savedOn();
    await waitUntil(async () => (await block()).letters === undefined);
  });

  test("a form is put in by its look, in a face that the tray gives", async () => {
    const { page } = browser;
    await open();
    await page.getByRole("button", { name: "Set the line in Wrackline Script Regular" }).click();
    await waitUntil(async () => (await block()).styleId === alternates);
    const withForms = page.getByRole("button", { name: /^Letter .*has other forms/ }).first();
    await withForms.click();
    const forms = page.locator("[data-forms] [aria-pressed]");
    await forms.first().waitFor();
    expect(await forms.count()).toBeGreaterThan(1);
    await forms.nth(1).click();
    await waitUntil(async () => (await block()).letters?.[0]?.glyphId !== undefined);
    await page.getByRole("button", { name: "Set the line in Kaushan Script Regular" }).click();
    // A glyph of one face is none of another's.
    await waitUntil(async () => (await block()).styleId === script && (await block()).letters === undefined);
  });

  test("checked in a material, letters that overlap are joined, strokes grown, and the file is cut from that", async () => {
    const { page } = browser;
    await open("?way=check");
    await page.getByLabel("Thinnest stroke").fill("9");
    await page.keyboard.press("Enter");
    await page.getByText(/would go wrong in this material\.$/).waitFor();
    await page.getByRole("button", { name: "Grow the outline" }).first().waitFor();
    await page.locator("[data-mark='1']").waitFor();
    // One after another, as long as there is a thin stroke left.
    for (let i = 0; i < 6 && (await page.getByRole("button", { name: "Grow the outline" }).count()); i++) {
      await page.getByRole("button", { name: "Grow the outline" }).first().click();
      await savedOn();
      await page.locator("[data-check][aria-busy=false]").waitFor();
    }
    await waitUntil(async () => ((await block()).growMm ?? 0) > 0);
    await page.getByRole("button", { name: "Save as" }).click();
    await page.getByRole("radio", { name: /^DXF/ }).check();
    const download = page.waitForEvent("download");
    await page.getByRole("button", { name: "Save DXF" }).click();
    const dxf = Buffer.from(await saved(download)).toString();
    expect(dxf).toContain("$INSUNITS");
    expect((dxf.match(/LWPOLYLINE/g) ?? []).length).toBeGreaterThanOrEqual(8);
  });

  test("in a second tab it says where it is open; taken over, both go on from the same", async () => {
    const { page, context } = browser;
    await open();
    const second = await context.newPage();
    await second.goto(`/b/${briefId}/letter`);
    await second.getByText("This lettering is open in another tab").waitFor();
    await second.getByRole("button", { name: "Work here instead" }).click();
    await page.getByText("This lettering is open in another tab").waitFor();
    const spacing = second.getByLabel("Spacing");
    await spacing.fill("25");
    await spacing.press("Enter");
    await waitUntil(async () => (await block()).trackingEm === 0.025);
    await second.close();
    await page.getByRole("button", { name: "Work here instead" }).click();
    await waitUntil(async () => (await page.getByLabel("Spacing").inputValue()) === "25");
    // Somebody else saves: what is done here is not written over it.
    const { letteringId, document } = await lettering();
    const theirs = { ...document, blocks: [{ ...document.blocks[0]!, trackingEm: 0.04 }] };
    await api(`/letterings/${letteringId}`, { method: "PATCH", json: { document: theirs } });
    await page.getByLabel("Turned").fill("5");
    await page.getByLabel("Turned").press("Enter");
    await page.getByText("This lettering was changed elsewhere meanwhile").waitFor();
    await page.getByRole("button", { name: "Go on with theirs" }).click();
    await waitUntil(async () => (await page.getByLabel("Spacing").inputValue()) === "40");
    expect(await block()).toMatchObject({ trackingEm: 0.04 });
    expect((await block()).turnDeg).toBeUndefined();
  });

  test("a character that the face lacks shouts, and its file is refused with its name", async () => {
    const { page } = browser;
    const { letteringId, document } = await lettering();
    const lacking = { ...document, blocks: [{ ...document.blocks[0]!, text: "Wren ☃" }] };
    await api(`/letterings/${letteringId}`, { method: "PATCH", json: { document: lacking } });
    await open("?way=save");
    await page.getByText("has no ☃").waitFor();
    await page.getByRole("button", { name: "Save SVG" }).click();
    await page.getByText("No face here has ☃").waitFor();
  });
});
