// Job: carries an order out: placed with the library under an id of ours (sending it twice buys once), then every font is fetched,
// read and put in the place of its trial, with the receipt as evidence. Goes on after a restart or a fault where it was.
import { sentenceOf, type FaultCode } from "@/contracts/errors";
import type { StyleId } from "@/contracts/ids";
import type { OrderReply } from "@/contracts/opds";
import type { Evidence } from "@/contracts/rights";
import type { Use } from "@/contracts/traits";
import { USE_WORDS } from "@/contracts/words";
import { getDb } from "../db/open";
import { openArchive } from "../intake/archive";
import { readTerms } from "../intake/evidence";
import { sortByName } from "../intake/sort";
import { connectorOf } from "../libraries/connect";
import { findLibrary, listOrders, putOrder, takeOutOfBasket, type OrderRow } from "../queries/libraries";
import { findStyle } from "../queries/styles";
import { storeReading } from "../usecases/storeReading";
import { addEvidence, note } from "../usecases/takeFont";
import { readFontInWorker } from "./pool";
import type { JobContext } from "./queue";

export type BuyPayload = { orderId: string };

export async function buyFonts({ job, signal, progress }: JobContext): Promise<void> {
  const { orderId } = JSON.parse(job.payload) as BuyPayload;
  const db = getDb();
  const order = listOrders(db).find((o) => o.orderId === orderId);
  const library = order && findLibrary(db, order.libraryId);
  const connector = library && connectorOf(library);
  if (!order || !library || !connector?.buy) throw new Error("The order or its library is gone.");
  progress({ total: order.lines.length, done: 0 });
  const reply = await place(order, connector.buy);
  const receipt: OrderRow = { ...order, receipt: reply.receipt };
  putOrder(db, receipt);
  let done = 0;
  for (const line of order.lines) {
    if (signal.aborted) return;
    const record = findStyle(db, line.styleId);
    const delivery = reply.deliveries.find((d) => d.publicationId === record?.offer?.publicationId);
    if (record?.owned && delivery) addEvidence(db, line.styleId, [receiptOf(delivery.uses, receipt)]);
    else if (record && delivery) {
      const fetched = await connector.fetch(delivery.href, signal);
      if (!fetched.ok)
        throw new Error(`${line.name}: ${fetched.message} The order stands: the font can be fetched again.`);
      await takeDelivery(line.styleId as StyleId, fetched.value, delivery.uses, receipt, library.libraryId);
    }
    takeOutOfBasket(db, line.styleId);
    progress({ done: ++done });
  }
  putOrder(db, { ...receipt, state: "delivered" });
}

/** Places the order. A price that changed, or another refusal, ends it: nothing was bought. */
async function place(
  order: OrderRow,
  buy: NonNullable<NonNullable<ReturnType<typeof connectorOf>>["buy"]>,
): Promise<OrderReply> {
  const db = getDb();
  const lines = order.lines.map((l) => {
    const offer = findStyle(db, l.styleId)!.offer!;
    return { publicationId: offer.publicationId, uses: l.uses as Use[], cents: l.cents, url: offer.buyUrl! };
  });
  const reply = await buy(
    lines[0]!.url,
    order.orderId,
    lines.map(({ url: _url, ...l }) => l),
  );
  if (reply.ok) return reply.value;
  const refusedForGood: FaultCode[] = ["price-changed", "library-refused"];
  if (refusedForGood.includes(reply.code)) putOrder(db, { ...order, state: "failed" });
  throw new Error(`${sentenceOf(reply.code)} Nothing was bought.`);
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
  const archive = await openArchive(bytes);
  if (!archive.ok) throw new Error(`${name}: ${archive.message}`);
  const date = new Date().toISOString();
  const evidence: Evidence[] = [receiptOf(uses, order)];
  let font: { path: string; bytes: Uint8Array } | null = null;
  for (const entry of [...archive.value.entries].sort((a, b) => a.path.localeCompare(b.path))) {
    const sort = sortByName(entry.path);
    if (sort !== "font" && sort !== "evidence") continue;
    const read = await archive.value.read(entry);
    if (!read.ok) throw new Error(`${entry.path}: ${read.message}`);
    if (sort === "evidence") evidence.push(readTerms(`${name}/${entry.path}`, read.value, date).evidence);
    else if (!font || /\.otf$/i.test(entry.path)) font = { path: `${name}/${entry.path}`, bytes: read.value };
  }
  archive.value.close();
  if (!font) throw new Error(`${name}: There was no font in it.`);
  const reply = await readFontInWorker({ bytes: font.bytes, fallbackFamily: name });
  if (!reply.ok) throw new Error(`${font.path}: ${sentenceOf(reply.code)}`);
  const before = findStyle(db, styleId)!;
  const kept = before.rights.evidence.filter((e) => e.kind === "library");
  const { bytes: file, path } = font;
  db.transaction(() => {
    storeReading(db, file, reply.reading, {
      libraryId,
      path,
      statedFamily: before.family,
      evidence: [...evidence, ...kept],
      styleId,
      offer: before.offer,
    });
    note(
      db,
      styleId,
      "bought",
      `Bought for ${uses.map((u) => USE_WORDS[u]).join(", ")}; receipt ${numberOf(order)}`,
      libraryId,
    );
  })();
}
