// A server without demo data: a first brief, and a library that begins with the fonts of this system and follows their folder.
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { ChildProcess } from "node:child_process";
import { mkdirSync, mkdtempSync, openSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { makeFont } from "../fixtures/makeFont";
import { openBrowser } from "./browser";
// @ts-expect-error -- plain JavaScript, shared with Jest's setup
import { waitFor } from "./globalSetup.mjs";
// @ts-expect-error -- plain JavaScript, shared with Jest's setup
import { freePort, spawnServer } from "../../scripts/server.mjs";

const browser = openBrowser();
const root = mkdtempSync(join(tmpdir(), "fond-quarry-start-"));
const fonts = join(root, "home/.local/share/fonts");
let at = "";
let server: ChildProcess;
beforeAll(async () => {
  mkdirSync(fonts, { recursive: true });
  writeFileSync(join(fonts, "beacon.otf"), makeFont({ family: "Beacon", stem: 77 }));
  const port = (await freePort()) as number;
  at = `http://127.0.0.1:${port}`;
  const log = openSync(join(root, "server.log"), "a");
  const settings = { HOME: join(root, "home"), XDG_DATA_HOME: "", FOND_QUARRY_SEED: "" };
  server = spawnServer(port, join(root, "data"), settings, { stdio: ["ignore", log, log] }) as ChildProcess;
  await waitFor(at, () => true, 30_000);
}, 60_000);
afterAll(() => {
  server.kill("SIGKILL");
  rmSync(root, { recursive: true, force: true });
});

test("begins with a brief and offers the fonts of this system", async () => {
  const { page } = browser;
  await page.goto(at);
  await page.getByRole("button", { name: "New brief" }).click();
  await page.getByLabel("Text of line 1").waitFor();
  await page.getByRole("link", { name: "Find" }).click();
  await page.getByText("The library is still empty.").waitFor();
  await page.getByRole("button", { name: `Connect ${fonts}` }).click();
  await page.locator("[data-strip][data-name='Beacon Regular'] [data-face=ready]").waitFor({ timeout: 30_000 });
});

test("a font that is put into the folder appears; the folder is not offered again", async () => {
  const { page } = browser;
  writeFileSync(join(fonts, "lantern.otf"), makeFont({ family: "Lantern", stem: 101 }));
  await page.locator("[data-strip][data-name='Lantern Regular']").waitFor({ timeout: 30_000 });
  await page.getByRole("link", { name: "Libraries" }).click();
  await page.getByRole("list", { name: "Connected libraries" }).getByText("Your fonts").waitFor();
  expect(await page.getByRole("button", { name: `Connect ${fonts}` }).count()).toBe(0);
});
