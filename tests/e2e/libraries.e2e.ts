// Libraries over HTTP stand-ins: what a sync brings, faults that can be switched on, faces that are bought, the log, evidence of one's own.
import { afterEach, beforeAll, describe, expect, test } from "@jest/globals";
import { mkdirSync, mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Order } from "@/contracts/libraries";
import { makeFont } from "../fixtures/makeFont";
import { NO_FAULTS, detail, find, library, setFaults, settled, sync } from "./standIns";
import { api, expectNoAxeFaults, fetchAgain, makeBrief, openBrowser, openWall, saved, standIns, url } from "./browser";

const browser = openBrowser();
afterEach(async () => {
  for (const name of ["commons", "ropewalk", "halyard"]) await setFaults(name, NO_FAULTS);
});

describe("syncing", () => {
  test("three libraries are there, synced, with counts", async () => {
    for (const [id, families] of [
      ["tidewrack-commons", 8],
      ["ropewalk-lane", 11],
      ["halyard-and-lens", 6],
    ] as const) {
      const l = await settled(id);
      expect([l.name, l.families, l.fault]).toEqual([l.name, families, null]);
      expect(l.syncedAt).toMatch(/^20/);
    }
    // Other files of tests may have bought of it before.
    const bought = (await api<{ orders: Order[] }>("/orders")).body.orders
      .filter((o) => o.libraryId === "halyard-and-lens")
      .flatMap((o) => o.lines.filter((l) => l.state === "delivered"));
    expect((await library("halyard-and-lens")).notOwned).toBe(28 - bought.length);
    const maker = await library("ropewalk-lane");
    expect(maker.refused).toBe(1);
    const { body } = await api<{ publications: { title: string; detail: string }[] }>(
      "/libraries/ropewalk-lane/refused",
    );
    expect(body.publications[0]).toMatchObject({
      title: "Adzemark",
      detail: expect.stringMatching(/Adzemark-Bold\.otf.*is cut off/),
    });
  });

  test.each([
    ["Skerrow Sans Bold", "goods-for-sale", "cleared"],
    ["Wrackline Script Regular", "goods-for-sale", "not-for-this-use"],
    ["Wrackline Script Regular", "private", "cleared"],
    ["Driftcask Regular", "client-print", "ask-maker"],
    ["Bytebuoy Regular", "goods-for-sale", "ask-maker"],
    ["Bytebuoy Regular", "client-print", "not-for-this-use"],
    ["Netfloat Dots Regular", "video", "cleared-with-credit"],
    ["Brassrail Inline Regular", "client-print", "unread"],
    ["Saltgrit Regular", "goods-for-sale", "cleared"],
    ["Weatherglass Signs Regular", "logo", "cleared"],
    ["Gangway Regular", "client-print", "ask-maker"],
    ["Breakwater Wide Regular", "video", "cleared"],
    ["Breakwater Wide Regular", "logo", "not-for-this-use"],
    ["Adzemark Regular", "client-print", "unread"],
    ["Moorline Regular", "client-print", "buy-first"],
    ["Moorline Regular", "app", "not-for-this-use"],
  ])("%s for %s: %s", async (name, use, verdict) => {
    const { items } = await find(name);
    const item = items.find((i) => `${i.family} ${i.style}` === name)!;
    const { rights } = await detail(item.styleId);
    expect(rights.verdicts[use]!.verdict).toBe(verdict);
    if (verdict !== "unread") expect(rights.verdicts[use]!.quotes.length).toBeGreaterThan(0);
  });

  test("nothing that has not changed is fetched again; what has, is", async () => {
    const before = (await api<{ jobs: { kind: string }[] }>("/jobs")).body.jobs.length;
    const again = await sync("tidewrack-commons");
    expect(again.fault).toBeNull();
    const { items } = await find("Bulkhead Stencil Regular");
    const provenance = (await detail(items[0]!.styleId)).provenance.length;
    await fetch(`${standIns()}/revise/commons/bulkhead-stencil`);
    await sync("tidewrack-commons");
    expect((await detail(items[0]!.styleId)).provenance.length).toBe(provenance);
    expect((await api<{ jobs: { kind: string }[] }>("/jobs")).body.jobs.length).toBeGreaterThan(before);
  });

  test.each([
    ["down", { down: true }, "library-unreachable"],
    ["error", { error: true }, "library-broken"],
    ["half an answer", { half: true }, "library-broken"],
    ["slow beyond patience", { slow: 14_000 }, "library-slow"],
  ])("%s: the library says so, keeps what it had, and the others go on", async (_name, faults, code) => {
    await setFaults("commons", faults);
    await api("/libraries/tidewrack-commons/sync", { method: "POST" });
    const other = await sync("ropewalk-lane");
    expect(other.fault).toBeNull();
    const l = await settled("tidewrack-commons");
    expect(l.fault).toMatchObject({ code });
    expect(l.styles).toBe(27);
    await setFaults("commons", NO_FAULTS);
    expect((await sync("tidewrack-commons")).fault).toBeNull();
  });

  test("expired links fail their offer alone, and are taken at the next sync", async () => {
    await fetch(`${standIns()}/revise/commons/pebbleway-round`);
    await setFaults("commons", { expired: true });
    const l = await sync("tidewrack-commons");
    expect([l.refused, l.fault]).toEqual([1, null]);
    await setFaults("commons", { expired: false });
    expect((await sync("tidewrack-commons")).refused).toBe(0);
  });

  test("a sync that is stopped goes on where it was", async () => {
    await setFaults("halyard", { slow: 400 });
    for (const slug of ["moorline-light", "squarerig-black"]) await fetch(`${standIns()}/revise/halyard/${slug}`);
    const { body } = await api<{ jobId: string }>("/libraries/halyard-and-lens/sync", { method: "POST" });
    await new Promise((r) => setTimeout(r, 900));
    await api(`/jobs/${body.jobId}`, { method: "DELETE" });
    await settled("halyard-and-lens");
    await setFaults("halyard", NO_FAULTS);
    const l = await sync("halyard-and-lens");
    expect([l.styles, l.fault]).toEqual([28, null]);
  });

  test("searching asks the library itself", async () => {
    const { body } = await api<{ publications: { title: string }[] }>("/libraries/halyard-and-lens/search?q=swellhand");
    expect(body.publications.map((p) => p.title)).toEqual(["Swellhand Regular", "Swellhand Bold"]);
  });
});

