// One browser for a file of flows: a page at 1280 × 800, helpers for what people do, and the errors that the page must not have.
import { afterAll, beforeAll, expect } from "@jest/globals";
import AxeBuilder from "@axe-core/playwright";
import { chromium, type Browser, type BrowserContext, type Download, type Locator, type Page } from "playwright-core";
import { readFileSync } from "node:fs";
// @ts-expect-error -- plain JavaScript, shared with the bench
import { forgetPictures } from "../../scripts/forgetPictures.mjs";
// @ts-expect-error -- plain JavaScript, shared with the bench
import { fetchAgain as again } from "../../scripts/server.mjs";

/** What this worker's own server goes by (globalSetup.mjs). */
const ofWorker = (name: string) => process.env[`E2E_${name}_${process.env.JEST_WORKER_ID}`]!;
export const url = () => ofWorker("URL");
/** The data folder of the server. */
export const dataFolder = () => ofWorker("DATA");
/** Where its stand-ins answer: libraries, shops and the desk. */
export const standIns = () => ofWorker("STANDINS");

/** What a page has for one step: two servers share the cores, and a button waits for what is being computed. */
const ACTION_MS = 60_000;

export function openBrowser(): { readonly page: Page; readonly context: BrowserContext } {
  let browser: Browser;
  const held: { page?: Page; context?: BrowserContext } = {};
  const broken: string[] = [];
  beforeAll(async () => {
    browser = await chromium.launch({
      executablePath: "/usr/bin/chromium-headless-shell",
      args: [
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
      ],
    });
    held.context = await browser.newContext({
      viewport: { width: 1280, height: 800 },
      acceptDownloads: true,
      colorScheme: "light",
      permissions: ["clipboard-read", "clipboard-write"],
      baseURL: url(),
    });
    held.page = await held.context.newPage();
    held.page.setDefaultTimeout(ACTION_MS);
    held.page.on("pageerror", (error) => broken.push(`${error.stack ?? error}`));
  });
  afterAll(async () => {
    await browser?.close();
    expect(broken).toEqual([]);
  });
  return {
    get page() {
      return held.page!;
    },
    get context() {
      return held.context!;
    },
  };
}

/** Where a part stands, in CSS px. A part that is just being replaced has no box: the next one is taken. */
export async function boxOf(part: Locator) {
  const end = Date.now() + ACTION_MS;
  while (Date.now() < end) {
    await part.waitFor();
    const box = await part.boundingBox();
    if (box) return box;
  }
  throw new Error(`${part} has no box`);
}

/** A request; asked again where the server had just closed its connection. */
export const fetchAgain = again as (address: string, init?: RequestInit) => Promise<Response>;

export async function api<T = Record<string, never>>(
  path: string,
  init: RequestInit & { json?: unknown } = {},
): Promise<{ status: number; body: T }> {
  const { json, ...rest } = init;
  const response = await fetchAgain(`${url()}/api/v1${path}`, {
    ...rest,
    ...(json !== undefined && { body: JSON.stringify(json), headers: { "content-type": "application/json" } }),
  });
  return { status: response.status, body: (await response.json().catch(() => null)) as T };
}

/** A brief of one's own, so that flows do not disturb each other. */
export async function makeBrief(over: Record<string, unknown> = {}): Promise<string> {
  const { body } = await api<{ briefId: string }>("/briefs", {
    method: "POST",
    json: { name: "Test brief", lines: [{ text: "Skerrow Light", role: "title" }], uses: ["client-print"], ...over },
  });
  return body.briefId;
}

/** A brief whose line has figures and an ampersand, for goods that are sold. */
export const makeWrenBrief = () =>
  makeBrief({
    name: "Shape test",
    lines: [{ text: "Wren & Tern No. 7", role: "title" }],
    uses: ["goods-for-sale"],
  });

type Found = {
  total: number;
  items: { family: string; style: string; traits: Record<string, number | null>; axisWanted: Record<string, number> }[];
  facets: { kinds: Record<string, number> };
};
/** @param question - query string. @returns the first forty of what is found, with counts. */
export const find = async (question: string) => (await api<Found>(`/styles?${question}&limit=40`)).body;

export async function styleNamed(q: string): Promise<{ styleId: string; family: string; style: string }> {
  const { body } = await api<{ items: { styleId: string; family: string; style: string }[] }>(
    `/styles?q=${encodeURIComponent(q)}&limit=1`,
  );
  return body.items[0]!;
}

