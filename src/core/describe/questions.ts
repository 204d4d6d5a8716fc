// Questions on letter shapes that a person can answer from memory or a bad picture, and how well each answer fits a style's measures.
import type { Traits, Treatment } from "@/contracts/traits";

/** What is known of a style when it is asked about. */
export type Described = { traits: Traits; treatments: readonly Treatment[] };

export type Answer = { answerId: string; label: string };
export type Question = {
  questionId: string;
  text: string;
  /** Letters whose shape is asked about, to be drawn beside the answers. */
  letters: string;
  answers: readonly Answer[];
  /** Likelihood of each answer for a style, adding up to 1. */
  fits: (style: Described) => number[];
};

/** Share of the normal distribution below a value (Abramowitz and Stegun 26.2.17). */
function below(z: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(z));
  const tail =
    0.3989423 *
    Math.exp((-z * z) / 2) *
    t *
    (0.3193815 + t * (-0.3565638 + t * (1.781478 + t * (-1.821256 + t * 1.330274))));
  return z > 0 ? 1 - tail : tail;
}

const even = (n: number) => new Array<number>(n).fill(1 / n);

/** A measured number among ranges, as vaguely as an eye sees it. */
function byNumber(
  questionId: string,
  text: string,
  letters: string,
  valueOf: (s: Described) => number | null,
  vagueness: number,
  ranges: readonly (readonly [label: string, upTo: number])[],
): Question {
  return {
    questionId,
    text,
    letters,
    answers: ranges.map(([label], i) => ({ answerId: String(i), label })),
    fits: (style) => {
      const value = valueOf(style);
      if (value === null) return even(ranges.length);
      let before = 0;
      return ranges.map(([, upTo]) => {
        const now = upTo === Infinity ? 1 : below((upTo - value) / vagueness);
        const share = now - before;
        before = now;
        return Math.max(0, share);
      });
    },
  };
}

/** A kind of build among several; `slip` is how often an eye takes one for another. */
function byChoice<T extends string | number>(
  questionId: string,
  text: string,
  letters: string,
  valueOf: (s: Described) => T | null,
  slip: number,
  choices: readonly (readonly [label: string, value: T])[],
): Question {
  return {
    questionId,
    text,
    letters,
    answers: choices.map(([label], i) => ({ answerId: String(i), label })),
    fits: (style) => {
      const value = valueOf(style);
      const at = choices.findIndex(([, v]) => v === value);
      if (at < 0) return even(choices.length);
      return choices.map((_, i) => (i === at ? 1 - slip : slip / (choices.length - 1)));
    },
  };
}

/** Feet as an eye tells them: none, thin, swelling from the stem, as thick as the stem. */
function feetOf({ traits: { serif, serifThickness } }: Described): number | null {
  if (serif === null) return null;
  if (serif < 0.35) return 0;
  return serifThickness === null ? null : serifThickness < 0.3 ? 1 : serifThickness < 0.72 ? 2 : 3;
}

const treatmentOf = ({ treatments }: Described): string =>
  treatments.find((t) => ["outline", "inline", "shadow", "stencil", "pixel", "dotted"].includes(t)) ?? "solid";

