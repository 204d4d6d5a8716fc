"use client";
// The font log: every file that came in, from where and when, with its licence. Searched as one types; saved as CSV.
import { useInfiniteQuery } from "@tanstack/react-query";
import Link from "next/link";
import { useEffect, useState } from "react";
import { useBench } from "../bench/BenchContext";
import { addressOf, ask } from "../parts/client";
import { VerdictMark } from "../parts/VerdictMark";
import { writeWhen } from "../parts/words";

const SETTLE_MS = 250;

export function FontLog({ q, onAsk }: { q: string; onAsk: (q: string) => void }) {
  const { brief } = useBench();
  const [typed, setTyped] = useState(q);
  useEffect(() => {
    const timer = setTimeout(() => typed !== q && onAsk(typed), SETTLE_MS);
    return () => clearTimeout(timer);
  }, [typed, q, onAsk]);
  const log = useInfiniteQuery({
    queryKey: ["listLog", q],
    initialPageParam: "0",
    queryFn: ({ pageParam }) => ask("listLog", { query: { limit: 100, cursor: pageParam, q } }),
    getNextPageParam: (page) => page.cursor,
    placeholderData: (before) => before,
  });
  const lines = log.data?.pages.flatMap((p) => p.lines) ?? [];
  const total = log.data?.pages[0]?.total ?? 0;
  return (
    <>
      <div className="mt-4 flex items-center gap-4">
        <input
          type="search"
          aria-label="Search the font log"
          className="field max-w-[360px]"
          placeholder="a name, a library, a file, a date such as 2026-11"
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
        />
        <span className="num" data-log-count>
          {total} files
        </span>
        <a className="btn ml-auto" href={addressOf("listLog", { query: { format: "csv", q } })}>
          Save as CSV
        </a>
      </div>
      {log.data && !lines.length && <p className="mt-4 text-basalt">No file in the log has these words.</p>}
      <table className="mt-3 w-full table-fixed text-left">
        <thead className="text-basalt">
          <tr>
            <th className="w-[132px] py-1 font-normal">Added</th>
            <th className="w-[200px] font-normal">Face</th>
            <th className="w-[130px] font-normal">From</th>
            <th className="font-normal">File</th>
            <th className="w-[150px] font-normal">Goods for sale</th>
          </tr>
        </thead>
        <tbody>
          {lines.map((l, i) => (
            <tr key={`${l.styleId} ${l.path} ${i}`} className="border-t border-rule align-top" data-log={l.styleId}>
              <td className="num py-1">{writeWhen(l.importedAt)}</td>
              <td className="truncate py-1">
                <Link className="font-semibold hover:underline" href={`/b/${brief.briefId}/style/${l.styleId}`}>
                  {l.family} {l.style}
                </Link>
              </td>
              <td className="truncate py-1">{l.library}</td>
              <td className="truncate py-1 text-basalt" title={`${l.path} · SHA-256 ${l.sha256}`}>
                {l.path}
              </td>
              <td className="py-1">
                <VerdictMark verdict={l.verdict} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {log.hasNextPage && (
        <button type="button" className="btn mt-3" disabled={log.isFetching} onClick={() => void log.fetchNextPage()}>
          Show more
        </button>
      )}
    </>
  );
}
