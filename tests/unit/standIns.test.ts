// The stand-in libraries answer as real ones would: pages, facets, links that expire, faults, a till that takes an order once.
import { afterAll, afterEach, beforeAll, describe, expect, test } from "@jest/globals";
import { unzipSync } from "fflate";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { SANS } from "../../demo/foundry/design";
import { drawFace } from "../../demo/foundry/face";
import { writeOpenType, writeTrueType } from "../../demo/foundry/write/writeFont";
import { startLibraries } from "../../demo/libraries/server";
import { connectOpds } from "../../src/server/libraries/opds";
import type { Publication } from "../../src/server/libraries/connector";
import { fontFacts } from "../fixtures/fontFacts";

const folder = mkdtempSync(join(tmpdir(), "fond-quarry-standins-"));
let libraries: { url: string; close: () => void };
beforeAll(async () => {
  const face = drawFace(SANS, { characters: "Skerow Light12&" });
  const facts = fontFacts({ family: "Moorline", style: "Light" });
  writeFileSync(join(folder, "Moorline-Light.ttf"), writeTrueType(face, facts));
  writeFileSync(join(folder, "Moorline-Light.otf"), writeOpenType(face, facts));
  writeFileSync(join(folder, "Moorline-Light.trial.ttf"), writeTrueType(face, facts));
  libraries = await startLibraries(0, folder);
});
afterAll(() => {
  libraries.close();
  rmSync(folder, { recursive: true, force: true });
});

const setFaults = async (faults: object) =>
  fetch(`${libraries.url}/faults/halyard`, { method: "PUT", body: JSON.stringify(faults) });
afterEach(() => setFaults({ slow: 0, error: false, half: false, expired: false, price: false, down: false }));

const connect = (library: string) => connectOpds(`${libraries.url}/${library}/opds.json`);
async function allOf(library: string): Promise<Publication[]> {
  const out: Publication[] = [];
  const connector = connect(library);
  for (let at: string | null = null, first = true; first || at; first = false) {
    const page = await connector.page(at);
    if (!page.ok) throw new Error(page.code);
    out.push(...page.value.publications);
    at = page.value.next;
  }
  return out;
}
const moorline = async () => (await allOf("halyard")).find((p) => p.title === "Moorline Light")!;
const codeOf = (o: { ok: boolean; code?: string }) => (o.ok ? "ok" : o.code);

test("a page of another site gets nothing and changes nothing", async () => {
  const headers = { origin: "http://evil.example" };
  const faults = { method: "PUT", body: JSON.stringify({ error: true }), headers };
  expect((await fetch(`${libraries.url}/faults/halyard`, faults)).status).toBe(421);
  expect((await fetch(`${libraries.url}/halyard/opds.json`, { headers })).status).toBe(421);
  expect((await fetch(`${libraries.url}/halyard/opds.json`)).status).toBe(200);
});

describe("catalogues", () => {
  test.each([
    ["commons", 8],
    ["ropewalk", 11],
    ["halyard", 28],
  ])("%s offers %i publications over its pages, each once", async (library, count) => {
    const all = await allOf(library);
    expect(all).toHaveLength(count);
    expect(new Set(all.map((p) => p.publicationId)).size).toBe(count);
  });

  test("some makers say what their terms are, some say nothing", async () => {
    const rights = (await allOf("ropewalk")).map((p) => p.rights);
    expect(rights.filter(Boolean).length).toBeGreaterThan(2);
    expect(rights.filter((r) => r === null).length).toBeGreaterThan(2);
  });

  test("facets count what they lead to", async () => {
    const feed = (await (await fetch(`${libraries.url}/commons/opds.json`)).json()) as {
      facets: { links: { title: string; href: string; properties: { numberOfItems: number } }[] }[];
    };
    for (const { title, href, properties } of feed.facets[0]!.links) {
      const narrowed = (await (await fetch(href)).json()) as { metadata: { numberOfItems: number } };
      expect([title, narrowed.metadata.numberOfItems]).toEqual([title, properties.numberOfItems]);
    }
  });

  test("searching finds faces, styles and makers", async () => {
    const titles = async (q: string) => {
      const found = await connect("halyard").search!(q);
      return found.ok ? found.value.publications.map((p) => p.title) : [];
    };
    expect(await titles("swellhand")).toEqual(["Swellhand Regular", "Swellhand Bold"]);
    expect(await titles("tideswell")).not.toEqual([]);
    expect(await titles("nothing of the kind")).toEqual([]);
  });

  test("a revision changes the digest of that publication alone", async () => {
    const before = new Map((await allOf("commons")).map((p) => [p.publicationId, p.digest]));
    await fetch(`${libraries.url}/revise/commons/marram-slab`);
    const changed = (await allOf("commons")).filter((p) => before.get(p.publicationId) !== p.digest);
    expect(changed.map((p) => p.title)).toEqual(["Marram Slab"]);
  });
});

