// The three stand-in libraries as one small HTTP server: catalogues in OPDS 2.0, downloads, trials, a setting service, orders; beside them
// the desk of other designers, a cutting plotter and a cutting room.
// Faults can be switched on per library: PUT /faults/<library> { slow, error, half, expired, price, down }.
import { createServer, type IncomingMessage, type ServerResponse } from "node:http";
import { existsSync, mkdtempSync, readFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { z } from "zod";
import { openFace, type OpenFace } from "../../src/core/outlines/openFace";
import { writeTypesetPath } from "../../src/core/typeset/pens";
import { typesetText } from "../../src/core/typeset/typesetText";
import { USE_WORDS } from "../../src/contracts/words";
import { Use } from "../../src/contracts/traits";
import { buildFoundry, fileNameOf } from "../foundry/build";
import { answerCuttingRoom } from "../cuttingRoom/answer";
import { CuttingRoom } from "../cuttingRoom/cuttingRoom";
import { CuttingPlotter } from "../plotter/plotter";
import { packBought, packFamily } from "./archives";
import { gone, json, readBody, readJson, type Reply } from "./reply";
import { Desk } from "./desk";
import {
  CURRENCY,
  LIBRARIES,
  offersOf,
  PAGE_SIZE,
  priceOf,
  publish,
  SOLD_USES,
  type LibraryName,
  type Offer,
} from "./catalogue";
import { shopLicence } from "./terms";

const Faults = z.object({
  slow: z.number().min(0).max(60_000).describe("ms before every answer"),
  error: z.boolean().describe("every answer is a 500"),
  half: z.boolean().describe("answers break off in the middle"),
  expired: z.boolean().describe("links of downloads have expired"),
  price: z.boolean().describe("prices are higher than in the catalogue that was read"),
  down: z.boolean().describe("connections are cut without an answer"),
});
type Faults = z.infer<typeof Faults>;
const NO_FAULTS: Faults = { slow: 0, error: false, half: false, expired: false, price: false, down: false };

const OrderBody = z.object({
  orderId: z.string().regex(/^o_[a-z0-9]{8,40}$/),
  buyer: z.string().max(200),
  lines: z
    .array(z.object({ publicationId: z.string(), uses: z.array(Use).min(1), cents: z.number().int() }))
    .min(1)
    .max(200),
});
type Order = {
  orderId: string;
  receipt: string;
  deliveries: { publicationId: string; href: string; uses: string[] }[];
};

/** Settings a minute that the service gives to one caller. */
const SETTINGS_A_MINUTE = 120;
const LONGEST_TEXT = 120;
const MAX_QUESTION_BYTES = 24_000_000;
const MAX_CUT_FILE_BYTES = 64_000_000;

/** Starts the server. @param folder - drawn fonts; drawn first when they are not there. @returns its address. */
export function startLibraries(port: number, folder: string): Promise<{ url: string; close: () => void }> {
  if (!existsSync(folder)) buildFoundry(folder);
  const shop = new StandIns(folder);
  const server = createServer((request, response) => void shop.answer(request, response));
  return new Promise((resolve, reject) => {
    server.once("error", reject);
    server.listen(port, "127.0.0.1", () => {
      const address = server.address();
      const url = `http://127.0.0.1:${typeof address === "object" && address ? address.port : port}`;
      shop.url = url;
      resolve({ url, close: () => server.close() });
    });
  });
}

/** From a program on this machine: through no other name, and from no page of a site. */
const isOwnCall = ({ headers, url = "" }: IncomingMessage) =>
  /^(?:127\.0\.0\.1|localhost)(?::\d+)?$/.test(headers.host ?? "") &&
  headers.origin === undefined &&
  /^\/(?!\/)/.test(url);

class StandIns {
  url = "";
  private faults: Record<string, Faults> = {};
  private revisions = new Map<string, number>();
  private orders = new Map<string, Order>();
  private faces = new Map<string, OpenFace>();
  private settings: number[] = [];
  private epoch = 1;
  private desk = new Desk();
  private plotter = new CuttingPlotter();
  private cuttingRoom = new CuttingRoom(mkdtempSync(join(tmpdir(), "fond-quarry-cutting-room-")));
  constructor(private readonly folder: string) {}

  async answer(request: IncomingMessage, response: ServerResponse) {
    if (!isOwnCall(request)) return void response.writeHead(421).end();
    const url = new URL(request.url!, this.url || "http://127.0.0.1");
    const [library = "", ...rest] = url.pathname.split("/").filter(Boolean);
    const faults = this.faults[library] ?? NO_FAULTS;
    if (faults.down) return void request.socket.destroy();
    if (faults.slow) await new Promise((r) => setTimeout(r, faults.slow));
    let reply: Reply;
    try {
      reply = faults.error ? gone("broken", 500, "The till is jammed.") : await this.route(request, url, library, rest);
    } catch (error) {
      reply = gone("broken", 500, String((error as Error).message));
    }
    const body = typeof reply.body === "string" ? Buffer.from(reply.body) : Buffer.from(reply.body);
    response.writeHead(reply.status, { "content-type": reply.type, "content-length": body.length, ...reply.headers });
    if (!faults.half) return void response.end(body);
    response.write(body.subarray(0, Math.floor(body.length / 2)), () => request.socket.destroy());
  }

  private async route(request: IncomingMessage, url: URL, library: string, rest: string[]): Promise<Reply> {
    const [kind = "", name = "", ...more] = rest;
    if (library === "faults") return this.setFaults(request, kind);
    if (library === "revise") return this.revise(kind, name);
    if (library === "desk") return this.askDesk(request, kind, name);
    if (library === "plotter") return this.askPlotter(request, kind, name);
    if (library === "cutting-room") return answerCuttingRoom(this.cuttingRoom, request, kind);
    if (!(library in LIBRARIES)) return library ? gone("not-found", 404, "No such library.") : this.index();
    const lib = library as LibraryName;
    if (kind === "opds.json") return this.feed(lib, url);
    if (kind === "files" || kind === "trials") {
      if (this.faults[lib]?.expired || url.searchParams.get("t") !== String(this.epoch))
        return gone("link-expired", 410, "This link has expired.");
      return kind === "files" ? this.download(lib, name) : this.trial(name);
    }
    if (lib !== "halyard") return gone("not-found", 404, "Nothing here.");
    if (kind === "settings") return this.setLine(name, url.searchParams.get("text") ?? "");
    if (kind === "orders" && request.method === "POST") return this.order(await readJson(request));
    if (kind === "orders" && more[0]) return this.deliver(name, more[0].replace(/\.zip$/, ""));
    return gone("not-found", 404, "Nothing here.");
  }

  private async askDesk(request: IncomingMessage, kind: string, id: string): Promise<Reply> {
    if (kind === "pace" && request.method === "PUT") {
      this.desk.setPace(
        z
          .number()
          .positive()
          .parse(await readJson(request)),
      );
      return json({});
    }
    if (kind !== "questions") return gone("not-found", 404, "Nothing here.");
    if (request.method === "POST") {
      const left = this.desk.leave(await readJson(request, MAX_QUESTION_BYTES));
      return left ? json(left, 202) : gone("bad-request", 400, "The question does not have the agreed form.");
    }
    const found = request.method === "DELETE" ? this.desk.withdraw(id) : this.desk.look(id);
    return found ? json(found) : gone("not-found", 404, "No such question.");
  }

  private async askPlotter(request: IncomingMessage, kind: string, id: string): Promise<Reply> {
    if (!kind) return json(this.plotter.about());
    if (kind === "film" && request.method === "PUT") {
      const filmWidthMm = z
        .number()
        .min(50)
        .max(3000)
        .safeParse(await readJson(request));
      if (!filmWidthMm.success) return gone("bad-request", 400, "A film is 50 to 3000 mm wide.");
      return json(this.plotter.load(filmWidthMm.data));
    }
    if (kind !== "plots") return gone("not-found", 404, "Nothing here.");
    if (request.method !== "POST") {
      const plot = this.plotter.find(id);
      return plot ? json(plot) : gone("not-found", 404, "No such plot.");
    }
    const file = await readBody(request, MAX_CUT_FILE_BYTES);
    if (!file) return gone("too-large", 413, "The file is larger than the plotter holds.");
    const taken = this.plotter.take(request.headers["content-type"] ?? "", file.toString("utf8"));
    return taken.ok ? json(taken.plot, 201) : gone(taken.code, 422, taken.message);
  }

  private index = (): Reply =>
    json({
      metadata: { title: "Stand-in libraries" },
      navigation: Object.entries(LIBRARIES).map(([name, { title }]) => ({
        title,
        href: `${this.url}/${name}/opds.json`,
        type: "application/opds+json",
      })),
    });

  private async setFaults(request: IncomingMessage, library: string): Promise<Reply> {
    if (request.method === "PUT") {
      const parsed = Faults.partial().safeParse(await readJson(request));
      if (!parsed.success) return gone("bad-request", 400, parsed.error.message);
      const before = this.faults[library] ?? NO_FAULTS;
      this.faults[library] = { ...before, ...parsed.data };
      this.settings = [];
      // What had been handed out before a link expires is worthless after.
      if (parsed.data.expired === false && before.expired) this.epoch++;
    }
    return json(this.faults[library] ?? NO_FAULTS);
  }

  /** A new version of one publication: what an incremental sync has to notice. */
  private revise(library: string, slug: string): Reply {
    const key = `${library}/${slug}`;
    this.revisions.set(key, (this.revisions.get(key) ?? 0) + 1);
    return json({ revision: this.revisions.get(key) });
  }

  private feed(library: LibraryName, url: URL): Reply {
    const query = (url.searchParams.get("query") ?? "").toLowerCase();
    const subject = url.searchParams.get("subject");
    const page = Math.max(1, Number(url.searchParams.get("page") ?? 1) || 1);
    const base = `${this.url}/${library}`;
    const offers = offersOf(library).filter(
      (o) =>
        (!query ||
          `${o.family.family} ${o.style ?? ""} ${o.family.maker} ${o.family.designer}`.toLowerCase().includes(query)) &&
        (!subject || o.family.draws === subject),
    );
    const here = offers.slice((page - 1) * PAGE_SIZE, page * PAGE_SIZE);
    const at = (p: number) => `${base}/opds.json?page=${p}${query ? `&query=${encodeURIComponent(query)}` : ""}`;
    const raised = Boolean(this.faults[library]?.price);
    return json({
      metadata: {
        title: LIBRARIES[library].title,
        description: LIBRARIES[library].about,
        numberOfItems: offers.length,
        itemsPerPage: PAGE_SIZE,
        currentPage: page,
      },
      links: [
        { rel: "self", href: at(page), type: "application/opds+json" },
        { rel: "search", href: `${base}/opds.json{?query}`, type: "application/opds+json", templated: true },
        ...(page * PAGE_SIZE < offers.length
          ? [{ rel: "next", href: at(page + 1), type: "application/opds+json" }]
          : []),
      ],
      facets: [
        {
          metadata: { title: "Subject" },
          links: [...new Set(offersOf(library).map((o) => o.family.draws))].map((draws) => ({
            title: draws,
            href: `${base}/opds.json?subject=${draws}`,
            type: "application/opds+json",
            properties: { numberOfItems: offersOf(library).filter((o) => o.family.draws === draws).length },
          })),
        },
      ],
      publications: here.map((o) =>
        publish(
          library,
          o,
          base,
          `t=${this.epoch}`,
          this.revisions.get(`${library}/${o.slug}`) ?? 0,
          raised && library !== "halyard",
        ),
      ),
    });
  }

  private download(library: LibraryName, name: string): Reply {
    const offer = offersOf(library).find((o) => `${o.slug}.zip` === name);
    if (!offer) return gone("not-found", 404, "No such file.");
    return { status: 200, type: "application/zip", body: packFamily(this.folder, offer.family) };
  }

  private trial(name: string): Reply {
    const offer = offersOf("halyard").find((o) => `${fileNameOf(o.family.family, o.style!)}.ttf` === name);
    if (!offer) return gone("not-found", 404, "No such trial.");
    const path = join(this.folder, `${fileNameOf(offer.family.family, offer.style!)}.trial.ttf`);
    return { status: 200, type: "font/ttf", body: new Uint8Array(readFileSync(path)) };
  }

  /** A line set in a face, as one outline. The font itself stays here. */
  private setLine(slug: string, text: string): Reply {
    const offer = offersOf("halyard").find((o) => o.slug === slug);
    if (!offer) return gone("not-found", 404, "No such face.");
    if (!text.trim() || [...text].length > LONGEST_TEXT)
      return gone("bad-request", 400, `Between 1 and ${LONGEST_TEXT} characters are set.`);
    const now = Date.now();
    this.settings = this.settings.filter((t) => now - t < 60_000);
    if (this.settings.length >= SETTINGS_A_MINUTE) {
      const wait = Math.ceil((60_000 - (now - this.settings[0]!)) / 1000);
      return { ...gone("rate-limited", 429, "Too many settings a minute."), headers: { "retry-after": String(wait) } };
    }
    this.settings.push(now);
    const face = this.faceOf(offer);
    const set = typesetText(face, text, { widthEm: null });
    const { widthFu } = set.lines[0]!;
    const em = face.unitsPerEm;
    return {
      status: 200,
      type: "image/svg+xml",
      body: `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 ${-em} ${Math.ceil(widthFu)} ${Math.round(em * 1.4)}" data-units-per-em="${em}"><path d="${writeTypesetPath(face, set)}"/></svg>`,
    };
  }

  private faceOf(offer: Offer): OpenFace {
    let face = this.faces.get(offer.slug);
    if (!face) {
      face = openFace(
        new Uint8Array(readFileSync(join(this.folder, `${fileNameOf(offer.family.family, offer.style!)}.ttf`))),
      );
      this.faces.set(offer.slug, face);
    }
    return face;
  }

  /** Takes an order. The same order sent again is answered with the same receipt. */
  private order(body: unknown): Reply {
    const parsed = OrderBody.safeParse(body);
    if (!parsed.success) return gone("bad-request", 400, "The order does not have the agreed form.");
    const { orderId, buyer, lines } = parsed.data;
    const known = this.orders.get(orderId);
    if (known) return json(known, 200);
    const offers = offersOf("halyard");
    const raised = Boolean(this.faults.halyard?.price);
    let total = 0;
    const rows: string[] = [];
    const deliveries: Order["deliveries"] = [];
    for (const line of lines) {
      const offer = offers.find((o) => o.id === line.publicationId);
      if (!offer) return gone("not-found", 404, "One of the faces is not sold here.");
      const prices = line.uses.map((use) => priceOf(offer, use, raised));
      if (prices.includes(null)) return gone("not-sold", 409, "One of the uses is not sold.");
      const cents = prices.reduce<number>((s, p) => s + p!, 0);
      if (cents !== line.cents)
        return gone("price-changed", 409, "A price has changed.", { publicationId: offer.id, cents });
      total += cents;
      rows.push(
        `${offer.family.family} ${offer.style}: ${line.uses.map((u) => USE_WORDS[u]).join(", ")} · ${(cents / 100).toFixed(2)} ${CURRENCY}`,
      );
      deliveries.push({
        publicationId: offer.id,
        href: `${this.url}/halyard/orders/${orderId}/${offer.slug}.zip`,
        uses: line.uses,
      });
    }
    const receipt = `HALYARD & LENS TYPE FOUNDRY\nReceipt ${orderId.slice(2, 10).toUpperCase()}\n\nBuyer: ${buyer}\n${rows.join("\n")}\n\nTotal: ${(total / 100).toFixed(2)} ${CURRENCY}\n`;
    const order = { orderId, receipt, deliveries };
    this.orders.set(orderId, order);
    return json(order, 201);
  }

  private deliver(orderId: string, slug: string): Reply {
    const order = this.orders.get(orderId);
    const offer = offersOf("halyard").find((o) => o.slug === slug);
    const line = order?.deliveries.find((d) => d.publicationId === offer?.id);
    if (!order || !offer || !line) return gone("not-found", 404, "No such delivery.");
    if (this.faults.halyard?.expired) return gone("link-expired", 410, "This link has expired.");
    const words = (uses: readonly string[]) => uses.map((u) => USE_WORDS[u as Use]);
    const left = SOLD_USES.filter((u) => !line.uses.includes(u));
    const licence = shopLicence(
      "as on the receipt",
      [`${offer.family.family} ${offer.style}`],
      words(line.uses),
      words(left),
    );
    return { status: 200, type: "application/zip", body: packBought(this.folder, offer.family, offer.style!, licence) };
  }
}

/** Null when it is larger than that. */
