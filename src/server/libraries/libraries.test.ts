// Connectors against servers and folders that do not behave: every answer is an outcome, nothing of it is trusted.
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { createServer, type Server } from "node:http";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { makeFont } from "../../../tests/fixtures/makeFont";
import { connectorOf } from "./connect";
import { connectFolder } from "./folder";
import { ask, fillTemplate, lookupOuter, parseJson } from "./http";
import { connectOpds } from "./opds";

type Answer = {
  status?: number;
  body?: string | Buffer;
  headers?: Record<string, string>;
  cut?: boolean;
  asked?: string;
};
const answers = new Map<string, Answer>();
let server: Server;
let base = "";
beforeAll(async () => {
  server = createServer((request, response) => {
    const path = new URL(request.url!, "http://x").pathname;
    const answer = answers.get(path) ?? { status: 404 };
    answer.asked = request.url!;
    const body = Buffer.from((answer.body as string) ?? "");
    response.writeHead(answer.status ?? 200, { "content-length": body.length, ...answer.headers });
    if (!answer.cut) return void response.end(body);
    response.write(body.subarray(0, body.length / 2), () => request.socket.destroy());
  });
  await new Promise<void>((r) => server.listen(0, "127.0.0.1", r));
  const address = server.address();
  base = `http://127.0.0.1:${typeof address === "object" && address ? address.port : 0}`;
});
afterAll(() => void server.close());

const serve = (path: string, body: unknown, more: Answer = {}) =>
  answers.set(path, { body: typeof body === "string" || Buffer.isBuffer(body) ? body : JSON.stringify(body), ...more });
const codeOf = (o: { ok: boolean; code?: string }) => (o.ok ? "ok" : o.code);
const publication = (id: string, links: object[], metadata: object = {}) => ({
  metadata: { identifier: id, title: `Title ${id}`, ...metadata },
  links,
});
const OPEN = "http://opds-spec.org/acquisition/open-access";

describe("asking over HTTP", () => {
  test.each([
    [{ status: 500 }, "library-broken"],
    [{ status: 403 }, "library-refused"],
    [{ status: 404 }, "library-refused"],
    [{ status: 410 }, "link-expired"],
    [{ status: 409, body: '{"error":{}}' }, "price-changed"],
    [{ status: 429, headers: { "retry-after": "7" } }, "rate-limited"],
    [{ body: "a long enough answer that breaks off", cut: true }, "library-broken"],
  ] as const)("%j is %s", async (answer, code) => {
    answers.set("/x", { ...answer });
    expect(codeOf(await ask(`${base}/x`))).toBe(code);
  });

  test("how long to wait is told", async () => {
    answers.set("/x", { status: 429, headers: { "retry-after": "7" } });
    expect(await ask(`${base}/x`)).toMatchObject({ details: { waitSeconds: 7 } });
  });

  test("nobody there, other schemes, too much", async () => {
    expect(codeOf(await ask("http://127.0.0.1:9/"))).toBe("library-unreachable");
    for (const url of ["file:///etc/passwd", "ftp://x/y", "javascript:alert(1)", "nonsense"])
      expect(codeOf(await ask(url))).toBe("address-not-allowed");
    serve("/big", Buffer.alloc(5000));
    expect(codeOf(await ask(`${base}/big`, { limitBytes: 4000 }))).toBe("too-large");
  });

  test("a name of this machine, from elsewhere, also where it changed after it was judged", async () => {
    const here = base.replace("127.0.0.1", "localhost");
    serve("/inner", "secret");
    expect(codeOf(await ask(`${here}/inner`, { namedBy: "https://quarry.example/opds.json" }))).toBe(
      "address-not-allowed",
    );
    expect(codeOf(await ask(`${here}/inner`, { namedBy: `${here}/opds.json` }))).toBe("ok");
    const answers = [
      ["93.184.215.14", 4],
      ["::ffff:127.0.0.1", 6],
    ] as const;
    const connect = (count: number) =>
      new Promise<string>((resolve) =>
        lookupOuter((_, __, done) =>
          done(
            null,
            answers.slice(0, count).map(([address, family]) => ({ address, family })),
          ),
        )("quarry.example", {}, (error, address) => resolve(error ? "refused" : String(address))),
      );
    expect([await connect(1), await connect(2), await connect(0)]).toEqual(["93.184.215.14", "refused", "refused"]);
  });

  test("a caller that is stopped is stopped, not refused", async () => {
    const stop = new AbortController();
    stop.abort();
    await expect(ask(`${base}/x`, {}, stop.signal)).rejects.toThrow();
  });

  test.each([
    ["http://a/b{?query}", "query", "x y", "http://a/b?query=x%20y"],
    ["http://a/b?page=1{&query}", "query", "&", "http://a/b?page=1&query=%26"],
    ["http://a/b{?text,size}", "text", "ä", "http://a/b?text=%C3%A4"],
    ["http://a/b{?other}", "query", "x", "http://a/b"],
  ])("the template %s filled with %s", (template, name, value, filled) =>
    expect(fillTemplate(template, name, value)).toBe(filled),
  );

  test("JSON that is none", () => expect(parseJson(new TextEncoder().encode("{"))).toBeUndefined());
});

