// A verdict as word and shape together, never as colour alone.
import type { Verdict } from "@/contracts/traits";
import { VERDICT_WORDS } from "@/contracts/words";
import { writePrice } from "./words";

const COLOURS: Record<Verdict, string> = {
  cleared: "var(--lichen)",
  "cleared-with-credit": "var(--lichen)",
  "buy-first": "var(--ochre)",
  "ask-maker": "var(--ochre)",
  "not-for-this-use": "var(--madder)",
  unread: "var(--basalt)",
};

function Shape({ verdict }: { verdict: Verdict }) {
  const fill = COLOURS[verdict];
  switch (verdict) {
    case "cleared":
      return <rect x={1} y={1} width={8} height={8} fill={fill} />;
    case "cleared-with-credit":
      return <path d="M1 1h8v8H1z M3.5 5.5h3" fill="none" stroke={fill} strokeWidth={2} />;
    case "buy-first":
      return <circle cx={5} cy={5} r={4} fill={fill} />;
    case "ask-maker":
      return <path d="M5 0.5 9.6 9H0.4z" fill={fill} />;
    case "not-for-this-use":
      return <path d="M1.5 1.5l7 7m0-7l-7 7" stroke={fill} strokeWidth={2} />;
    case "unread":
      return <circle cx={5} cy={5} r={3.5} fill="none" stroke={fill} strokeWidth={1.5} strokeDasharray="2 1.6" />;
  }
}

/** @param price - what the library asks for the brief's uses; only shown beside "Buy first". */
export function VerdictMark({
  verdict,
  price,
}: {
  verdict: Verdict;
  price?: { cents: number; currency: string } | null;
}) {
  return (
    <span className="inline-flex max-w-full items-center gap-1.5 whitespace-nowrap" title={VERDICT_WORDS[verdict]}>
      <svg width={10} height={10} viewBox="0 0 10 10" aria-hidden className="shrink-0">
        <Shape verdict={verdict} />
      </svg>
      <span className="truncate">{VERDICT_WORDS[verdict]}</span>
      {verdict === "buy-first" && price && <span className="num">{writePrice(price.cents, price.currency)}</span>}
    </span>
  );
}
