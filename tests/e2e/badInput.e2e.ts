// Wrong, broken, oversized, empty: a sentence with the file's name and the reason, nothing half-read, and the server goes on.
import { beforeAll, describe, expect, test } from "@jest/globals";
import { zipSync } from "fflate";
import { readdirSync } from "node:fs";
import { join } from "node:path";
import { makeFont } from "../fixtures/makeFont";
import { demoBytes } from "../fixtures/demoFont";
import { api, bringIn, dataFolder, fetchAgain, makeBrief, openBrowser, startIdentify, url } from "./browser";

const browser = openBrowser();
const text = (s: string) => new TextEncoder().encode(s);
const styles = async () => (await api<{ styles: number }>("/health")).body.styles;

describe("fonts and zips", () => {
  test("each bad file gets its line with code, name and reason; good ones beside it come in", async () => {
    const before = await styles();
    const broken = demoBytes("lora");
    broken.fill(7, 500, 4000);
    const report = await bringIn({
      "good.otf": makeFont({ family: "Beacon", stem: 77 }),
      "empty.ttf": new Uint8Array(0),
      "readme.ttf": text("I am only named like a font."),
      "cut.otf": makeFont({ family: "Cut" }).slice(0, 900),
      "bent.woff2": broken,
      "collection.ttc": Uint8Array.from([0x74, 0x74, 0x63, 0x66, 0, 1, 0, 0, 0, 0, 0, 2]),
      "picture.png": Uint8Array.from([0x89, 0x50, 0x4e, 0x47]),
    });
    expect(report.state).toBe("done");
    const by = Object.fromEntries(report.items.map((i) => [i.name, i]));
    expect(by["good.otf"]).toMatchObject({ outcome: "added" });
    for (const [name, code] of [
      ["empty.ttf", "empty-file"],
      ["readme.ttf", "not-a-font"],
      ["cut.otf", "file-truncated"],
      ["bent.woff2", "decompression-failed"],
      ["collection.ttc", "file-truncated"],
    ]) {
      expect(by[name!]).toMatchObject({ outcome: "refused", code });
      expect(by[name!]!.reason).toMatch(new RegExp(`^${name!.replace(".", "\\.")}: [A-Z].*\\.`));
    }
    expect(by["picture.png"]).toMatchObject({ outcome: "ignored" });
    expect(await styles()).toBe(before + 1);
  });

  test("a zip: font taken, licence kept as evidence, junk ignored, the verdict rests on it", async () => {
    const report = await bringIn({
      "Beacon pack.zip": zipSync({
        "Beacon/Beacon-Bold.otf": makeFont({ family: "Beacon Two", style: "Bold", stem: 140 }),
        "Beacon/OFL.txt": text("This Font Software is licensed under the SIL Open Font License, Version 1.1."),
        "Beacon/preview.jpg": text("x"),
        "__MACOSX/._Beacon-Bold.otf": text("x"),
      }),
    });
    expect(report.items.map((i) => [i.path, i.outcome])).toEqual(
      expect.arrayContaining([
        ["Beacon pack.zip/Beacon/Beacon-Bold.otf", "added"],
        ["Beacon pack.zip/Beacon/OFL.txt", "ignored"],
        ["Beacon pack.zip/Beacon/preview.jpg", "ignored"],
        ["Beacon pack.zip/__MACOSX/._Beacon-Bold.otf", "ignored"],
      ]),
    );
    const added = report.items.find((i) => i.styleId)!;
    const { body } = await api<{
      rights: { spdx: string; evidence: { source: string }[] };
      provenance: { path: string }[];
    }>(`/styles/${added.styleId}`);
    expect(body.rights.spdx).toBe("OFL-1.1");
    expect(body.rights.evidence.map((e) => e.source)).toContain("Beacon pack.zip/Beacon/OFL.txt");
    expect(body.provenance[0]!.path).toBe("Beacon pack.zip/Beacon/Beacon-Bold.otf");
  });

  test("the same bytes again are already there", async () => {
    const font = makeFont({ family: "Twice", stem: 61 });
    const first = await bringIn({ "a.otf": font });
    const before = await styles();
    const again = await bringIn({ "b.otf": font });
    expect(again.items).toMatchObject([{ outcome: "already-there", styleId: first.items[0]!.styleId }]);
    expect(await styles()).toBe(before);
  });

  test("dangerous zips are refused whole", async () => {
    const bomb = zipSync({ "big.otf": new Uint8Array(40_000_000) }, { level: 9 });
    const report = await bringIn({
      "bomb.zip": bomb,
      "cut.zip": zipSync({ "a.otf": makeFont({}) }).slice(0, 300),
      "none.zip": zipSync({}),
    });
    expect(report.items.map((i) => [i.name, i.code]).sort()).toEqual([
      ["bomb.zip", "archive-too-large"],
      ["cut.zip", "archive-broken"],
      ["none.zip", "archive-empty"],
    ]);
  });

  test("names cannot break out: into paths, into the page", async () => {
    const name = "<img src=x onerror=alert(1)>.otf";
    const report = await bringIn({
      [name]: makeFont({ family: '<b onclick="x">Evil</b>', stem: 71 }),
      "../../etc/passwd.otf": text("no"),
    });
    expect(report.items.find((i) => i.outcome === "added")).toBeDefined();
    const { page } = browser;
    const briefId = await makeBrief({ name: "Names test" });
    await page.goto(`/b/${briefId}/style/${report.items.find((i) => i.styleId)!.styleId}`);
    await page.getByRole("heading", { name: '<b onclick="x">Evil</b> Regular' }).waitFor();
    expect(await page.locator("h1 b").count()).toBe(0);
  });

  test("nothing is left behind of refused uploads", () => {
    expect(readdirSync(join(dataFolder(), "incoming"))).toEqual([]);
    const halves = readdirSync(join(dataFolder(), "store"), { recursive: true }).filter((f) =>
      String(f).endsWith(".part"),
    );
    expect(halves).toEqual([]);
  });

  test("in the view: dropped files get their lines", async () => {
    const { page } = browser;
    const briefId = await makeBrief({ name: "Drop test" });
    await page.goto(`/b/${briefId}/libraries?tab=arrivals`);
    const data = await page.evaluateHandle(() => {
      const transfer = new DataTransfer();
      transfer.items.add(new File(["not a font"], "harbour.ttf"));
      return transfer;
    });
    await page.getByText("Import your own fonts").dispatchEvent("drop", { dataTransfer: data });
    await page.locator("[data-path='harbour.ttf']").getByText("The file is not a font").waitFor();
  });
});

