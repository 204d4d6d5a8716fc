// A library that offers a catalogue over HTTP in OPDS 2.0.
import { createHash } from "node:crypto";
import { refuse, succeed, type Outcome } from "@/contracts/errors";
import { hasRel, OpdsFeed, OpdsPublication, OrderReply, REL, type OpdsLink } from "@/contracts/opds";
import type { Connector, OrderLine, Page, Publication, SetLine } from "./connector";
import { ask, fillTemplate, parseJson } from "./http";

const MAX_FEED_BYTES = 8 * 1024 * 1024;
/** Beyond this a price is a mistake, and the use is not for sale. */
const MAX_PRICE = 1_000_000;
const MAX_LINE_BYTES = 2 * 1024 * 1024;

/** @param url - address of the catalogue's first page. */
export function connectOpds(url: string): Connector {
  let searchTemplate: string | null = null;
  const read = async (at: string, signal?: AbortSignal): Promise<Outcome<Page>> => {
    const answer = await ask(
      at,
      { headers: { accept: "application/opds+json" }, limitBytes: MAX_FEED_BYTES, namedBy: url },
      signal,
    );
    if (!answer.ok) return answer;
    const feed = OpdsFeed.safeParse(parseJson(answer.value.bytes));
    if (!feed.success) return refuse("library-broken", "The library's catalogue cannot be read.");
    const search = feed.data.links.find((l) => hasRel(l, "search") && l.templated);
    searchTemplate ??= search ? address(search.href, at) : null;
    const next = feed.data.links.find((l) => hasRel(l, "next"));
    return succeed({
      title: feed.data.metadata.title,
      total: feed.data.metadata.numberOfItems ?? null,
      next: next ? address(next.href, at) : null,
      publications: feed.data.publications.flatMap((p) => {
        const parsed = OpdsPublication.safeParse(p);
        return parsed.success ? [toPublication(parsed.data, at)] : [];
      }),
    });
  };
  return {
    atOnce: 1,
    page: (at, signal) => read(at ?? url, signal),
    async search(words, signal) {
      if (!searchTemplate) {
        const first = await read(url, signal);
        if (!first.ok) return first;
      }
      return searchTemplate
        ? read(fillTemplate(searchTemplate, "query", words), signal)
        : refuse("library-refused", "This library cannot be searched.");
    },
    async fetch(at, signal) {
      const answer = await ask(at, { namedBy: url }, signal);
      if (!answer.ok) return answer;
      const name = readable(new URL(at).pathname.split("/").pop() || "download");
      return succeed({ name, bytes: answer.value.bytes });
    },
    // Our words, and orders, go to the library itself and nowhere else.
    setLine: async (template, text, signal) =>
      isOwn(url, template) ? setLine(template, text, signal) : refuse("address-not-allowed"),
    buy: async (at, orderId, lines, holder) =>
      isOwn(url, at) ? buy(at, orderId, lines, holder) : refuse("address-not-allowed"),
  };
}

/** Relative addresses are read against their page; templates keep their braces. Null: it is no address. */
function address(href: string, base: string): string | null {
  const brace = href.indexOf("{");
  const plain = brace < 0 ? href : href.slice(0, brace);
  return URL.canParse(plain, base) ? new URL(plain, base).href + (brace < 0 ? "" : href.slice(brace)) : null;
}

const isOwn = (home: string, at: string) => {
  const plain = at.split("{")[0]!;
  return URL.canParse(plain) && URL.canParse(home) && new URL(plain).origin === new URL(home).origin;
};

function readable(name: string): string {
  try {
    return decodeURIComponent(name);
  } catch {
    return name;
  }
}

function toPublication(p: OpdsPublication, base: string): Publication {
  const link = (rel: string): OpdsLink | undefined => p.links.find((l) => hasRel(l, rel));
  const at = (l?: OpdsLink) => (l ? address(l.href, base) : null);
  const buy = link(REL.buy);
  const setting = p.links.find((l) => hasRel(l, "setting") && l.templated);
  const prices = buy?.properties?.prices ?? [];
  const steady = { ...p, links: p.links.map((l) => ({ ...l, href: l.href.replace(/\?.*$/, "") })) };
  return {
    publicationId: p.metadata.identifier,
    title: p.metadata.title,
    digest: createHash("sha256").update(JSON.stringify(steady)).digest("hex"),
    maker: p.metadata.publisher ?? p.metadata.author ?? null,
    family: p.metadata.family ?? null,
    style: p.metadata.style ?? null,
    keywords: p.metadata.subject ?? [],
    rights: p.metadata.rights ?? null,
    openUrl: at(link(REL.openAccess)),
    trialUrl: at(link(REL.sample)),
    coverage: setting?.properties?.coverage ?? null,
    buyUrl: at(buy),
    settingUrl: at(setting),
    currency: buy?.properties?.price?.currency ?? prices[0]?.currency ?? "EUR",
    pricesCents: Object.fromEntries(
      prices.filter((x) => x.value >= 0 && x.value <= MAX_PRICE).map((x) => [x.use, Math.round(x.value * 100)]),
    ),
  };
}

/** What is taken of the SVG that a setting service gives: numbers alone. It is untrusted like any other file. */
async function setLine(template: string, text: string, signal?: AbortSignal): Promise<Outcome<SetLine>> {
  const answer = await ask(fillTemplate(template, "text", text), { limitBytes: MAX_LINE_BYTES }, signal);
  if (!answer.ok) return answer;
  const svg = new TextDecoder().decode(answer.value.bytes);
  const box =
    /viewBox="\s{0,9}(-?[\d.]{1,20})[\s,]{1,9}(-?[\d.]{1,20})[\s,]{1,9}([\d.]{1,20})[\s,]{1,9}([\d.]{1,20})\s{0,9}"/.exec(
      svg,
    );
  const path = / d="([MLHVCSQTAZmlhvcsqtaz\d\s,.eE+-]*)"/.exec(svg);
  const em = Number(svg.match(/data-units-per-em="(\d{2,5})"/)?.[1] ?? 0) || (box ? -Number(box[2]) : 0);
  if (!box || !path || !(em > 0)) return refuse("library-broken", "The setting service gave no outline.");
  return succeed({ path: path[1]!, widthFu: Number(box[3]), unitsPerEm: em });
}

async function buy(
  at: string,
  orderId: string,
  lines: OrderLine[],
  holder?: string | null,
): Promise<Outcome<OrderReply>> {
  const answer = await ask(at, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ orderId, buyer: holder || "Fond Quarry on this machine", lines }),
  });
  if (!answer.ok) return answer;
  const reply = OrderReply.safeParse(parseJson(answer.value.bytes));
  return reply.success ? succeed(reply.data) : refuse("library-broken", "The library's receipt cannot be read.");
}
