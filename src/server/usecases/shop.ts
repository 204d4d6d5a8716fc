// Basket and orders: faces of a library that sells them, bought by use. Prices are those last read from its catalogue.
import { randomBytes } from "node:crypto";
import { refuse, succeed, type Outcome } from "@/contracts/errors";
import type { JobId, LibraryId, StyleId } from "@/contracts/ids";
import type { z } from "zod";
import type { Basket, BasketLine, Order, OrderPlace } from "@/contracts/libraries";
import type { Use } from "@/contracts/traits";
import type { Db } from "../db/open";
import { addJob } from "../queue/queue";
import {
  findLibrary,
  findOrder,
  listBasket,
  listOrders,
  putInBasket,
  putOrder,
  takeOutOfBasket,
} from "../queries/libraries";
import { findStyle, type StyleOffer, type StyleRecord } from "../queries/styles";

/** Price of several uses together; null when one of them is not sold. */
export function priceOf(
  offer: Pick<StyleOffer, "currency" | "pricesCents"> | null,
  uses: readonly string[],
): { cents: number; currency: string } | null {
  if (!offer || !uses.length) return null;
  const prices = uses.map((u) => offer.pricesCents[u]);
  if (prices.some((p) => p === undefined)) return null;
  return { cents: prices.reduce<number>((s, p) => s + p!, 0), currency: offer.currency };
}

export function getBasket(db: Db): Basket {
  const lines = listBasket(db).flatMap((row): BasketLine[] => {
    const record = findStyle(db, row.styleId);
    const price = record && priceOf(record.offer, row.uses);
    if (!record || !price) return [];
    return [
      {
        styleId: row.styleId as StyleId,
        libraryId: row.libraryId as LibraryId,
        name: `${record.family} ${record.style}`,
        uses: row.uses as Use[],
        ...price,
      },
    ];
  });
  const sums = new Map<string, number>();
  for (const l of lines) sums.set(l.currency, (sums.get(l.currency) ?? 0) + l.cents);
  const totals = [...sums].map(([currency, cents]) => ({ currency, cents }));
  return { lines, totalCents: totals[0]?.cents ?? 0, currency: totals[0]?.currency ?? "EUR", totals };
}

export function fillBasket(db: Db, styleId: string, uses: Use[]): Outcome<Basket> {
  const record = findStyle(db, styleId);
  if (!record?.offer) return refuse("not-found");
  if (!priceOf(record.offer, uses))
    return refuse("bad-request", `${record.family} ${record.style} is not sold for one of these uses.`);
  if (record.owned && uses.every((u) => isLicensed(record, u))) return refuse("already-owned");
  putInBasket(db, { styleId, libraryId: record.libraryId, uses, addedAt: new Date().toISOString() });
  return succeed(getBasket(db));
}

/** Bought already, for this use. */
const isLicensed = ({ rights }: StyleRecord, use: Use) =>
  rights.verdicts[use].quotes.some((q) => q.source.startsWith("receipt")) &&
  ["cleared", "cleared-with-credit"].includes(rights.verdicts[use].verdict);

export const emptyFromBasket = (db: Db, styleId: string): Basket | null =>
  takeOutOfBasket(db, styleId) ? getBasket(db) : null;

/**
 * Places what is in the basket from one library. The order is written down before it is sent, and its lines leave the basket with it: a
 * second press finds nothing, the same key finds the order.
 */
export function placeOrder(
  db: Db,
  { libraryId, key, holder }: z.infer<typeof OrderPlace>,
): Outcome<{ orderId: string; jobId: JobId }> {
  const library = findLibrary(db, libraryId);
  if (!library) return refuse("not-found");
  const orderId = `o_${key ?? randomBytes(8).toString("hex")}`;
  // The job is the order's, so that pressing twice asks after the same one.
  const jobId = `j_${orderId.slice(2)}`;
  if (findOrder(db, orderId)) return succeed({ orderId, jobId: jobId as JobId });
  const lines = getBasket(db).lines.filter((l) => l.libraryId === libraryId);
  if (!lines.length) return refuse("basket-empty");
  if (new Set(lines.map((l) => l.currency)).size > 1)
    return refuse("bad-request", "These faces are sold in several currencies: order them one after another.");
  db.transaction(() => {
    putOrder(db, {
      orderId,
      libraryId,
      state: "placed",
      lines: lines.map(({ styleId, name, uses, cents }) => ({
        styleId,
        publicationId: findStyle(db, styleId)?.offer?.publicationId,
        name,
        uses,
        cents,
      })),
      totalCents: lines.reduce((s, l) => s + l.cents, 0),
      currency: lines[0]!.currency,
      receipt: null,
      placedAt: new Date().toISOString(),
      holder: holder || null,
    });
    for (const l of lines) takeOutOfBasket(db, l.styleId);
  })();
  const many = lines.length === 1 ? lines[0]!.name : `${lines.length} fonts`;
  addJob("buy", `Buy ${many} from ${library.name}`, { orderId }, null, jobId);
  return succeed({ orderId, jobId: jobId as JobId });
}

/** Carries a placed order on after a fault; nothing is paid twice. */
export function resumeOrder(db: Db, orderId: string): JobId | null {
  const order = listOrders(db).find((o) => o.orderId === orderId && o.state === "placed");
  const library = order && findLibrary(db, order.libraryId);
  return order && library ? addJob("buy", `Fetch what was bought from ${library.name}`, { orderId }) : null;
}

export const listAllOrders = (db: Db): Order[] =>
  listOrders(db).map(({ lines, ...order }) => ({
    ...order,
    lines: lines.map(({ publicationId: _ours, ...line }) => line),
  }));
