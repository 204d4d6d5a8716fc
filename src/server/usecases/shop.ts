// Basket and orders: faces of a library that sells them, bought by use. Prices are those last read from its catalogue.
import { randomBytes } from "node:crypto";
import { refuse, succeed, type Outcome } from "@/contracts/errors";
import type { JobId, LibraryId, StyleId } from "@/contracts/ids";
import type { Basket, BasketLine, Order } from "@/contracts/libraries";
import type { Use } from "@/contracts/traits";
import type { Db } from "../db/open";
import { addJob } from "../jobs/queue";
import { findLibrary, listBasket, listOrders, putInBasket, putOrder, takeOutOfBasket } from "../queries/libraries";
import { findStyle, type StyleOffer } from "../queries/styles";

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
  return { lines, totalCents: lines.reduce((s, l) => s + l.cents, 0), currency: lines[0]?.currency ?? "EUR" };
}

export function fillBasket(db: Db, styleId: string, uses: Use[]): Outcome<Basket> {
  const record = findStyle(db, styleId);
  if (!record?.offer) return refuse("not-found");
  if (!priceOf(record.offer, uses))
    return refuse("bad-request", `${record.family} ${record.style} is not sold for one of these uses.`);
  putInBasket(db, { styleId, libraryId: record.libraryId, uses, addedAt: new Date().toISOString() });
  return succeed(getBasket(db));
}

export const emptyFromBasket = (db: Db, styleId: string): Basket | null =>
  takeOutOfBasket(db, styleId) ? getBasket(db) : null;

/** Places what is in the basket from one library. The order is written down before it is sent. */
export function placeOrder(db: Db, libraryId: LibraryId): Outcome<{ orderId: string; jobId: JobId }> {
  const library = findLibrary(db, libraryId);
  if (!library) return refuse("not-found");
  const lines = getBasket(db).lines.filter((l) => l.libraryId === libraryId);
  if (!lines.length) return refuse("basket-empty");
  const orderId = `o_${randomBytes(8).toString("hex")}`;
  putOrder(db, {
    orderId,
    libraryId,
    state: "placed",
    lines: lines.map(({ styleId, name, uses, cents }) => ({ styleId, name, uses, cents })),
    totalCents: lines.reduce((s, l) => s + l.cents, 0),
    currency: lines[0]!.currency,
    receipt: null,
    placedAt: new Date().toISOString(),
  });
  const many = lines.length === 1 ? lines[0]!.name : `${lines.length} fonts`;
  return succeed({ orderId, jobId: addJob("buy", `Buy ${many} from ${library.name}`, { orderId }) });
}

/** Carries a placed order on after a fault; nothing is paid twice. */
export function resumeOrder(db: Db, orderId: string): JobId | null {
  const order = listOrders(db).find((o) => o.orderId === orderId && o.state === "placed");
  const library = order && findLibrary(db, order.libraryId);
  return order && library ? addJob("buy", `Fetch what was bought from ${library.name}`, { orderId }) : null;
}

export const listAllOrders = (db: Db): Order[] => listOrders(db) as unknown as Order[];
