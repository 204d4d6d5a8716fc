// What the map lays out: the plainest style of each family, and its measures as one vector in which distance is unlikeness.
import { KINDS } from "@/contracts/traits";
import { KIND_STEPS, STEPS, TRAITS } from "./alike";
import { hasBit, plainestIn, type FindIndex } from "./findIndex";
import { quantile } from "../geometry/numbers";

/** A value never counts for more steps than this beside the usual. */
const MAX_STEPS = 5;

export type MapFace = { row: number; vector: Float32Array };

/** @returns one entry per family, in the order of the index: vectors of noticeable steps from the usual value, then kinds. */
export function mapVectors(index: FindIndex): MapFace[] {
  const usual = new Map(
    TRAITS.map((t) => [
      t,
      quantile(
        [...index.traits[t].values].filter((v) => !Number.isNaN(v)),
        0.5,
      ) ?? 0,
    ]),
  );
  return index.families.map((_, family) => {
    const row = plainestIn(index, family);
    const measures = TRAITS.map((trait) => {
      const value = index.traits[trait].values[row]!;
      const steps = Number.isNaN(value) ? 0 : (value - usual.get(trait)!) / STEPS[trait]!;
      return Math.max(-MAX_STEPS, Math.min(MAX_STEPS, steps));
    });
    const kinds = index.kinds.list[index.kinds.of[row]!]!;
    return {
      row,
      vector: Float32Array.from([
        ...measures,
        ...KINDS.map((kind) => (hasBit(KINDS, kinds, kind) ? KIND_STEPS / Math.SQRT2 : 0)),
      ]),
    };
  });
}