describe("a folder on disk", () => {
  test("is read, watched, and its licences count", async () => {
    const folder = mkdtempSync(join(tmpdir(), "fond-quarry-folder-"));
    mkdirSync(join(folder, "Mole Display"));
    writeFileSync(join(folder, "Mole Display", "MoleDisplay.otf"), makeFont({ family: "Mole Display", stem: 123 }));
    writeFileSync(join(folder, "Mole Display", "licence.txt"), "Free for personal and commercial use.");
    const { status, body } = await api<{ libraryId: string }>("/libraries", {
      method: "POST",
      json: { kind: "folder", address: folder },
    });
    expect(status).toBe(201);
    expect((await settled(body.libraryId)).styles).toBe(1);
    const { items } = await find("Mole Display");
    expect((await detail(items[0]!.styleId)).rights.verdicts["goods-for-sale"]!.verdict).toBe("cleared");
    mkdirSync(join(folder, "New", "Text"), { recursive: true });
    writeFileSync(join(folder, "New", "Text", "MoleText.otf"), makeFont({ family: "Mole Text", stem: 88, serif: 40 }));
    for (let i = 0; i < 80 && (await library(body.libraryId)).styles < 2; i++)
      await new Promise((r) => setTimeout(r, 150));
    expect((await library(body.libraryId)).styles).toBe(2);
    expect((await api(`/libraries/${body.libraryId}`, { method: "DELETE" })).status).toBe(200);
    // While a job still runs, the index may serve as it was for a moment.
    for (let i = 0; i < 40 && !(await find("Mole Text")).total; i++) await new Promise((r) => setTimeout(r, 150));
    expect((await find("Mole Text")).total).toBeGreaterThan(0);
  });

  test.each([
    [{ kind: "folder", address: "/no/such/folder" }, "address-not-allowed"],
    [{ kind: "folder", address: "relative" }, "address-not-allowed"],
    [{ kind: "opds", address: "file:///etc/passwd" }, "address-not-allowed"],
    [{ kind: "opds", address: "http://127.0.0.1:9/opds.json" }, "library-unreachable"],
  ])("%j is refused: %s", async (json, code) => {
    const { body } = await api<{ error: { code: string } }>("/libraries", { method: "POST", json });
    expect(body.error.code).toBe(code);
  });

  test("something that is no catalogue is refused", async () => {
    const { body } = await api<{ error: { code: string } }>("/libraries", {
      method: "POST",
      json: { kind: "opds", address: `${url()}/api/v1/health` },
    });
    expect(body.error.code).toBe("library-broken");
  });
});

