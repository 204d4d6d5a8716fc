// Reading by shape: every style spells the cut letters in its own alphabet, and the one that spells best is believed. Reading and
// matching help one another: a letter reader's guess counts where it fits the shapes, and is doubted where no face draws it so.
import { sumInk } from "../../geometry/raster";
import type { InkLine, InkReadings } from "../../picture/readPicture";
import type { CutBox } from "../../picture/straighten";
import { COARSE_WEIGHTS, fitLine, formIn, trimmedMean } from "../ranking/coarse";
import { uniqueBy } from "../ranking/uniqueBy";
import { SignatureIndex, type GlyphBox } from "../../descriptors/extractDescriptors";

// Taken out of the global object once: the loops below call them millions of times.
const { abs, ceil, log, max, min } = Math;

const ALPHABET = [..."ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789&!?.,:-–’'/"];
/** Entries that are asked to spell, spread over the families, and how many of them a second time with heights and widths. */
const SPELLERS = 420;
const GOOD_SPELLERS = 24;
/** Letters a style offers for a cut. */
const OFFERS = 4;
/** What a letter reader's guess is worth against the shapes, in coarse cost. */
const GUESS_WORTH = 0.12;
const HEIGHT_WEIGHT = 5;
const WIDTH_WEIGHT = 2.5;
const ASPECT_WEIGHT = 0.35;
/** A gap between cuts that parts words, in em and against the usual gap. */
const WORD_GAP_EM = 0.14;
const WORD_GAP_TIMES = 1.9;

type ShapeReading = { text: string; cost: number };

/**
 * Spells the cut letters of a line.
 * @param guess - what a letter reader made of it, or null.
 * @returns the text with spaces, and the trimmed mean of its letters' distances; null without letters or styles.
 */
export function readByShape(line: InkLine, index: SignatureIndex, guess: string | null): ShapeReading | null {
  const cuts = line.letters;
  if (!cuts.length || !index.ids.length) return null;
  const sums = sumInk(line.strip);
  const forms = cuts.map((b) => formIn(sums, b));
  const positions = ALPHABET.map((c) => SignatureIndex.at(c));
  const guessed = guess ? [...guess.replace(/\s/g, "")] : [];
  const prior = guessed.length === cuts.length ? guessed : null;
  const every = max(1, ceil(index.ids.length / SPELLERS));
  const spelt: { entry: number; letters: number[]; cost: number }[] = [];
  for (let entry = 0; entry < index.ids.length; entry += every) {
    const boxes = positions.map((s) => index.box(entry, s));
    if (boxes.filter(Boolean).length < 20) continue;
    const letters: number[] = [];
    const costs = cuts.map((cut, k) => {
      const [first] = offer(cut, forms[k]!, boxes, (c) => priorOf(prior, k, c), entry, positions, index);
      letters.push(first!.letter);
      return first!.cost;
    });
    spelt.push({ entry, letters, cost: trimmedMean(costs) });
  }
  spelt.sort((a, b) => a.cost - b.cost);
  let best: { letters: number[]; cost: number; scalePx: number } | null = null;
  for (const { entry, letters } of spelt.slice(0, GOOD_SPELLERS)) {
    const again = spellOnLine(cuts, forms, letters, entry, positions, index, prior);
    if (again && (!best || again.cost < best.cost)) best = again;
  }
  if (!best) return null;
  const { letters, cost, scalePx } = best;
  return { text: withSpaces(cuts, letters, scalePx, guess), cost };
}

const priorOf = (prior: string[] | null, k: number, letter: number) =>
  prior && prior[k] === ALPHABET[letter] ? -GUESS_WORTH : 0;

/** The letters of a style that come nearest to a cut by form and proportion, nearest first. */
function offer(
  cut: CutBox,
  form: Int8Array,
  boxes: (GlyphBox | null)[],
  prior: (letter: number) => number,
  entry: number,
  positions: number[],
  index: SignatureIndex,
): { letter: number; cost: number }[] {
  const aspect = log(max(0.05, (cut.right - cut.left) / max(1, cut.bottom - cut.top)));
  const best: { letter: number; cost: number }[] = [];
  for (let letter = 0; letter < positions.length; letter++) {
    const b = boxes[letter];
    if (!b) continue;
    const own = log(max(0.05, (b.right - b.left) / max(1e-3, b.top - b.bottom)));
    const off = ASPECT_WEIGHT * min(2, abs(aspect - own)) + prior(letter);
    if (best.length === OFFERS && off > best[OFFERS - 1]!.cost) continue;
    const cost = off + index.distance(entry, positions[letter]!, form, COARSE_WEIGHTS);
    if (best.length < OFFERS || cost < best[best.length - 1]!.cost) {
      best.push({ letter, cost });
      best.sort((p, q) => p.cost - q.cost);
      best.length = min(best.length, OFFERS);
    }
  }
  return best;
}