describe("pictures", () => {
  let briefId = "";
  beforeAll(async () => {
    briefId = await makeBrief({ name: "Pictures test" });
  });
  const identify = async (name: string, bytes: Uint8Array, fields: Record<string, string> = {}) => {
    const form = new FormData();
    form.append("image", new File([bytes as BlobPart], name));
    for (const [k, v] of Object.entries(fields)) form.append(k, v);
    return api<{ error: { code: string; message: string } }>("/identify", { method: "POST", body: form });
  };
  const flat = async (width: number, height: number) => {
    const { default: sharp } = await import("sharp");
    return new Uint8Array(
      await sharp({ create: { width, height, channels: 3, background: "#ddd" } })
        .png()
        .toBuffer(),
    );
  };

  test.each([
    ["empty.png", async () => new Uint8Array(0), "picture-empty", 400],
    ["text.png", async () => text("no picture"), "picture-broken", 400],
    ["cut.png", async () => (await flat(400, 200)).slice(0, 60), "picture-broken", 400],
    ["even.png", async () => flat(300, 100), "no-ink", 400],
    ["huge.png", async () => flat(12000, 9000), "picture-too-large", 413],
  ] as const)("%s is refused with its reason", async (name, make, code, status) => {
    const { status: got, body } = await identify(name, await make());
    expect([got, body.error.code]).toEqual([status, code]);
    expect(body.error.message).toMatch(new RegExp(`^${name}: `));
  });

  test("wrong fields are told", async () => {
    expect((await identify("a.png", await flat(50, 50), { box: '{"x":1}' })).body.error.code).toBe("bad-request");
    expect((await identify("a.png", await flat(50, 50), { corners: "[1,2]" })).body.error.code).toBe("bad-request");
    expect(
      (await api<{ error: { code: string } }>("/identify", { method: "POST", body: new FormData() })).body.error.code,
    ).toBe("no-file");
  });

  test("in the view the sentence says what now, and the next picture works", async () => {
    const { page } = browser;
    await startIdentify(browser.page, briefId);
    await page
      .locator("input[type=file]")
      .setInputFiles({ name: "broken.jpg", mimeType: "image/jpeg", buffer: Buffer.from("junk") });
    await page.getByText("broken.jpg: The picture cannot be read").waitFor();
    await page.getByText("Save it as PNG or JPEG and drop it again.").waitFor();
    await page
      .locator("input[type=file]")
      .setInputFiles({ name: "even.png", mimeType: "image/png", buffer: Buffer.from(await flat(300, 100)) });
    await page.getByText("No lettering stands out in the picture.").waitFor();
  });
});

describe("requests", () => {
  test("the server goes on", async () => expect((await api("/health")).status).toBe(200));

  test("other sites are refused", async () => {
    const from = (headers: Record<string, string>) =>
      fetch(`${url()}/api/v1/briefs`, { headers }).then((r) => r.status);
    expect(await from({ origin: "https://elsewhere.example" })).toBe(403);
    expect(await from({ "sec-fetch-site": "cross-site" })).toBe(403);
    expect(await from({ origin: "null" })).toBe(403);
    expect(await from({ origin: url() })).toBe(200);
  });

  test.each([
    ["POST", "/briefs", { name: "" }, 400, "bad-request"],
    ["POST", "/briefs", { name: "x", ink: "red" }, 400, "bad-request"],
    ["PATCH", "/briefs/b_gone", { name: "x" }, 404, "not-found"],
    ["DELETE", "/briefs/b_gone", undefined, 404, "not-found"],
    ["PUT", "/briefs/b_open-night-poster/kept/s_gone", {}, 404, "not-found"],
    ["POST", "/briefs/b_tide-tables/handover", {}, 400, "nothing-kept"],
    ["GET", "/styles?limit=900", undefined, 400, "bad-request"],
    ["GET", "/styles/s_gone", undefined, 404, "not-found"],
    ["GET", "/styles/s_gone/glyphs", undefined, 404, "not-found"],
    ["GET", "/styles/s_gone/file", undefined, 404, "not-found"],
    ["GET", "/imports/nonsense", undefined, 404, "not-found"],
    ["GET", "/jobs/j_gone/file", undefined, 404, "job-gone"],
    ["DELETE", "/jobs/j_gone", undefined, 404, "not-found"],
    ["POST", "/imports", undefined, 400, "no-file"],
  ])("%s %s with %j is refused: %i %s", async (method, path, json, status, code) => {
    const { status: got, body } = await api<{ error: { code: string; message: string } }>(path, { method, json });
    expect([got, body.error.code]).toEqual([status, code]);
    expect(body.error.message.length).toBeGreaterThan(10);
  });

  test("a body that is not JSON is refused", async () => {
    const response = await fetchAgain(`${url()}/api/v1/briefs`, {
      method: "POST",
      body: "{",
      headers: { "content-type": "application/json" },
    });
    expect(response.status).toBe(400);
  });
});
