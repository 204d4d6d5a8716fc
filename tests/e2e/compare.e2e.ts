// Compare: eight faces put beside each other by keys alone, every way to look; an order made two by two with a tie, an undo and a reload in
// the middle; companions found and kept.
import { beforeAll, describe, expect, test } from "@jest/globals";
import type { Brief } from "@/contracts/brief";
import type { Comparison, Round, TypeSystem } from "@/contracts/compare";
import {
  api,
  boxOf,
  drawByBrowser,
  expectNoAxeFaults,
  makeBrief,
  openBrowser,
  openWall,
  styleNamed,
  waitUntil,
} from "./browser";

const browser = openBrowser();
const LINES = [
  { text: "Skerrow Light", role: "title" },
  { text: "Open Night", role: "second" },
  { text: "12 lamps & one tide", role: "text" },
];
let briefId = "";
let eight: string[] = [];
beforeAll(async () => {
  briefId = await makeBrief({ name: "Compare test", lines: LINES });
});
const heads = () => browser.page.locator("[data-head]");

describe("beside each other", () => {
  test("eight faces by keys alone: C on the wall, 4 for the view", async () => {
    const { page } = browser;
    await openWall(page, briefId, "kinds=serif&sort=name&fold=true");
    await page.keyboard.press("ArrowDown");
    for (let i = 0; i < 8; i++) {
      await page.keyboard.press("c");
      await page.getByText(`added to the comparison (${i + 1})`).waitFor();
      await page.keyboard.press("ArrowDown");
    }
    await page.keyboard.press("c");
    await page.getByText("The comparison is full: 8 faces.").waitFor();
    await page.keyboard.press("4");
    await page.waitForURL(/\/compare/);
    await waitUntil(async () => (await heads().count()) === 8);
    await page.locator('[data-column="7"] [data-face=ready]').nth(2).waitFor();
    eight = await heads().evaluateAll((all) => all.map((e) => e.getAttribute("data-head")!));
  });

  test("a family is put beside itself in one go, bold and italic under each other", async () => {
    const { page } = browser;
    const own = await styleNamed("alegreya regular");
    await page.goto(`/b/${briefId}/style/${own.styleId}?part=family`);
    await page.getByRole("button", { name: /^Compare (?:all|the first) \d styles$/ }).click();
    await page.waitForURL(/\/compare/);
    await page.getByText("bold", { exact: true }).waitFor();
    await page.getByText("italic", { exact: true }).waitFor();
    await page.locator('[data-column="0"] [data-face=ready]').nth(4).waitFor();
    // Back to the eight of before.
    await page.goto(`/b/${briefId}/compare?faces=${eight.join(",")}`);
    await waitUntil(async () => (await heads().count()) === 8);
  });

  test("the sentence says what differs most, and shows where", async () => {
    const { page } = browser;
    const told = page.locator("[data-told] button");
    await told.first().waitFor();
    const styleIds = await heads().evaluateAll((all) => all.map((e) => e.getAttribute("data-head")));
    const { body } = await api<Comparison>("/compare", { method: "POST", json: { styleIds, briefId } });
    expect(await told.first().innerText()).toBe(body.differences[0]!.says);
    await told.first().focus();
    const marked = () => page.evaluate(() => CSS.highlights.get("told")?.size ?? 0);
    await waitUntil(async () => (await marked()) > 0);
    await told.first().blur();
    await waitUntil(async () => (await marked()) === 0);
  });

  test("baselines are shared, and no line of one column is set larger than the others", async () => {
    const { page } = browser;
    const tops = await page
      .locator("[data-column] [data-sample]")
      .evaluateAll((all) => all.map((e) => [e.textContent, Math.round(e.getBoundingClientRect().top)] as const));
    expect(tops.filter(([text]) => text === "Open Night").length).toBe(8);
  });

  test("arrows move, L takes the next letter, Backspace removes; the address keeps it", async () => {
    const { page } = browser;
    const letter = () => page.locator('[aria-pressed=true][title$="of the ink differs"]').innerText();
    await page.locator('[title$="of the ink differs"]').first().waitFor();
    const first = await letter();
    await page.keyboard.press("l");
    await waitUntil(async () => (await letter()) !== first);
    await page.keyboard.press("ArrowRight");
    await page.keyboard.press("Backspace");
    await waitUntil(async () => (await heads().count()) === 7);
    const shown = await heads().evaluateAll((all) => all.map((e) => e.getAttribute("data-head")));
    await page.reload();
    await waitUntil(async () => (await heads().count()) === 7);
    expect(await heads().evaluateAll((all) => all.map((e) => e.getAttribute("data-head")))).toEqual(shown);
  });

  test.each([
    ["One letter", "letter"],
    ["Figures", "figures"],
    ["On a page", "page"],
    ["Sizes", "sizes"],
  ])("%s", async (name, way) => {
    const { page } = browser;
    await page.getByRole("group", { name: "Ways to look" }).getByRole("button", { name }).click();
    await page.waitForURL(new RegExp(`way=${way}`));
    await page.locator('[data-column="6"] [data-face=ready]').first().waitFor();
    await expectNoAxeFaults(page);
  });

  test("two laid over each other: the second is moved by keys and by hand", async () => {
    const { page } = browser;
    await page.keyboard.press("o");
    const stage = page.locator("[data-over]");
    await stage.focus();
    await page.keyboard.press("ArrowRight");
    await page.keyboard.press("Shift+ArrowDown");
    expect(await stage.getAttribute("data-over")).toBe("1,10");
    const box = await boxOf(stage);
    await page.mouse.move(box.x + 200, box.y + 80);
    await page.mouse.down();
    await page.mouse.move(box.x + 230, box.y + 70, { steps: 5 });
    await page.mouse.up();
    await waitUntil(async () => (await stage.getAttribute("data-over")) === "31,0");
    await page.getByRole("button", { name: "Put it back" }).click();
    expect(await stage.getAttribute("data-over")).toBe("0,0");
    await expectNoAxeFaults(page);
  });

  test("a typed letter sets every column again", async () => {
    const { page } = browser;
    await page.getByRole("group", { name: "Ways to look" }).getByRole("button", { name: "Words" }).click();
    await page.getByLabel("Line 1 of the brief").fill("Fog + Brass");
    await waitUntil(async () => (await page.locator("[data-sample]", { hasText: "Fog + Brass" }).count()) >= 7);
    await waitUntil(async () => (await page.locator("[data-told]").innerText()) !== "");
  });

  test("a link shows the same faces to somebody else", async () => {
    const two = [(await styleNamed("arvo bold")).styleId, (await styleNamed("anton")).styleId];
    const page = await browser.context.newPage();
    await page.goto(`/b/${briefId}/compare?faces=${two.join(",")}`);
    await page.locator("[data-head]").nth(1).waitFor();
    expect(await page.locator("[data-head]").evaluateAll((all) => all.map((e) => e.getAttribute("data-head")))).toEqual(
      two,
    );
    await page.close();
  });

  test("of no faces the view says what to do", async () => {
    const page = await browser.context.newPage();
    await page.goto(`/b/${await makeBrief({ name: "Nothing to compare" })}/compare`);
    await page.getByText("No faces are being compared yet.").waitFor();
    await expectNoAxeFaults(page);
    await page.close();
  });
});