/** Spells again with the line known: tops, bottoms and widths tell o from O and comma from apostrophe. */
function spellOnLine(
  cuts: CutBox[],
  forms: Int8Array[],
  begun: number[],
  entry: number,
  positions: number[],
  index: SignatureIndex,
  prior: string[] | null,
): { letters: number[]; cost: number; scalePx: number } | null {
  const boxes = positions.map((s) => index.box(entry, s));
  let letters = begun;
  let result: { letters: number[]; cost: number; scalePx: number } | null = null;
  for (let round = 0; round < 3; round++) {
    const fit = fitLine(
      cuts,
      letters.map((l) => boxes[l]!),
    );
    if (!fit || fit.aspect < 0.4 || fit.aspect > 2.5) return result;
    const { baselinePx, slope, scalePx, aspect } = fit;
    const costs: number[] = [];
    letters = cuts.map((cut, k) => {
      const base = baselinePx + (slope * (cut.left + cut.right)) / 2;
      let best = { letter: begun[k]!, cost: Infinity };
      for (let letter = 0; letter < positions.length; letter++) {
        const b = boxes[letter];
        if (!b) continue;
        const offTop = abs((base - cut.top) / scalePx - b.top);
        const offBottom = abs((base - cut.bottom) / scalePx - b.bottom);
        const offWidth = abs((cut.right - cut.left) / (scalePx * aspect) - (b.right - b.left));
        const off =
          HEIGHT_WEIGHT * min(0.4, (offTop + offBottom) / 2) +
          WIDTH_WEIGHT * min(0.4, offWidth) +
          priorOf(prior, k, letter);
        if (off >= best.cost) continue;
        const cost = off + index.distance(entry, positions[letter]!, forms[k]!, COARSE_WEIGHTS);
        if (cost < best.cost) best = { letter, cost };
      }
      costs.push(best.cost);
      return best.letter;
    });
    result = { letters, cost: trimmedMean(costs), scalePx };
  }
  return result;
}

function withSpaces(cuts: CutBox[], letters: number[], scalePx: number, guess: string | null): string {
  const plain = letters.map((l) => ALPHABET[l]!);
  const guessed = guess?.trim().split(/\s+/) ?? [];
  if (guessed.join("").length === plain.length) {
    const starts = new Set<number>();
    guessed.reduce((at, w) => {
      starts.add(at);
      return at + w.length;
    }, 0);
    return plain.map((c, i) => (i && starts.has(i) ? ` ${c}` : c)).join("");
  }
  const gaps = cuts.slice(1).map((c, i) => c.left - cuts[i]!.right);
  const usual = [...gaps].sort((a, b) => a - b)[gaps.length >> 1] ?? 0;
  return plain
    .map((c, i) => {
      const gap = i ? gaps[i - 1]! : 0;
      return gap > WORD_GAP_EM * scalePx && gap > WORD_GAP_TIMES * max(1, usual) ? ` ${c}` : c;
    })
    .join("");
}

/** How a line is shown to a letter reader. What it cannot make out one way it often can another: scripts above all. */
export type Shown = "as it is" | "softer" | "smaller" | "leaning less";
/** A letter reader: a line of ink → its text, empty where it reads nothing. */
type LetterReader = (line: InkLine, shown: Shown) => Promise<{ text: string; confidence: number }>;
/**
 * How far a line is from the nearest face set in a text: 0 = the same, 1 = nothing alike.
 * `by`: its cut letters alone, where there are as many as characters, or the line in any way, which takes many times as long.
 */
export type TextFit = (line: InkLine, text: string, by: "cuts" | "any way") => Promise<number>;
type Reading = { text: string; confidence: number; byReader: string };

/** How much better another reading must fit than the letter reader's own. */
const READER_TRUST = 0.9;
/** A fit by cuts under which nothing else is tried. */
const CLEAR_FIT = 0.2;
/** A fit from which the line is shown to the letter reader otherwise; under it no further hypotheses of the ink are read. */
const DOUBTED_FIT = 0.4;
/** A fit from which another hypothesis of the ink is read too; and how much better that must be. */
const UNSURE_FIT = 0.5;
const OTHER_INK_FACTOR = 1.25;

