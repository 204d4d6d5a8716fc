"use client";
// The basket, by library; what was ordered before, with its receipts.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Dialog, DialogBackdrop, DialogPanel, DialogTitle } from "@headlessui/react";
import Link from "next/link";
import { useEffect, useRef, useState } from "react";
import type { BasketLine, Order } from "@/contracts/libraries";
import { USE_WORDS } from "@/contracts/words";
import { useBench } from "../bench/BenchContext";
import { call } from "../bench/commands";
import { useJobs } from "../bench/FootLine";
import { queryOf, readAgain, useChange } from "../parts/client";
import { writePrice, writeWhen } from "../parts/words";
import { useBasket } from "./useBasket";

export function BasketPanel() {
  const { perform } = useBench();
  const basket = useBasket();
  const libraries = useQuery(queryOf("listLibraries", {}));
  const nameOf = (id: string) => libraries.data?.libraries.find((x) => x.libraryId === id)?.name ?? id;
  const lines = basket.data?.lines ?? [];
  const byLibrary = [...new Set(lines.map((l) => l.libraryId))].map(
    (id) => [id, lines.filter((l) => l.libraryId === id)] as const,
  );
  const takeOut = ({ styleId, uses, name }: BasketLine) =>
    perform(
      `${name} removed from the basket`,
      call("emptyFromBasket", { params: { styleId } }),
      call("fillBasket", { params: { styleId }, body: { uses } }),
    );
  const [reviewing, setReviewing] = useState<{ libraryId: string; key: string } | null>(null);
  return (
    <>
      {!lines.length && (
        <p className="mt-4 text-basalt">
          The basket is empty. Faces for sale show a price in Find; add them from their page.
        </p>
      )}
      {byLibrary.map(([libraryId, rows]) => {
        const total = rows.reduce((s, l) => s + l.cents, 0);
        return (
          <section key={libraryId} className="mt-4" aria-label="Basket">
            <ul>
              {rows.map((l) => (
                <BasketRow key={l.styleId} line={l} onTakeOut={() => takeOut(l)} />
              ))}
            </ul>
            <p className="mt-3 flex items-center justify-end gap-5">
              <span>
                Total <span className="num text-slate">{writePrice(total, rows[0]!.currency)}</span>
              </span>
              <button type="button" className="btn btn-act" onClick={() => setReviewing({ libraryId, key: newKey() })}>
                Review order from {nameOf(libraryId)}
              </button>
            </p>
          </section>
        );
      })}
      {reviewing && (
        <Review
          orderKey={reviewing.key}
          libraryId={reviewing.libraryId}
          name={nameOf(reviewing.libraryId)}
          lines={lines.filter((l) => l.libraryId === reviewing.libraryId)}
          onClose={() => setReviewing(null)}
        />
      )}
      <Orders />
    </>
  );
}

/** Made once for each look at an order: however often its button is pressed, it is placed once. */
const newKey = () =>
  Array.from(crypto.getRandomValues(new Uint8Array(10)), (b) => b.toString(16).padStart(2, "0")).join("");

type ReviewProps = { orderKey: string; libraryId: string; name: string; lines: BasketLine[]; onClose: () => void };

/** What is bought, for whom and for how much, before anything is spent. */
function Review({ orderKey, libraryId, name, lines, onClose }: ReviewProps) {
  const { brief, sayFault, say } = useBench();
  const change = useChange();
  const [holder, setHolder] = useState(brief.client);
  const [isSent, setSent] = useState(false);
  const total = lines.reduce((s, l) => s + l.cents, 0);
  const order = () => {
    setSent(true);
    change("placeOrder", { body: { libraryId, key: orderKey, holder } })
      .then(() => {
        say(`Ordered from ${name}.`);
        onClose();
      })
      .catch((error: unknown) => {
        setSent(false);
        sayFault(error);
      });
  };
  return (
    <Dialog open onClose={onClose} className="relative z-50">
      <DialogBackdrop className="fixed inset-0 bg-[#20262b]/40" />
      <div className="fixed inset-0 grid place-items-center p-6">
        <DialogPanel className="w-[560px] rounded-sm bg-chalk px-7 py-5 shadow-lg">
          <DialogTitle className="text-[18px] font-bold">Order from {name}</DialogTitle>
          <ul className="mt-3">
            {lines.map((l) => (
              <li key={l.styleId} className="grid grid-cols-[minmax(0,1fr)_auto] gap-4 border-t border-rule py-1.5">
                <span>
                  <b>{l.name}</b> <span className="text-basalt">for {l.uses.map((u) => USE_WORDS[u]).join(", ")}</span>
                </span>
                <span className="num">{writePrice(l.cents, l.currency)}</span>
              </li>
            ))}
          </ul>
          <p className="flex justify-between border-t-2 border-slate pt-1.5 font-bold">
            Total <span className="num">{lines[0] && writePrice(total, lines[0].currency)}</span>
          </p>
          <label className="mt-4 block">
            <span className="head">Licence holder</span>
            <input
              className="field mt-1 w-full"
              maxLength={120}
              value={holder}
              placeholder="person or company"
              onChange={(e) => setHolder(e.target.value)}
            />
          </label>
          <p className="mt-5 flex justify-end gap-3">
            <button type="button" className="btn" onClick={onClose}>
              Back to the basket
            </button>
            <button type="button" className="btn btn-act" disabled={isSent || !lines.length} onClick={order}>
              {isSent ? "Ordering …" : "Place order"}
            </button>
          </p>
        </DialogPanel>
      </div>
    </Dialog>
  );
}