/** Opens the wall with every style, unless the question says otherwise, and waits until the first samples are set in their fonts. */
export async function openWall(page: Page, briefId: string, question = "") {
  const asked = new URLSearchParams(question);
  if (!asked.has("fold")) asked.set("fold", "false");
  await page.goto(`/b/${briefId}/find?${asked}`);
  await page.locator("[data-strip] [data-face=ready]").first().waitFor();
}

/** Waits until what is asked holds. @throws after twenty seconds. */
export async function waitUntil(holds: () => Promise<boolean>, ms = 20_000) {
  for (const end = Date.now() + ms; Date.now() < end;) {
    if (await holds()) return;
    await new Promise((r) => setTimeout(r, 60));
  }
  throw new Error("it did not come to hold");
}

/** How many styles the wall says that there are, once nothing is being asked. */
export const count = async (page: Page) =>
  Number((await page.locator("[data-count]:not([aria-busy=true])").innerText()).split(" ")[0]);

export async function saved(download: Promise<Download>): Promise<Uint8Array> {
  return new Uint8Array(readFileSync(await (await download).path()));
}

/** @param except - rules that do not hold here, each with its reason where it is called. */
export async function expectNoAxeFaults(page: Page, except: string[] = []) {
  // Nothing is loaded for it once more: only rules about sound and turned screens would look at that.
  const axe = new AxeBuilder({ page }).options({ resultTypes: ["violations"], preload: false });
  // In one go: these pages have no frames of other origins, for which the results would be put together on a page of their own.
  axe.setLegacyMode(true);
  const { violations } = await axe.disableRules(except).analyze();
  expect(violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 160)).join(" | ")}`)).toEqual([]);
}

/** A page of one's own as a picture: the part that the selector names, once the fonts that it asks for are there. */
export async function shootPage(context: BrowserContext, html: string, selector: string, font = ""): Promise<Buffer> {
  const page = await context.newPage();
  await page.setContent(html);
  if (font) await page.evaluate((asked) => document.fonts.load(asked), font);
  const picture = await page.locator(selector).screenshot();
  await page.close();
  return picture;
}

/** A picture of words set by the browser itself in a font of the library: a renderer that is not ours. */
/** The web font of a style, as the page gets it. */
export const fontOf = async (styleId: string): Promise<Buffer> =>
  Buffer.from(await (await fetchAgain(`${url()}/api/v1/styles/${styleId}/file`)).arrayBuffer());

export async function drawByBrowser(context: BrowserContext, styleId: string, text: string, css = ""): Promise<Buffer> {
  const page = await context.newPage();
  const font = await fontOf(styleId);
  await page.setContent(
    `<style>@font-face{font-family:probe;src:url(data:font/woff2;base64,${font.toString("base64")})}
     body{margin:0;background:#fff}#t{display:inline-block;font:64px probe;padding:30px 40px;color:#223;white-space:pre;${css}}</style><div id=t></div>`,
  );
  await page.locator("#t").evaluate((element, words) => (element.textContent = words), text);
  await page.evaluate(() => document.fonts.load("64px probe"));
  const picture = await page.locator("#t").screenshot();
  await page.close();
  return picture;
}

export type ImportLine = {
  name: string;
  path: string;
  outcome: string;
  code?: string;
  reason?: string;
  styleId?: string;
};
type ImportReport = { state: string; done: number; total: number; items: ImportLine[] };

/** Sends files to the import and waits for its report. */
export async function bringIn(files: Record<string, Uint8Array>): Promise<ImportReport> {
  const form = new FormData();
  for (const [name, bytes] of Object.entries(files)) form.append("files", new File([bytes as BlobPart], name));
  const { status, body } = await api<{ importId: string }>("/imports", { method: "POST", body: form });
  if (status !== 202) throw new Error(`the import was refused with ${status}`);
  for (let i = 0; i < 400; i++) {
    const report = (await api<ImportReport>(`/imports/${body.importId}`)).body;
    if (report.state !== "running") return report;
    await new Promise((r) => setTimeout(r, 100));
  }
  throw new Error("the import did not end");
}

/** Opens Identify with no picture left open from before. */
export async function startIdentify(page: Page, briefId: string) {
  await page.goto(`/b/${briefId}/brief`);
  await forgetPictures(page);
  await page.goto(`/b/${briefId}/identify`);
}
