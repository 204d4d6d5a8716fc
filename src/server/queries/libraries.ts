// Libraries, what their catalogues were seen to hold, the basket and the orders.
import type { Order } from "@/contracts/libraries";
import type { Db } from "../db/open";
import { oncePerChange } from "./styles";

export type LibraryState = "connected" | "paused" | "removed";
export type LibraryRow = {
  libraryId: string;
  name: string;
  kind: string;
  url: string | null;
  state: LibraryState;
  addedAt: string;
  syncedAt: string | null;
  fault: { code: string; message: string; at: string } | null;
  cursor: string | null;
  styles: number;
  families: number;
  notOwned: number;
  refused: number;
};

const SELECT = `SELECT l.library_id AS libraryId, l.name, l.kind, l.url, l.state, l.added_at AS addedAt, l.synced_at AS syncedAt,
  l.fault, l.sync_cursor AS cursor,
  (SELECT count(*) FROM publications p WHERE p.library_id = l.library_id AND (p.outcome <> 'taken' OR p.detail IS NOT NULL)) AS refused
  FROM libraries l`;
type Counts = Pick<LibraryRow, "styles" | "families" | "notOwned">;
type Row = Omit<LibraryRow, "fault" | keyof Counts> & { fault: string | null };
const NONE: Counts = { styles: 0, families: 0, notOwned: 0 };
const toRow = (r: Row, counts: ReadonlyMap<string, Counts>): LibraryRow => ({
  ...r,
  ...(counts.get(r.libraryId) ?? NONE),
  fault: r.fault ? (JSON.parse(r.fault) as LibraryRow["fault"]) : null,
});

/** Styles of each library: of a hundred thousand counting takes a while. */
const countByLibrary = oncePerChange(
  (db): ReadonlyMap<string, Counts> =>
    new Map(
      db
        .prepare<[], Counts & { libraryId: string }>(
          `SELECT library_id AS libraryId, count(*) AS styles, count(DISTINCT family_id) AS families, sum(owned = 0) AS notOwned
           FROM styles WHERE hidden = 0 GROUP BY library_id`,
        )
        .all()
        .map(({ libraryId, ...counts }) => [libraryId, counts]),
    ),
);

/** @param withRemoved - also those that were removed. */
export function listLibraries(db: Db, withRemoved = false): LibraryRow[] {
  const counts = countByLibrary(db);
  return db
    .prepare<[], Row>(`${SELECT} ${withRemoved ? "" : "WHERE l.state <> 'removed'"} ORDER BY l.added_at, l.rowid`)
    .all()
    .map((r) => toRow(r, counts));
}

export function findLibrary(db: Db, libraryId: string): LibraryRow | null {
  const row = db.prepare<[string], Row>(`${SELECT} WHERE l.library_id = ?`).get(libraryId);
  return row ? toRow(row, countByLibrary(db)) : null;
}

/** Puts a library that is not there yet. */
export const putLibrary = (
  db: Db,
  libraryId: string,
  name: string,
  kind: string,
  addedAt: string,
  url: string | null = null,
) =>
  db
    .prepare("INSERT OR IGNORE INTO libraries (library_id, name, kind, added_at, url) VALUES (?, ?, ?, ?, ?)")
    .run(libraryId, name, kind, addedAt, url);

export function updateLibrary(
  db: Db,
  libraryId: string,
  change: Partial<Pick<LibraryRow, "name" | "url" | "state" | "syncedAt" | "fault" | "cursor">>,
) {
  const columns: Record<string, string> = { syncedAt: "synced_at", cursor: "sync_cursor" };
  const values = Object.fromEntries(
    Object.entries(change).map(([k, v]) => [k, k === "fault" && v ? JSON.stringify(v) : v]),
  );
  if (!Object.keys(values).length) return;
  const sets = Object.keys(values)
    .map((k) => `${columns[k] ?? k} = @${k}`)
    .join(", ");
  db.prepare(`UPDATE libraries SET ${sets} WHERE library_id = @libraryId`).run({ ...values, libraryId });
}

