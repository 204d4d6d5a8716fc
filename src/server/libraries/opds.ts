// A library that offers a catalogue over HTTP in OPDS 2.0.
import { createHash } from "node:crypto";
import { refuse, succeed, type Outcome } from "@/contracts/errors";
import { hasRel, OpdsFeed, OpdsPublication, OrderReply, REL, type OpdsLink } from "@/contracts/opds";
import type { Use } from "@/contracts/traits";
import type { Connector, OrderLine, Page, Publication, SetLine } from "./connector";
import { ask, fillTemplate, parseJson } from "./http";

const MAX_FEED_BYTES = 8 * 1024 * 1024;
const MAX_LINE_BYTES = 2 * 1024 * 1024;

/** @param url - address of the catalogue's first page. */
export function connectOpds(url: string): Connector {
  let searchTemplate: string | null = null;
  const read = async (at: string, signal?: AbortSignal): Promise<Outcome<Page>> => {
    const answer = await ask(at, { headers: { accept: "application/opds+json" }, limitBytes: MAX_FEED_BYTES }, signal);
    if (!answer.ok) return answer;
    const feed = OpdsFeed.safeParse(parseJson(answer.value.bytes));
    if (!feed.success) return refuse("library-broken", "The library's catalogue cannot be read.");
    const search = feed.data.links.find((l) => hasRel(l, "search") && l.templated);
    searchTemplate ??= search ? absolute(search.href, at) : null;
    const next = feed.data.links.find((l) => hasRel(l, "next"));
    return succeed({
      title: feed.data.metadata.title,
      total: feed.data.metadata.numberOfItems ?? null,
      next: next ? absolute(next.href, at) : null,
      publications: feed.data.publications.flatMap((p) => {
        const parsed = OpdsPublication.safeParse(p);
        return parsed.success ? [toPublication(parsed.data, at)] : [];
      }),
    });
  };
  return {
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
      const answer = await ask(at, {}, signal);
      if (!answer.ok) return answer;
      const name = decodeURIComponent(new URL(at).pathname.split("/").pop() ?? "download");
      return succeed({ name, bytes: answer.value.bytes });
    },
    setLine: (template, text, signal) => setLine(template, text, signal),
    buy: (at, orderId, lines) => buy(at, orderId, lines),
  };
}

/** Relative addresses are read against their page; templates keep their braces. */
function absolute(href: string, base: string): string {
  const [plain = "", template = ""] = href.split(/(?=\{)/);
  return new URL(plain, base).href + template;
}

function toPublication(p: OpdsPublication, base: string): Publication {
  const link = (rel: string): OpdsLink | undefined => p.links.find((l) => hasRel(l, rel));
  const at = (l?: OpdsLink) => (l ? absolute(l.href, base) : null);
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
    rights: p.metadata.rights ?? null,
    openUrl: at(link(REL.openAccess)),
    trialUrl: at(link(REL.sample)),
    coverage: setting?.properties?.coverage ?? null,
    buyUrl: at(buy),
    settingUrl: at(setting),
    currency: buy?.properties?.price?.currency ?? prices[0]?.currency ?? "EUR",
    pricesCents: Object.fromEntries(prices.map((x) => [x.use, Math.round(x.value * 100)])) as Partial<
      Record<Use, number>
    >,
  };
}

/** What is taken of the SVG that a setting service gives: numbers alone. It is untrusted like any other file. */
async function setLine(template: string, text: string, signal?: AbortSignal): Promise<Outcome<SetLine>> {
  const answer = await ask(fillTemplate(template, "text", text), { limitBytes: MAX_LINE_BYTES }, signal);
  if (!answer.ok) return answer;
  const svg = new TextDecoder().decode(answer.value.bytes);
  const box = svg.match(/viewBox="\s*(-?[\d.]+)[\s,]+(-?[\d.]+)[\s,]+([\d.]+)[\s,]+([\d.]+)\s*"/);
  const path = svg.match(/<path\b[^>]*\sd="([MLHVCSQTAZmlhvcsqtaz\d\s,.eE+-]*)"/);
  const em = Number(svg.match(/data-units-per-em="(\d{2,5})"/)?.[1] ?? 0) || (box ? -Number(box[2]) : 0);
  if (!box || !path || !(em > 0)) return refuse("library-broken", "The setting service gave no outline.");
  return succeed({ path: path[1]!, widthFu: Number(box[3]), unitsPerEm: em });
}

async function buy(at: string, orderId: string, lines: OrderLine[]): Promise<Outcome<OrderReply>> {
  const answer = await ask(at, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ orderId, buyer: "Fond Quarry on this machine", lines }),
  });
  if (!answer.ok) return answer;
  const reply = OrderReply.safeParse(parseJson(answer.value.bytes));
  return reply.success ? succeed(reply.data) : refuse("library-broken", "The library's receipt cannot be read.");
}
