// A server that others can reach: passcodes, what each role may, signing in and out in the browser, edits that outlast a session and a server
// that is away.
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import type { ChildProcess } from "node:child_process";
import { mkdtempSync, openSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { ROLES, type Role } from "@/contracts/access";
import type { Brief } from "@/contracts/brief";
import { openBrowser } from "./browser";
// @ts-expect-error -- plain JavaScript, shared with Jest's setup
import { freePort, spawnServer } from "../../scripts/server.mjs";

const browser = openBrowser();
const data = mkdtempSync(join(tmpdir(), "fond-quarry-access-"));
const log = join(data, "server.log");
let at = "";
let port = 0;
let server: ChildProcess;
let passcodes: Record<Role, string>;
let briefId = "";

async function start() {
  const out = openSync(log, "a");
  server = spawnServer(port, data, { HOST: "0.0.0.0" }, { stdio: ["ignore", out, out] }) as ChildProcess;
  // Health asks for a passcode too: the server is there when it answers at all.
  for (let i = 0; i < 200; i++) {
    if (await fetch(`${at}/api/v1/health`).catch(() => null)) return;
    await new Promise((r) => setTimeout(r, 100));
  }
  throw new Error("the server did not start");
}
async function stop() {
  server.kill("SIGKILL");
  await new Promise((r) => server.on("exit", r));
}

/** Asks as somebody; without a session where there is no cookie. */
async function ask(path: string, cookie = "", method = "GET", json?: unknown) {
  const response = await fetch(`${at}/api/v1${path}`, {
    method,
    headers: { ...(cookie && { cookie }), "content-type": "application/json" },
    ...(json !== undefined && { body: JSON.stringify(json) }),
    redirect: "manual",
  });
  return { status: response.status, body: (await response.json().catch(() => null)) as Record<string, never> };
}
async function cookieOf(role: Role): Promise<string> {
  const response = await fetch(`${at}/api/v1/session`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ passcode: passcodes[role] }),
  });
  expect(response.status).toBe(200);
  const cookie = response.headers.get("set-cookie")!;
  expect(cookie).toMatch(/HttpOnly; SameSite=Strict/);
  return cookie.split(";")[0]!;
}

beforeAll(async () => {
  port = (await freePort()) as number;
  at = `http://127.0.0.1:${port}`;
  await start();
  const told = () => readFileSync(log, "utf8");
  for (let i = 0; i < 100 && !/owner {2}/.test(told()); i++) await new Promise((r) => setTimeout(r, 100));
  passcodes = Object.fromEntries(
    ROLES.map((role) => [role, new RegExp(`^ {2}${role} +(\\S+)`, "m").exec(told())![1]!]),
  ) as Record<Role, string>;
}, 60_000);
afterAll(async () => {
  await stop();
  rmSync(data, { recursive: true, force: true });
});

describe("over HTTP", () => {
  test("without a passcode nothing is told: no rows, no pages", async () => {
    for (const path of ["/health", "/briefs", "/styles", "/jobs", "/libraries"])
      expect(await ask(path)).toMatchObject({ status: 401, body: { error: { code: "passcode-needed" } } });
    const page = await fetch(`${at}/b/b_any/find?q=round`, { redirect: "manual" });
    expect(page.status).toBe(303);
    expect(page.headers.get("location")).toBe(`/sign-in?to=${encodeURIComponent("/b/b_any/find?q=round")}`);
    expect(await page.text()).not.toMatch(/<body/);
    expect((await fetch(`${at}/sign-in`)).status).toBe(200);
  });

  test("a reader looks, an editor changes, the owner connects", async () => {
    const [reader, editor, owner] = [await cookieOf("reader"), await cookieOf("editor"), await cookieOf("owner")];
    const fresh = { name: "Skerrow Light", lines: [{ text: "Skerrow Light", role: "title" }] };
    const folder = { kind: "folder", name: "Outside", path: "/etc" };
    expect((await ask("/styles", reader)).status).toBe(200);
    expect(await ask("/briefs", reader, "POST", fresh)).toMatchObject({
      status: 403,
      body: { error: { code: "not-allowed" } },
    });
    const made = await ask("/briefs", editor, "POST", fresh);
    expect(made.status).toBe(201);
    briefId = made.body.briefId!;
    expect((await ask(`/briefs/${briefId}`, reader)).status).toBe(200);
    expect((await ask(`/briefs/${briefId}`, reader, "DELETE")).status).toBe(403);
    expect((await ask("/libraries", editor, "POST", folder)).status).toBe(403);
    expect((await ask("/access", editor, "PUT", { role: "owner", passcode: "harbour-lamp-07" })).status).toBe(403);
    // The owner may connect, but only folders that were listed when the server was started.
    const refused = await ask("/libraries", owner, "POST", folder);
    expect([refused.status, refused.body]).toEqual([expect.any(Number), { error: expect.anything() }]);
    expect(refused.status).toBeGreaterThanOrEqual(400);
    expect(refused.status).toBeLessThan(500);
  });
});

