// What holds for every operation: whose requests are answered, what is checked on the way in and out, how outcomes become answers.
import { afterAll, afterEach, describe, expect, jest, test } from "@jest/globals";
import { mkdtempSync, rmSync } from "node:fs";
import { hostname, tmpdir } from "node:os";
import { join } from "node:path";
import { refuse, succeed } from "@/contracts/errors";
import { OPERATIONS } from "@/contracts/operations/table";
import { isForeign, isOwnHost } from "@/server/access/hosts";
import { FileAnswer, refusal, sendFile } from "./answers";
import { bindOperations, type Handlers } from "./bind";

const request = (
  headers: Record<string, string>,
  init: { method?: string; body?: string } = {},
  path = "/api/v1/styles",
) => new Request(`http://127.0.0.1:4780${path}`, { headers: { host: "127.0.0.1:4780", ...headers }, ...init });

const data = mkdtempSync(join(tmpdir(), "fond-quarry-bind-"));
process.env.FOND_QUARRY_DATA = data;
afterAll(() => rmSync(data, { recursive: true, force: true }));
afterEach(() => {
  delete process.env.HOST;
  delete process.env.FOND_QUARRY_CHECK_ANSWERS;
});

/** An interface in which all but the given handlers answer "not-found". */
function mount(some: Partial<Handlers>) {
  const none = Object.fromEntries(Object.keys(OPERATIONS).map((name) => [name, () => refuse("not-found")]));
  return bindOperations({ ...none, ...some } as unknown as Handlers, "/api/v1");
}
type Refused = { error: { code: string; message: string; details?: string[] } };

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

describe("operations", () => {
  const search = { searchId: "f_1", name: "Round", address: "q=round", savedAt: "2026-11-27T10:00:00Z" };
  const post = (body: string, headers: Record<string, string> = {}) =>
    request(headers, { method: "POST", body }, "/api/v1/searches");

  test("get what was sent, checked, and answer with the table's status", async () => {
    const saveSearch = jest.fn<Handlers["saveSearch"]>(() => succeed(search));
    const answer = await mount({ saveSearch }).fetch(
      post('{"name":" Round ","address":"q=round"}', { "x-who": "tab-1", host: "localhost" }),
    );
    expect([answer.status, await answer.json()]).toEqual([201, search]);
    expect(saveSearch.mock.calls[0]![0]).toMatchObject({ body: { name: "Round", address: "q=round" }, by: "script" });
  });

  test("values of the address are checked: a query that is wrong is named, an id that is none is not found", async () => {
    const seen: unknown[] = [];
    const app = mount({
      listReviewItems: ({ params, query }) => {
        seen.push(params, query);
        return succeed({ items: [] });
      },
    });
    const get = (path: string) => app.fetch(request({}, {}, path));
    const id = "p_aaaaaaaaaaaa";
    expect((await get(`/api/v1/briefs/b_one/passes/${id}/items?count=7`)).status).toBe(200);
    expect(seen).toEqual([
      { id: "b_one", passId: id },
      { from: 0, count: 7 },
    ]);
    const many = (await (await get(`/api/v1/briefs/b_one/passes/${id}/items?count=many`)).json()) as Refused;
    expect(many.error).toMatchObject({ code: "bad-request", details: [expect.stringMatching(/^count: /)] });
    expect((await get("/api/v1/briefs/b_one/passes/none/items")).status).toBe(404);
    expect(seen).toHaveLength(2);
  });

  test("what is malformed or too large never reaches them", async () => {
    const saveSearch = jest.fn<Handlers["saveSearch"]>(() => succeed(search));
    const app = mount({ saveSearch });
    for (const body of ["{", "", '{"name":"","address":""}', "[]"]) {
      const answer = await app.fetch(post(body));
      expect(answer.status).toBe(400);
      expect(((await answer.json()) as Refused).error.code).toBe("bad-request");
    }
    expect((await app.fetch(post(`{"name":"${"x".repeat(2e6)}"}`))).status).toBe(413);
    expect(saveSearch).not.toHaveBeenCalled();
  });

  test("fixed words of a path go before names", async () => {
    const app = mount({ listSystemFolders: () => succeed({ folders: [] }) });
    expect((await app.fetch(request({}, {}, "/api/v1/libraries/system-folders"))).status).toBe(200);
    expect((await app.fetch(request({}, {}, "/api/v1/libraries/others"))).status).toBe(404);
  });

  test("other methods are told apart from other paths", async () => {
    const app = mount({});
    expect((await app.fetch(request({}, { method: "DELETE" }, "/api/v1/styles"))).status).toBe(405);
    expect((await app.fetch(request({}, {}, "/api/v1/nothing"))).status).toBe(404);
  });

  test("foreign requests are refused before anything runs", async () => {
    const getHealth = jest.fn<Handlers["getHealth"]>(() => refuse("internal"));
    const answer = await mount({ getHealth }).fetch(
      request({ origin: "https://elsewhere.example" }, {}, "/api/v1/health"),
    );
    expect(answer.status).toBe(403);
    expect(getHealth).not.toHaveBeenCalled();
  });

  test("where others can reach the server, all but signing in need a role, and each its own", async () => {
    process.env.HOST = "0.0.0.0";
    const app = mount({});
    for (const [name, { method, path, access }] of Object.entries(OPERATIONS)) {
      const answer = await app.fetch(request({}, { method: method.toUpperCase() }, `/api/v1${path}`));
      if (access) expect([name, answer.status]).toEqual([name, 401]);
      else expect([name, answer.status]).not.toEqual([name, 401]);
    }
    expect((await app.fetch(request({}, {}, "/api/v1/nothing"))).status).toBe(401);
  });

  test("a mistake of our own is 500 with a code, its text stays here", async () => {
    const log = jest.spyOn(console, "error").mockImplementation(() => {});
    const app = mount({
      listBriefs: () => {
        throw new Error("secret path /x");
      },
    });
    const answer = await app.fetch(request({}, {}, "/api/v1/briefs"));
    expect(answer.status).toBe(500);
    expect(await answer.text()).not.toContain("secret");
    expect(log).toHaveBeenCalledTimes(1);
    log.mockRestore();
  });

  test("answers of another form, or with more in them than the table says, are found where answers are checked", async () => {
    process.env.FOND_QUARRY_CHECK_ANSWERS = "1";
    const log = jest.spyOn(console, "error").mockImplementation(() => {});
    const statusOf = async (value: unknown) =>
      (await mount({ saveSearch: () => succeed(value as typeof search) }).fetch(post('{"name":"Round","address":""}')))
        .status;
    expect(await statusOf(search)).toBe(201);
    expect(await statusOf({ ...search, name: 3 })).toBe(500);
    expect(await statusOf({ ...search, secret: "x" })).toBe(500);
    log.mockRestore();
  });
});

describe("answers", () => {
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
    const file = new FileAnswer("x", "text/csv", { name: 'Lüa"\r\nSet-Cookie: a=b.csv' });
    const header = sendFile(file).headers.get("content-disposition")!;
    expect(header).not.toMatch(/[\r\n]/);
    expect(header).toContain("filename*=UTF-8''L%C3%BCa");
    expect(header.split('"')).toHaveLength(3);
  });
});
