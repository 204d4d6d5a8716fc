// Families that go by a word which was read as something else: "rock" is a look, and Rock Salt a name.
import { plainestIn, type FindIndex } from "./findIndex";
import { squash, type NameIndex } from "./nameIndex";
import { FILLERS, type Constraint } from "./vocabulary";

const MOST_NAMED = 6;
/** In a longer sentence a word is no name that somebody looks for. */
const MOST_WORDS = 2;
const SHORTEST = 3;

/** The family that is called just what was asked for. */
export const wholeNamed = (index: FindIndex, words: string): number | null => index.names.at.get(squash(words)) ?? null;

/** @returns the plainest style of each such family, whole names first, then in the order of names. */
export function nameBeside(index: FindIndex, words: string, constraints: readonly Constraint[]): Uint32Array {
  const tokens = words
    .toLowerCase()
    .split(/[\s,;]+/)
    .filter((t) => t.length >= SHORTEST && !FILLERS.has(t));
  if (!tokens.length || tokens.length > MOST_WORDS) return new Uint32Array();
  if (constraints.some((c) => c.type === "name" || c.type === "foundry" || c.type === "like")) return new Uint32Array();
  const found = (byBeginning(index).get(tokens[0]!.slice(0, SHORTEST)) ?? [])
    .filter(({ words: ofName }) => tokens.every((t) => ofName.some((w) => w.startsWith(t))))
    .map(({ family, words: ofName }) => ({ family, isWhole: ofName.join(" ") === tokens.join(" ") }));
  found.sort((a, b) => Number(b.isWhole) - Number(a.isWhole) || a.family - b.family);
  return Uint32Array.from(found.slice(0, MOST_NAMED), ({ family }) => plainestIn(index, family));
}

type Named = { family: number; words: string[] };
const beginnings = new WeakMap<NameIndex, Map<string, Named[]>>();
/** Families by the first letters of each word of their names; made once, for every index of the same names. */
function byBeginning({ names }: FindIndex): Map<string, Named[]> {
  let out = beginnings.get(names);
  if (!out) {
    out = new Map();
    beginnings.set(names, out);
    for (const [family, name] of names.names.entries()) {
      const words = name.toLowerCase().split(/\s+/);
      for (const start of new Set(words.map((w) => w.slice(0, SHORTEST)))) {
        const list = out.get(start);
        if (list) list.push({ family, words });
        else out.set(start, [{ family, words }]);
      }
    }
  }
  return out;
}
