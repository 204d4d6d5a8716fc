// Letters that move: from a brief to a film with alpha in the cutting room, poses by keys, curves, grounds, what is told, and files that show
// what the preview shows.
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { copyFileSync, existsSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import sharp from "sharp";
import type { CuttingRoom, ClipReport } from "@/contracts/cuttingRoom";
import type { Lettering, LetteringDocument } from "@/contracts/lettering";
import type { Motion } from "@/contracts/motion";
import type { Pose } from "@/contracts/poses";
import { api, boxOf, expectNoAxeFaults, makeBrief, openBrowser, standIns, styleNamed, waitUntil } from "./browser";
import { makeFile } from "./motionJobs";

const browser = openBrowser();
let briefId = "";
let styleId = "";
let blockIds: string[] = [];
beforeAll(async () => {
  briefId = await makeBrief({
    name: "Keepers of the Lamp",
    lines: [
      { text: "Keepers of the Lamp", role: "title" },
      { text: "Part 3: Fog + Brass", role: "second" },
    ],
    uses: ["video"],
    ink: "#F3EFE6",
    paper: "#20262B",
    size: 120,
    unit: "px",
  });
  ({ styleId } = await styleNamed("commissioner variable"));
  await api(`/briefs/${briefId}/kept/${styleId}`, { method: "PUT", json: {} });
}, 60_000);

const lettering = async () =>
  (await api<{ letterings: Lettering[] }>(`/briefs/${briefId}/letterings`)).body.letterings[0]!;
const motion = async () => (await lettering()).document.motion!;
const room = async () => (await (await fetch(`${standIns()}/cutting-room`)).json()) as CuttingRoom;
const setProject = (project: object) =>
  fetch(`${standIns()}/cutting-room/project`, { method: "PUT", body: JSON.stringify(project) });
const open = (way = "move") => browser.page.goto(`/b/${briefId}/letter?way=${way}`);
const settledAs = (holds: (m: Awaited<ReturnType<typeof motion>>) => boolean) =>
  waitUntil(async () => holds(await motion()));
/** How one of the two lines stands in a pose. */
const lineIn = (poses: readonly Pose[], name: string, line: 0 | 1) =>
  poses.find((p) => p.name === name)?.blocks[blockIds[line]!];
const preview = () => browser.page.locator("[data-preview]");
/** When the lines begin to leave, in seconds; what follows moves with it. */
async function setLeaving(seconds: string) {
  const leaves = browser.page.getByLabel("Time of Begins to leave");
  await leaves.fill(seconds);
  await leaves.press("Enter");
}
/** The keys of the view work where no field has the focus. */
const leaveFields = () => browser.page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
afterAll(() => setProject({ fps: 25 }));

describe("from the brief to the cutting room", () => {
  test("the lines are laid out as a title card, heavy over thin, and begin to move", async () => {
    const { page } = browser;
    await open();
    await page.getByRole("button", { name: "Start lettering" }).click();
    await page.getByRole("heading", { name: "Nothing moves yet. Begin with a motion" }).waitFor();
    await expectNoAxeFaults(page);
    await page.getByRole("button", { name: "thin and heavy" }).click();
    await page.locator("[data-poses='4']").waitFor();
    await page.locator("[data-preview][data-moments]").waitFor();
    const { sheet, blocks } = (await lettering()).document;
    expect(sheet.widthMm / sheet.heightMm).toBeCloseTo(16 / 9, 2);
    blockIds = blocks.map((b) => b.id);
    const [heavy, thin] = blocks.map((b) => b.coordinates!.wght!);
    expect(heavy! - thin!).toBeGreaterThan(400);
    await page.getByText(/^Reads in 3.1 s, stands for/).waitFor();
    await expectNoAxeFaults(page);
  });

  test("another motion takes its place: letters one after another, from hairline to full weight", async () => {
    const { page } = browser;
    await page.getByRole("button", { name: "Begin in another way" }).click();
    await page.getByRole("button", { name: "Lamp is lit" }).click();
    await settledAs((m) => m.stagger?.order === "middle");
    await page.getByRole("button", { name: "Keep this motion" }).click();
    expect(lineIn((await motion()).poses, "Arrives", 0)).toEqual({ opacity: 0, axes: { wght: 100 } });
    await page.getByRole("img", { name: /^The last letter comes \d+ ms after the first$/ }).waitFor();
    // Shorter films are sooner made.
    await setLeaving("1.2");
    await settledAs((m) => m.durationMs < 3000);
  });

  test("a film with alpha is made with count and time, and is taken in by the cutting room", async () => {
    const { page } = browser;
    await open("save");
    await page.getByLabel(/^WebM/).check();
    await page.getByRole("button", { name: /^1920 px wide|^Width/ }).click();
    await page.getByRole("option", { name: "1280 px wide" }).click();
    await page.getByRole("button", { name: "Make WebM" }).click();
    await page.locator("[data-made=done]").waitFor();
    await page.getByRole("button", { name: "Hand to the cutting room" }).click();
    await page
      .locator("[data-taken=true]")
      .getByText(/1280 × 720, 25 frames a second, .* with alpha/)
      .waitFor();
    await page.getByText(/Commissioner would have to be installed/).waitFor();
    const [clip] = (await room()).clips;
    const { durationMs } = await motion();
    expect(clip).toMatchObject({ kind: "video", codec: "V_VP9", hasAlpha: true, frames: Math.round(durationMs / 40) });
    expect(clip!.durationMs).toBeCloseTo(durationMs, -2);
  });

  test("a project of another rate does not take it; with its rate it does", async () => {
    const { page } = browser;
    await setProject({ fps: 50 });
    await page.getByRole("button", { name: "Hand to the cutting room" }).click();
    await page
      .locator("[data-taken=false]")
      .getByText(/The project runs at 50 frames a second, the clip at 25/)
      .waitFor();
    await open();
    await page.getByRole("button", { name: /^Rate/ }).click();
    await page.getByRole("option", { name: "50 frames a second" }).click();
    await settledAs((m) => m.fps === 50);
    await open("save");
    await page.getByLabel(/^PNG frames/).check();
    await page.getByRole("button", { name: "Make PNG frames" }).click();
    await page.locator("[data-made=done]").waitFor();
    await page.getByRole("button", { name: "Hand to the cutting room" }).click();
    await page.locator("[data-taken=true]").waitFor();
    await setProject({ fps: 25 });
  });

  test("moments side by side are saved as one picture", async () => {
    const { page } = browser;
    const [download] = await Promise.all([
      page.waitForEvent("download"),
      page.getByRole("button", { name: "Eight moments as PNG" }).click(),
    ]);
    const { width, height } = await sharp(await download.path()).metadata();
    expect([width, height]).toEqual([8 * 480 + 7 * 8, 270]);
  });
});

describe("the cutting room reads like a program would", () => {
  const folderOf = async (name: string) => join((await room()).folder, name);
  const take = async (name: string): Promise<ClipReport> => {
    const answer = await fetch(`${standIns()}/cutting-room/clips`, {
      method: "POST",
      body: JSON.stringify({ name, fonts: [] }),
    });
    return (await answer.json()) as ClipReport;
  };
  const clip = "Keepers of the Lamp";
  const frame = (n: number) => `frame-${String(n).padStart(5, "0")}.png`;

  test("missing frames, mixed sizes and wrong names are refused, each by its name", async () => {
    await setProject({ fps: 50 });
    const folder = await folderOf(clip);
    expect((await take(clip)).isTaken).toBe(true);
    const kept = join(mkdtempSync(join(tmpdir(), "fond-quarry-frame-")), "frame.png");
    copyFileSync(join(folder, frame(3)), kept);
    rmSync(join(folder, frame(3)));
    expect(await take(clip)).toMatchObject({
      isTaken: false,
      code: "missing-frames",
      message: expect.stringContaining(frame(4)),
    });
    await sharp(kept)
      .resize(64, 36)
      .toFile(join(folder, frame(3)));
    expect(await take(clip)).toMatchObject({ isTaken: false, code: "mixed-sizes" });
    writeFileSync(join(folder, frame(3)), "no picture");
    expect(await take(clip)).toMatchObject({ isTaken: false, code: "unread" });
    copyFileSync(kept, join(folder, frame(3)));
    copyFileSync(kept, join(folder, "cover.png"));
    expect(await take(clip)).toMatchObject({ isTaken: false, code: "wrong-name" });
    rmSync(join(folder, "cover.png"));
    expect((await take(clip)).isTaken).toBe(true);
    expect(await take("../main.mjs")).toMatchObject({ isTaken: false, code: "wrong-name" });
    await setProject({ fps: 25 });
  });
});

describe("poses", () => {
  test("by keys alone: played, stepped, added, changed, removed, undone", async () => {
    const { page } = browser;
    await open();
    await page.locator("[data-poses='4']").waitFor();
    await page.locator("[data-preview][data-moments]").waitFor();
    await leaveFields();
    const at = () => page.locator("[data-time]").getAttribute("data-time").then(Number);
    await page.keyboard.press("Space");
    await waitUntil(async () => Number(await preview().getAttribute("data-moments")) > 5);
    await page.keyboard.press("Space");
    const halted = await at();
    await page.keyboard.press("ArrowRight");
    await waitUntil(async () => (await at()) > halted);
    await page.keyboard.press("ArrowDown");
    await page.getByRole("button", { name: "Pose Begins to leave", pressed: true }).waitFor();
    await page.keyboard.press("ArrowUp");
    await page.getByRole("button", { name: "Pose Stands", pressed: true }).waitFor();
    await page.keyboard.press("p");
    await page.locator("[data-poses='5']").waitFor();
    await settledAs((m) => m.poses.length === 5);
    // The new pose is chosen: its weight is typed.
    const hasThin = (poses: readonly Pose[]) => poses.some((p) => p.blocks[blockIds[0]!]?.axes?.wght === 300);
    const weight = page.locator("[data-pose-bar]").getByLabel("Weight");
    await weight.focus();
    await page.keyboard.press("Control+a");
    await page.keyboard.type("300");
    await page.keyboard.press("Enter");
    await settledAs((m) => hasThin(m.poses));
    await leaveFields();
    await page.keyboard.press("Delete");
    await page.locator("[data-poses='4']").waitFor();
    await page.keyboard.press("u");
    await page.locator("[data-poses='5']").waitFor();
    await page.keyboard.press("u");
    await settledAs((m) => m.poses.length === 5 && !hasThin(m.poses));
    await page.keyboard.press("u");
    await page.locator("[data-poses='4']").waitFor();
    await page.reload();
    await page.locator("[data-poses='4']").waitFor();
  });

  test("a line is dragged to where it stands in a pose; other poses stay", async () => {
    const { page } = browser;
    await page.getByRole("button", { name: "Pose Stands" }).click();
    const grip = page.getByRole("button", { name: "Line Part 3: Fog + Brass", exact: true }).last();
    const box = await boxOf(grip);
    await page.mouse.move(box.x + 20, box.y + 8);
    await page.mouse.down();
    await page.mouse.move(box.x + 60, box.y + 28, { steps: 5 });
    await page.mouse.up();
    await settledAs((m) => (lineIn(m.poses, "Stands", 1)?.dxMm ?? 0) > 10);
    const { poses } = await motion();
    expect(lineIn(poses, "Begins to leave", 1)?.dxMm).toBeUndefined();
    await leaveFields();
    await page.keyboard.press("u");
    await settledAs((m) => !lineIn(m.poses, "Stands", 1)?.dxMm);
  });

  test("a curve is bent by hand and by keys, or chosen by name", async () => {
    const { page } = browser;
    const curve = page.getByRole("group", { name: "Easing from Arrives to Stands" });
    const handle = curve.getByRole("slider", { name: "How it sets out" });
    const box = await boxOf(handle);
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width / 2 + 25, box.y + box.height / 2 - 10, { steps: 4 });
    await page.mouse.up();
    const easeOf = async () => (await motion()).poses.find((p) => p.name === "Arrives")!.ease;
    await waitUntil(async () => Array.isArray(await easeOf()) && (await easeOf())[0] !== 0.3);
    const [x1] = (await easeOf()) as number[];
    await handle.focus();
    await page.keyboard.press("ArrowRight");
    await waitUntil(async () => ((await easeOf()) as number[])[0]! > x1!);
    await page.getByRole("button", { name: /^From Arrives to Stands/ }).click();
    await page.getByRole("option", { name: "eases out" }).click();
    await waitUntil(async () => (await easeOf()) === "out");
  });

  test("letters are masked by their baseline, come word by word, or all at once", async () => {
    const { page } = browser;
    await page.getByLabel("Seen above their baseline only").check();
    await settledAs((m) => m.mask === "baseline");
    await page.getByRole("button", { name: /^Letters come/ }).click();
    await page.getByRole("option", { name: "word by word" }).click();
    await settledAs((m) => m.stagger?.unit === "word");
    await page.getByRole("button", { name: /^Letters come/ }).click();
    await page.getByRole("option", { name: "all at once" }).click();
    await settledAs((m) => m.stagger === undefined);
    await page.getByLabel("Seen above their baseline only").uncheck();
    await settledAs((m) => m.mask === undefined);
  });

  test("the frame turns upright for a telephone, with its lines about the middle; safe areas lie over it", async () => {
    const { page } = browser;
    await page.getByRole("button", { name: /^Frame/ }).click();
    await page.getByRole("option", { name: "frame 9:16" }).click();
    await waitUntil(
      async () => (await lettering()).document.sheet.heightMm > (await lettering()).document.sheet.widthMm,
    );
    await page.getByLabel("4:5").check();
    await page.locator("[data-safe='4:5']").waitFor();
    await leaveFields();
    await page.keyboard.press("u");
    await waitUntil(async () => (await lettering()).document.sheet.widthMm === 320);
  });
});

