// Verdicts of a record and which of several is the strictest. Apart from the reading itself, so that the interface carries no licence texts.
import type { Rights } from "@/contracts/rights";
import { VERDICTS, type Use, type Verdict } from "@/contracts/traits";

/** The verdicts of a record without their quotes. */
export const verdictsOf = (rights: Rights): Partial<Record<Use, Verdict>> =>
  Object.fromEntries(Object.entries(rights.verdicts).map(([use, v]) => [use, v.verdict]));

/** The verdict for several uses at once: the strictest of theirs. No uses: as for private use. */
export function strictestVerdict(verdicts: Partial<Record<Use, Verdict>>, uses: readonly Use[]): Verdict {
  const asked = uses.length ? uses : (["private"] as const);
  const ranks = asked.map((use) => VERDICTS.indexOf(verdicts[use] ?? "unread"));
  return VERDICTS[Math.max(...ranks)]!;
}
