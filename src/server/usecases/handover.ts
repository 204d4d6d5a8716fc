// What an archive of a brief holds before it is made: which faces go in, which are left out and why, and which need somebody's word.
import type { HandoverOptions, HandoverPlan } from "@/contracts/jobs";
import type { JobId, StyleId } from "@/contracts/ids";
import { refuse, succeed, type Outcome } from "@/contracts/errors";
import { VERDICT_WORDS } from "@/contracts/words";
import { uniqueBy } from "@/core/identify/ranking/uniqueBy";
import type { Db } from "../db/open";
import { addJob } from "../queue/queue";
import { findBrief } from "../queries/briefs";
import { gatherShortlist, type ShortlistStyle } from "./shortlist";

const isCleared = (s: ShortlistStyle) => s.verdict === "cleared" || s.verdict === "cleared-with-credit";
const nameOf = ({ record }: ShortlistStyle) => `${record.family} ${record.style}`;

/** A face that is kept at several places on its axes is one file. */
export const oncePerFile = (styles: readonly ShortlistStyle[]) => uniqueBy(styles, (s) => s.record.styleId);

/** Faces whose file is here, and that are cleared or were answered for, go in. */
export function sortForHandover(styles: ShortlistStyle[], responsibleFor: readonly string[]) {
  const inside: ShortlistStyle[] = [];
  const leftOut: { style: ShortlistStyle; why: string }[] = [];
  for (const style of styles) {
    if (!style.record.owned) leftOut.push({ style, why: "It is not bought yet: its file is not here." });
    else if (isCleared(style) || responsibleFor.includes(style.record.styleId)) inside.push(style);
    else leftOut.push({ style, why: `${VERDICT_WORDS[style.verdict]}: nobody answered for it.` });
  }
  return { inside, leftOut };
}

/** Answers GET /briefs/:id/handover. */
export function planHandover(db: Db, briefId: string): HandoverPlan | null {
  if (!findBrief(db, briefId)) return null;
  const styles = oncePerFile(gatherShortlist(db, briefId).styles);
  const toItem = (s: ShortlistStyle) => ({
    styleId: s.record.styleId as StyleId,
    name: nameOf(s),
    verdict: s.verdict,
    hasWebFile: s.record.format === "woff2",
  });
  return {
    cleared: styles.filter((s) => s.record.owned && isCleared(s)).map(toItem),
    toAnswerFor: styles.filter((s) => s.record.owned && !isCleared(s)).map(toItem),
    notOwned: styles.filter((s) => !s.record.owned).map(toItem),
  };
}

/** Starts an archive. Refused when nothing would be inside. */
export function startHandover(db: Db, briefId: string, options: HandoverOptions): Outcome<{ jobId: JobId }> {
  const brief = findBrief(db, briefId);
  if (!brief) return refuse("not-found");
  const { styles } = gatherShortlist(db, briefId, options.styleIds);
  if (!styles.length) return refuse("nothing-kept");
  return succeed({ jobId: addJob("handover", `Hand over ${brief.name}`, { briefId, options }, briefId) });
}
