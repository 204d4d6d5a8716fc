// Sorting through: more than a hundred faces by keys alone, nothing lost on reload, undone to the first; stopped and gone on with.
import { beforeAll, describe, expect, test } from "@jest/globals";
import { api, makeBrief, openBrowser, openWall, waitUntil } from "./browser";

const browser = openBrowser();
type BriefBody = { kept: { styleId: string }[]; setAside: string[] };
type PassBody = {
  passId: string;
  total: number;
  next: number;
  marks: { place: number; mark: string }[];
  styleIds: string[];
};
let briefId = "";
let pass = "";
const brief = async () => (await api<BriefBody>(`/briefs/${briefId}`)).body;
const passNow = async () => (await api<PassBody>(`/briefs/${briefId}/passes/${pass}`)).body;
const place = () => browser.page.locator("[data-pass]").getAttribute("data-place").then(Number);
const face = () => browser.page.locator("[data-face-name]").getAttribute("data-face-name");
/** What a key asks for at a place: kept, set aside, left, in turn. */
const keyAt = (i: number) => (i % 5 === 0 ? " " : i % 5 === 3 ? "ArrowRight" : "x");
const FACES = 120;

beforeAll(async () => {
  briefId = await makeBrief({ name: "Sorting test" });
});

async function untilStored(count: number) {
  for (let i = 0; i < 200; i++) {
    if ((await passNow()).marks.length === count) return;
    await new Promise((r) => setTimeout(r, 100));
  }
  expect((await passNow()).marks).toHaveLength(count);
}

describe("a pass", () => {
  test("begins on the wall with what is found there", async () => {
    const { page } = browser;
    await openWall(page, briefId, "?pictures=out&sort=name");
    await page.getByRole("button", { name: /^Review one by one/ }).click();
    await page.getByRole("menuitem", { name: /^Start with these/ }).click();
    await page.waitForURL(/\/pass\/p_/);
    pass = page.url().match(/p_[0-9a-f]+/)![0];
    await page.locator("[data-face-name]").waitFor();
    const { total } = await passNow();
    expect(total).toBeGreaterThan(FACES);
    await page.getByText(`1 of ${total}`).waitFor();
  });

  test(`${FACES} faces by keys alone`, async () => {
    const { page } = browser;
    const started = Date.now();
    for (let i = 0; i < FACES; i++) await page.keyboard.press(keyAt(i));
    expect(await place()).toBe(FACES);
    await untilStored(FACES);
    const perFace = (Date.now() - started) / FACES;
    expect(perFace).toBeLessThan(1200);
    const { kept, setAside } = await brief();
    expect(kept).toHaveLength(FACES / 5);
    expect(setAside).toHaveLength((FACES * 3) / 5);
    const { styleIds, marks } = await passNow();
    expect(new Set(marks.map((m) => m.place)).size).toBe(FACES);
    expect(kept.map((k) => k.styleId)).toEqual(styleIds.slice(0, FACES).filter((_, i) => keyAt(i) === " "));
  });

  test("a reload in the middle loses none and stands where it stood", async () => {
    const { page } = browser;
    const before = await face();
    await page.reload();
    await page.locator("[data-face-name]").waitFor();
    expect(await place()).toBe(FACES);
    expect(await face()).toBe(before);
    await page.getByText(`${FACES / 5} kept, ${(FACES * 3) / 5} set aside, ${FACES / 5} skipped`).waitFor();
  });

  test("a mark that is on its way when the page is left arrives", async () => {
    const { page } = browser;
    await page.keyboard.press(" ");
    await page.keyboard.press("x");
    await page.reload();
    await page.locator("[data-face-name]").waitFor();
    await untilStored(FACES + 2);
    expect((await brief()).kept).toHaveLength(FACES / 5 + 1);
  });

  test("stopped and gone on with from the wall; set-aside faces have left it", async () => {
    const { page } = browser;
    await page.getByRole("link", { name: "Stop here" }).click();
    await page.waitForURL(/\/find/);
    await page.getByText(`${(FACES * 3) / 5 + 1} set aside for this brief.`).waitFor();
    const { setAside } = await brief();
    const shown = await page.locator("[data-strip]").evaluateAll((all) => all.map((e) => e.getAttribute("data-strip")));
    expect(shown.filter((id) => setAside.includes(id!))).toEqual([]);
    await page.getByRole("button", { name: /^Review one by one/ }).click();
    await page.getByRole("menuitem", { name: /^Resume:/ }).click();
    await page.waitForURL(/\/pass\/p_/);
    await page.locator("[data-face-name]").waitFor();
    expect(await place()).toBe(FACES + 2);
  });

  test("undone to the first, by one key, after a reload", async () => {
    const { page } = browser;
    for (let i = 0; i < FACES + 2; i++) await page.keyboard.press("u");
    expect(await place()).toBe(0);
    await untilStored(0);
    expect(await brief()).toMatchObject({ kept: [], setAside: [] });
    await page.keyboard.press("u");
    await page.getByText("This is the first face.").waitFor();
    // And done again, after another reload.
    await page.reload();
    await page.locator("[data-face-name]").waitFor();
    await page.keyboard.press("Shift+u");
    await page.keyboard.press("Shift+u");
    await untilStored(2);
    expect((await brief()).kept).toHaveLength(1);
    await page.keyboard.press("u");
    await page.keyboard.press("u");
    await untilStored(0);
  });

  test("the left arrow looks back, a mark there is changed", async () => {
    const { page } = browser;
    await page.keyboard.press("x");
    await page.keyboard.press("ArrowLeft");
    expect(await place()).toBe(0);
    await page.getByText("set aside", { exact: true }).first().waitFor();
    await page.keyboard.press(" ");
    // One mark is stored before and after: what it says tells that it has changed.
    await waitUntil(async () => (await brief()).kept.length === 1);
    expect((await brief()).setAside).toEqual([]);
    await untilStored(1);
  });

  test("a small pass comes to its end, and says so", async () => {
    const { page } = browser;
    await openWall(page, briefId, "?q=blackletter");
    await page.getByRole("button", { name: /^Review one by one/ }).click();
    await page.getByRole("menuitem", { name: /^Start with these/ }).click();
    await page.locator("[data-face-name]").waitFor();
    const total = Number(await page.getByRole("progressbar").first().getAttribute("aria-valuemax"));
    for (let i = 0; i < total; i++) await page.keyboard.press("ArrowRight");
    await page.getByText("All done.").waitFor();
    await page.getByRole("button", { name: "Undo the last" }).click();
    await page.locator("[data-face-name]").waitFor();
  });
});

