// All briefs: found, duplicated, archived and brought back, out into a file and back; groups and pairs of the shortlist.
import { beforeAll, describe, expect, test } from "@jest/globals";
import type { Brief } from "@/contracts/brief";
import type { BriefFile } from "@/contracts/briefFile";
import { api, expectNoAxeFaults, makeBrief, openBrowser, saved, styleNamed, waitUntil } from "./browser";

const browser = openBrowser();
let briefId = "";
beforeAll(async () => {
  briefId = await makeBrief({
    name: "Quay Lanterns",
    client: "Skerrow Light Trust",
    lines: [
      { text: "Wren & Tern", role: "title" },
      { text: "Lanterns on the quay", role: "text" },
    ],
  });
  for (const q of ["alfa slab one", "lora bold", "oswald bold"])
    await api(`/briefs/${briefId}/kept/${(await styleNamed(q)).styleId}`, { method: "PUT", json: {} });
});
const briefOf = async (id = briefId) => (await api<Brief>(`/briefs/${id}`)).body;
const sheet = (name: string) => browser.page.locator("[data-brief]").filter({ hasText: name });

describe("pairs and groups", () => {
  test("a pair is kept from the companions, set on other pages, and undone by one key", async () => {
    const { page } = browser;
    const own = (await styleNamed("alfa slab one")).styleId;
    await page.goto(`/b/${briefId}/compare/companions?of=${own}&role=text`);
    const first = page.locator("[data-pair]").first();
    await first.getByRole("button", { name: "Keep as a pair" }).click();
    await first.getByRole("button", { name: "Kept as a pair" }).waitFor();
    await page.getByRole("button", { name: /^Set as/ }).click();
    await page.getByRole("option", { name: "Table" }).click();
    await first.locator("[data-page=table] [data-face=ready]").nth(2).waitFor();
    const other = (await first.getAttribute("data-pair"))!;
    await waitUntil(async () => (await briefOf()).pairs.length === 1);
    const { pairs, kept } = await briefOf();
    expect(pairs[0]!.faces).toEqual([
      { styleId: own, role: "heading" },
      { styleId: other, role: "text" },
    ]);
    expect(kept.map((k) => k.styleId)).toContain(other);
    await page.keyboard.press("u");
    await waitUntil(async () => (await briefOf()).pairs.length === 0);
    await page.keyboard.press("Shift+U");
    await waitUntil(async () => (await briefOf()).pairs.length === 1);
  });

  test("stands in the shortlist with its note; groups stand together", async () => {
    const { page } = browser;
    await page.goto(`/b/${briefId}/shortlist`);
    const pair = page.locator("[data-kept-pair]");
    await pair.getByText("Alfa Slab One Regular").waitFor();
    await pair.getByRole("textbox").fill("for the programme");
    for (const name of ["Alfa Slab One Regular", "Oswald Bold"]) {
      const field = page.getByLabel(`Group of ${name}`);
      await field.fill("Posters");
      await field.blur();
      await waitUntil(async () => (await briefOf()).kept.some((k) => k.group === "Posters"));
    }
    await waitUntil(async () => (await briefOf()).kept.filter((k) => k.group === "Posters").length === 2);
    const places = (await briefOf()).kept.flatMap((k, i) => (k.group === "Posters" ? [i] : []));
    expect(places[1]! - places[0]!).toBe(1);
    await page.locator("[data-group=Posters]").waitFor();
    await waitUntil(async () => (await briefOf()).pairs[0]!.note === "for the programme");
    await page.getByRole("button", { name: "Favourite Lora Bold" }).click();
    await expectNoAxeFaults(page);
  });
});