describe("faces that are not bought", () => {
  test("stand on the wall, measured from their trial, covered as stated, priced for the brief", async () => {
    const briefId = await makeBrief({ name: "To buy", uses: ["client-print", "goods-for-sale"] });
    const { items } = await find("Squarerig Bold", `&briefId=${briefId}`);
    const item = items.find((i) => i.style === "Bold")!;
    expect(item).toMatchObject({ owned: false, verdict: "buy-first" });
    expect(item.price!.cents).toBeGreaterThan(5000);
    expect(Math.abs(item.traits.stemEm! / 0.13 - 1)).toBeLessThan(0.02);
    const d = await detail(item.styleId);
    expect(d.coverage.count).toBeGreaterThan(180);
    expect(d.glyphCount).toBeLessThan(45);
    const file = await api<{ error: { code: string } }>(`/styles/${item.styleId}/file`);
    expect([file.status, file.body.error.code]).toEqual([403, "not-owned"]);
  });

  test("a line is set by the library, and nothing but numbers is taken from its answer", async () => {
    const { items } = await find("Lanternrose Bold");
    const { body } = await api<{ path: string; widthFu: number; unitsPerEm: number }>(
      `/styles/${items[0]!.styleId}/setting?text=${encodeURIComponent("12 lamps & one tide")}`,
    );
    expect(body.path).toMatch(/^M[\dMLQCZ\s,.eE-]+$/);
    expect([body.unitsPerEm, body.widthFu > 5000]).toEqual([1000, true]);
    expect((await api(`/styles/${items[0]!.styleId}/setting?text=`)).status).toBe(400);
  });

  test("too many settings a minute: the answer says how long to wait", async () => {
    const { items } = await find("Moorline Light");
    let limited: { error: { code: string; details: { waitSeconds: number } } } | null = null;
    for (let i = 0; i < 160 && !limited; i += 10) {
      const answers = await Promise.all(
        Array.from({ length: 10 }, (_, k) =>
          api<{ error: { code: string; details: { waitSeconds: number } } }>(
            `/styles/${items[0]!.styleId}/setting?text=lamp${i + k}`,
          ),
        ),
      );
      limited = answers.find((a) => a.status === 429)?.body ?? null;
    }
    expect(limited!.error.code).toBe("rate-limited");
    expect(limited!.error.details.waitSeconds).toBeGreaterThan(0);
  });
});