describe("over a ground", () => {
  test("a clip is dropped in and plays along; the lowest contrast is told with its moment", async () => {
    const { page } = browser;
    await page.locator("[data-contrast]").waitFor();
    const onPaper = Number(await page.locator("[data-contrast]").getAttribute("data-contrast"));
    expect(onPaper).toBeGreaterThan(3);
    // A film of our own in a light colour: letters of the brief's ink are faint on it.
    const document: LetteringDocument = { sheet: { widthMm: 64, heightMm: 36, ground: "#e6e2d6" }, blocks: [] };
    const still: Motion = { durationMs: 1000, fps: 25, tracks: [] };
    const file = await makeFile({ document, motion: still, format: "mp4", widthPx: 320 });
    const path = join(mkdtempSync(join(tmpdir(), "fond-quarry-clip-")), "fog.mp4");
    writeFileSync(path, file);
    await page.getByLabel("Clip", { exact: true }).setInputFiles(path);
    await page.getByRole("button", { name: "Over: a clip" }).waitFor();
    await page.getByText(/^Faint at/).waitFor();
    expect(Number(await page.locator("[data-contrast]").getAttribute("data-contrast"))).toBeLessThan(1.5);
    await page.getByRole("button", { name: "Over: a clip" }).click();
    await page.getByRole("option", { name: "the brief’s paper" }).click();
  });

  test("less motion is kept: nothing goes on over and over", async () => {
    const { page } = browser;
    await page.emulateMedia({ reducedMotion: "reduce" });
    await open();
    await page.locator("[data-reduced]").waitFor();
    await waitUntil(async () => !(await page.getByLabel("Over and over").isChecked()));
    await page.locator("[data-preview][data-moments]").waitFor();
    const before = await page.locator("[data-time]").getAttribute("data-time");
    await page.waitForTimeout(600);
    expect(await page.locator("[data-time]").getAttribute("data-time")).toBe(before);
    await page.emulateMedia({ reducedMotion: "no-preference" });
  });

  test("what is too thin and too short is told", async () => {
    const { page } = browser;
    await page.goto(`/b/${briefId}/letter?way=move&px=320`);
    await page.getByText(/^The thinnest stroke is 0\.\d px/).waitFor();
    const length = page.locator("[data-move-bar]").getByLabel("Length");
    const tooShort = page.getByText(/^It takes 3.1 s to read and stands for/);
    await setLeaving("6");
    await tooShort.waitFor({ state: "detached" });
    await setLeaving("1.5");
    await tooShort.waitFor();
    expect(Number(await length.inputValue())).toBeLessThan(4);
  });
});

/** Nothing of unfinished motions is left lying about. */
test("the folder of a finished motion is cleared", async () => {
  const { folder } = await room();
  expect(existsSync(folder)).toBe(true);
  expect(readdirSync(folder).some((name) => name.endsWith(".part"))).toBe(false);
});
