// The vocabulary as a whole: every phrase means what its entry says, in a sentence too, and none stands in another's way.
import { describe, expect, test } from "@jest/globals";
import { SIEVE_TRAITS } from "@/contracts/traits";
import { MOODS } from "../kind/moods";
import { NO_LEXICON, parseWords } from "./parseWords";
import { COMPARATIVES, FILLERS, VOCABULARY, type Constraint } from "./vocabulary";

const read = (q: string) => parseWords(q, NO_LEXICON);
const seen = new Set<string>();
/** A phrase that stands in two entries means the first. */
const firsts = VOCABULARY.flatMap(({ phrases, constraint }) =>
  phrases.flatMap((phrase): [string, Constraint][] =>
    seen.has(phrase) ? [] : (seen.add(phrase), [[phrase, constraint]]),
  ),
);

describe("the vocabulary", () => {
  test.each(firsts)("“%s”", (phrase, constraint) => {
    const { constraints, ignored } = read(phrase);
    expect(ignored).toEqual([]);
    expect(constraints.map((w) => w.constraint.label)).toContain(constraint.label);
  });

  test("a phrase after another is still understood", () => {
    const { constraints } = read("narrow, old typewriter, with italics");
    expect(constraints.map((w) => w.constraint.label)).toEqual(["narrow", "typewriter", "family has italics"]);
  });

  test("labels are short, traits exist, ranges have at least one end", () => {
    for (const { constraint } of VOCABULARY) {
      expect(constraint.label.length).toBeLessThan(28);
      if (constraint.type !== "trait") continue;
      expect(SIEVE_TRAITS).toContain(constraint.trait);
      expect(constraint.min !== undefined || constraint.max !== undefined).toBe(true);
    }
    for (const { trait } of Object.values(COMPARATIVES)) expect(SIEVE_TRAITS).toContain(trait);
  });

  test("every mood can be asked for by its own word, and none is a filler", () => {
    for (const { word } of MOODS) {
      expect(read(word).constraints.map((w) => w.constraint)).toMatchObject([{ type: "mood", moods: [word] }]);
      expect(FILLERS.has(word)).toBe(false);
    }
  });

  test.each([
    ["an elegant serif for a booklet", ["elegant", "serif", "book text"]],
    ["something eerie with an exclamation mark", ["eerie", "has !"]],
    ["legible at small sizes, tabular figures, under 30", ["legible small", "tabular figures", "under 30"]],
    ["not too heavy", ["heavy"]],
    ["the face should be friendly and not rough", ["friendly", "not rough"]],
    ["heavy heavy", ["heavy", "heavy"]],
  ])("“%s”", (q, labels) => expect(read(q).constraints.map((w) => w.constraint.label)).toEqual(labels));

  test.each(["", "   ", ",,;", "and or the"])("“%s” asks for nothing", (q) => expect(read(q).constraints).toEqual([]));

  test("odd input does no harm", () => {
    for (const q of [
      "a".repeat(200),
      "' OR 1=1 --",
      "<script>",
      "😀 heavy",
      "%00",
      "has has has",
      "under under 40",
      "like like",
      "at least at least",
    ])
      expect(() => read(q)).not.toThrow();
    expect(read("😀 heavy").constraints.map((w) => w.constraint.label)).toEqual(["heavy"]);
  });
});