describe("in the browser", () => {
  let briefId = "";
  beforeAll(async () => {
    briefId = await makeBrief({ name: "Libraries flow", uses: ["client-print", "goods-for-sale"] });
  });

  test("what is connected, paused and resumed; axe finds nothing", async () => {
    const { page } = browser;
    await page.goto(`/b/${briefId}/libraries`);
    const row = page.locator("[data-library=ropewalk-lane]");
    await row.getByText("11 families").waitFor();
    await row.getByText("1 item partly imported").click();
    await row.getByText(/Adzemark-Bold\.otf/).waitFor();
    await row.getByRole("button", { name: "Pause" }).click();
    await row.getByText("Paused").waitFor();
    await row.getByRole("button", { name: "Resume" }).click();
    await row.getByText(/synced/).waitFor();
    await expectNoAxeFaults(page);
  });

  test("a library that is down says so in its row", async () => {
    const { page } = browser;
    await setFaults("commons", { down: true });
    await page.goto(`/b/${briefId}/libraries`);
    const row = page.locator("[data-library=tidewrack-commons]");
    await row.getByRole("button", { name: "Sync now" }).click();
    await row.locator("[data-library-fault=library-unreachable]").waitFor();
    await setFaults("commons", NO_FAULTS);
    await row.getByRole("button", { name: "Sync now" }).click();
    await row.locator("[data-library-fault]").waitFor({ state: "detached" });
  });

  test("removed and brought back: faces that were only offered go and come", async () => {
    const { page } = browser;
    await page.goto(`/b/${briefId}/libraries`);
    await page.getByRole("button", { name: "Disconnect Halyard & Lens" }).click();
    await page.locator("[data-library=halyard-and-lens]").waitFor({ state: "detached" });
    expect((await find("Lanternrose")).items.filter((i) => i.family === "Lanternrose")).toEqual([]);
    await page.keyboard.press("u");
    await page.locator("[data-library=halyard-and-lens]").waitFor();
    await settled("halyard-and-lens");
    expect((await find("Lanternrose")).items.filter((i) => i.family === "Lanternrose").length).toBe(6);
  });

  test("bought: chosen on its page, ordered, delivered, its verdicts change and the receipt is kept", async () => {
    const { page } = browser;
    const { items } = await find("Fathomworth Bold", `&briefId=${briefId}`);
    const { styleId } = items.find((i) => i.style === "Bold")!;
    await openWall(page, briefId, "?q=fathomworth%20bold");
    await page.locator(`[data-strip="${styleId}"] [data-set-by-library][data-face=ready]`).waitFor();
    await page.goto(`/b/${briefId}/style/${styleId}`);
    await page.getByRole("button", { name: "Add to basket" }).click();
    await page.getByRole("link", { name: "View basket" }).click();
    await page.getByRole("button", { name: "Review order from Halyard & Lens" }).click();
    await page.getByRole("button", { name: "Place order" }).click();
    const order = page.locator("[data-order=delivered]", { hasText: "Fathomworth Bold" });
    await order.waitFor();
    await order.getByText("Receipt", { exact: true }).click();
    await page
      .getByText(/HALYARD & LENS TYPE FOUNDRY/)
      .first()
      .waitFor();
    const d = await detail(styleId);
    expect(d.owned).toBe(true);
    expect(d.glyphCount).toBeGreaterThan(200);
    expect([d.rights.verdicts["goods-for-sale"]!.verdict, d.rights.verdicts.web!.verdict]).toEqual([
      "cleared",
      "buy-first",
    ]);
    expect(d.rights.verdicts["goods-for-sale"]!.quotes[0]!.source).toMatch(/^receipt/);
    expect(d.changes.map((c) => c.what)).toContain("bought");
    await openWall(page, briefId, "?q=fathomworth%20bold");
    await page.locator(`[data-strip="${styleId}"][data-name="Fathomworth Bold"]`).getByText("Cleared").waitFor();
    await page.goto(`/b/${briefId}/style/${styleId}`);
    await page.getByText("More uses from Halyard & Lens").waitFor();
  });

  test("a price that changed ends the order: nothing was bought, and it is said", async () => {
    const { page } = browser;
    const { items } = await find("Squarerig Light");
    await api(`/basket/${items[0]!.styleId}`, { method: "PUT", json: { uses: ["client-print"] } });
    await setFaults("halyard", { price: true });
    await page.goto(`/b/${briefId}/libraries?tab=basket`);
    await page.getByRole("button", { name: "Review order from Halyard & Lens" }).click();
    await page.getByRole("button", { name: "Place order" }).click();
    await page.locator("[data-order=failed]").first().waitFor();
    await page.getByText(/price has changed.*Nothing was bought/).waitFor();
    expect((await detail(items[0]!.styleId)).owned).toBe(false);
    await api(`/basket/${items[0]!.styleId}`, { method: "DELETE" });
  });

  test("a delivery that fails can be fetched again; it is paid once", async () => {
    const { items } = await find("Squarerig Black");
    await api(`/basket/${items[0]!.styleId}`, { method: "PUT", json: { uses: ["video"] } });
    await setFaults("halyard", { expired: true });
    const { body } = await api<{ orderId: string }>("/orders", {
      method: "POST",
      json: { libraryId: "halyard-and-lens" },
    });
    const order = async () =>
      (await api<{ orders: { orderId: string; state: string; receipt: string | null }[] }>("/orders")).body.orders.find(
        (o) => o.orderId === body.orderId,
      )!;
    // It is paid first, then fetched: only when the fetching has ended in vain may the links work again.
    const buying = async () =>
      (await api<{ jobs: { kind: string; state: string }[] }>("/jobs")).body.jobs.some(
        (j) => j.kind === "buy" && (j.state === "running" || j.state === "waiting"),
      );
    for (let i = 0; i < 600 && (!(await order()).receipt || (await buying())); i++)
      await new Promise((r) => setTimeout(r, 100));
    expect((await order()).state).toBe("placed");
    await setFaults("halyard", NO_FAULTS);
    const { page } = browser;
    await page.goto(`/b/${briefId}/libraries?tab=basket`);
    await page.getByRole("button", { name: "Fetch again" }).click();
    await page.locator("[data-order=placed]").waitFor({ state: "detached" });
    expect((await order()).state).toBe("delivered");
    expect((await detail(items[0]!.styleId)).rights.verdicts.video!.verdict).toBe("cleared");
  });

  test("what the user knows is added with its note, changes the verdict, and can be taken back", async () => {
    const { page } = browser;
    const { items } = await find("Brassrail Inline");
    const { styleId } = items[0]!;
    await page.goto(`/b/${briefId}/style/${styleId}`);
    await page.getByRole("tab", { name: "Terms" }).click();
    await page.getByLabel("Wording").fill("You may use it in print and on goods for sale.");
    await page.getByLabel("Where it is from").fill("mail of 3 November");
    await page.getByLabel("a permission in writing, or a receipt").check();
    await page.getByRole("button", { name: "Add", exact: true }).click();
    await page.getByText("mail of 3 November").first().waitFor();
    expect((await detail(styleId)).rights.verdicts["goods-for-sale"]!.verdict).toBe("cleared");
    await page.locator("[data-evidence=receipt] summary").click();
    await page.getByRole("button", { name: "Remove", exact: true }).click();
    await page.getByText("Taken back: what you had added").waitFor();
    expect((await detail(styleId)).rights.verdicts["goods-for-sale"]!.verdict).toBe("unread");
    await page.keyboard.press("u");
    await page.getByText("Restored: what you had added").waitFor();
    await api(
      `/styles/${styleId}/evidence/${(await detail(styleId)).rights.evidence.find((e) => e.evidenceId)!.evidenceId}`,
      { method: "DELETE" },
    );
  });

  test("health: the page names every fault and where it is; the wall carries the mark", async () => {
    const { page } = browser;
    const { items } = await find("Saltgrit Heavy");
    await page.goto(`/b/${briefId}/style/${items[0]!.styleId}`);
    await page.locator("[data-care]").first().waitFor();
    await page.getByRole("tab", { name: "File" }).click();
    await page.locator("[data-fault=contours-overlap]").getByText(/seams/).waitFor();
    await openWall(page, briefId, "?q=saltgrit");
    await page.locator("[data-strip] [data-care]").first().waitFor();
  });

  test("the font log is searched, and saved as CSV", async () => {
    const { page } = browser;
    await page.goto(`/b/${briefId}/libraries?tab=log`);
    await page.getByLabel("Search the font log").fill("wrackline");
    await page.waitForURL(/q=wrackline/);
    await page.locator("[data-log]").first().waitFor();
    await page.getByText("4 files").waitFor();
    const download = page.waitForEvent("download");
    await page.getByRole("link", { name: "Save as CSV" }).click();
    const csv = new TextDecoder().decode(await saved(download));
    expect(csv.split(/\r?\n/)[0]).toBe("family,style,library,path,came in,sha256,licence,goods for sale,owned");
    expect(csv).toMatch(/"Wrackline Script","Bold","Ropewalk Lane","wrackline-script\.zip\/Wrackline_Script\/OTF/);
    await expectNoAxeFaults(page);
  });

  test("credits and SPDX of a brief", async () => {
    const { items } = await find("Skerrow Sans Bold");
    const wrackline = await find("Wrackline Script");
    for (const id of [items[0]!.styleId, wrackline.items[0]!.styleId])
      await api(`/briefs/${briefId}/kept/${id}`, { method: "PUT", json: {} });
    const spdx = (await (await fetchAgain(`${url()}/api/v1/briefs/${briefId}/spdx`)).json()) as {
      spdxVersion: string;
      packages: { name: string; licenseDeclared: string; checksums: { checksumValue: string }[] }[];
      hasExtractedLicensingInfos: { extractedText: string }[];
      relationships: unknown[];
    };
    expect(spdx.spdxVersion).toBe("SPDX-2.3");
    expect(spdx.packages.map((p) => p.licenseDeclared)).toEqual(["OFL-1.1", expect.stringMatching(/^LicenseRef-/)]);
    expect(spdx.packages[0]!.checksums[0]!.checksumValue).toMatch(/^[0-9a-f]{64}$/);
    expect(spdx.hasExtractedLicensingInfos[0]!.extractedText).toMatch(/free for personal use/);
    expect(spdx.relationships).toHaveLength(2);
    expect(await (await fetchAgain(`${url()}/api/v1/briefs/${briefId}/credits`)).text()).toMatch(/Maud Penhallow/);
  });
});
