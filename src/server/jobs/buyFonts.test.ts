// Orders carried out against a library that delivers all, some or nothing, or wants another price: what came is owned, what did not is not
// charged, and what was not bought is back in the basket.
import { afterAll, beforeAll, beforeEach, describe, expect, test } from "@jest/globals";
import { zipSync } from "fflate";
import { mkdtempSync, rmSync } from "node:fs";
import { createServer, type Server } from "node:http";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { SANS } from "../../../demo/foundry/design";
import { drawFace } from "../../../demo/foundry/face";
import { writeTrueType } from "../../../demo/foundry/write/writeFont";
import { fontFacts, LETTERS } from "../../../tests/fixtures/fontFacts";
import { getDb } from "../db/open";
import type { LibraryId } from "@/contracts/ids";
import { findOrder, listBasket, putLibrary, putOrder, type OrderRow } from "../queries/libraries";
import { findStyle } from "../queries/styles";
import { storeReading } from "../store/storeReading";
import { buyFonts } from "./buyFonts";
import { closePools } from "../workers/pool";
import readFont from "../workers/readFont.worker";

const data = mkdtempSync(join(tmpdir(), "fond-quarry-buy-"));
process.env.FOND_QUARRY_DATA = data;
const LIBRARY = "halyard";
/** What the library answers to an order: a status, and the publications that it delivers. */
const shop = { status: 200, delivers: [] as string[], orders: [] as string[] };
let server: Server;
let base = "";
const fonts: Record<string, { trial: Uint8Array; whole: Uint8Array }> = {};

beforeAll(async () => {
  for (const [i, name] of ["Moorline", "Squarerig"].entries()) {
    const draw = (characters: string) =>
      writeTrueType(drawFace({ ...SANS, stem: 70 + 20 * i }, { characters }), fontFacts({ family: name }));
    fonts[name] = { trial: draw("Skerow Light"), whole: draw(LETTERS) };
  }
  server = createServer((request, response) => {
    if (request.url!.startsWith("/file/"))
      return response.end(zipSync({ "font.ttf": fonts[request.url!.slice(6)]!.whole }));
    const parts: Buffer[] = [];
    request.on("data", (part: Buffer) => parts.push(part));
    request.on("end", () => {
      const { orderId } = JSON.parse(Buffer.concat(parts).toString()) as { orderId: string };
      shop.orders.push(orderId);
      const uses = ["client-print"];
      const deliveries = shop.delivers.map((id) => ({ publicationId: id, href: `${base}/file/${id}`, uses }));
      response.writeHead(shop.status).end(JSON.stringify({ orderId, receipt: "Paid.", deliveries }));
    });
  });
  await new Promise<void>((r) => server.listen(0, "127.0.0.1", r));
  const address = server.address();
  base = `http://127.0.0.1:${typeof address === "object" && address ? address.port : 0}`;
  putLibrary(getDb(), LIBRARY, "Halyard & Lens", "opds", "2026-11-27", `${base}/opds.json`);
});
afterAll(() => {
  server.close();
  closePools();
  getDb().close();
  rmSync(data, { recursive: true, force: true });
});
beforeEach(() => void Object.assign(shop, { status: 200, delivers: [], orders: [] }));

/** A trial of each face, and an order for all of them. */
async function order(orderId: string): Promise<OrderRow["lines"]> {
  const lines: OrderRow["lines"] = [];
  for (const [name, { trial }] of Object.entries(fonts)) {
    const reply = await readFont({ bytes: trial, fallbackFamily: name });
    if (!reply.ok) throw new Error(reply.detail);
    const offer = {
      publicationId: name,
      settingUrl: null,
      buyUrl: `${base}/buy`,
      currency: "EUR",
      pricesCents: { "client-print": 4000 },
    };
    const source = {
      libraryId: LIBRARY,
      path: name,
      statedFamily: null,
      evidence: [],
      trial: { coverage: null },
      offer,
    };
    const styleId = await storeReading(getDb(), trial, reply.reading, source);
    lines.push({ styleId, publicationId: name, name, uses: ["client-print"], cents: 4000 });
  }
  const placedAt = new Date().toISOString();
  const row = {
    orderId,
    libraryId: LIBRARY as LibraryId,
    state: "placed" as const,
    lines,
    totalCents: 8000,
    currency: "EUR",
  };
  putOrder(getDb(), { ...row, receipt: null, placedAt, holder: null });
  return lines;
}
const carryOut = (orderId: string) =>
  buyFonts({
    job: { payload: JSON.stringify({ orderId }) } as never,
    signal: new AbortController().signal,
    progress: () => {},
  });
const verdictOf = (styleId: string) => findStyle(getDb(), styleId)!.rights.verdicts["client-print"].verdict;

describe("an order", () => {
  test("a line that is not delivered is failed and not charged; what came is owned and cleared by its receipt", async () => {
    shop.delivers = ["Moorline"];
    const [came, missing] = await order("o_part");
    await expect(carryOut("o_part")).rejects.toMatchObject({
      code: "not-delivered",
      message: expect.stringContaining("Squarerig"),
    });
    expect(findOrder(getDb(), "o_part")).toMatchObject({
      state: "delivered",
      totalCents: 4000,
      lines: [{ state: "delivered" }, { state: "failed" }],
    });
    expect([findStyle(getDb(), came!.styleId)!.owned, verdictOf(came!.styleId)]).toEqual([true, "cleared"]);
    expect(findStyle(getDb(), missing!.styleId)!.owned).toBe(false);
  });

  test("carried out twice under one id, it is delivered once and stays so", async () => {
    shop.delivers = ["Moorline", "Squarerig"];
    const lines = await order("o_twice");
    await carryOut("o_twice");
    const files = lines.map((l) => findStyle(getDb(), l.styleId)!.sha256);
    await carryOut("o_twice");
    expect(shop.orders).toEqual(["o_twice", "o_twice"]);
    expect(findOrder(getDb(), "o_twice")).toMatchObject({ state: "delivered", totalCents: 8000 });
    expect(lines.map((l) => findStyle(getDb(), l.styleId)!.sha256)).toEqual(files);
  });

  test.each([
    [409, "price-changed"],
    [403, "library-refused"],
  ])("refused with %i it is failed, and its faces are in the basket again", async (status, code) => {
    shop.status = status;
    const lines = await order(`o_${status}`);
    await expect(carryOut(`o_${status}`)).rejects.toMatchObject({ code });
    expect(findOrder(getDb(), `o_${status}`)).toMatchObject({ state: "failed" });
    expect(
      listBasket(getDb())
        .map((b) => b.styleId)
        .sort(),
    ).toEqual(lines.map((l) => l.styleId).sort());
  });

  test("nothing delivered: failed as a whole, and nothing is charged", async () => {
    await order("o_none");
    await expect(carryOut("o_none")).rejects.toMatchObject({ code: "not-delivered" });
    expect(findOrder(getDb(), "o_none")).toMatchObject({ state: "failed", totalCents: 0 });
  });
});
