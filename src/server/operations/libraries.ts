// What answers questions about libraries, the basket, orders and the font log.
import { succeed } from "@/contracts/errors";
import type { LIBRARY_OPERATIONS } from "@/contracts/operations/libraries";
import type { Db } from "../db/open";
import {
  addLibrary,
  listLibraries,
  listRefused,
  listSystemFolders,
  patchLibrary,
  removeLibrary,
  searchLibrary,
  startSync,
} from "../usecases/libraries";
import { listLog, writeLogCsv } from "../usecases/provenance";
import { emptyFromBasket, fillBasket, getBasket, listAllOrders, placeOrder, resumeOrder } from "../usecases/shop";
import { FileAnswer } from "./answers";
import { found, type Handlers } from "./bind";

const MAX_WORDS = 200;
const find = (db: Db, id: string) => listLibraries(db).find((l) => l.libraryId === id) ?? null;

export const libraryHandlers: Handlers<keyof typeof LIBRARY_OPERATIONS> = {
  listLibraries: ({ db }) => succeed({ libraries: listLibraries(db) }),
  addLibrary: async ({ db, body }) => {
    const added = await addLibrary(db, body);
    return added.ok ? succeed({ libraryId: added.value }) : added;
  },
  listSystemFolders: async ({ db }) => succeed({ folders: await listSystemFolders(db) }),
  getLibrary: ({ db, params }) => found(find(db, params.id)),
  changeLibrary: ({ db, params, body }) => found(patchLibrary(db, params.id, body) ? find(db, params.id) : null),
  removeLibrary: ({ db, params }) =>
    found(removeLibrary(db, params.id) ? { libraryId: params.id, removed: true } : null),
  syncLibrary: ({ db, params }) => {
    const jobId = startSync(db, params.id);
    return found(jobId && { jobId });
  },
  listRefused: ({ db, params }) => found(find(db, params.id) && { publications: listRefused(db, params.id) }),
  searchLibrary: ({ db, params, query }) => searchLibrary(db, params.id, query.q.slice(0, MAX_WORDS)),
  getBasket: ({ db }) => succeed(getBasket(db)),
  fillBasket: ({ db, params, body }) => fillBasket(db, params.styleId, body.uses),
  emptyFromBasket: ({ db, params }) => found(emptyFromBasket(db, params.styleId)),
  listOrders: ({ db }) => succeed({ orders: listAllOrders(db) }),
  placeOrder: ({ db, body }) => placeOrder(db, body),
  resumeOrder: ({ db, params }) => {
    const jobId = resumeOrder(db, params.id);
    return found(jobId && { orderId: params.id, jobId });
  },
  listLog: ({ db, query: { q = "", limit, cursor, format } }) =>
    format === "csv"
      ? succeed(new FileAnswer(writeLogCsv(db, q), "text/csv; charset=utf-8", { name: "font log.csv" }))
      : succeed(listLog(db, q, limit, Number(cursor ?? 0))),
};
