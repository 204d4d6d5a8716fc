// What is known of words: meanings as directions, which are words of the language, and compounds. Cut at set-up by scripts/buildWords.mjs.

/** Letters that a slip may have put in. */
const LETTERS = [..."abcdefghijklmnopqrstuvwxyz"];
/** A word at this place among the most used counts half. */
const USUAL_WORDS = 1_500;
/** Shorter words are not mended: too many others are one slip away. */
const MENDED_FROM = 5;
/** British spellings → American ones, which the vectors were made of; and ends of words → what they are forms of. */
const SPELLINGS: [RegExp, string][] = [
  [/our(?=$|s$|ed$|ing$|ful$|ite$|less$)/, "or"],
  [/re$/, "er"],
  [/is(?=e$|es$|ed$|ing$|ation$)/, "iz"],
  [/ll(?=ed$|ing$|er$|ery$)/, "l"],
  [/ogue$/, "og"],
  [/grey/, "gray"],
  [/tyre/, "tire"],
  [/plough/, "plow"],
];
const ENDS: [RegExp, string][] = [
  [/ies$/, "y"],
  [/'s$|s'$/, ""],
  [/(s|x|z|ch|sh)es$/, "$1"],
  [/s$/, ""],
  [/([b-df-hj-np-tv-z])\1(ing|ed|er|y)$/, "$1"],
  [/(ing|ed|er|est|ly|ish|y|like|style|themed)$/, ""],
  [/(ing|ed|er|est)$/, "e"],
];

export class WordTable {
  private readonly placeOf: ReadonlyMap<string, number>;

  private constructor(
    words: readonly string[],
    private readonly vectors: Int8Array,
    private readonly flags: Uint8Array,
    private readonly compounds: ReadonlySet<string>,
    readonly dims: number,
  ) {
    this.placeOf = new Map(words.map((word, place) => [word, place]));
  }

  /**
   * @param bytes - number of words and of dims (two Uint32, little-endian); vectors, Int8 of shape [words, dims], unit vectors in 127ths; a byte
   *   for each word, 1 where it is one of the language and no mere name; then in UTF-8 the words, the most used first, an empty line, and compounds.
   * @returns null when the bytes are no such table.
   */
  static parse(bytes: Uint8Array): WordTable | null {
    if (bytes.length < 8) return null;
    const head = new DataView(bytes.buffer, bytes.byteOffset, 8);
    const [count, dims] = [head.getUint32(0, true), head.getUint32(4, true)];
    const size = count * dims;
    if (bytes.length < 8 + size + count) return null;
    const [words, compounds] = new TextDecoder()
      .decode(bytes.subarray(8 + size + count))
      .split("\n\n", 2)
      .map((part) => part.split("\n"));
    if (words?.length !== count) return null;
    return new WordTable(
      words,
      new Int8Array(bytes.buffer, bytes.byteOffset + 8, size),
      bytes.subarray(8 + size, 8 + size + count),
      new Set(compounds),
      dims,
    );
  }

  has(word: string): boolean {
    return this.placeOf.has(word);
  }

  /** The most used words, the first the most. */
  mostUsed(count: number): string[] {
    return [...this.placeOf.keys()].slice(0, count);
  }

  /** @returns 0–1, near 0 for the most used words. */
  rarityOf(word: string): number {
    const place = this.placeOf.get(word) ?? this.placeOf.size;
    return (place + 1) / (place + 1 + USUAL_WORDS);
  }

  /** Whether it is a word of the language, and not only somebody's or something's name. */
  isCommon(word: string): boolean {
    const place = this.placeOf.get(word);
    return place !== undefined && this.flags[place] === 1;
  }

  /** Whether two words are one thing: "heavy metal", "soft drink". */
  isCompound(phrase: string): boolean {
    return this.compounds.has(phrase);
  }

  /** @returns the unit vector of a word in lowercase, Float32Array of shape [dims]; null when it is not in the table. */
  of(word: string): Float32Array | null {
    const place = this.placeOf.get(word);
    if (place === undefined) return null;
    const own = Float32Array.from(this.vectors.subarray(place * this.dims, (place + 1) * this.dims));
    return normalize(own);
  }

  /**
   * A word of the table for one as it was typed: British or American, plural, verb form, or with one slip.
   * @returns null when there is none.
   */
  findForm(typed: string): string | null {
    const word = typed.normalize("NFKD").replace(/[\u0300-\u036f]/g, "");
    if (this.has(word)) return word;
    const forms = [word, ...change(word, SPELLINGS)];
    for (const form of [...forms.slice(1), ...forms.flatMap((f) => change(f, ENDS))])
      if (form.length > 2 && this.has(form)) return form;
    return word.length < MENDED_FROM ? null : this.findSlip(word);
  }

  /** The most used word that is one slip away: a letter more, less, other, or two changed about. */
  private findSlip(word: string): string | null {
    let best: number | null = null;
    let found: string | null = null;
    const look = (candidate: string) => {
      const place = this.placeOf.get(candidate);
      if (place === undefined || (best !== null && place >= best) || !this.flags[place]) return;
      best = place;
      found = candidate;
    };
    for (let at = 0; at <= word.length; at++) {
      const [before, after] = [word.slice(0, at), word.slice(at)];
      if (after) look(before + after.slice(1));
      if (after.length > 1) look(before + after[1]! + after[0]! + after.slice(2));
      for (const letter of LETTERS) {
        look(before + letter + after);
        if (after && at) look(before + letter + after.slice(1));
      }
    }
    return found;
  }
}

const change = (word: string, changes: readonly [RegExp, string][]): string[] =>
  changes.flatMap(([from, to]) => (from.test(word) ? [word.replace(from, to)] : []));

/** Makes a vector one of length 1, in place. */
export function normalize(vector: Float32Array): Float32Array {
  const length = Math.hypot(...vector) || 1;
  for (let k = 0; k < vector.length; k++) vector[k]! /= length;
  return vector;
}

/** @returns the cosine of the angle between two unit vectors. */
export function cosine(a: Float32Array, b: Float32Array): number {
  let sum = 0;
  for (let k = 0; k < a.length; k++) sum += a[k]! * b[k]!;
  return sum;
}