describe("the setting service", () => {
  test("sets a line; longer words are wider; kerning counts", async () => {
    const { settingUrl } = await moorline();
    const width = async (text: string) => {
      const line = await connect("halyard").setLine!(settingUrl!, text);
      return line.ok ? line.value.widthFu : 0;
    };
    expect(await width("Skerrow Light")).toBeGreaterThan((await width("Skerrow")) + 500);
  });

  test("nothing, and too much, is refused", async () => {
    const { settingUrl } = await moorline();
    for (const text of [" ", "x".repeat(121)])
      expect(codeOf(await connect("halyard").setLine!(settingUrl!, text))).toBe("library-refused");
  });

  test("gives so many lines a minute and then says how long to wait", async () => {
    const { settingUrl } = await moorline();
    const codes: (string | undefined)[] = [];
    for (let i = 0; i < 13; i++)
      codes.push(
        ...(await Promise.all(
          Array.from({ length: 10 }, async () => codeOf(await connect("halyard").setLine!(settingUrl!, "Light"))),
        )),
      );
    expect(codes.filter((c) => c === "ok")).toHaveLength(120);
    expect(codes.filter((c) => c === "rate-limited")).toHaveLength(10);
  });
});

describe("faults", () => {
  test.each([
    [{ error: true }, "library-broken"],
    [{ half: true }, "library-broken"],
    [{ down: true }, "library-unreachable"],
  ])("%j", async (faults, code) => {
    await setFaults(faults);
    expect(codeOf(await connect("halyard").page(null))).toBe(code);
    expect(codeOf(await connect("commons").page(null))).toBe("ok");
  });

  test("a fault that is none is refused", async () => {
    expect((await setFaults({ slow: "very" })).status).toBe(400);
    expect((await setFaults({ slow: -1 })).status).toBe(400);
  });

  test("links that expired stay worthless; a page read again has good ones", async () => {
    const old = (await moorline()).trialUrl!;
    expect(codeOf(await connect("halyard").fetch(old))).toBe("ok");
    await setFaults({ expired: true });
    expect(codeOf(await connect("halyard").fetch(old))).toBe("link-expired");
    await setFaults({ expired: false });
    expect(codeOf(await connect("halyard").fetch(old))).toBe("link-expired");
    expect(codeOf(await connect("halyard").fetch((await moorline()).trialUrl!))).toBe("ok");
  });
});

describe("orders", () => {
  const order = async (orderId: string, over: Partial<{ cents: number; uses: ("web" | "logo" | "app")[] }> = {}) => {
    const p = await moorline();
    const uses = over.uses ?? ["web", "logo"];
    const cents = over.cents ?? uses.reduce((s, u) => s + (p.pricesCents[u] ?? 0), 0);
    return connect("halyard").buy!(p.buyUrl!, orderId, [{ publicationId: p.publicationId, uses, cents }]);
  };

  test("are answered with a receipt and a delivery that holds fonts and licence", async () => {
    const bought = await order("o_aaaaaaaaaaaaaaaa");
    if (!bought.ok) throw new Error(bought.code);
    expect(bought.value.receipt).toMatch(/Moorline Light: web, logo · [\d.]+ EUR/);
    const delivered = await connect("halyard").fetch(bought.value.deliveries[0]!.href);
    if (!delivered.ok) throw new Error(delivered.code);
    const files = unzipSync(delivered.value.bytes);
    expect(Object.keys(files).map((f) => f.split("/").pop())).toEqual([
      "Moorline-Light.otf",
      "Moorline-Light.ttf",
      "Licence.txt",
    ]);
    expect(new TextDecoder().decode(files["Moorline-Light/Licence.txt"])).toMatch(/permits use for: web, logo\./);
  });

  test("sent again buy nothing more", async () => {
    const [one, two] = [await order("o_bbbbbbbbbbbbbbbb"), await order("o_bbbbbbbbbbbbbbbb")];
    expect(two).toEqual(one);
  });

  test.each([
    ["another price", { cents: 1 }, "price-changed"],
    ["a use that is not sold", { uses: ["app"] as ("web" | "logo" | "app")[] }, "price-changed"],
  ])("with %s are refused", async (_name, over, code) =>
    expect(codeOf(await order("o_cccccccccccccccc", over))).toBe(code),
  );

  test("at a price that was raised since are refused", async () => {
    const p = await moorline();
    await setFaults({ price: true });
    const lines = [{ publicationId: p.publicationId, uses: ["web" as const], cents: p.pricesCents.web! }];
    expect(codeOf(await connect("halyard").buy!(p.buyUrl!, "o_dddddddddddddddd", lines))).toBe("price-changed");
  });

  test("without the agreed form are refused", async () => {
    const { buyUrl } = await moorline();
    const post = async (body: string) => (await fetch(buyUrl!, { method: "POST", body })).status;
    expect(await post("{")).toBe(400);
    expect(await post('{"orderId":"x","lines":[]}')).toBe(400);
  });

  test("nobody fetches what was not bought", async () => {
    const at = `${libraries.url}/halyard/orders/o_eeeeeeeeeeeeeeee/moorline-light.zip`;
    expect(codeOf(await connect("halyard").fetch(at))).toBe("library-refused");
  });
});