function BasketRow({ line: l, onTakeOut }: { line: BasketLine; onTakeOut: () => void }) {
  const { brief } = useBench();
  return (
    <li
      className="grid grid-cols-[minmax(0,1fr)_minmax(0,1.4fr)_110px_90px] items-center gap-4 border-b border-rule py-2"
      data-basket={l.styleId}
    >
      <Link className="font-semibold hover:underline" href={`/b/${brief.briefId}/style/${l.styleId}`}>
        {l.name}
      </Link>
      <span className="text-basalt">{l.uses.map((u) => USE_WORDS[u]).join(", ")}</span>
      <span className="num text-right">{writePrice(l.cents, l.currency)}</span>
      <button type="button" className="btn-quiet text-right underline" onClick={onTakeOut}>
        Remove
      </button>
    </li>
  );
}

const STATE_WORDS: Record<Order["state"], string> = {
  placed: "on its way",
  delivered: "delivered",
  failed: "failed, not charged",
};

function Orders() {
  const { brief, sayFault } = useBench();
  const queries = useQueryClient();
  const change = useChange();
  const jobs = useJobs(600);
  const buying = jobs.data?.jobs.filter((j) => j.kind === "buy") ?? [];
  const isBuying = buying.some((j) => j.state === "running" || j.state === "waiting");
  const orders = useQuery({
    ...queryOf("listOrders", {}),
    refetchInterval: isBuying ? 600 : 6000,
  });
  const wasBuying = useRef(false);
  useEffect(() => {
    if (wasBuying.current && !isBuying) void readAgain(queries, "basket", "orders", "styles", "kept", "libraries");
    wasBuying.current = isBuying;
  }, [isBuying, queries]);
  const again = (o: Order) => {
    change("resumeOrder", { params: { id: o.orderId } }).catch(sayFault);
  };
  if (!orders.data?.orders.length) return null;
  return (
    <section className="mt-8" aria-label="Orders">
      <h2 className="head mb-1">Orders</h2>
      <ul>
        {orders.data.orders.map((o) => {
          const failed = buying.find((j) => j.state === "failed" && j.message);
          return (
            <li key={o.orderId} className="border-t border-rule py-2" data-order={o.state}>
              <div className="grid grid-cols-[150px_minmax(0,1fr)_150px_110px] gap-4">
                <span className="num">{writeWhen(o.placedAt)}</span>
                <span>
                  {o.lines.map((l, i) => (
                    <span key={l.styleId}>
                      {i > 0 && ", "}
                      <Link className="font-semibold hover:underline" href={`/b/${brief.briefId}/style/${l.styleId}`}>
                        {l.name}
                      </Link>{" "}
                      <span className="text-basalt">({l.uses.map((u) => USE_WORDS[u]).join(", ")})</span>
                      {l.state === "failed" && <span className="text-madder"> not delivered, not charged</span>}
                    </span>
                  ))}
                </span>
                <span className={o.state === "failed" ? "text-madder" : o.state === "delivered" ? "text-lichen" : ""}>
                  {STATE_WORDS[o.state]}
                </span>
                <span className="num text-right">{writePrice(o.totalCents, o.currency)}</span>
              </div>
              {o.state !== "delivered" && !isBuying && failed && <p className="text-madder">{failed.message}</p>}
              {o.state === "placed" && !isBuying && (
                <button type="button" className="btn mt-1" onClick={() => again(o)}>
                  Fetch again
                </button>
              )}
              {o.receipt && (
                <details>
                  <summary className="text-basalt">Receipt</summary>
                  <pre
                    tabIndex={0}
                    className="mt-1 border-l-2 border-rule pl-4 font-mono text-[11.5px] whitespace-pre-wrap"
                  >
                    {o.receipt}
                  </pre>
                </details>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
