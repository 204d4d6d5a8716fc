// The guards of every route: whose requests are answered, how outcomes become answers.
import { afterEach, describe, expect, test } from "@jest/globals";
import { hostname } from "node:os";
import { NextRequest } from "next/server";
import { z } from "zod";
import { download, readBody, readQuery, refusal, route, valueOr404 } from "@/app/api/respond";
import { isForeign, isOwnHost } from "@/server/access/hosts";

const request = (
  headers: Record<string, string>,
  init: { method?: string; body?: string } = {},
  path = "/api/v1/styles",
) => new NextRequest(`http://127.0.0.1:4780${path}`, { headers: { host: "127.0.0.1:4780", ...headers }, ...init });

afterEach(() => {
  delete process.env.HOST;
});

describe("hosts", () => {
  test.each(["127.0.0.1:4780", "localhost:3000", "localhost", "[::1]:4780", "127.0.0.53"])("%s is ours", (host) =>
    expect(isOwnHost(host)).toBe(true),
  );
  test.each(["example.org", "127.0.0.1.example.org", "localhost.example.org", "10.0.0.7:4780", ""])(
    "%s is not",
    (host) => expect(isOwnHost(host)).toBe(false),
  );
  test("none is not", () => expect(isOwnHost(null)).toBe(false));
  test("the host that the server was told is ours too", () => {
    process.env.HOST = "192.168.1.20";
    expect(isOwnHost("192.168.1.20:4780")).toBe(true);
    expect(isOwnHost("192.168.1.21:4780")).toBe(false);
    for (const any of ["0.0.0.0", "::"]) {
      process.env.HOST = any;
      expect(isOwnHost("anything:4780")).toBe(false);
      expect(isOwnHost(`${hostname()}:4780`)).toBe(true);
    }
    process.env.FOND_QUARRY_HOSTS = "studio.skerrow.example, 10.1.2.3";
    expect(isOwnHost("studio.skerrow.example:4780")).toBe(true);
    expect(isOwnHost("10.1.2.3")).toBe(true);
    delete process.env.FOND_QUARRY_HOSTS;
  });
});

describe("origins", () => {
  test.each([
    [{}, false],
    [{ origin: "http://127.0.0.1:4780" }, false],
    [{ "sec-fetch-site": "same-origin" }, false],
    [{ origin: "http://127.0.0.1:9999" }, true],
    [{ origin: "https://elsewhere.example" }, true],
    [{ origin: "null" }, true],
    [{ "sec-fetch-site": "cross-site" }, true],
    [{ host: "rebound.example" }, true],
    ...["foo", "http://", "http://127.0.0.1:4780.evil.example", ""].map((origin) => [{ origin }, true] as const),
  ] as [Record<string, string>, boolean][])("%j foreign: %s", (headers, foreign) =>
    expect(isForeign(request(headers))).toBe(foreign),
  );
});

describe("routes", () => {
  const context = { params: Promise.resolve({}) };

  test("answer their own", async () => {
    const answer = await route(() => new Response("yes"))(request({}), context);
    expect(await answer.text()).toBe("yes");
  });

  test("refuse foreign requests before anything runs", async () => {
    let ran = false;
    const answer = await route(() => {
      ran = true;
      return new Response("");
    })(request({ origin: "https://elsewhere.example" }), context);
    expect(answer.status).toBe(403);
    expect(ran).toBe(false);
  });

  test("a mistake of our own is 500 with a code, its text stays here", async () => {
    const log = console.error;
    console.error = () => {};
    const answer = await route(() => {
      throw new Error("secret path /x");
    })(request({}), context);
    console.error = log;
    expect(answer.status).toBe(500);
    expect(JSON.stringify(await answer.json())).not.toContain("secret");
  });
});

describe("input", () => {
  const Schema = z.object({ n: z.coerce.number().int().min(1) });

  test("a good body and query are given on", async () => {
    expect(await readBody(request({}, { method: "POST", body: '{"n":3}' }), Schema)).toEqual({
      ok: true,
      value: { n: 3 },
    });
    expect(readQuery(request({}, {}, "/x?n=4"), Schema)).toEqual({ ok: true, value: { n: 4 } });
  });

  test("what is wrong is named by its field", async () => {
    const bad = await readBody(request({}, { method: "POST", body: '{"n":0}' }), Schema);
    expect(bad.ok).toBe(false);
    if (bad.ok) return;
    expect(bad.response.status).toBe(400);
    const { error } = (await bad.response.json()) as { error: { code: string; details: string[] } };
    expect(error.code).toBe("bad-request");
    expect(error.details[0]).toMatch(/^n: /);
    expect((await readBody(request({}, { method: "POST", body: "{" }), Schema)).ok).toBe(false);
    expect(readQuery(request({}, {}, "/x?n=many"), Schema).ok).toBe(false);
  });
});

describe("answers", () => {
  test("nothing is 404, something is itself", async () => {
    expect(valueOr404(null).status).toBe(404);
    const answer = valueOr404({ a: 1 }, 201);
    expect([answer.status, await answer.json()]).toEqual([201, { a: 1 }]);
  });

  test.each([
    ["picture-too-large", 413],
    ["foreign-origin", 403],
    ["job-gone", 404],
    ["no-ink", 400],
  ] as const)("%s is %i", async (code, status) => {
    const answer = refusal(code);
    expect(answer.status).toBe(status);
    expect(await answer.json()).toMatchObject({ error: { code, message: expect.stringMatching(/\.$/) } });
  });

  test("a file's name cannot break its header", () => {
    const header = download("x", "text/csv", 'Lüa"\r\nSet-Cookie: a=b.csv').headers.get("content-disposition")!;
    expect(header).not.toMatch(/[\r\n]/);
    expect(header).toContain("filename*=UTF-8''L%C3%BCa");
    expect(header.split('"')).toHaveLength(3);
  });
});
