// Faces that cannot be told apart by the letters of a picture, and the letter that would tell.
import { DESCRIBED, type SignatureIndex } from "./extractDescriptors";

/** Signed forms and boxes nearer than this are the same to any eye: squared distance of forms, and em. */
const SAME_FORM = 0.02;
const SAME_EM = 0.008;
/** Letters worth showing as what tells two faces apart. */
const TELLING = DESCRIBED.filter((c) => /^[A-Za-z0-9&?!]$/.test(c));
const EVEN = new Float32Array(36).fill(1);

export type Likeness = {
  /** No letter of the text differs to the eye. */
  isSameHere: boolean;
  /** The letter that differs most between the two, of those that could be looked at; null when none does. */
  tellingLetter: string | null;
};

/** How two entries of the index look beside each other. @param characters - of the text, without spaces. */
export function likenessOf(index: SignatureIndex, a: number, b: number, characters: readonly string[]): Likeness {
  const isSame = (char: string) => (differ(index, a, b, char) ?? 0) < 1;
  const here = new Set(characters);
  const by = [...new Set([...TELLING, ...here])].map((char) => ({ char, by: differ(index, a, b, char) ?? 0 }));
  // A letter that can be looked at in the picture goes before one that would have to be asked for.
  const inPicture = by.filter((l) => here.has(l.char) && l.by >= 1);
  const most = (inPicture.length ? inPicture : by).reduce((x, y) => (y.by > x.by ? y : x));
  return {
    isSameHere: [...here].every(isSame),
    tellingLetter: most.by >= 1 ? most.char : null,
  };
}

/** How much a letter differs: 1 is as much as an eye can see. Null where one of the two lacks it. */
function differ(index: SignatureIndex, a: number, b: number, char: string): number | null {
  const position = index.at(char);
  if (position < 0) return null;
  const [p, q] = [index.box(a, position), index.box(b, position)];
  if (!p || !q) return p === q ? 0 : 9;
  const form = index.distance(a, position, index.form(b, position), EVEN) / SAME_FORM;
  const off = Math.max(
    Math.abs(p.top - q.top),
    Math.abs(p.bottom - q.bottom),
    Math.abs(p.right - p.left - q.right + q.left),
    Math.abs(p.advance - q.advance),
  );
  return Math.max(form, off / SAME_EM);
}
