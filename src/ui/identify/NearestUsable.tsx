"use client";
// Beside a match that may not be used as the brief wants, or must be paid for: the nearest faces that are cleared, with what differs.
import { useQuery } from "@tanstack/react-query";
import Link from "next/link";
import type { AlikeList, StyleDetail } from "@/contracts/styles";
import { useBench } from "../bench/BenchContext";
import { callApi } from "../parts/api";

const CLEARED = ["cleared", "cleared-with-credit"];
const SHOWN = 3;

export function NearestUsable({ detail }: { detail: StyleDetail | undefined }) {
  const { brief, toggleKept } = useBench();
  const isWanted = detail !== undefined && !CLEARED.includes(detail.verdict);
  const near = useQuery({
    queryKey: ["nearest usable", detail?.styleId, brief.briefId, brief.uses],
    queryFn: () =>
      callApi<AlikeList>(
        `/styles/${detail!.styleId}/alike?briefId=${brief.briefId}&limit=${SHOWN}&verdicts=${CLEARED.join(",")}`,
      ),
    enabled: isWanted,
  });
  if (!isWanted || !near.data) return null;
  const { items } = near.data;
  if (!items.length) return <p className="text-[12px] text-basalt">Nothing that is cleared comes near.</p>;
  return (
    <div className="mt-1 text-[12px]" data-usable>
      <p className="font-semibold">Nearest you may use</p>
      <ul>
        {items.map((i) => {
          const name = `${i.family} ${i.style}`;
          const isKept = brief.kept.some((k) => k.styleId === i.styleId);
          return (
            <li key={i.styleId} className="flex gap-2">
              <Link href={`/b/${brief.briefId}/style/${i.styleId}`} className="shrink-0 hover:underline">
                {name}
              </Link>
              <span className="min-w-0 flex-1 truncate text-basalt">{i.differs.map((d) => d.says).join(", ")}</span>
              <button
                type="button"
                aria-pressed={isKept}
                aria-label={`Keep ${name}`}
                className={isKept ? "font-semibold text-oxide" : "text-basalt"}
                onClick={() => toggleKept(i.styleId, name)}
              >
                {isKept ? "kept" : "keep"}
              </button>
            </li>
          );
        })}
      </ul>
    </div>
  );
}
