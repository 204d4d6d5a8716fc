// Who gets in where others can reach the server: passcodes made once, sessions that hold and end, guesses that are slowed, our own hosts.
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { pageAfterSignIn, ROLES, signInFor, type Role } from "@/contracts/access";
import { isForeign, isOwnHost } from "./hosts";
import { changePasscode, preparePasscodes, roleOf, signIn } from "./sessions";

const data = mkdtempSync(join(tmpdir(), "fond-quarry-access-"));
let made: Record<Role, string>;
const valueOf = (cookie: string) => cookie.split(";")[0]!.split("=").slice(1).join("=");
const sessionOf = async (passcode: string) => {
  const signed = await signIn(passcode);
  if (typeof signed === "string") throw new Error(signed);
  return valueOf(signed.cookie);
};

beforeAll(() => {
  process.env.FOND_QUARRY_DATA = data;
  process.env.HOST = "0.0.0.0";
  process.env.FOND_QUARRY_HOSTS = "quarry.lan, type.example:8080";
  made = preparePasscodes()!;
});
afterAll(() => {
  delete process.env.HOST;
  delete process.env.FOND_QUARRY_HOSTS;
  rmSync(data, { recursive: true, force: true });
});

describe("passcodes", () => {
  test("one a role, told once, none kept as it is", () => {
    expect(Object.keys(made).sort()).toEqual([...ROLES].sort());
    expect(preparePasscodes()).toBeNull();
    const kept = readFileSync(join(data, "access.json"), "utf8");
    for (const passcode of Object.values(made)) expect(kept).not.toContain(passcode);
  });

  test("each opens a session of its role; the cookie is out of reach of scripts and other sites", async () => {
    for (const role of ROLES) {
      const signed = await signIn(made[role]);
      expect(signed).toMatchObject({ role });
      if (typeof signed === "string") continue;
      expect(signed.cookie).toMatch(/HttpOnly/);
      expect(signed.cookie).toMatch(/SameSite=Strict/);
      expect(roleOf(valueOf(signed.cookie))).toBe(role);
    }
  });

  test("without one, with an empty, a forged or a stretched one there is no role", async () => {
    const session = await sessionOf(made.reader);
    const [role, until, signature] = session.split(".");
    for (const cookie of [
      undefined,
      "",
      "owner",
      `owner.${until}.${signature}`,
      `${role}.${Number(until) + 1}.${signature}`,
      `${role}.${until}.`,
      `${role}.${until}.${signature!.slice(0, -1)}`,
      `owner.${Date.now() + 1e9}.${"A".repeat(43)}`,
      `${role}.${until}.${"é".repeat(signature!.length)}`,
    ])
      expect(roleOf(cookie)).toBeNull();
  });

  test("guesses are wrong, get slower, and too many at once are sent away", async () => {
    const timed = async () => {
      const started = performance.now();
      expect(await signIn("guess")).toBe("wrong");
      return performance.now() - started;
    };
    const [first, second, third] = [await timed(), await timed(), await timed()];
    expect(second).toBeGreaterThan(400);
    expect(third).toBeGreaterThan(Math.max(900, first));
    const many = Array.from({ length: 12 }, () => signIn(made.owner));
    expect(await Promise.all(many)).toEqual(
      expect.arrayContaining([expect.objectContaining({ role: "owner" }), "busy"]),
    );
  }, 30_000);

  test("a change ends every session, and the old passcode", async () => {
    const session = await sessionOf(made.editor);
    changePasscode("editor", "harbour-lamp-07");
    expect(roleOf(session)).toBeNull();
    expect(await signIn(made.editor)).toBe("wrong");
    expect(roleOf(await sessionOf("harbour-lamp-07"))).toBe("editor");
  });
});

describe("hosts", () => {
  test.each(["127.0.0.1:4780", "localhost:4780", "quarry.lan:4780", "type.example"])("%s is ours", (host) =>
    expect(isOwnHost(host)).toBe(true),
  );
  test.each([
    "evil.example",
    "quarry.lan.evil.example",
    "127.0.0.1.evil.example",
    "",
    "type.example@evil.example",
    null,
  ])("%s is not", (host) => expect(isOwnHost(host)).toBe(false));
  test.each(["http://evil.example", "foo", "null", "http://", "http://quarry.lan.evil.example"])(
    "a page of %s is foreign",
    (origin) => expect(isForeign({ headers: new Headers({ host: "quarry.lan:4780", origin }) })).toBe(true),
  );
});

describe("signing in goes on where one wanted to be", () => {
  test.each(["/b/b_open-night/find?q=round", "/"])("%s", (page) =>
    expect(pageAfterSignIn(signInFor(page).split("?").slice(1).join("?"))).toBe(page),
  );
  test.each(["//evil.example", "/\\evil.example", "https://evil.example", "javascript:alert(1)", "/a\n/b", ""])(
    "never to %j",
    (page) => expect(pageAfterSignIn(signInFor(page).split("?").slice(1).join("?"))).toBe("/"),
  );
});

test("where only this machine is served nobody is asked", () => {
  process.env.HOST = "127.0.0.1";
  expect(roleOf(undefined)).toBe("owner");
  process.env.HOST = "0.0.0.0";
  expect(roleOf(undefined)).toBeNull();
});
