"use client";
// The basket, by library; what was ordered before, with its receipts.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import Link from "next/link";
import { useEffect, useRef } from "react";
import type { Basket, BasketLine, Library, Order } from "@/contracts/libraries";
import { USE_WORDS } from "@/contracts/words";
import { useBench } from "../bench/BenchContext";
import { useJobs } from "../bench/FootLine";
import { callApi } from "../parts/api";
import { writePrice, writeWhen } from "../parts/words";
import { useBasket } from "./useBasket";

export function BasketPanel() {
  const { sayFault, offerUndo } = useBench();
  const queries = useQueryClient();
  const basket = useBasket();
  const libraries = useQuery({
    queryKey: ["libraries"],
    queryFn: () => callApi<{ libraries: Library[] }>("/libraries"),
  });
  const lines = basket.data?.lines ?? [];
  const byLibrary = [...new Set(lines.map((l) => l.libraryId))].map(
    (id) => [id, lines.filter((l) => l.libraryId === id)] as const,
  );
  const put = (l: BasketLine) =>
    callApi<Basket>(`/basket/${l.styleId}`, { method: "PUT", json: { uses: l.uses } }).then((b) =>
      queries.setQueryData(["basket"], b),
    );
  const takeOut = (l: BasketLine) => {
    callApi<Basket>(`/basket/${l.styleId}`, { method: "DELETE" })
      .then((b) => {
        queries.setQueryData(["basket"], b);
        offerUndo(`${l.name} taken out of the basket`, () => void put(l).catch(sayFault));
      })
      .catch(sayFault);
  };
  const order = (libraryId: string) => {
    callApi("/orders", { method: "POST", json: { libraryId } })
      .then(() => {
        for (const key of ["orders", "health", "jobs"]) void queries.invalidateQueries({ queryKey: [key] });
      })
      .catch(sayFault);
  };
  return (
    <>
      {!lines.length && (
        <p className="mt-4 text-basalt">
          The basket is empty. Faces that are not bought yet stand on the wall with their price; their page puts them in
          here.
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
                In all <span className="num text-slate">{writePrice(total, rows[0]!.currency)}</span>
              </span>
              <button type="button" className="btn btn-act" onClick={() => order(libraryId)}>
                Order from {libraries.data?.libraries.find((x) => x.libraryId === libraryId)?.name ?? libraryId}
              </button>
            </p>
          </section>
        );
      })}
      <Orders />
    </>
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
        Take out
      </button>
    </li>
  );
}

const STATE_WORDS: Record<Order["state"], string> = {
  placed: "on its way",
  delivered: "delivered and read",
  failed: "nothing was bought",
};

function Orders() {
  const { brief, sayFault } = useBench();
  const queries = useQueryClient();
  const jobs = useJobs(600);
  const buying = jobs.data?.jobs.filter((j) => j.kind === "buy") ?? [];
  const isBuying = buying.some((j) => j.state === "running" || j.state === "waiting");
  const orders = useQuery({
    queryKey: ["orders"],
    queryFn: () => callApi<{ orders: Order[] }>("/orders"),
    refetchInterval: isBuying ? 600 : 6000,
  });
  const wasBuying = useRef(false);
  useEffect(() => {
    if (wasBuying.current && !isBuying)
      for (const key of ["basket", "orders", "styles", "kept", "libraries"])
        void queries.invalidateQueries({ queryKey: [key] });
    wasBuying.current = isBuying;
  }, [isBuying, queries]);
  const again = (o: Order) => {
    callApi(`/orders/${o.orderId}`, { method: "POST" })
      .then(() => queries.invalidateQueries({ queryKey: ["jobs"] }))
      .catch(sayFault);
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
