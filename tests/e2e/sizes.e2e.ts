// Every view in windows of five sizes, from an enlarged page to a wide screen and a tablet that is touched: nothing is cut off or out of reach,
// nothing that is pressed is too small, and what opens over a view has no faults either.
import type { Page } from "playwright-core";
import { beforeAll, describe, expect, test } from "@jest/globals";
import { api, expectNoAxeFaults, makeBrief, openBrowser, styleNamed, url } from "./browser";

const browser = openBrowser();
let views: [string, string][] = [];
let briefId = "";

beforeAll(async () => {
  briefId = await makeBrief({
    lines: [
      { text: "Skerrow Light", role: "title" },
      { text: "Open Night", role: "second" },
      { text: "12 lamps & one tide", role: "text" },
    ],
  });
  const kept: string[] = [];
  for (const q of ["alfa slab one", "rokkitt black"]) {
    kept.push((await styleNamed(q)).styleId);
    await api(`/briefs/${briefId}/kept/${kept[kept.length - 1]}`, { method: "PUT", json: {} });
  }
  const { body } = await api<{ passId: string }>(`/briefs/${briefId}/passes`, {
    method: "POST",
    json: { question: "q=slab", title: "Slabs" },
  });
  const block = { text: "Skerrow Light", styleId: kept[0], size: { emMm: 40 }, fill: "#20262b" };
  const arc = { kind: "arc", radiusMm: 300, startDeg: -90 };
  await api(`/briefs/${briefId}/letterings`, {
    method: "POST",
    json: {
      name: "Test brief",
      document: {
        sheet: { widthMm: 420, heightMm: 200, ground: "#fbf9f4" },
        blocks: [
          { ...block, id: "l_0", at: { xMm: 40, yMm: 120 }, path: arc, outline: { widthMm: 1, colour: "#a8431a" } },
        ],
      },
    },
  });
  const style = `style/${(await styleNamed("lora bold")).styleId}`;
  const variable = `style/${(await styleNamed("fraunces variable")).styleId}`;
  views = Object.entries({
    brief: "brief",
    find: "find",
    "find, narrowed": "find?q=round&kinds=sans&columns=4",
    "find, nothing": "find?q=round%20blackletter%20monospaced%20script",
    "find, letters": "find?set=letters&columns=6",
    identify: "identify",
    questions: "identify/questions",
    sketch: "identify/sketch",
    documents: "identify/documents",
    glyphs: style,
    sizes: `${variable}?part=sizes`,
    measures: `${style}?part=measures`,
    family: `${style}?part=family`,
    similar: `${style}?part=alike`,
    terms: `${style}?part=terms`,
    file: `${style}?part=file`,
    languages: `${style}?part=languages`,
    shortlist: "shortlist",
    "hand over": "hand-over",
    libraries: "libraries",
    arrivals: "libraries?tab=arrivals",
    "font log": "libraries?tab=log",
    jobs: "jobs",
    review: `pass/${body.passId}`,
    compare: `compare?faces=${kept.join(",")}`,
    companions: `compare/companions?of=${kept[1]}&by=family`,
    "two by two": "compare/two-by-two",
    letter: "letter",
    "letter, shape": "letter?way=shape&letter=2",
    "letter, check": "letter?way=check",
    "letter, save as": "letter?way=save",
    "all briefs": "/",
  });
}, 60_000);

/** What cannot be reached or pressed on the page as it stands. */
function listFaults(): string[] {
  const faults: string[] = [];
  if (document.documentElement.scrollWidth > innerWidth + 1) faults.push("the page scrolls sideways");
  const isSeen = (e: Element) =>
    e.checkVisibility({ contentVisibilityAuto: true, visibilityProperty: true, opacityProperty: true }) &&
    e.getBoundingClientRect().width > 0 &&
    !e.closest("[inert], [aria-hidden=true]");
  const nameOf = (e: HTMLElement) =>
    `${e.tagName.toLowerCase()} “${(e.getAttribute("aria-label") ?? e.innerText).slice(0, 30)}”`;
  const controls = [
    ...document.querySelectorAll<HTMLElement>("button, a[href], input, select, textarea, summary, [role=tab]"),
  ].filter((e) => {
    // The link past the frame comes into the window with the focus.
    if (e.matches("a[href='#view']")) return false;
    const type = (e as HTMLInputElement).type;
    // The thumbs of a range are drawn over it; a strip of the wall is pressed as a whole.
    return (
      isSeen(e) && !(e as HTMLInputElement).disabled && !["file", "range"].includes(type) && !e.closest("[data-strip]")
    );
  });
  for (const e of controls) {
    e.scrollIntoView({ block: "nearest", inline: "nearest" });
    const own = e.getBoundingClientRect();
    const label = ["checkbox", "radio"].includes((e as HTMLInputElement).type) ? e.closest("label") : null;
    const { width, height } = (label ?? e).getBoundingClientRect();
    // Links in running text are as high as their line (WCAG 2.2, 2.5.8, exception "inline").
    const isInline = Boolean(e.closest("p")) || (e.tagName === "A" && Boolean(e.closest("li, td, h1, span")));
    if (!isInline && Math.min(width, height) < 23.5)
      faults.push(`${nameOf(e)} is ${Math.round(width)} × ${Math.round(height)}`);
    if (own.right > innerWidth + 1 || own.left < -1 || own.bottom < 1 || own.top > innerHeight - 1) {
      faults.push(`${nameOf(e)} is out of the window`);
      continue;
    }
    // What does not scroll by hand may not hide anything by having been scrolled.
    for (let p = e.parentElement; p; p = p.parentElement)
      if (/hidden|clip/.test(getComputedStyle(p).overflowX) && p.scrollLeft > 1) {
        faults.push(`${nameOf(e)} is cut off`);
        p.scrollLeft = 0;
      }
  }
  return [...new Set(faults)];
}

