// Job: carries an order out: placed with the library under our own id (sending it twice buys once), then every font is fetched,
// read and put in the place of its trial, with the receipt as evidence. Goes on after a restart or a fault where it was. What the library
// does not deliver is failed and not counted as paid.
import { FaultError, sentenceOf, type FaultCode } from "@/contracts/errors";
import type { StyleId } from "@/contracts/ids";
import type { OrderReply } from "@/contracts/opds";
import type { Evidence } from "@/contracts/rights";
import type { Use } from "@/contracts/traits";
import { USE_WORDS } from "@/contracts/words";
import { getDb } from "../db/open";
import { openArchive } from "../intake/archive";
import { MAX_TEXT_BYTES } from "../intake/evidence";
import { sortByName } from "../intake/sort";
import { connectorOf } from "../libraries/connect";
import type { Connector } from "../libraries/connector";
import { findOrder, findLibrary, putInBasket, putOrder, type OrderRow } from "../queries/libraries";
import { findStyle } from "../queries/styles";
import { note, rereadRights } from "../store/rightsOfStyle";
import { prepareStyle, writeStyle } from "../store/storeReading";
import { readFontInWorker, readTermsInWorker } from "../workers/pool";
import type { JobContext } from "../queue/queue";

type BuyPayload = { orderId: string };
type Line = OrderRow["lines"][number];
type Delivery = OrderReply["deliveries"][number];

export async function buyFonts({ job, signal, progress }: JobContext): Promise<void> {
  const { orderId } = JSON.parse(job.payload) as BuyPayload;
  const db = getDb();
  const order = findOrder(db, orderId);
  const library = order && findLibrary(db, order.libraryId);
  const connector = library && connectorOf(library);
  if (!order || !library || !connector?.buy) throw new FaultError("not-found", "The order or its library is gone.");
  progress({ total: order.lines.length, done: 0 });
  const reply = await place(order, connector.buy);
  const receipt: OrderRow = { ...order, receipt: reply.receipt };
  putOrder(db, receipt);
  const lines: Line[] = [];
  for (const line of order.lines) {
    if (signal.aborted) return;
    const record = findStyle(db, line.styleId);
    const delivery = reply.deliveries.find(
      (d) => d.publicationId === (line.publicationId ?? record?.offer?.publicationId),
    );
    const state = record && delivery ? "delivered" : "failed";
    if (record && delivery) await fetchLine(line, delivery, receipt, connector, library.libraryId, signal);
    lines.push({ ...line, state });
    putOrder(db, { ...receipt, lines: [...lines, ...order.lines.slice(lines.length)] });
    progress({ done: lines.length });
  }
  settle(receipt, lines);
}

/** The order as it ended: what did not come is not counted. */
function settle(receipt: OrderRow, lines: Line[]) {
  const missing = lines.filter((l) => l.state === "failed");
  const totalCents = lines.reduce((sum, l) => sum + (l.state === "failed" ? 0 : l.cents), 0);
  putOrder(getDb(), { ...receipt, lines, totalCents, state: missing.length === lines.length ? "failed" : "delivered" });
  if (missing.length)
    throw new FaultError("not-delivered", `${sentenceOf("not-delivered")} ${missing.map((l) => l.name).join(", ")}`);
}

async function fetchLine(
  line: Line,
  delivery: Delivery,
  receipt: OrderRow,
  connector: Connector,
  libraryId: string,
  signal: AbortSignal,
) {
  const db = getDb();
  // Delivered before a restart: the receipt alone is added.
  if (findStyle(db, line.styleId)?.owned) return rereadRights(db, line.styleId, [receiptOf(delivery.uses, receipt)]);
  const fetched = await connector.fetch(delivery.href, signal);
  if (!fetched.ok)
    throw new FaultError(
      fetched.code,
      `${line.name}: ${fetched.message} The order stands: the font can be fetched again.`,
    );
  await takeDelivery(line.styleId, fetched.value, delivery.uses, receipt, libraryId);
}

