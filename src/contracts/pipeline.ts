// The ordered stages one font file passes on its way from bytes to the wall. All that records progress follows this list.

/**
 * Each stage and the version of its method. A stored result carries the version it was made with;
 * raising a number makes the reading job do that stage, and those behind it, again.
 */
export const PIPELINE = [
  { stage: "opened", version: 2 },
  { stage: "measured", version: 3 },
  { stage: "kinded", version: 2 },
  { stage: "signed", version: 2 },
  { stage: "indexed", version: 1 },
] as const;

export type Stage = (typeof PIPELINE)[number]["stage"];

/** One number for the whole pipeline, stored with each style: changes whenever any stage's method does. */
export const PIPELINE_VERSION = PIPELINE.reduce((sum, { version }) => sum + version, 0);
