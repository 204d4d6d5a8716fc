// Faces of other scripts, named in them: imported, found by their own name and in Latin letters, set in words of their script where the
// brief's line has no letter of it, on the contact sheet, handed over. And a face that came cut by character.
import { beforeAll, describe, expect, test } from "@jest/globals";
import { unzipSync } from "fflate";
import { openFont } from "@/core/open/openFont";
import { toLatin } from "@/core/unicode/transliterate";
import { demoPart } from "../fixtures/demoFont";
import { textOfPdf } from "../fixtures/pdfText";
import { renameFont } from "../fixtures/renameFont";
import { api, bringIn, fetchAgain, makeBrief, openBrowser, openWall, styleNamed, url, waitUntil } from "./browser";

const browser = openBrowser();
const LINE = "Skerrow Light";
let briefId = "";

const CASES = [
  { script: "Arabic", font: "rubik", part: "arabic", family: "منارة الميناء", word: "العربية" },
  { script: "Hebrew", font: "cardo", part: "hebrew", family: "מגדלור הנמל", word: "עברית" },
  { script: "Devanagari", font: "kalam", part: "devanagari", family: "दीपस्तंभ", word: "हिन्दी" },
];
const ids = new Map<string, string>();
const bytesOf = new Map<string, Uint8Array>();

beforeAll(async () => {
  briefId = await makeBrief({ name: "Scripts", lines: [{ text: LINE, role: "title" }], uses: ["private"] });
  for (const { font, part, family, script } of CASES) {
    const bytes = renameFont((await openFont(demoPart(font, part))).sfnt, family);
    const { items } = await bringIn({ [`${script}.ttf`]: bytes });
    expect(items[0]).toMatchObject({ outcome: "added" });
    ids.set(script, items[0]!.styleId!);
    bytesOf.set(script, bytes);
  }
}, 120_000);

describe.each(CASES)("$script", ({ script, family, word }) => {
  test("is a family of its own, found by its name and in Latin letters", async () => {
    const { body } = await api<{ family: string }>(`/styles/${ids.get(script)}`);
    expect(body.family).toBe(family);
    expect((await styleNamed(family)).styleId).toBe(ids.get(script));
    expect((await styleNamed(family.slice(0, 4))).styleId).toBe(ids.get(script));
    expect((await styleNamed(toLatin(family)!)).styleId).toBe(ids.get(script));
  });

  test("is set in words of its own on the wall, and says so", async () => {
    const { page } = browser;
    await openWall(page, briefId, `q=${encodeURIComponent(family)}`);
    const strip = page.locator(`[data-strip="${ids.get(script)}"]`);
    await strip.locator("[data-face=ready]").waitFor();
    expect(await strip.locator("[data-sample]").innerText()).toContain(word);
    expect(await strip.locator("[data-missing]").count()).toBe(0);
    expect(await strip.locator("[data-own-words]").innerText()).toBe(`${script} sample`);
    // The browser draws it with this very font: none of its letters falls back on another.
    const drawn = await strip
      .locator("[data-sample]")
      .evaluate((e) => document.fonts.check(`20px ${getComputedStyle(e).fontFamily}`, e.textContent));
    expect(drawn).toBe(true);
    await page.getByLabel("Text of line 1").or(page.getByLabel("Line 1 of the brief")).first().fill(word);
    await strip.locator("[data-own-words]").waitFor({ state: "detached" });
    await page.getByLabel("Line 1 of the brief").fill(LINE);
    await strip.locator("[data-own-words]").waitFor();
  });
});

test("all three stand on the contact sheet under their names, and go into the archive", async () => {
  for (const id of ids.values()) await api(`/briefs/${briefId}/kept/${id}`, { method: "PUT", json: {} });
  const sheet = new Uint8Array(
    await (await fetchAgain(`${url()}/api/v1/briefs/${briefId}/contact-sheet`)).arrayBuffer(),
  );
  const text = textOfPdf(sheet);
  // Right to left is told as it is read, or as it stands.
  const turned = (words: string) => [...words].reverse().join("");
  for (const { family } of CASES) expect([family, turned(family)].some((name) => text.includes(name))).toBe(true);
  const files = await handOver(briefId, [...ids.values()]);
  for (const { script, family } of CASES) {
    const [, bytes] = Object.entries(files).find(([name]) => name.startsWith(`fonts/${family}`)) ?? [];
    expect(bytes && Buffer.compare(bytes, Buffer.from(bytesOf.get(script)!))).toBe(0);
  }
});