/** Places the order. A price that changed, or another refusal, ends it: nothing was bought. */
async function place(order: OrderRow, buy: NonNullable<Connector["buy"]>): Promise<OrderReply> {
  const db = getDb();
  const lines = order.lines.flatMap((l) => {
    const offer = findStyle(db, l.styleId)?.offer;
    return offer?.buyUrl
      ? [{ publicationId: offer.publicationId, uses: l.uses, cents: l.cents, url: offer.buyUrl }]
      : [];
  });
  if (!lines.length) {
    fail(order);
    throw new FaultError("not-found", "None of these faces is offered any more. Nothing was bought.");
  }
  const reply = await buy(
    lines[0]!.url,
    order.orderId,
    lines.map(({ url: _url, ...l }) => l),
    order.holder,
  );
  if (reply.ok) return reply.value;
  const refusedForGood: FaultCode[] = ["price-changed", "library-refused"];
  if (refusedForGood.includes(reply.code)) fail(order);
  throw new FaultError(reply.code, `${sentenceOf(reply.code)} Nothing was bought.`);
}

/** Nothing was bought: what was ordered is back in the basket. */
function fail(order: OrderRow) {
  const db = getDb();
  db.transaction(() => {
    putOrder(db, { ...order, state: "failed" });
    for (const { styleId, uses } of order.lines)
      if (findStyle(db, styleId))
        putInBasket(db, { styleId, libraryId: order.libraryId, uses, addedAt: new Date().toISOString() });
  })();
}

/** The number that stands on the receipt. */
const numberOf = ({ orderId }: OrderRow) => orderId.slice(2, 10).toUpperCase();

const receiptOf = (uses: Use[], order: OrderRow): Evidence => ({
  kind: "receipt",
  source: `receipt ${numberOf(order)}`,
  date: new Date().toISOString(),
  text: `This licence permits use for: ${uses.map((u) => USE_WORDS[u]).join(", ")}.\n\n${order.receipt}`,
});

/** Puts what was delivered in the trial's place: the richest font of the archive, its licence and the receipt. */
async function takeDelivery(
  styleId: StyleId,
  { name, bytes }: { name: string; bytes: Uint8Array },
  uses: Use[],
  order: OrderRow,
  libraryId: string,
) {
  const db = getDb();
  const { font, texts } = await unpackDelivery(name, bytes);
  const read = await readTermsInWorker({ what: "texts", files: texts, date: new Date().toISOString() });
  const evidence: Evidence[] = [receiptOf(uses, order), ...(read ?? []).map((t) => t.evidence)];
  const reply = await readFontInWorker({ bytes: font.bytes, fallbackFamily: name });
  if (!reply.ok) throw new FaultError(reply.code, `${font.path}: ${sentenceOf(reply.code)}`);
  const before = findStyle(db, styleId)!;
  const offered = before.rights.evidence.filter((e) => e.kind === "library");
  const prepared = await prepareStyle(db, font.bytes, reply.reading, {
    libraryId,
    path: font.path,
    statedFamily: before.family,
    evidence: [...evidence, ...offered],
    styleId,
    offer: before.offer,
  });
  db.transaction(() => {
    writeStyle(db, prepared);
    const words = uses.map((u) => USE_WORDS[u]).join(", ");
    note(db, styleId, "bought", `Bought for ${words}; receipt ${numberOf(order)}`, libraryId);
  })();
}

type Unpacked = { font: { path: string; bytes: Uint8Array }; texts: { path: string; bytes: Uint8Array }[] };

async function unpackDelivery(name: string, bytes: Uint8Array): Promise<Unpacked> {
  const archive = await openArchive(bytes);
  if (!archive.ok) throw new FaultError(archive.code, `${name}: ${archive.message}`);
  const texts: Unpacked["texts"] = [];
  let font: Unpacked["font"] | null = null;
  try {
    for (const entry of [...archive.value.entries].sort((a, b) => a.path.localeCompare(b.path))) {
      const sort = sortByName(entry.path);
      if (sort !== "font" && sort !== "evidence") continue;
      const read = await archive.value.read(entry);
      if (!read.ok) throw new FaultError(read.code, `${entry.path}: ${read.message}`);
      const path = `${name}/${entry.path}`;
      if (sort === "evidence") texts.push({ path, bytes: read.value.slice(0, MAX_TEXT_BYTES) });
      else if (!font || /\.otf$/i.test(entry.path)) font = { path, bytes: read.value };
    }
  } finally {
    archive.value.close();
  }
  if (!font) throw new FaultError("no-file", `${name}: There was no font in it.`);
  return { font, texts };
}
