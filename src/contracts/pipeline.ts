// The ordered stages one font file passes on its way from bytes to the wall: the list that runs (core/read), each with the version of its
// method. What is stored of a style says which versions it was made with; only stages that changed, and those behind them, run again.

export const PIPELINE = [
  { stage: "opened", version: 3, needs: [] },
  { stage: "fingerprinted", version: 1, needs: ["opened"] },
  { stage: "measured", version: 9, needs: ["opened"] },
  { stage: "described", version: 3, needs: ["opened"] },
  { stage: "classified", version: 6, needs: ["opened", "measured", "described"] },
  { stage: "checked", version: 1, needs: ["opened"] },
  { stage: "varied", version: 1, needs: ["opened", "measured"] },
] as const satisfies { stage: string; version: number; needs: readonly string[] }[];

export type Stage = (typeof PIPELINE)[number]["stage"];
export const STAGES: readonly Stage[] = PIPELINE.map((p) => p.stage);

/** What a style needs to be on the wall: names, characters, and whose letters they are. */
export const FIRST_STAGES: readonly Stage[] = ["opened", "fingerprinted"];

/**
 * Stages that are to run, in their order: those that were done with another version or not at all, and those that need them.
 * @param done - stage → the version it was done with.
 */
export function findStale(done: Readonly<Partial<Record<Stage, number>>>): Stage[] {
  const stale = new Set<string>();
  for (const { stage, version, needs } of PIPELINE)
    if (done[stage] !== version || needs.some((n) => stale.has(n))) stale.add(stage);
  return STAGES.filter((s) => stale.has(s));
}
