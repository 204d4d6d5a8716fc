"use client";
// What the library asks for a face, use by use; what is chosen goes into the basket.
import Link from "next/link";
import { useState } from "react";
import type { StyleDetail } from "@/contracts/styles";
import { USES, type Use } from "@/contracts/traits";
import { USE_WORDS } from "@/contracts/words";
import { useBench } from "../bench/BenchContext";
import { useChange } from "../parts/client";
import { writePrice } from "../parts/words";

export function Offer({ style }: { style: StyleDetail }) {
  const { brief, say, sayFault } = useBench();
  const change = useChange();
  const { currency, pricesCents } = style.offer!;
  const bought = (use: Use) => style.rights.verdicts[use]?.verdict.startsWith("cleared") ?? false;
  const sold = USES.filter((u) => pricesCents[u] !== undefined && !bought(u));
  const [chosen, setChosen] = useState<Use[]>(() => brief.uses.filter((u) => sold.includes(u)));
  const [isIn, setIsIn] = useState(false);
  const total = chosen.reduce((s, u) => s + (pricesCents[u] ?? 0), 0);
  const notSold = brief.uses.filter((u) => pricesCents[u] === undefined && !bought(u));
  if (!sold.length) return null;
  const put = () => {
    change("fillBasket", { params: { styleId: style.styleId }, body: { uses: chosen } })
      .then(() => {
        setIsIn(true);
        say(`${style.family} ${style.style} is in the basket`);
      })
      .catch(sayFault);
  };
  return (
    <section aria-label="What it costs" className="border-b border-rule bg-chalk px-6 py-2.5" data-offer>
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1.5">
        <span className="font-semibold">
          {style.owned ? `More uses from ${style.libraryName}` : `Sold by ${style.libraryName}: choose your licence`}
        </span>
        {sold.map((use) => (
          <label key={use} className="inline-flex items-center gap-1.5">
            <input
              type="checkbox"
              className="accent-tide"
              checked={chosen.includes(use)}
              onChange={() => {
                setIsIn(false);
                setChosen(chosen.includes(use) ? chosen.filter((u) => u !== use) : [...chosen, use]);
              }}
            />
            {USE_WORDS[use]} <span className="num">{writePrice(pricesCents[use]!, currency)}</span>
          </label>
        ))}
        <span className="ml-auto flex items-center gap-3">
          <span className="num">{writePrice(total, currency)}</span>
          {isIn ? (
            <Link className="btn" href={`/b/${brief.briefId}/libraries?tab=basket`}>
              View basket
            </Link>
          ) : (
            <button type="button" className="btn btn-act" disabled={!chosen.length} onClick={put}>
              Add to basket
            </button>
          )}
        </span>
      </div>
      {!style.owned && (
        <p className="mt-1 text-[12px] text-basalt">
          You don’t own this font yet. The shop draws the samples; measurements come from its trial.
          {notSold.length > 0 && ` Not sold for ${notSold.map((u) => USE_WORDS[u]).join(", ")}.`}
        </p>
      )}
    </section>
  );
}
