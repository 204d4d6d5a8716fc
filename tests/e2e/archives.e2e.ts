// The twenty-four archives over HTTP, one line for every file; the habits that people meet most in the browser.
import { describe, expect, test } from "@jest/globals";
import { randomBytes } from "node:crypto";
import { readdirSync } from "node:fs";
import { join } from "node:path";
import { zipSync } from "fflate";
import { ARCHIVES, type MadeArchive } from "../fixtures/archives";
import { makeFont } from "../fixtures/makeFont";
import { api, bringIn, dataFolder, makeBrief, openBrowser, type ImportLine } from "./browser";

const browser = openBrowser();
const byPath = (items: ImportLine[], name: string) =>
  new Map(items.map((i) => [i.path === name ? "" : i.path.slice(name.length + 1), i]));

function expectLines(made: MadeArchive, items: ImportLine[]) {
  const lines = byPath(items, made.name);
  for (const [path, [outcome, code]] of Object.entries(made.expect)) {
    const line = lines.get(path);
    expect([path, line?.outcome, code && line?.code]).toEqual([path, outcome, code]);
    // Whatever is not simply added says why, and names the file.
    if (outcome !== "added") expect(line!.reason).toContain(line!.name);
    if (outcome === "added" || outcome === "already-there") expect(line!.styleId).toMatch(/^s_/);
  }
  expect(lines.size).toBe(Object.keys(made.expect).length);
}

describe("over HTTP", () => {
  test("there are twenty-four", () => expect(ARCHIVES).toHaveLength(24));

  test.each(ARCHIVES.map((a) => [a.name, a.about, a] as const))("%s: %s", async (_name, _about, made) => {
    const report = await bringIn({ [made.name]: await made.bytes() });
    expect(report.state).toBe("done");
    expectLines(made, report.items);
    if (!made.verdict) return;
    const added = report.items.find((i) => i.styleId)!;
    const { body } = await api<{
      rights: { verdicts: Record<string, { verdict: string }>; evidence: { source: string }[] };
    }>(`/styles/${added.styleId}`);
    expect(body.rights.verdicts["goods-for-sale"]!.verdict).toBe(made.verdict);
  });

  test("an archive of many megabytes comes in whole", async () => {
    // Nothing that packs: longer than what a server in front of a route holds back.
    const noise = randomBytes(14_000_000);
    const zip = zipSync(
      { "Buoy/Buoy.otf": makeFont({ family: "Buoy", stem: 97 }), "Buoy/chart.bin": noise },
      { level: 0 },
    );
    const { state, items } = await bringIn({ "buoy.zip": zip });
    expect(state).toBe("done");
    expect(items.find((i) => i.path.endsWith("Buoy.otf"))).toMatchObject({ outcome: "added" });
  });

  test("an alternative is told of on its style, and brings its terms along", async () => {
    const made = ARCHIVES.find((a) => a.name === "both formats.zip")!;
    const { items } = await bringIn({ "again.zip": await made.bytes() });
    const { body } = await api<{ formats: string[]; provenance: { path: string }[]; rights: { spdx?: string } }>(
      `/styles/${items.find((i) => i.styleId)!.styleId}`,
    );
    expect(body.formats).toEqual(["otf", "ttf"]);
    expect(body.rights.spdx).toBe("OFL-1.1");
    expect(body.provenance.map((p) => p.path)).toContain("again.zip/OTF/Both.otf");
  });

  test("nothing half-read is left behind", () => {
    expect(readdirSync(join(dataFolder(), "incoming"))).toEqual([]);
    const store = readdirSync(join(dataFolder(), "store"), { recursive: true }).map(String);
    expect(store.filter((f) => f.endsWith(".part"))).toEqual([]);
  });
});

describe("in the browser", () => {
  const shown = [
    "both formats.zip",
    "junk.zip",
    "contradiction.zip",
    "way out.zip",
    "overlapping bomb.zip",
    "damaged fonts.zip",
  ];

  test.each(shown)("%s dropped on the wall gets its lines", async (name) => {
    const { page } = browser;
    const made = ARCHIVES.find((a) => a.name === name)!;
    const briefId = await makeBrief({ name: `Drop ${name}`, uses: ["goods-for-sale"] });
    await page.goto(`/b/${briefId}/find`);
    await page.locator("main").waitFor();
    const data = await page.evaluateHandle(
      ({ bytes, file }) => {
        const transfer = new DataTransfer();
        transfer.items.add(new File([Uint8Array.from(atob(bytes), (c) => c.charCodeAt(0))], file));
        return transfer;
      },
      { bytes: Buffer.from(await made.bytes()).toString("base64"), file: name },
    );
    await page.dispatchEvent("body", "dragenter", { dataTransfer: data });
    await page.dispatchEvent("body", "drop", { dataTransfer: data });
    await page.waitForURL(/\/libraries/);
    await page.locator("[data-import-state=done]").waitFor();
    for (const [path] of Object.entries(made.expect)) {
      const whole = path ? `${name}/${path}` : name;
      await page.locator(`[data-path="${whole}"]`).first().waitFor();
    }
  });

  test("a contradiction is shown with both sentences, and which holds", async () => {
    const { page } = browser;
    const made = ARCHIVES.find((a) => a.name === "contradiction.zip")!;
    const { items } = await bringIn({ "contra.zip": await made.bytes() });
    const briefId = await makeBrief({ name: "Contradiction", uses: ["goods-for-sale"] });
    await page.goto(`/b/${briefId}/style/${items.find((i) => i.styleId)!.styleId}`);
    await page.getByRole("tab", { name: "Terms" }).click();
    await page.getByText("The texts contradict one another").waitFor();
    await page.getByText("Not for use on goods for sale.").first().waitFor();
    await page.getByText("reading aid").first().waitFor();
  });
});