/** Waits until nothing is told to be on its way, and what can be pressed is what it was a moment ago. */
async function settle(page: Page) {
  const tell = () =>
    page.evaluate(() => ({
      isBusy: document.querySelector("[aria-busy=true]") !== null,
      names: [...document.querySelectorAll("button, a[href], input, select, textarea")]
        .map((e) => e.ariaLabel ?? e.textContent)
        .join(),
    }));
  // What goes on changing is looked at as it is.
  let before = "";
  for (let tries = 0; tries < 20; tries++) {
    const { isBusy, names } = await tell();
    if (!isBusy && names === before) return;
    before = names;
    await page.waitForTimeout(400);
  }
}

type Window = { name: string; width: number; height: number; hasTouch?: boolean };
/** Windows that a page is resized to; a page at 1280 enlarged twice has half as many of its own pixels. */
const WINDOWS: Window[] = [
  { name: "1024", width: 1024, height: 768 },
  { name: "1280", width: 1280, height: 800 },
  { name: "2560", width: 2560, height: 1440 },
  { name: "enlarged twice", width: 640, height: 400 },
  { name: "a tablet", width: 820, height: 1180, hasTouch: true },
];

test("nothing is cut off, out of reach or too small, in any view", async () => {
  const context = await browser.context.browser()!.newContext({ baseURL: url() });
  const found: Record<string, string[]> = {};
  const look = async (list: typeof views) => {
    const page = await context.newPage();
    const devtools = await context.newCDPSession(page);
    for (const [view, path] of list) {
      await page.goto(path.startsWith("/") ? path : `/b/${briefId}/${path}`);
      await page.locator("main").waitFor();
      await settle(page);
      for (const { name, hasTouch = false, ...viewport } of WINDOWS) {
        await page.setViewportSize(viewport);
        await devtools.send("Emulation.setTouchEmulationEnabled", { enabled: hasTouch });
        await page.waitForTimeout(200);
        const faults = await page.evaluate(listFaults);
        if (faults.length) found[`${view} at ${name}`] = faults;
      }
      await devtools.send("Emulation.setTouchEmulationEnabled", { enabled: false });
    }
  };
  // Two pages, each with half of the views.
  const half = views.length / 2;
  await Promise.all([look(views.slice(0, half)), look(views.slice(half))]);
  await context.close();
  expect(found).toEqual({});
}, 180_000);

describe("what opens over a view", () => {
  test("the list of keys: opened by ?, without faults, closed by Escape; it says the keys of the view and of everywhere", async () => {
    const { page } = browser;
    await page.goto(`/b/${briefId}/find`);
    await page.locator("[data-strip]").first().waitFor();
    await page.keyboard.press("?");
    const dialog = page.getByRole("dialog");
    await dialog.getByText("compare with previous").waitFor();
    await dialog.getByRole("heading", { name: "Everywhere" }).waitFor();
    await expectNoAxeFaults(page);
    await page.keyboard.press("Escape");
    await dialog.waitFor({ state: "hidden" });
  });

  test.each([
    ["the brief's menu", /^(?:Switch brief|Test brief)/],
    ["the order of the wall", /Order/],
    ["reviews", /Review one by one/],
  ])("%s: without faults", async (_name, button) => {
    const { page } = browser;
    await page.goto(`/b/${briefId}/find`);
    await page.locator("[data-strip]").first().waitFor();
    await page.getByRole("button", { name: button }).first().click();
    await page.locator("[role=menu], [role=listbox], [role=dialog]").first().waitFor();
    // A list that hangs over the page stands outside of its regions, as ARIA's own patterns have it.
    await expectNoAxeFaults(page, ["region"]);
    await page.keyboard.press("Escape");
  });

  test("the find field is within five stops of Tab", async () => {
    const { page } = browser;
    await page.goto(`/b/${briefId}/find`);
    await page.locator("[data-strip]").first().waitFor();
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    // The first stop leads past the frame.
    await page.keyboard.press("Tab");
    expect(await page.evaluate(() => document.activeElement?.textContent)).toBe("Skip to the view");
    await page.keyboard.press("Enter");
    const reached: string[] = [];
    for (let i = 0; i < 4; i++) {
      await page.keyboard.press("Tab");
      reached.push(
        await page.evaluate(
          () => document.activeElement?.getAttribute("aria-label") ?? document.activeElement?.textContent ?? "",
        ),
      );
    }
    expect(reached).toContain("Find by name, kind or shape");
  });
});