describe("all briefs", () => {
  test("stand as sheets, are found by their words, and show what was marked in any of them", async () => {
    const { page } = browser;
    await page.goto("/");
    await sheet("Quay Lanterns").locator("[data-face=ready]").first().waitFor();
    await expectNoAxeFaults(page);
    await page.getByLabel("Find a brief").fill("lanterns trust");
    await waitUntil(async () => (await page.locator("[data-brief]").count()) === 1);
    await page.reload();
    await waitUntil(async () => (await page.locator("[data-brief]").count()) === 1);
    const marked = page.locator("[data-faces=favourites]").filter({ hasText: "Lora Bold" });
    await marked.getByRole("link", { name: "Quay Lanterns" }).first().waitFor();
    await page.getByLabel("Find a brief").fill("no such words");
    await page.getByText("No brief has these words.").waitFor();
    await page.getByLabel("Find a brief").fill("");
  });

  test("one is duplicated, given a state, archived and brought back", async () => {
    const { page } = browser;
    await page.getByRole("button", { name: "More for Quay Lanterns", exact: true }).click();
    await page.getByRole("menuitem", { name: "Duplicate" }).click();
    await sheet("Quay Lanterns, copy").waitFor();
    await page.getByRole("button", { name: /^State of Quay Lanterns, copy/ }).click();
    await page.getByRole("option", { name: "Decided" }).click();
    await page.getByText("Quay Lanterns, copy: decided.").waitFor();
    await page.getByRole("button", { name: "More for Quay Lanterns, copy" }).click();
    await page.getByRole("menuitem", { name: "Archive" }).click();
    await sheet("Quay Lanterns, copy").waitFor({ state: "hidden" });
    await page.getByRole("button", { name: "Undo" }).click();
    await sheet("Quay Lanterns, copy").waitFor();
    const id = (await sheet("Quay Lanterns, copy").getAttribute("data-brief"))!;
    const copy = await briefOf(id);
    expect(copy).toMatchObject({ state: "decided", archived: false });
    expect(copy.kept.map((k) => [k.styleId, k.group])).toEqual((await briefOf()).kept.map((k) => [k.styleId, k.group]));
  });

  test("one goes out into a file and comes back whole; what is no brief is told so", async () => {
    const { page } = browser;
    await page.goto(`/b/${briefId}/hand-over`);
    const download = page.waitForEvent("download");
    await page.getByRole("link", { name: "Brief as JSON" }).click();
    const bytes = Buffer.from(await saved(download));
    const file = JSON.parse(bytes.toString()) as BriefFile;
    // A face that nobody here has.
    file.kept.push({ ...file.kept[0]!, face: { family: "Nowhere", style: "Bold", sha256: "0".repeat(64) } });
    file.brief.name = "Quay from a file";
    await page.goto("/");
    const field = page.getByLabel("Open a brief file");
    await field.setInputFiles({ name: "notes.json", mimeType: "application/json", buffer: Buffer.from("{}") });
    await page.getByText("notes.json is not a brief file").waitFor();
    await field.setInputFiles({
      name: "brief.json",
      mimeType: "application/json",
      buffer: Buffer.from(JSON.stringify(file)),
    });
    await page.getByText("Not in your libraries: Nowhere Bold.").waitFor();
    const made = await briefOf((await sheet("Quay from a file").getAttribute("data-brief"))!);
    const own = await briefOf();
    const told = ({ kept, pairs, lines, client }: Brief) => ({
      client,
      words: lines.map((l) => l.text),
      kept: kept.map((k) => [k.styleId, k.role, k.group, k.note, k.favourite]),
      pairs: pairs.map((p) => [p.faces, p.note]),
    });
    expect(told(made)).toEqual(told(own));
  });

  test("its typography goes out as design tokens", async () => {
    const { body } = await api<{
      color: Record<string, { $value: { hex: string } }>;
      typography: Record<string, { $value: { fontFamily: string[]; fontWeight: number } } | string>;
    }>(`/briefs/${briefId}/tokens.json`);
    expect(body.color.ink!.$value.hex).toBe("#20262b");
    expect(body.typography.$type).toBe("typography");
    expect(body.typography["oswald-bold"]).toMatchObject({
      $value: { fontFamily: ["Oswald", "sans-serif"], fontWeight: 700 },
    });
  });
});