describe("a catalogue", () => {
  test("pages, relative addresses, and what is left out", async () => {
    serve("/lib/opds.json", {
      metadata: { title: "Lib", numberOfItems: 3 },
      links: [
        { rel: "next", href: "opds2.json" },
        { rel: ["search"], href: "/find{?query}", templated: true },
      ],
      publications: [
        publication("a", [{ rel: OPEN, href: "files/a.zip?t=1" }], { rights: "Free", publisher: { name: "Maker" } }),
        publication("b", [{ rel: [OPEN, "x"], href: `${base}/b.zip` }], {
          subject: ["Tea  Room", { name: "tea room" }, { code: "x" }, 7, "é", " Almanac ".repeat(20), "rope"],
        }),
        { metadata: { title: "no identifier" }, links: [] },
        "not an object",
      ],
    });
    const page = await connectOpds(`${base}/lib/opds.json`).page(null);
    if (!page.ok) throw new Error(page.code);
    expect(page.value).toMatchObject({ title: "Lib", total: 3, next: `${base}/lib/opds2.json` });
    expect(page.value.publications.map((p) => [p.publicationId, p.openUrl, p.maker, p.rights])).toEqual([
      ["a", `${base}/lib/files/a.zip?t=1`, "Maker", "Free"],
      ["b", `${base}/b.zip`, null, null],
    ]);
    expect(page.value.publications.map((p) => p.keywords)).toEqual([
      [],
      ["tea room", " Almanac ".repeat(20).slice(0, 40).trim().replace(/ +/g, " ").toLowerCase(), "rope"],
    ]);
  });

  test("the digest follows what is offered, not the tokens of its links", async () => {
    const digestOf = async (href: string, title = "T") => {
      serve("/d", { metadata: { title: "Lib" }, publications: [publication("a", [{ rel: OPEN, href }], { title })] });
      const page = await connectOpds(`${base}/d`).page(null);
      return page.ok ? page.value.publications[0]!.digest : "";
    };
    expect(await digestOf("a.zip?t=1")).toBe(await digestOf("a.zip?t=2"));
    expect(await digestOf("a.zip?t=1")).not.toBe(await digestOf("b.zip?t=1"));
    expect(await digestOf("a.zip", "One")).not.toBe(await digestOf("a.zip", "Two"));
  });

  test("prices, trials and settings of a face that is sold", async () => {
    serve("/shop", {
      metadata: { title: "Shop" },
      publications: [
        publication(
          "s",
          [
            { rel: "http://opds-spec.org/acquisition/sample", href: "trial.ttf" },
            {
              rel: "http://opds-spec.org/acquisition/buy",
              href: "orders",
              properties: {
                price: { value: 29.5, currency: "EUR" },
                prices: [{ use: "web", value: 29.5, currency: "EUR" }],
              },
            },
            { rel: "setting", href: "set{?text}", templated: true, properties: { coverage: [[32, 126]] } },
          ],
          { family: "F", style: "Bold" },
        ),
      ],
    });
    const page = await connectOpds(`${base}/shop`).page(null);
    expect(page.ok && page.value.publications[0]).toMatchObject({
      trialUrl: `${base}/trial.ttf`,
      settingUrl: `${base}/set{?text}`,
      pricesCents: { web: 2950 },
      coverage: [[32, 126]],
      openUrl: null,
      family: "F",
    });
  });

  test.each([
    ["no JSON", "<html>"],
    ["no title", { publications: [] }],
    ["a list", []],
  ])("%s is no catalogue", async (_name, body) => {
    serve("/junk", body);
    expect(codeOf(await connectOpds(`${base}/junk`).page(null))).toBe("library-broken");
  });

  test("searching fills the template of the first page; without one it is refused", async () => {
    serve("/find", { metadata: { title: "Found" }, publications: [] });
    const connector = connectOpds(`${base}/lib/opds.json`);
    expect(codeOf(await connector.search!("a & b"))).toBe("ok");
    expect(answers.get("/find")!.asked).toBe("/find?query=a%20%26%20b");
    serve("/plain", { metadata: { title: "Plain" }, publications: [] });
    expect(codeOf(await connectOpds(`${base}/plain`).search!("x"))).toBe("library-refused");
  });

  const set = async (svg: string) => {
    serve("/set", svg);
    return connectOpds(`${base}/shop`).setLine!(`${base}/set{?text}`, "lamp");
  };
  test("of a set line only numbers are taken", async () => {
    const line = await set(
      `<svg viewBox="0 -1000 2400 1400" data-units-per-em="1000"><script>alert(1)</script><path d="M0,0L10,-5Z" onload="x"/></svg>`,
    );
    expect(line).toEqual({ ok: true, value: { path: "M0,0L10,-5Z", widthFu: 2400, unitsPerEm: 1000 } });
  });
  test.each([
    ["no path", `<svg viewBox="0 -1000 10 10"></svg>`],
    ["no size", `<svg><path d="M0,0Z"/></svg>`],
    ["words in the path", `<svg viewBox="0 -1000 10 10"><path d="M0,0 javascript:x"/></svg>`],
    ["no picture at all", "hello"],
  ])("%s is refused", async (_name, svg) => expect(codeOf(await set(svg))).toBe("library-broken"));

  test("a receipt that cannot be read is no purchase", async () => {
    serve("/orders", { orderId: "o_1" });
    expect(codeOf(await connectOpds(`${base}/shop`).buy!(`${base}/orders`, "o_1", []))).toBe("library-broken");
    serve("/orders", { orderId: "o_1", receipt: "R", deliveries: [] });
    expect(codeOf(await connectOpds(`${base}/shop`).buy!(`${base}/orders`, "o_1", []))).toBe("ok");
  });
});