describe("in the browser", () => {
  const signIn = async (role: Role) => {
    const { page } = browser;
    await page.getByLabel("Passcode").fill(passcodes[role]);
    await page.getByRole("button", { name: "Sign in" }).click();
  };
  const textsOf = async (cookie: string) =>
    ((await ask(`/briefs/${briefId}`, cookie)).body as unknown as Brief).lines.map((l) => l.text);

  test("a wrong passcode is told; the right one goes on to the page that was wanted", async () => {
    const { page } = browser;
    await page.goto(`${at}/b/${briefId}/brief`);
    await page.getByLabel("Passcode").fill("not this one");
    await page.getByRole("button", { name: "Sign in" }).click();
    await page.getByText("Wrong passcode.").waitFor();
    await signIn("editor");
    await page.waitForURL(`${at}/b/${briefId}/brief`);
    await page.getByLabel("Line 1 of the brief").waitFor();
  });

  test("what is changed after the session ended waits, and is saved after signing in again", async () => {
    const { page } = browser;
    const owner = await cookieOf("owner");
    expect((await ask("/access", owner, "PUT", { role: "reader", passcode: "harbour-lamp-07" })).status).toBe(200);
    await page.getByLabel("Line 1 of the brief").fill("Skerrow Light at dusk");
    await page.getByRole("link", { name: "Sign in to save" }).click();
    await signIn("editor");
    await page.waitForURL(`${at}/b/${briefId}/brief`);
    const cookie = await cookieOf("editor");
    for (let i = 0; i < 100 && (await textsOf(cookie))[0] === "Skerrow Light"; i++)
      await new Promise((r) => setTimeout(r, 100));
    expect(await textsOf(cookie)).toEqual(["Skerrow Light at dusk"]);
  });

  test("a server that is away: the page stays, links wait, what is typed arrives when it is back", async () => {
    const { page } = browser;
    await page.goto(`${at}/b/${briefId}/brief`);
    await page.getByLabel("Line 1 of the brief").waitFor();
    await stop();
    await page.getByText("The server is not answering", { exact: false }).first().waitFor();
    await page.getByLabel("Line 1 of the brief").fill("Last boat");
    await page.getByRole("link", { name: "Shortlist" }).click();
    await page.getByText("This page stays open", { exact: false }).waitFor();
    expect(page.url()).toBe(`${at}/b/${briefId}/brief`);
    await page.locator("[data-unsaved]").getByText("1 change not saved yet").waitFor();
    await start();
    await page.locator("[data-unsaved]").waitFor({ state: "detached", timeout: 30_000 });
    expect(await textsOf(await cookieOf("editor"))).toEqual(["Last boat"]);
    await page.getByRole("link", { name: "Shortlist" }).click();
    await page.waitForURL(`${at}/b/${briefId}/shortlist`);
  });

  test("the owner changes a passcode, everybody is signed out", async () => {
    const { page } = browser;
    const before = await cookieOf("editor");
    await page.getByRole("link", { name: "Access" }).click();
    await page.getByText("You are signed in as editor").waitFor();
    expect(await page.getByLabel("Owner").count()).toBe(0);
    await page.getByRole("button", { name: "Sign out" }).click();
    await page.waitForURL(`${at}/sign-in`);
    await signIn("owner");
    await page.waitForURL(`${at}/`);
    await page.goto(`${at}/access`);
    await page.getByLabel(/^Editor/).fill("short");
    const change = page.locator("form", { hasText: "Editor" }).getByRole("button", { name: "Change" });
    expect(await change.isDisabled()).toBe(true);
    await page.getByLabel(/^Editor/).fill("harbour-lamp-08");
    await change.click();
    await page.waitForURL(`${at}/sign-in`);
    expect((await ask("/briefs", before)).status).toBe(401);
    passcodes.editor = "harbour-lamp-08";
    expect((await ask("/briefs", await cookieOf("editor"))).status).toBe(200);
  });
});
