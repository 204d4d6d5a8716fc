// Faces beside each other: how wide a text runs in each, what each lacks of it, and the letters that tell them apart. Open faces in, numbers out.
import { boundsOf, mapPolygons, type Affine } from "../geometry/outline";
import { fillPolygons } from "../geometry/raster";
import type { OpenFace } from "../outlines/openFace";
import { typesetLine } from "../typeset/typesetText";
import { needsGlyph } from "../unicode/codePoint";

type FaceToCompare = {
  face: OpenFace;
  /** By how much it is enlarged so that all look equally large. */
  level: number;
};
export type LetterDifference = { char: string; difference: number };
export type FacesCompared = {
  faces: { lineWidthEm: number; missing: string[] }[];
  /** What tells the faces apart comes first; characters that fewer than two of them have are left out. */
  letters: LetterDifference[];
};

/** Letters that are looked at beside the characters of the text: figures and signs are looked at where the text has them. */
const ALPHABET = "abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ";
/** Letters are drawn at this size, in a cell so wide and high, on one baseline, each in the middle. */
const EM_PX = 40;
const CELL = { widthPx: 72, heightPx: 72, baselinePx: 50 };

/**
 * @param text - one line. @returns `lineWidthEm`: sum of the shaped advances / em, as the face comes; a character that is missing counts with
 *   glyph 0's advance. Source: HarfBuzz; differences of letters by our own method, see `letterDifference`.
 */
export function compareFaces(faces: readonly FaceToCompare[], text: string): FacesCompared {
  const characters = [...new Set([...text.normalize("NFC"), ...ALPHABET])].filter(needsGlyph);
  return {
    faces: faces.map(({ face }) => measureLine(face, text)),
    letters: characters
      .flatMap((char) => {
        const difference = letterDifference(faces, char);
        return difference === null ? [] : [{ char, difference: Number(difference.toFixed(4)) }];
      })
      .sort((a, b) => b.difference - a.difference),
  };
}

function measureLine(face: OpenFace, text: string): { lineWidthEm: number; missing: string[] } {
  const line = typesetLine(face, text);
  const missing = new Set(line.missing.flatMap((m) => [...m.text]).filter(needsGlyph));
  return { lineWidthEm: line.widthFu / face.unitsPerEm, missing: [...missing] };
}

/**
 * How unlike a character is drawn, 0–1: for each two faces the ink that only one of them has, of the ink of both; the mean over all twos.
 * @returns null when fewer than two draw it.
 */
function letterDifference(faces: readonly FaceToCompare[], char: string): number | null {
  const pictures = faces.flatMap((face) => drawLetter(face, char) ?? []);
  if (pictures.length < 2) return null;
  let [sum, pairs] = [0, 0];
  for (let a = 0; a < pictures.length; a++)
    for (let b = 0; b < a; b++, pairs++) sum += inkApart(pictures[a]!, pictures[b]!);
  return sum / pairs;
}

function inkApart(a: Float32Array, b: Float32Array): number {
  let [apart, either] = [0, 0];
  for (let i = 0; i < a.length; i++) {
    const [x, y] = [a[i]!, b[i]!];
    apart += x > y ? x - y : y - x;
    either += x > y ? x : y;
  }
  return either ? apart / either : 0;
}

function drawLetter({ face, level }: FaceToCompare, char: string): Float32Array | null {
  const glyphId = face.glyphOf(char.codePointAt(0)!);
  const polygons = glyphId ? face.polygons(glyphId) : [];
  const bounds = boundsOf(polygons);
  if (!bounds) return null;
  const scale = (EM_PX * level) / face.unitsPerEm;
  const { widthPx, heightPx, baselinePx } = CELL;
  const to: Affine = {
    ...{ a: scale, b: 0, c: 0, d: -scale },
    ...{ e: widthPx / 2 - ((bounds.xMin + bounds.xMax) / 2) * scale, f: baselinePx },
  };
  return fillPolygons(mapPolygons(polygons, to), widthPx, heightPx);
}
