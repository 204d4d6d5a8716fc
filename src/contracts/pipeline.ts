// The ordered stages one font file passes on its way from bytes to the wall. All that records progress follows this list.

/**
 * Each stage and the version of its method. A stored result carries the versions it was made with, as one number;
 * raising any of them makes the job read the font again, through all stages.
 */
const PIPELINE = [
  { stage: "opened", version: 2 },
  { stage: "measured", version: 5 },
  { stage: "classified", version: 2 },
  { stage: "signed", version: 3 },
  { stage: "indexed", version: 2 },
] as const;

/** Versions below this each have a place of their own in the number. */
const PLACES = 64;

/** One number for the whole pipeline, stored with each style. No two lists of versions share one. */
export const PIPELINE_VERSION = PIPELINE.reduce((all, { version }) => all * PLACES + version, 0);