describe("what is asked over HTTP", () => {
  test("measures of the faces are those of the styles, and one face or nine are refused", async () => {
    const { items } = (
      await api<{ items: { styleId: string; owned: boolean }[] }>("/styles?kinds=serif&sort=name&limit=40")
    ).body;
    const ids = items.filter((i) => i.owned).map((i) => i.styleId);
    const { body } = await api<Comparison>("/compare", {
      method: "POST",
      json: { styleIds: ids.slice(0, 3), text: "Quay" },
    });
    for (const face of body.faces) {
      const { body: style } = await api<{ traits: unknown }>(`/styles/${face.styleId}`);
      expect(face.traits).toEqual(style.traits);
    }
    for (const d of body.differences)
      expect(d.values).toEqual(body.faces.map((f) => f.traits[d.trait as keyof typeof f.traits] ?? null));
    for (const styleIds of [ids.slice(0, 1), ids.slice(0, 9), [ids[0], ids[0]]])
      expect((await api("/compare", { method: "POST", json: { styleIds } })).status).toBe(400);
    expect((await api("/compare", { method: "POST", json: { styleIds: [ids[0], "s_00000000"] } })).status).toBe(404);
  });
});

describe("two by two", () => {
  const kept: string[] = [];
  beforeAll(async () => {
    for (const name of ["arvo bold", "anton", "lora bold", "pacifico", "rokkitt bold"]) {
      const { styleId } = await styleNamed(name);
      kept.push(styleId);
      await api(`/briefs/${briefId}/kept/${styleId}`, { method: "PUT", json: {} });
    }
  });
  const asked = () => browser.page.locator("[data-asked]").getAttribute("data-asked").then(Number);

  test("a tie, a choice, one taken back, a reload in the middle: it goes on where it was", async () => {
    const { page } = browser;
    await page.goto(`/b/${briefId}/compare/two-by-two`);
    await page.getByRole("heading", { name: "Which one says it better?" }).waitFor();
    await page.locator("[data-rung] [data-face=ready]").nth(4).waitFor();
    expect(await asked()).toBe(0);
    await page.keyboard.press("ArrowUp");
    await waitUntil(async () => (await asked()) === 1);
    await page.keyboard.press("ArrowRight");
    await waitUntil(async () => (await asked()) === 2);
    await page.keyboard.press("ArrowDown");
    await waitUntil(async () => (await asked()) === 3);
    await page.keyboard.press("u");
    await waitUntil(async () => (await asked()) === 2);
    const choices = page.getByRole("button", { name: /^Choose / });
    const pair = () => choices.evaluateAll((all) => all.map((e) => e.getAttribute("aria-label")).join());
    const names = await pair();
    await page.reload();
    await waitUntil(async () => (await asked()) === 2);
    await waitUntil(async () => (await pair()) === names);
    await expectNoAxeFaults(page);
  });

  test("it stops by itself; the order is written into the shortlist with its reason", async () => {
    const { page } = browser;
    const done = page.getByRole("heading", { name: "The order is settled." });
    const question = page.getByRole("heading", { name: "Which one says it better?" });
    for (let i = 0; i < 30 && !(await done.isVisible()); i++) {
      const before = await asked();
      // The one that comes first in the list of names is always preferred.
      const [upper, lower] = await page
        .getByRole("button", { name: /^Choose / })
        .evaluateAll((all) => all.map((e) => e.getAttribute("aria-label")!));
      await page.keyboard.press(upper! < lower! ? "ArrowUp" : "ArrowDown");
      await waitUntil(async () => (await asked()) > before);
      await question.or(done).waitFor();
    }
    await done.waitFor();
    const order = await page.locator("[data-rung]").evaluateAll((all) => all.map((e) => e.getAttribute("data-rung")));
    await page.getByRole("button", { name: "Write it into the shortlist" }).click();
    await page.getByRole("button", { name: "Written into the shortlist" }).waitFor();
    const { body: brief } = await api<{ kept: { styleId: string }[] }>(`/briefs/${briefId}`);
    expect(brief.kept.map((k) => k.styleId)).toEqual(order);
    const { body } = await api<{ decisions: { says: string }[] }>(`/briefs/${briefId}/decisions`);
    expect(body.decisions[0]!.says).toMatch(/^Ordered two by two after \d+ choices: /);
    // A step like any other.
    await api(`/briefs/${briefId}/undo`, { method: "POST" });
    const { body: before } = await api<{ kept: { styleId: string }[] }>(`/briefs/${briefId}`);
    expect(before.kept.map((k) => k.styleId)).toEqual(kept);
  });

  test("what is no choice is refused; undo goes to the first and no further", async () => {
    const styleIds = kept.slice(0, 3);
    const { body: round } = await api<Round>(`/briefs/${briefId}/rounds`, { method: "POST", json: { styleIds } });
    const path = `/rounds/${round.roundId}/choices`;
    const choose = (json: unknown) => api<Round>(path, { method: "POST", json });
    const { left, right } = round.pair!;
    const third = styleIds.find((id) => id !== left && id !== right)!;
    expect((await choose({ left, right, chosen: third })).status).toBe(400);
    expect((await choose({ left, right: "s_00000000", chosen: left })).status).toBe(400);
    expect((await choose({ left, right, chosen: left })).body.asked).toBe(1);
    const back = await api<Round>(`${path}/last`, { method: "DELETE" });
    expect(back.body).toEqual(round);
    expect((await api(`${path}/last`, { method: "DELETE" })).status).toBe(409);
    expect((await api("/rounds/r_00000000")).status).toBe(404);
  });
});

