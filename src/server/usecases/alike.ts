// More like this: the nearest styles by measures, then by their letters' outlines, with what differs in words.
import type { AlikeList, StyleQuery } from "@/contracts/styles";
import { nearnessTo, tellDifferences } from "@/core/find/alike";
import type { FindRow } from "@/core/find/findIndex";
import { shapeDistance } from "@/core/descriptors/shapeDistance";
import type { Db } from "../db/open";
import { findBrief } from "../queries/briefs";
import { findSignature } from "../queries/styles";
import { answer, getHeld, toItem } from "./findings";

/** Styles whose outlines are compared, after measures chose them. */
const LOOKED_AT = 260;
/** How much outlines weigh beside measures. */
const SHAPE_SHARE = 0.55;

/** What two faces are alike in before their measures count: 2 for a kind and a treatment (or none in both), 1 for a kind. */
function likeness(a: FindRow, b: FindRow): number {
  const share = (x: readonly { value: string }[], y: readonly { value: string }[]) =>
    x.length === y.length && !x.length ? true : x.some((v) => y.some((w) => w.value === v.value));
  if (!share(a.kinds.slice(0, 1), b.kinds)) return share(a.treatments, b.treatments) && a.treatments.length ? 1 : 0;
  return share(a.treatments, b.treatments) ? 2 : 1;
}

/**
 * Answers GET /styles/:id/alike: filters and words as for finding ("heavier", "cheaper", "free to sell").
 * Other styles of the family come only when the words ask for more or less of a trait.
 * @returns null when the style is unknown.
 */
export function listAlike(db: Db, styleId: string, query: StyleQuery & { sameFirst?: boolean }): AlikeList | null {
  const held = getHeld(db, [styleId]);
  const { index } = held;
  const row = index.rowOf.get(styleId);
  if (row === undefined) return null;
  const brief = query.briefId ? findBrief(db, query.briefId) : null;
  const near = nearnessTo(index, row, true);
  const found = answer(
    db,
    held,
    { pictures: "out", ...query, near: styleId as StyleQuery["near"], sort: "near" },
    brief,
  );
  const own = findSignature(db, styleId);
  const candidates: { place: number; steps: number }[] = [];
  for (let place = 0; place < found.order.length && candidates.length < LOOKED_AT; place++) {
    const i = found.order[place]!;
    if (i === row || (index.family[i] === index.family[row] && !query.q)) continue;
    const other = own && findSignature(db, index.rows[i]!.styleId);
    const shape = own && other ? shapeDistance(own, other) : null;
    const steps = near[i]!;
    candidates.push({ place, steps: shape === null ? steps : (1 - SHAPE_SHARE) * steps + SHAPE_SHARE * shape });
  }
  const seen = new Set<number>();
  const groupOf = (place: number) =>
    query.sameFirst ? likeness(index.rows[row]!, index.rows[found.order[place]!]!) : 0;
  const items = candidates
    .sort((a, b) => groupOf(b.place) - groupOf(a.place) || a.steps - b.steps)
    // One style per family: its nearest.
    .filter(({ place }) => {
      const family = index.family[found.order[place]!]!;
      return seen.has(family) ? false : seen.add(family);
    })
    .slice(0, query.limit)
    .map(({ place, steps }) => {
      const item = toItem(found.at(place), held, found);
      return {
        ...item,
        distance: Number(steps.toFixed(3)),
        differs: tellDifferences(index.rows[row]!.traits, item.traits),
      };
    });
  return { items, understood: found.understood, ranges: held.ranges };
}
