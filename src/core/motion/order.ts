// Which part of a block runs how late: letters, words or lines one after another.
import type { PerLetter } from "@/contracts/motion";
import { seededRandom } from "../geometry/numbers";

/** What is known of a letter where its turn is found. */
type Lettered = { at: number; text: string; line: number };

/**
 * The turn of each letter, by its index in the block: 0 runs at once, 1 a step later, and so on.
 * @param letters - of one block, in any order.
 */
export function turnsOf(letters: readonly Lettered[], { order, unit = "letter" }: PerLetter): Map<number, number> {
  const ordered = [...letters].sort((a, b) => a.at - b.at);
  const units = unitsOf(ordered, unit);
  const count = Math.max(0, ...units) + 1;
  const shuffled = order === "shuffled" ? shuffle(count) : null;
  const turnOf = (i: number) => {
    if (order === "last") return count - 1 - i;
    if (order === "middle") return Math.floor(Math.abs(i - (count - 1) / 2));
    return shuffled ? shuffled[i]! : i;
  };
  return new Map(ordered.map((letter, i) => [letter.at, turnOf(units[i]!)]));
}

/** The number of the unit that each letter is part of. */
function unitsOf(ordered: readonly Lettered[], unit: NonNullable<PerLetter["unit"]>): number[] {
  if (unit === "letter") return ordered.map((l) => l.at);
  if (unit === "line") return ordered.map((l) => l.line);
  let [word, wasSpace, line] = [0, false, ordered[0]?.line ?? 0];
  return ordered.map((letter) => {
    const isSpace = !letter.text.trim();
    if ((wasSpace && !isSpace) || letter.line !== line) word++;
    [wasSpace, line] = [isSpace, letter.line];
    return word;
  });
}

const SEED = 20_261;
/** The same order every time, so that a preview and its film agree (Fisher–Yates). */
function shuffle(count: number): number[] {
  const order = Array.from({ length: count }, (_, i) => i);
  const random = seededRandom(SEED);
  for (let i = count - 1; i > 0; i--) {
    const k = Math.floor(random() * (i + 1));
    [order[i], order[k]] = [order[k]!, order[i]!];
  }
  return order;
}
