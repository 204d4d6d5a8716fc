"use client";
// Pages of the wall, fetched as they come near; what was shown stays until the new arrives.
import { keepPreviousData, useQueries, useQuery } from "@tanstack/react-query";
import { WALL_PAGE, type ShownItem, type StyleList, type StyleListItem } from "@/contracts/styles";
import { ask } from "../parts/client";

type ShownList = Omit<StyleList, "items" | "named"> & { items: ShownItem[]; named: ShownItem[] };

/** @param question - query string of a find. */
function pageOf(question: string, page: number): URLSearchParams {
  const query = new URLSearchParams(question);
  query.set("limit", String(WALL_PAGE));
  query.set("cursor", String(page * WALL_PAGE));
  return query;
}

/** Gives every item its coverage, the same object for all that share it. */
function showList(list: StyleList): ShownList {
  const show = (item: StyleListItem): ShownItem => ({
    ...item,
    coverage: list.coverages[item.coverageKey] ?? [],
    own: list.ownWords[item.coverageKey] ?? null,
  });
  return { ...list, items: list.items.map(show), named: list.named.map(show) };
}

const shown = new WeakMap<StyleList, ShownList>();
function showOnce(list: StyleList): ShownList {
  let out = shown.get(list);
  if (!out) shown.set(list, (out = showList(list)));
  return out;
}

/** What the server found for the page that it drew, so that the wall stands before anything is asked. */
export type FirstPage = { question: string; list: StyleList };

const queryOfPage = (question: string, page: number) => ({
  queryKey: ["findStyles", question, page],
  queryFn: async ({ signal }: { signal: AbortSignal }) =>
    showList(await ask("findStyles", { query: pageOf(question, page) }, { signal })),
  staleTime: 60_000,
});

/** @param firstPage - the server's answer, used for its own question. @param question - query string. @param from, to - item indices near the viewport. */
export function usePages(question: string, from: number, to: number, firstPage: FirstPage | null = null) {
  const first = Math.floor(from / WALL_PAGE);
  const last = Math.max(first, Math.floor(Math.max(to, from) / WALL_PAGE));
  const further = Array.from({ length: Math.min(MOST_PAGES, last - first + 1) }, (_, i) => first + i).filter(
    (p) => p > 0,
  );
  const head = useQuery({
    ...queryOfPage(question, 0),
    ...(firstPage?.question === question && { initialData: () => showOnce(firstPage.list) }),
    // It stays while a new question is asked; a page further on is another page. (Not with useQueries, which forgets what it had.)
    placeholderData: keepPreviousData,
  });
  const results = useQueries({ queries: further.map((page) => queryOfPage(question, page)) });
  const byPage = new Map(further.map((page, i) => [page, results[i]!.data]));
  byPage.set(0, head.data);
  return {
    head: head.data,
    /** What is shown answers the question before. */
    isAsking: head.isPlaceholderData,
    error: [head, ...results].find((r) => r.error)?.error ?? null,
    item: (index: number): ShownItem | undefined => byPage.get(Math.floor(index / WALL_PAGE))?.items[index % WALL_PAGE],
  };
}
/** Of a screen and what is near it. */
const MOST_PAGES = 6;