export const QUESTIONS: readonly Question[] = [
  byChoice("feet", "Do the strokes end in feet (serifs)?", "InH", feetOf, 0.12, [
    ["No feet", 0],
    ["Thin ones", 1],
    ["Ones that swell from the stroke", 2],
    ["Blocks as thick as the stroke", 3],
  ]),
  byChoice("a", "How is the small a built?", "a", (s) => s.traits.storeysA, 0.04, [
    ["One storey, a ring and a stroke", 1],
    ["Two storeys, a roof over a bowl", 2],
  ]),
  byChoice("g", "How is the small g built?", "g", (s) => s.traits.storeysG, 0.04, [
    ["One storey, a ring and a tail", 1],
    ["Two storeys, two rings", 2],
  ]),
  byNumber("joined", "Do neighbouring letters join?", "min", (s) => s.traits.connected, 0.2, [
    ["No", 0.25],
    ["Some", 0.75],
    ["All along the word", Infinity],
  ]),
  byNumber(
    "contrast",
    "How much do thick and thin strokes differ?",
    "oen",
    (s) => s.traits.contrast && Math.log(s.traits.contrast),
    0.13,
    [
      ["Not at all", Math.log(1.12)],
      ["A little", Math.log(1.45)],
      ["Clearly", Math.log(2.4)],
      ["Very much", Infinity],
    ],
  ),
  byNumber("lean", "Do the letters lean?", "lHn", (s) => s.traits.slantDeg, 2.2, [
    ["They lean back", -3],
    ["They stand upright", 3],
    ["They lean a little", 11],
    ["They lean much", Infinity],
  ]),
  byNumber("weight", "How heavy are the strokes?", "lo", (s) => s.traits.weight, 65, [
    ["Hairlines", 200],
    ["Light", 340],
    ["As in a book", 490],
    ["Rather heavy", 640],
    ["Heavy", 810],
    ["As heavy as can be", Infinity],
  ]),
  byNumber("width", "How wide are the letters?", "no", (s) => s.traits.width, 0.45, [
    ["Very narrow", 3.6],
    ["Narrow", 4.9],
    ["Usual", 5.8],
    ["Wide", 6.8],
    ["Very wide", Infinity],
  ]),
  byNumber(
    "x-height",
    "How tall is a small x beside a capital?",
    "Xx",
    ({ traits: { xHeightEm, capHeightEm, cases } }) =>
      cases === "both" && xHeightEm && capHeightEm ? xHeightEm / capHeightEm : null,
    0.025,
    [
      ["Half of it or less", 0.58],
      ["Two thirds", 0.69],
      ["Nearly three quarters", 0.75],
      ["Taller still", Infinity],
    ],
  ),
  byNumber("ends", "How do strokes end?", "lts", (s) => s.traits.roundEnds, 0.15, [
    ["Cut off", 0.3],
    ["A little softened", 0.7],
    ["Round", Infinity],
  ]),
  byNumber("edges", "How are the edges?", "oS", (s) => s.traits.roughness, 0.025, [
    ["Clean", 0.045],
    ["A little uneven", 0.11],
    ["Rough, torn or brushed", Infinity],
  ]),
  byNumber("openings", "How open are c and e?", "ce", (s) => s.traits.aperture, 0.055, [
    ["Nearly closed", 0.3],
    ["Half open", 0.44],
    ["Open", 0.57],
    ["Wide open", Infinity],
  ]),
  byChoice("cases", "Are there lowercase letters?", "Aa", (s) => s.traits.cases, 0.03, [
    ["Yes", "both"],
    ["Only capitals in two sizes", "small-capitals"],
    ["Only capitals", "capitals-only"],
  ]),
  byChoice("advance", "Do i and m take the same room?", "im", (s) => Number(s.traits.monospaced), 0.04, [
    ["No", 0],
    ["Yes, as on a typewriter", 1],
  ]),
  byChoice("body", "Are the letters solid?", "BO", treatmentOf, 0.06, [
    ["Solid", "solid"],
    ["Only their outline", "outline"],
    ["A line inside", "inline"],
    ["With a shadow", "shadow"],
    ["Cut as a stencil", "stencil"],
    ["Made of squares", "pixel"],
    ["Made of dots", "dotted"],
  ]),
  byChoice("figures", "How do the figures stand?", "0369", (s) => s.traits.figures.height, 0.06, [
    ["All as tall as capitals", "lining"],
    ["Some rise, some hang", "old-style"],
  ]),
  byNumber(
    "stress",
    "Where is a round letter thinnest?",
    "oO",
    ({ traits: { stressDeg, contrast } }) =>
      contrast && contrast > 1.25 && stressDeg !== null ? Math.abs(stressDeg) : null,
    5,
    [
      ["Exactly at top and bottom", 5],
      ["A little turned", 14],
      ["Clearly turned", Infinity],
    ],
  ),
  byNumber(
    "ascenders",
    "How high do b, d and l rise?",
    "Hd",
    ({ traits: { ascenderEm, capHeightEm, cases } }) =>
      cases === "both" && ascenderEm && capHeightEm ? ascenderEm / capHeightEm : null,
    0.02,
    [
      ["Less than capitals", 0.97],
      ["As high as capitals", 1.03],
      ["A little higher", 1.1],
      ["Much higher", Infinity],
    ],
  ),
  byNumber(
    "descenders",
    "How long are the descenders of p and g?",
    "pg",
    ({ traits: { descenderEm, xHeightEm } }) => (descenderEm !== null && xHeightEm ? -descenderEm / xHeightEm : null),
    0.05,
    [
      ["Hardly", 0.32],
      ["Short", 0.43],
      ["Half the x-height", 0.55],
      ["Deep", Infinity],
    ],
  ),
];