describe("companions", () => {
  test("are found for a role, each with reasons whose numbers are the measures, and kept", async () => {
    const { page } = browser;
    const own = await styleNamed("playfair display bold");
    await page.goto(`/b/${briefId}/compare/companions?of=${own.styleId}&role=text`);
    const pairs = page.locator("[data-pair]");
    await waitUntil(async () => (await pairs.count()) === 12);
    await pairs.first().locator("[data-face=ready]").nth(1).waitFor();
    const id = (await pairs.first().getAttribute("data-pair"))!;
    const { body } = await api<{ items: { styleId: string; reasons: { aspect: string; a: number; b: number }[] }[] }>(
      "/pair",
      { method: "POST", json: { styleId: own.styleId, role: "text", briefId } },
    );
    expect(body.items[0]!.styleId).toBe(id);
    const traits = async (styleId: string) =>
      (await api<{ traits: Record<string, unknown> }>(`/styles/${styleId}`)).body.traits;
    const [a, b] = [await traits(own.styleId), await traits(id)];
    const measured = body.items[0]!.reasons.filter((r) => r.aspect in a);
    expect(measured.length).toBeGreaterThan(1);
    for (const r of measured) expect([r.aspect, r.a, r.b]).toEqual([r.aspect, a[r.aspect], b[r.aspect]]);
    await pairs.first().getByRole("button", { name: "Keep", exact: true }).click();
    await waitUntil(async () =>
      (await api<{ kept: { styleId: string; role: string }[] }>(`/briefs/${briefId}`)).body.kept.some(
        (k) => k.styleId === id && k.role === "text",
      ),
    );
    await expectNoAxeFaults(page);
  });
});