describe("a folder", () => {
  const root = mkdtempSync(join(tmpdir(), "fond-quarry-folders-"));
  afterAll(() => rmSync(root, { recursive: true, force: true }));
  beforeAll(() => {
    mkdirSync(join(root, "a", "b"), { recursive: true });
    mkdirSync(join(root, ".hidden"));
    writeFileSync(join(root, "a", "b", "Face & more #1.otf"), makeFont({}));
    writeFileSync(join(root, "a", "OFL.txt"), "terms above");
    writeFileSync(join(root, "a", "b", "readme.txt"), "terms beside");
    writeFileSync(join(root, "notes.pdf"), "x");
    writeFileSync(join(root, ".hidden", "x.ttf"), "x");
    symlinkSync("/etc", join(root, "a", "out"));
  });

  test("gives fonts and archives below it, not links, not hidden files", async () => {
    const page = await connectFolder(root).page(null);
    expect(page.ok && page.value.publications.map((p) => p.publicationId)).toEqual(["a/b/Face & more #1.otf"]);
    expect(page.ok && page.value.next).toBeNull();
  });

  test("fetches with the texts beside and above", async () => {
    const connector = connectFolder(root);
    const page = await connector.page(null);
    if (!page.ok) throw new Error(page.code);
    const fetched = await connector.fetch(page.value.publications[0]!.openUrl!);
    expect(fetched.ok && fetched.value.name).toBe("a/b/Face & more #1.otf");
    expect(fetched.ok && fetched.value.texts!.map((t) => t.name).sort()).toEqual(["a/OFL.txt", "a/b/readme.txt"]);
  });

  test("nothing outside of it", async () => {
    expect(codeOf(await connectFolder(root).fetch("file:///etc/passwd"))).toBe("address-not-allowed");
    expect(codeOf(await connectFolder(root).fetch(`file://${root}/gone.ttf`))).toBe("not-found");
  });

  test("a folder that is gone is a library that does not answer", async () =>
    expect(codeOf(await connectFolder(join(root, "gone")).page(null))).toBe("library-unreachable"));

  test("one file of every folder comes first; of a face in parts the one with the alphabet", async () => {
    const own = mkdtempSync(join(tmpdir(), "fond-quarry-order-"));
    const files = [
      "quay/quay-cyrillic.woff2",
      "quay/quay-latin-ext.woff2",
      "quay/quay-latin.woff2",
      "tern/a.ttf",
      "tern/b.ttf",
    ];
    for (const file of files) {
      mkdirSync(join(own, dirname(file)), { recursive: true });
      writeFileSync(join(own, file), "x");
    }
    const page = await connectFolder(own).page(null);
    expect(page.ok && page.value.publications.map((p) => p.publicationId)).toEqual([
      ...["quay/quay-latin.woff2", "tern/a.ttf", "tern/b.ttf"],
      ...["quay/quay-cyrillic.woff2", "quay/quay-latin-ext.woff2"],
    ]);
    rmSync(own, { recursive: true });
  });

  test("the digest follows the file", async () => {
    const path = join(root, "new.ttf");
    const digest = async () => {
      const page = await connectFolder(root).page(null);
      return page.ok && page.value.publications.find((p) => p.publicationId === "new.ttf")!.digest;
    };
    writeFileSync(path, "one");
    const before = await digest();
    writeFileSync(path, "another one");
    expect(await digest()).not.toBe(before);
  });
});

test("kinds without a connector have none", () => {
  expect(connectorOf({ kind: "own", url: null })).toBeNull();
  expect(connectorOf({ kind: "unknown", url: "http://x" })).toBeNull();
  expect(connectorOf({ kind: "folder", url: "/x" })!.buy).toBeNull();
  expect(connectorOf({ kind: "opds", url: "http://x" })!.setLine).not.toBeNull();
});