describe("over HTTP", () => {
  test("what cannot begin, and what is not there, is refused with a code", async () => {
    const nothing = await api<{ error: { code: string } }>(`/briefs/${briefId}/passes`, {
      method: "POST",
      json: { question: "q=heavy&languages=zz", title: "None" },
    });
    expect([nothing.status, nothing.body.error.code]).toEqual([400, "nothing-found"]);
    expect((await api(`/briefs/${briefId}/passes/p_00000000`)).status).toBe(404);
    expect(
      (await api(`/briefs/${briefId}/passes/${pass}/marks/999999`, { method: "PUT", json: { mark: "kept" } })).status,
    ).toBe(404);
    expect(
      (await api(`/briefs/${briefId}/passes/${pass}/marks/0`, { method: "PUT", json: { mark: "burnt" } })).status,
    ).toBe(400);
    expect(
      (await api(`/briefs/${briefId}/passes`, { method: "POST", json: { question: "limit=x", title: "Bad" } })).status,
    ).toBe(400);
  });

  test("another brief does not see the pass; forgetting it keeps what was kept", async () => {
    const other = await makeBrief({ name: "Other" });
    expect((await api(`/briefs/${other}/passes/${pass}`)).status).toBe(404);
    const { kept } = await brief();
    expect((await api(`/briefs/${briefId}/passes/${pass}`, { method: "DELETE" })).status).toBe(200);
    expect((await brief()).kept).toEqual(kept);
    expect((await api(`/briefs/${briefId}/passes/${pass}`)).status).toBe(404);
  });
});
