// The one interface behind which every kind of library stands: list, search, page, set a sample, fetch, buy.
// Every answer is an outcome: a library that is down, slow or broken is an expected thing.
import type { Outcome } from "@/contracts/errors";
import type { OrderReply } from "@/contracts/opds";
import type { CodePointRanges, Use } from "@/contracts/traits";

/** One thing a library offers: fonts to fetch, or a face to try and buy. */
export type Publication = {
  publicationId: string;
  title: string;
  /** Changes whenever what is offered does; links that only expire do not count. */
  digest: string;
  maker: string | null;
  family: string | null;
  style: string | null;
  /** Words that the library says of it, in lower case. */
  keywords: readonly string[];
  /** What the library says of the terms, word for word. */
  rights: string | null;
  /** Address of an archive or font that may be fetched by anybody. */
  openUrl: string | null;
  /** Address of a trial font with few characters. */
  trialUrl: string | null;
  /** What the whole font covers, as the library states it. */
  coverage: CodePointRanges | null;
  buyUrl: string | null;
  settingUrl: string | null;
  currency: string;
  pricesCents: Partial<Record<Use, number>>;
};

export type Page = { publications: Publication[]; total: number | null; next: string | null; title: string };
/** @property texts - what lies beside it and may state its terms (folders alone: an archive brings its own). */
export type Fetched = { name: string; bytes: Uint8Array; texts?: { name: string; bytes: Uint8Array }[] };
export type SetLine = { path: string; widthFu: number; unitsPerEm: number };
export type OrderLine = { publicationId: string; uses: Use[]; cents: number };

export type Connector = {
  /** How many publications may be fetched at the same time: one where others run the server. */
  atOnce: number;
  /** One page of what there is. @param at - what the page before gave as `next`; null for the first. */
  page(at: string | null, signal?: AbortSignal): Promise<Outcome<Page>>;
  /** Null: this kind of library cannot be searched. */
  search: ((words: string, signal?: AbortSignal) => Promise<Outcome<Page>>) | null;
  fetch(url: string, signal?: AbortSignal): Promise<Outcome<Fetched>>;
  /** Sets a line in a face that is not here. Null: no such service. */
  setLine: ((settingUrl: string, text: string, signal?: AbortSignal) => Promise<Outcome<SetLine>>) | null;
  /** Sends an order; the same order id may be sent again. Null: nothing is sold. */
  buy:
    | ((url: string, orderId: string, lines: OrderLine[], holder?: string | null) => Promise<Outcome<OrderReply>>)
    | null;
};
