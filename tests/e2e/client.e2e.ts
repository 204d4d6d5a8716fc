// The client chooses: a link made from the shortlist, opened on a phone by somebody who has nothing but the link, answered, ended. And web
// fonts of what was chosen, as a site loads them.
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import type { BrowserContext, Page } from "playwright-core";
import { unzipSync } from "fflate";
import type { Share } from "@/contracts/share";
import {
  api,
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
const LINES = [
  { text: "Skerrow Light", role: "title" },
  { text: "Open Night", role: "second" },
];
let briefId = "";
beforeAll(async () => {
  briefId = await makeBrief({ name: "Client <test>", lines: LINES });
  for (const q of ["zilla slab bold", "pacifico", "lora bold"])
    await api(`/briefs/${briefId}/kept/${(await styleNamed(q)).styleId}`, { method: "PUT", json: {} });
});

const shareOf = async () => (await api<{ shares: Share[] }>(`/briefs/${briefId}/shares`)).body.shares[0]!;

describe("a link for the client", () => {
  const asked: string[] = [];
  let phone: { context: BrowserContext; page: Page };
  let address = "";
  afterAll(() => phone?.context.close());

  test("is made from the shortlist", async () => {
    const { page } = browser;
    await page.goto(`/b/${briefId}/shortlist`);
    await page.getByRole("button", { name: "Make a link (3)" }).click();
    const link = page.locator("[data-share] a");
    await link.waitFor();
    address = (await link.getAttribute("href"))!;
    expect(address).toMatch(/^http:\/\/127\.0\.0\.1:\d+\/shared\/[\w-]{32}$/);
    await page.getByText("Shown to the client: 3 faces, until").waitFor();
    await expectNoAxeFaults(page);
  });

  test("opens on a phone, and loads nothing from elsewhere than below its own address", async () => {
    const context = await browser.context
      .browser()!
      .newContext({ viewport: { width: 390, height: 844 }, isMobile: true, hasTouch: true });
    const page = await context.newPage();
    phone = { context, page };
    page.on("request", (r) => asked.push(r.url()));
    const said: string[] = [];
    page.on("console", (m) => said.push(m.text()));
    await page.goto(address);
    await page.evaluate(() => document.fonts.ready);
    // A face that came in parts has files that these words need nothing of.
    const faces = await page.evaluate(() =>
      [...document.fonts].filter((f) => /-0"?$/.test(f.family)).map((f) => f.status),
    );
    expect(faces).toEqual(["loaded", "loaded", "loaded"]);
    expect(asked.filter((a) => a !== address && !a.startsWith(`${address}/`))).toEqual([]);
    expect(said).toEqual([]);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
    expect(await page.locator("h1").innerText()).toBe("Client <test>");
    await expectNoAxeFaults(page);
  });

  test("its fonts hold the characters of the brief, and nothing else", async () => {
    const { default: opentype } = await import("opentype.js");
    const { openFont } = await import("@/core/open/openFont");
    for (const font of asked.filter((a) => a.endsWith(".woff2"))) {
      const answer = await fetchAgain(font);
      expect(answer.headers.get("cache-control")).toBe("no-store");
      const { sfnt } = await openFont(new Uint8Array(await answer.arrayBuffer()));
      const mapped = Object.keys(opentype.parse(sfnt.slice().buffer).tables.cmap.glyphIndexMap).map(Number);
      const wanted = [...new Set(LINES.map((l) => l.text).join(" "))].map((c) => c.codePointAt(0)!);
      expect(mapped.sort((a, b) => a - b)).toEqual(wanted.sort((a, b) => a - b));
    }
  });

  test("answered there, the answer stands in the shortlist and in the log at once, as text", async () => {
    const { page: shortlist } = browser;
    const { page } = phone;
    const send = page.getByRole("button", { name: "Send" });
    await page.getByLabel("Your name").fill("Mara");
    await send.tap();
    await page.getByText("Choose a face first.").waitFor();
    await page.getByRole("button", { name: "Choose Zilla Slab" }).tap();
    await page.getByLabel("Comment").fill("<script>document.title='taken'</script><b>It reads from the quay.</b>");
    await send.tap();
    await page.getByText("Sent. Thank you, Mara.").waitFor();
    expect(await page.title()).toBe("Client <test>");
    // Nobody reloads the shortlist.
    const row = shortlist.locator("[data-kept]").filter({ hasText: "Zilla Slab Bold" });
    await row.getByText("Mara chose this").waitFor();
    expect(await row.locator("q").innerText()).toContain("<script>document.title='taken'</script><b>It reads");
    await shortlist.locator("[data-decisions]").getByText("Chose Zilla Slab Bold").waitFor();
    expect(await shortlist.title()).not.toBe("taken");
    expect((await shareOf()).answers).toMatchObject([{ name: "Mara", chosen: true }]);
  });

  test("what is no answer to it is refused", async () => {
    const post = (json: unknown) =>
      fetchAgain(`${address}/answers`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify(json),
      }).then((r) => r.status);
    const { styleIds } = await shareOf();
    const elsewhere = (await styleNamed("oswald bold")).styleId;
    expect(await post({ name: "Mara", styleId: elsewhere, chosen: true })).toBe(400);
    expect(await post({ name: "", styleId: styleIds[0], chosen: true })).toBe(400);
    expect(await post({ name: "Mara", styleId: styleIds[0] })).toBe(400);
    expect(await post({ name: "Mara", styleId: styleIds[0], comment: "x".repeat(2001) })).toBe(400);
    expect(await post({ name: "Mara", styleId: styleIds[0], comment: "x".repeat(40_000) })).toBe(413);
    expect((await shareOf()).answers).toHaveLength(1);
  });

  test("a wrong token leads to nothing, an ended link to an end: page, fonts and answers", async () => {
    const { page: shortlist } = browser;
    expect((await fetchAgain(`${url()}/shared/${"x".repeat(32)}`)).status).toBe(404);
    await shortlist.getByRole("button", { name: "End", exact: true }).click();
    await shortlist.getByRole("button", { name: "End it" }).click();
    await shortlist.locator("[data-share]").getByText("ended").waitFor();
    const { page } = phone;
    await page.getByLabel("Comment").fill("One more line");
    await page.getByRole("button", { name: "Send" }).tap();
    await page.getByText("This link has ended. What you wrote is still here.").waitFor();
    expect(await page.getByLabel("Comment").inputValue()).toBe("One more line");
    const answer = await page.goto(address);
    expect(answer!.status()).toBe(410);
    await page.getByRole("heading", { name: "This link has ended." }).waitFor();
    for (const font of asked.filter((a) => a.endsWith(".woff2"))) expect((await fetchAgain(font)).status).toBe(410);
  });
});

// oxfmt-ignore
const THIRTY = [
  "alegreya", "aleo", "alfa slab one", "amatic sc bold", "barlow medium", "bitter", "cardo", "caveat", "cinzel", "cormorant",
  "crimson pro", "dm sans", "fredoka", "gelasio", "great vibes", "ibm plex mono", "ibm plex serif", "inknut antiqua", "josefin sans", "libre baskerville",
  "lobster", "lora", "old standard", "oswald", "pacifico", "playfair display", "sorts mill goudy", "spectral", "zilla slab", "fraunces variable",
];

describe("web fonts", () => {
  /** The kit as a site that serves it; what the browser says of it. */
  async function serve(zip: Record<string, Uint8Array>): Promise<{ page: Page; said: string[] }> {
    const page = await browser.context.newPage();
    const said: string[] = [];
    page.on("console", (m) => said.push(m.text()));
    page.on("requestfailed", (r) => said.push(r.url()));
    await page.route("http://kit.test/**", async (route) => {
      const body = zip[decodeURIComponent(new URL(route.request().url()).pathname.slice(1))];
      const type = { html: "text/html", css: "text/css", woff2: "font/woff2" }[route.request().url().split(".").pop()!];
      await route.fulfill(body ? { body: Buffer.from(body), contentType: type ?? "" } : { status: 404 });
    });
    await page.goto("http://kit.test/sample.html");
    await page.evaluate(() => document.fonts.ready);
    return { page, said };
  }

  test("are made from what is kept, and saved", async () => {
    const { page } = browser;
    await page.goto(`/b/${briefId}/hand-over`);
    await page.getByRole("button", { name: "Make web fonts (3 faces)" }).click();
    const link = page.locator("[data-webfonts]").getByRole("link", { name: "Save zip" });
    await link.waitFor();
    await expectNoAxeFaults(page);
    const download = page.waitForEvent("download");
    await link.click();
    const zip = unzipSync(await saved(download));
    expect(Object.keys(zip).sort()).toEqual([
      "fonts.css",
      ...["Lora-Bold", "Pacifico-Regular", "Zilla-Slab-Bold"].map((f) => `fonts/${f}.woff2`),
      ...["Lora", "Pacifico", "Zilla Slab"].map((f) => `licences/${f}.txt`),
      "notes.txt",
      "sample.html",
    ]);
  });

  test("of thirty styles are loaded by the browser without a warning, and variable ones stay variable", async () => {
    const styleIds = await Promise.all(THIRTY.map(async (q) => (await styleNamed(q)).styleId));
    const json = { styleIds: [...new Set(styleIds)], characters: "brief", formats: ["woff2"] };
    const { status, body } = await api<{ jobId: string }>(`/briefs/${briefId}/webkit`, { method: "POST", json });
    expect(status).toBe(202);
    await waitUntil(async () => (await api<{ hasFile: boolean }>(`/jobs/${body.jobId}`)).body.hasFile);
    const file = await fetchAgain(`${url()}/api/v1/jobs/${body.jobId}/file`);
    const { page, said } = await serve(unzipSync(new Uint8Array(await file.arrayBuffer())));
    const own = await page.evaluate(() =>
      [...document.fonts]
        .filter((f) => !f.family.includes("stand-in"))
        .map((f) => ({ status: f.status, weight: f.weight })),
    );
    expect(own).toHaveLength(json.styleIds.length);
    expect(own.filter((f) => f.status !== "loaded")).toEqual([]);
    expect(own.some((f) => /^\d+ \d+$/.test(f.weight))).toBe(true);
    expect(said).toEqual([]);
    await page.close();
  });

  test("what the terms forbid is refused with its sentence", async () => {
    const forbidden = (await styleNamed("bytebuoy")).styleId;
    const asked = await api<{ error: { code: string; message: string } }>(`/briefs/${briefId}/webkit`, {
      method: "POST",
      json: { styleIds: [forbidden], characters: "brief", formats: ["woff2"] },
    });
    expect(asked.status).toBe(400);
    expect(asked.body.error.code).toBe("not-for-web");
    expect(asked.body.error.message).toMatch(/“.{10,}”/);
  });
});