/**
 * Reads a line whose text is not known: the letter reader's guess, the shapes' own reading, or the guess in capitals, whichever a
 * face of the library draws most alike.
 * @returns the likeliest text, empty when nothing can be read; confidence 0–1 falls with the distance of the nearest face.
 */
export async function readWords(
  lines: InkReadings,
  index: SignatureIndex,
  fitOf: TextFit,
  reader: LetterReader,
): Promise<Reading> {
  const showAgain = async (read: ReadLine) =>
    read.fit < DOUBTED_FIT ? read : better(read, await showOtherwise(read, fitOf, reader));
  let best = await showAgain(await readLine(lines.plain, index, fitOf, reader));
  if (best.fit > UNSURE_FIT) {
    const plain = best;
    for await (const line of otherLines(lines)) {
      const other = await readLine(line, index, fitOf, reader);
      if (other.fit * OTHER_INK_FACTOR < best.fit) best = other;
      if (best.fit < DOUBTED_FIT) break;
    }
    if (best !== plain) best = await showAgain(best);
  }
  const { text, fit, confidence, byReader } = best;
  const sure = max(0, min(1, 1.1 - fit));
  return { text, confidence: text ? max(confidence, sure) : 0, byReader };
}

async function* otherLines(lines: InkReadings) {
  yield* lines.evened(lines.plain);
  yield* lines.others();
}

type Fitted = { text: string; fit: number; confidence: number };
/** What a line was read as, the nearest of the texts that were fitted. */
type ReadLine = Fitted & { line: InkLine; byReader: string; fitted: Set<string> };
const better = (read: ReadLine, fits: Fitted[]): ReadLine => ({
  ...read,
  ...[read, ...fits].reduce((a, b) => (b.fit < a.fit ? b : a)),
});

async function readLine(line: InkLine, index: SignatureIndex, fitOf: TextFit, reader: LetterReader): Promise<ReadLine> {
  const { text: guess, confidence } = await reader(line, "as it is");
  const letters = countLetters(guess);
  const cuts = line.letters.length;
  // Letters that touch cannot be spelt one by one: then the letter reader knows better.
  const spelt = !guess || cuts >= letters - 1 ? readByShape(line, index, guess || null) : null;
  const texts = new Set([guess, spelt?.text ?? ""]);
  if (cuts === letters && /[A-Z].*[A-Z]/.test(guess)) texts.add(guess.toUpperCase());
  texts.delete("");
  const fits: Fitted[] = [];
  const fit = async (list: string[], by: "cuts" | "any way") => {
    for (const text of list) {
      const isGuess = text === guess;
      const found = (await fitOf(line, text, by)) * (isGuess ? READER_TRUST : 1);
      fits.push({ text, fit: found, confidence: isGuess ? confidence : 0 });
    }
  };
  const least = () => min(Infinity, ...fits.map((f) => f.fit));
  const isCut = (text: string) => countLetters(text) === cuts;
  const [cut, uncut] = [[...texts].filter(isCut), [...texts].filter((t) => !isCut(t))];
  await fit(cut, "cuts");
  if (least() >= CLEAR_FIT) await fit(uncut, "any way");
  if (least() >= DOUBTED_FIT) await fit(cut, "any way");
  const nothing = { line, byReader: guess, fitted: texts, text: "", fit: Infinity, confidence: 0 };
  return better(nothing, fits);
}

const countLetters = (text: string) => [...text.replace(/\s/g, "")].length;

/** What the letter reader makes of a line when it is shown in other ways: the surest of it, fitted. */
async function showOtherwise({ line, fitted }: ReadLine, fitOf: TextFit, reader: LetterReader): Promise<Fitted[]> {
  const guesses: { text: string; confidence: number }[] = [];
  for (const shown of ["softer", "smaller", "leaning less"] as const) guesses.push(await reader(line, shown));
  guesses.sort((a, b) => b.confidence - a.confidence);
  const worthwhile = uniqueBy(
    guesses.filter((g) => g.text && g.confidence >= MIN_SURE && !fitted.has(g.text)),
    (g) => g.text,
  );
  const fits: Fitted[] = [];
  for (const { text, confidence } of worthwhile.slice(0, MAX_SHOWN)) {
    const fit = (await fitOf(line, text, "any way")) * READER_TRUST;
    fits.push({ text, fit, confidence });
    if (fit < DOUBTED_FIT) break;
  }
  return fits;
}
/** A guess less sure than this is not fitted, and no more than so many. */
const MIN_SURE = 0.15;
const MAX_SHOWN = 2;
