// What the find field offers while somebody types: families, makers and words that continue the last ones typed.
import type { FindIndex } from "./findIndex";
import { nearNames, slipsAllowed, squash } from "./nameIndex";
import { COMPARATIVES, VOCABULARY } from "./vocabulary";

type Suggestion = {
  kind: "family" | "foundry" | "word";
  /** What is shown. */
  label: string;
  /** The whole field after it is taken. */
  becomes: string;
  /** A family's number of styles, or the group of a word. */
  note: string;
};

const MAX_FAMILIES = 5;
const MAX_WORDS = 5;
const GROUPS: Record<string, string> = {
  kind: "kind",
  vox: "class",
  treatment: "treatment",
  trait: "shape",
  mood: "mood, use",
  feature: "features",
  case: "letters",
  figures: "figures",
  uses: "licence",
  price: "price",
};

/** @param typed - the field up to the caret. @returns at most a dozen, families first. */
export function suggestWords(index: FindIndex, typed: string): Suggestion[] {
  const words = typed.split(/\s+/);
  const out: Suggestion[] = [];
  const taken = new Set<string>();
  const add = (s: Suggestion) => {
    if (!taken.has(s.becomes)) out.push(s);
    taken.add(s.becomes);
  };
  // The last three words first: "playfair dis" goes on to a family, "heavy old" to "heavy old book".
  for (let n = Math.min(3, words.length); n >= 1; n--) {
    const tail = words.slice(-n).join(" ").toLowerCase();
    const head = words.slice(0, -n).join(" ");
    const becomes = (label: string) => `${head ? `${head} ` : ""}${label}`;
    if (squash(tail).length < 2) continue;
    for (const f of familiesFor(index, tail)) {
      const { name, styles } = index.families[f]!;
      add({ kind: "family", label: name, becomes: becomes(name), note: styles === 1 ? "1 style" : `${styles} styles` });
    }
    index.foundries.squashed.forEach((name, i) => {
      if (name.startsWith(squash(tail)) && out.filter((s) => s.kind === "foundry").length < 2)
        add({
          kind: "foundry",
          label: index.foundries.names[i]!,
          becomes: becomes(index.foundries.names[i]!),
          note: "maker",
        });
    });
    for (const { phrase, note } of phrasesFor(tail))
      if (out.filter((s) => s.kind === "word").length < MAX_WORDS)
        add({ kind: "word", label: phrase, becomes: becomes(phrase), note });
  }
  return out.slice(0, 12);
}

function familiesFor(index: FindIndex, tail: string): number[] {
  const asked = squash(tail);
  const starting = new Set<number>();
  for (let i = 0; i < index.names.squashed.length && starting.size < 40; i++)
    if (index.names.squashed[i]!.startsWith(asked)) starting.add(index.names.of[i]!);
  if (starting.size)
    return [...starting]
      .sort((a, b) => index.names.names[a]!.length - index.names.names[b]!.length || a - b)
      .slice(0, MAX_FAMILIES);
  const allowed = slipsAllowed(asked.length);
  return allowed
    ? nearNames(index.names, asked, allowed)
        .slice(0, 3)
        .map((n) => n.at)
    : [];
}

const PHRASES = [
  ...VOCABULARY.flatMap(({ phrases, constraint }) =>
    phrases.slice(0, 4).map((phrase) => ({ phrase, note: GROUPS[constraint.type] ?? "" })),
  ),
  ...Object.keys(COMPARATIVES).map((phrase) => ({ phrase, note: "compares" })),
];
const phrasesFor = (tail: string) =>
  PHRASES.filter((p) => p.phrase.startsWith(tail) && p.phrase !== tail).sort(
    (a, b) => a.phrase.length - b.phrase.length,
  );
