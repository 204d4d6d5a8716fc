"use client";
// Beside a match that may not be used as the brief wants, or must be paid for: the nearest faces that are cleared, with what differs.
import { useQuery } from "@tanstack/react-query";
import Link from "next/link";
import type { StyleDetail } from "@/contracts/styles";
import { useBench } from "../bench/BenchContext";
import { queryOf } from "../parts/client";
import { Sample } from "../parts/Sample";
import { sampleOf } from "../parts/sampleOf";

const CLEARED = ["cleared", "cleared-with-credit"];
const SHOWN = 3;

/** @param text - what the picture says: samples are set in it. */
export function NearestUsable({ detail, text }: { detail: StyleDetail | undefined; text: string }) {
  const { brief, toggleKept } = useBench();
  const isWanted = detail !== undefined && !CLEARED.includes(detail.verdict);
  const query = { briefId: brief.briefId, limit: SHOWN, verdicts: CLEARED.join(","), sameFirst: "true" };
  const near = useQuery({
    ...queryOf("listAlike", { params: { id: detail?.styleId ?? "" }, query }, brief.uses),
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
            <li key={i.styleId} className="grid grid-cols-[minmax(0,1fr)_auto] gap-x-2 border-t border-rule py-1">
              <Link href={`/b/${brief.briefId}/style/${i.styleId}`} className="hover:underline">
                <Sample {...sampleOf(i)} text={text.trim() || i.family} sizePx={22} />
                <span className="font-semibold">{name}</span>{" "}
                <span className="text-basalt">{i.differs.map((d) => d.says).join(", ")}</span>
              </Link>
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