describe("asked for a script", () => {
  test("faces that have it are set in it, and the line again when it has letters of it", async () => {
    const { page } = browser;
    await openWall(page, briefId, "q=cyrillic");
    const strip = page.locator("[data-strip]").first();
    await strip.locator("[data-own-words]").waitFor();
    expect(await strip.locator("[data-sample]").innerText()).toMatch(/[а-я]{4}/i);
    expect(await strip.locator("[data-own-words]").innerText()).toBe("Cyrillic sample");
    await page.getByLabel("Line 1 of the brief").fill("Гавань");
    await strip.locator("[data-own-words]").waitFor({ state: "detached" });
    expect(await strip.locator("[data-sample]").innerText()).toBe("Гавань");
    await page.getByLabel("Line 1 of the brief").fill(LINE);
  });
});

describe("a face that came cut by character", () => {
  const MIXED = "Гавань Łódź Ελλάδα";
  test("is one style whose parts the browser fetches as a line needs them", async () => {
    const { page } = browser;
    const { styleId } = await styleNamed("alegreya regular");
    const { body } = await api<{ parts: { unicodeRange: string; scripts: string[] }[] }>(`/styles/${styleId}/parts`);
    expect(new Set(body.parts.flatMap((p) => p.scripts))).toEqual(new Set(["Latin", "Cyrillic", "Greek"]));
    const asked: string[] = [];
    page.on("request", (request) => {
      if (request.url().includes(`${styleId}/file?part=`)) asked.push(request.url());
    });
    const own = await makeBrief({ lines: [{ text: LINE, role: "title" }] });
    await openWall(page, own, "q=alegreya%20regular");
    const strip = page.locator(`[data-strip="${styleId}"]`);
    await strip.locator("[data-face=ready]").waitFor();
    expect(asked).toEqual([]);
    await page.getByLabel("Line 1 of the brief").fill(MIXED);
    await waitUntil(async () => asked.length >= 3);
    expect(await strip.locator("[data-missing]").count()).toBe(0);
    expect(new Set(asked).size).toBe(asked.length);
  });

  test("is handed over with all parts, and the notes say what they are and where the whole one is", async () => {
    const own = await makeBrief({ lines: [{ text: MIXED, role: "title" }] });
    const { styleId } = await styleNamed("alegreya regular");
    await api(`/briefs/${own}/kept/${styleId}`, { method: "PUT", json: {} });
    const sheet = new Uint8Array(await (await fetchAgain(`${url()}/api/v1/briefs/${own}/contact-sheet`)).arrayBuffer());
    expect(textOfPdf(sheet)).toContain(MIXED);
    const zip = await handOver(own, []);
    const fonts = Object.keys(zip).filter((name) => name.startsWith("fonts/"));
    expect(fonts).toEqual(expect.arrayContaining(["fonts/Alegreya Regular.ttf", "fonts/Alegreya Regular - Greek.ttf"]));
    expect(fonts.length).toBeGreaterThanOrEqual(6);
    expect(Object.keys(zip).filter((name) => name.startsWith("web/"))).toHaveLength(fonts.length);
    const notes = new TextDecoder().decode(zip["notes.txt"]);
    expect(notes).toContain("web fonts cut by character");
    expect(notes).toMatch(/get the whole font from https:\/\/github\.com\//);
  });
});

async function handOver(brief: string, responsibleFor: string[]) {
  const { body } = await api<{ jobId: string }>(`/briefs/${brief}/handover`, {
    method: "POST",
    json: { responsibleFor },
  });
  await waitUntil(async () => (await api<{ state: string }>(`/jobs/${body.jobId}`)).body.state === "done", 60_000);
  const file = await fetchAgain(`${url()}/api/v1/jobs/${body.jobId}/file`);
  return unzipSync(new Uint8Array(await file.arrayBuffer()));
}
