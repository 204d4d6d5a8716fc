// The vocabulary as a whole: every phrase means what its entry says, in a sentence too, and none stands in another's way.
import { describe, expect, test } from "@jest/globals";
import { SIEVE_TRAITS } from "@/contracts/traits";
import { MOODS } from "../kind/moods";
import { NO_LEXICON, parseWords } from "./parseWords";
import { COMPARATIVES, FILLERS, VOCABULARY, type Wish } from "./vocabulary";

const read = (q: string) => parseWords(q, NO_LEXICON);
const seen = new Set<string>();
/** A phrase that stands in two entries means the first. */
const firsts = VOCABULARY.flatMap(({ phrases, wish }) =>
  phrases.flatMap((phrase): [string, Wish][] => (seen.has(phrase) ? [] : (seen.add(phrase), [[phrase, wish]]))),
);

describe("the vocabulary", () => {
  test.each(firsts)("“%s”", (phrase, wish) => {
    const { wishes, ignored } = read(phrase);
    expect(ignored).toEqual([]);
    expect(wishes.map((w) => w.wish.label)).toContain(wish.label);
  });

  test("a phrase after another is still understood", () => {
    const { wishes } = read("narrow, old typewriter, with italics");
    expect(wishes.map((w) => w.wish.label)).toEqual(["narrow", "typewriter", "family has italics"]);
  });

  test("labels are short, traits exist, ranges have at least one end", () => {
    for (const { wish } of VOCABULARY) {
      expect(wish.label.length).toBeLessThan(28);
      if (wish.type !== "trait") continue;
      expect(SIEVE_TRAITS).toContain(wish.trait);
      expect(wish.min !== undefined || wish.max !== undefined).toBe(true);
    }
    for (const { trait } of Object.values(COMPARATIVES)) expect(SIEVE_TRAITS).toContain(trait);
  });

  test("every mood can be asked for by its own word, and none is a filler", () => {
    for (const { word } of MOODS) {
      expect(read(word).wishes.map((w) => w.wish)).toMatchObject([{ type: "mood", moods: [word] }]);
      expect(FILLERS.has(word)).toBe(false);
    }
  });

  test.each([
    ["an elegant serif for a booklet", ["elegant", "serif", "book text"]],
    ["something spooky with an exclamation mark", ["eerie", "has !"]],
    ["legible at small sizes, tabular figures, under 30", ["legible small", "tabular figures", "under 30"]],
    ["not too heavy", ["heavy"]],
    ["the face should be friendly and not rough", ["friendly", "not rough"]],
    ["heavy heavy", ["heavy", "heavy"]],
  ])("“%s”", (q, labels) => expect(read(q).wishes.map((w) => w.wish.label)).toEqual(labels));

  test.each(["", "   ", ",,;", "and or the"])("“%s” asks for nothing", (q) => expect(read(q).wishes).toEqual([]));

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
    expect(read("😀 heavy").wishes.map((w) => w.wish.label)).toEqual(["heavy"]);
  });
});