export type PublicationRow = {
  publicationId: string;
  digest: string;
  title: string;
  outcome: string;
  detail: string | null;
};
export const listPublications = (db: Db, libraryId: string): PublicationRow[] =>
  db
    .prepare<[string], PublicationRow>(
      "SELECT publication_id AS publicationId, digest, title, outcome, detail FROM publications WHERE library_id = ?",
    )
    .all(libraryId);
export const putPublication = (db: Db, libraryId: string, p: PublicationRow, at: string) =>
  db
    .prepare(
      `INSERT INTO publications VALUES (@libraryId, @publicationId, @digest, @title, @outcome, @detail, @at)
       ON CONFLICT(library_id, publication_id) DO UPDATE SET digest = excluded.digest, title = excluded.title,
         outcome = excluded.outcome, detail = excluded.detail, seen_at = excluded.seen_at`,
    )
    .run({ ...p, libraryId, at });
export const forgetPublications = (db: Db, libraryId: string) =>
  db.prepare("DELETE FROM publications WHERE library_id = ?").run(libraryId);

type BasketRow = { styleId: string; libraryId: string; uses: string[]; addedAt: string };
export const listBasket = (db: Db): BasketRow[] =>
  db
    .prepare<[], Omit<BasketRow, "uses"> & { uses: string }>(
      "SELECT style_id AS styleId, library_id AS libraryId, uses, added_at AS addedAt FROM basket ORDER BY added_at",
    )
    .all()
    .map((r) => ({ ...r, uses: JSON.parse(r.uses) as string[] }));
export const putInBasket = (db: Db, row: BasketRow) =>
  db
    .prepare("INSERT INTO basket VALUES (?, ?, ?, ?) ON CONFLICT(style_id) DO UPDATE SET uses = excluded.uses")
    .run(row.styleId, row.libraryId, JSON.stringify(row.uses), row.addedAt);
export const takeOutOfBasket = (db: Db, styleId: string): boolean =>
  db.prepare("DELETE FROM basket WHERE style_id = ?").run(styleId).changes > 0;

/** An order as it is kept: its lines know under which id the library sells them; orders of earlier versions do not. */
export type OrderRow = Omit<Order, "lines"> & { lines: (Order["lines"][number] & { publicationId?: string })[] };
type StoredOrder = Omit<OrderRow, "lines"> & { lines: string };
const ORDER = `SELECT order_id AS orderId, library_id AS libraryId, state, lines, total_cents AS totalCents, currency, receipt,
  placed_at AS placedAt, holder FROM orders`;
const toOrder = (r: StoredOrder): OrderRow => ({ ...r, lines: JSON.parse(r.lines) as OrderRow["lines"] });
export const listOrders = (db: Db): OrderRow[] =>
  db.prepare<[], StoredOrder>(`${ORDER} ORDER BY placed_at DESC`).all().map(toOrder);
export const findOrder = (db: Db, orderId: string): OrderRow | null => {
  const row = db.prepare<[string], StoredOrder>(`${ORDER} WHERE order_id = ?`).get(orderId);
  return row ? toOrder(row) : null;
};
export const putOrder = (db: Db, o: OrderRow) =>
  db
    .prepare(
      `INSERT INTO orders (order_id, library_id, state, lines, total_cents, currency, receipt, placed_at, holder)
         VALUES (@orderId, @libraryId, @state, @lines, @totalCents, @currency, @receipt, @placedAt, @holder)
       ON CONFLICT(order_id) DO UPDATE SET state = excluded.state, receipt = excluded.receipt,
         lines = excluded.lines, total_cents = excluded.total_cents`,
    )
    .run({ ...o, holder: o.holder ?? null, lines: JSON.stringify(o.lines) });