describe("one family as a system", () => {
  test("sizes on the scale, styles by their grey, kept with their roles", async () => {
    const { page } = browser;
    const own = await styleNamed("alegreya regular");
    await page.goto(`/b/${briefId}/compare/companions?of=${own.styleId}&by=family`);
    const system = page.getByRole("region", { name: "The family as a system" });
    const steps = system.locator("[data-step]");
    await waitUntil(async () => (await steps.count()) === 5);
    const { body } = await api<TypeSystem>("/pair/system", { method: "POST", json: { styleId: own.styleId } });
    const [title, text] = [body.steps[0]!, body.steps.find((s) => s.role === "text")!];
    expect([text.styleId, text.sizeRatio]).toEqual([own.styleId, 1]);
    expect(title.grey).toBeGreaterThan(1.3 * text.grey);
    const { traits } = (await api<{ traits: { stemEm: number; widthEm: number } }>(`/styles/${own.styleId}`)).body;
    expect(text.grey).toBeCloseTo(traits.stemEm / traits.widthEm, 3);
    await system.getByRole("button", { name: /^Grey/ }).click();
    await page.getByRole("option", { name: "Evenly grey" }).click();
    await system.locator("[data-step=title]").getByText("Regular").waitFor();
    await system.getByRole("button", { name: "Keep these styles" }).click();
    await system.getByRole("button", { name: "All are kept" }).waitFor();
    const { kept } = (await api<Brief>(`/briefs/${briefId}`)).body;
    expect(kept.some((k) => k.styleId === own.styleId)).toBe(true);
    await expectNoAxeFaults(page);
  });
});

