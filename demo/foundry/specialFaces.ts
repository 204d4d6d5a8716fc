// Faces that are not an alphabet of plain letters: the connected script with its flourishes, and picture fonts.
import type { Design } from "./design";
import { drawFace, type Face, type FaceOptions, type Swap } from "./face";
import { pictureDrawings, RAIL, SEA, WEATHER } from "./skeleton/pictures";
import { ORNAMENTS, SWASHED, swashed, TAILED, tailed } from "./skeleton/flourishes";
import { JOINED, JOINED_DOTLESS } from "./skeleton/script";
import type { Draw } from "./sketch";

/** First private-use code point of flourishes: capitals, then word ends, then ornaments. */
const PRIVATE_USE = 0xe000;

/** A script whose lowercase letters join. Swashes are reached by features and by private-use code points alike. */
export function drawScript(d: Design, options: FaceOptions = {}): Face {
  let next = PRIVATE_USE;
  const extras: { name: string; codePoints: number[]; how: Draw }[] = [];
  const add = (name: string, how: Draw) => extras.push({ name, codePoints: [next++], how });
  const swsh: Swap = {};
  const ss01: Swap = {};
  if (!options.characters) {
    for (const char of SWASHED) {
      add(`${char}.swsh`, swashed(char));
      swsh[char] = `${char}.swsh`;
    }
    for (const char of TAILED) {
      add(`${char}.ss01`, tailed(char));
      ss01[char] = `${char}.ss01`;
    }
    for (const [name, how] of Object.entries(ORNAMENTS)) add(name, how);
  }
  return drawFace(d, {
    ...options,
    letters: JOINED,
    dotless: JOINED_DOTLESS,
    extras,
    ...(extras.length && { swaps: { swsh, ss01 } }),
  });
}

const SETS = { sea: SEA, rail: RAIL, weather: WEATHER };
export type PictureSet = keyof typeof SETS;

/** A picture font: lowercase letters and capitals reach the same signs, each glyph once. */
export function drawPictures(set: PictureSet, d: Design): Face {
  const drawings = pictureDrawings(SETS[set], d);
  const face = drawFace(d, {
    characters: " ",
    extras: drawings.map(({ char, drawing }, i) => ({
      name: `sign${i + 1}`,
      codePoints: [char.toUpperCase().codePointAt(0)!, char.codePointAt(0)!],
      how: () => drawing,
    })),
  });
  const signs = face.glyphs.filter((g) => g.name.startsWith("sign"));
  return { ...face, kerning: {}, meanAdvance: signs.reduce((sum, g) => sum + g.advance, 0) / signs.length };
}
