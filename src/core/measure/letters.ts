// The letters of a face as polygons, by character. What every single measure starts from.
import { boundsOf, type Bounds, type Polygons } from "../geometry/outline";
import { median } from "../geometry/numbers";
import type { OpenFace } from "../outlines/openFace";

export type Letter = { char: string; glyphId: number; polygons: Polygons; bounds: Bounds; advanceFu: number };
export type Letters = {
  face: OpenFace;
  em: number;
  /** null where the face lacks the character or draws nothing for it. */
  get(char: string): Letter | null;
};

export function lettersOf(face: OpenFace): Letters {
  const known = new Map<string, Letter | null>();
  const read = (char: string): Letter | null => {
    const glyphId = glyphIn(face, char);
    if (!glyphId) return null;
    const polygons = face.polygons(glyphId);
    const bounds = boundsOf(polygons);
    return bounds && { char, glyphId, polygons, bounds, advanceFu: face.advanceFu(glyphId) };
  };
  return {
    face,
    em: face.unitsPerEm,
    get(char) {
      let letter = known.get(char);
      if (letter === undefined) known.set(char, (letter = read(char)));
      return letter;
    },
  };
}

/** Letters of Cyrillic and Greek that are drawn as Latin ones: a face without Latin is measured by them. */
const DRAWN_ALIKE = new Map(
  Object.entries({
    ...{
      A: "АΑ",
      B: "ВΒ",
      C: "С",
      E: "ЕΕ",
      H: "НΗ",
      I: "ІΙ",
      J: "Ј",
      K: "КΚ",
      M: "МΜ",
      N: "Ν",
      O: "ОΟ",
      P: "РΡ",
      S: "Ѕ",
    },
    ...{ T: "ТΤ", X: "ХΧ", Y: "УΥ", Z: "Ζ", a: "а", c: "с", e: "е", h: "һ", i: "іι", j: "ј", n: "п", o: "оο", p: "р" },
    ...{ s: "ѕ", v: "ν", x: "хχ", y: "у" },
  }),
);

function glyphIn(face: OpenFace, char: string): number {
  const own = face.glyphOf(char.codePointAt(0)!);
  if (own) return own;
  for (const alike of DRAWN_ALIKE.get(char) ?? "") {
    const glyphId = face.glyphOf(alike.codePointAt(0)!);
    if (glyphId) return glyphId;
  }
  return 0;
}

/** The letters of a string that exist, in order. */
export const pick = (letters: Letters, chars: string): Letter[] =>
  [...chars].map((c) => letters.get(c)).filter((l): l is Letter => l !== null);

/** Middle value of a number over letters, in em; null when none of them exists. */
export function medianEm(letters: Letters, chars: string, of: (l: Letter) => number | null): number | null {
  const values = pick(letters, chars)
    .map(of)
    .filter((v): v is number => v !== null);
  const m = median(values);
  return m === null ? null : m / letters.em;
}