describe("on the picture", () => {
  const scene = async () => (await api<Brief>(`/briefs/${briefId}`)).body.scene;

  test("a brief without one says where to choose it", async () => {
    const { page } = browser;
    await page.goto(`/b/${briefId}/compare?faces=${eight.slice(0, 2).join(",")}&way=picture`);
    await page.getByRole("link", { name: "Choose a picture in the brief" }).waitFor();
  });

  test("words are dragged to their place, what is drawn around stands in front, undone step by step", async () => {
    const { page } = browser;
    const picture = await drawByBrowser(browser.context, eight[0]!, "Tide & lamp", "background:#9ab");
    const body = new FormData();
    body.append("image", new Blob([new Uint8Array(picture)], { type: "image/png" }), "quay.png");
    expect((await api(`/briefs/${briefId}/picture`, { method: "PUT", body })).status).toBe(200);
    await page.reload();
    const cards = page.locator("[data-on-picture]");
    await waitUntil(async () => (await cards.count()) === 2);
    await cards.nth(1).locator("[data-face=ready]").waitFor();
    // The card takes the picture's shape once that is here.
    const image = cards.first().locator("img");
    await waitUntil(() => image.evaluate((e: HTMLImageElement) => Math.abs(e.width / e.height - e.naturalWidth / e.naturalHeight) < 0.05)); // oxfmt-ignore
    await page.locator("[data-told] button").first().waitFor();
    const card = await boxOf(image);
    const to = (x: number, y: number) => [card.x + x * card.width, card.y + y * card.height] as const;
    const drag = async (...way: (readonly [number, number])[]) => {
      await page.mouse.move(...to(way[0]![0], way[0]![1]));
      await page.mouse.down();
      for (const place of way.slice(1)) await page.mouse.move(...to(place[0], place[1]), { steps: 6 });
      await page.mouse.up();
    };
    const before = (await scene()).at;
    await drag([0.3, 0.6], [0.5, 0.4]);
    await waitUntil(async () => Math.abs((await scene()).at[0] - before[0] - 0.2) < 0.01);
    await page.getByRole("button", { name: "Outline" }).click();
    for (const corner of [[0.2, 0.2], [0.6, 0.2], [0.6, 0.9]] as const) await page.mouse.click(...to(corner[0], corner[1])); // oxfmt-ignore
    await page.keyboard.press("Enter");
    await waitUntil(async () => (await scene()).front.length === 1);
    await page.getByRole("button", { name: "Brush" }).click();
    await drag([0.1, 0.5], [0.4, 0.55], [0.7, 0.5]);
    await page.getByRole("button", { name: "Eraser" }).click();
    await drag([0.3, 0.1], [0.3, 0.9]);
    await waitUntil(async () => (await scene()).front.length === 3);
    const { front } = await scene();
    expect(front.map((f) => [f.kind, f.erases])).toEqual([["outline", false], ["brush", false], ["brush", true]]); // oxfmt-ignore
    expect(front[0]!.points).toHaveLength(3);
    // Drawn in every picture, not in the one it was drawn on alone.
    expect(await page.locator("[data-on-picture] mask path").count()).toBe(6);
    await expectNoAxeFaults(page);
    await page.keyboard.press("u");
    await waitUntil(async () => (await scene()).front.length === 2);
    await page.reload();
    await waitUntil(async () => (await page.locator("[data-on-picture] mask path").count()) === 4);
    await page.keyboard.press("u");
    await waitUntil(async () => (await scene()).front.length === 1);
  });

  test("what is begun with a click is dropped by Escape", async () => {
    const { page } = browser;
    await page.getByRole("button", { name: "Outline" }).click();
    const card = await boxOf(page.locator("[data-on-picture] img").first());
    await page.mouse.click(card.x + 30, card.y + 30);
    await waitUntil(async () => (await page.locator("[data-on-picture] mask path").count()) === 3);
    await page.keyboard.press("Escape");
    await waitUntil(async () => (await page.locator("[data-on-picture] mask path").count()) === 2);
    expect((await scene()).front).toHaveLength(1);
  });
});
