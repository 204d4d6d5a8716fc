// A face that came cut into parts by character (web collections are): one face to whoever sets or draws it. Glyphs of part n count on
// from n × 65,536, which is more than a font can have.
import type { MovingFace, OpenFace } from "./openFace";

const PART_BITS = 16;
const GLYPH_MASK = (1 << PART_BITS) - 1;

/** The number of a part's glyph in the whole face. Glyph 0 stands for what is lacking, whatever the part. */
export const glyphInWhole = (part: number, glyphId: number) => (glyphId ? (part << PART_BITS) | glyphId : 0);
/** Part, and number there, of a glyph of the whole face. */
export const glyphInPart = (glyphId: number) => ({ part: glyphId >>> PART_BITS, glyphId: glyphId & GLYPH_MASK });

/** @param faces - the main part first; all with the same units per em. A single one is given back as it is. */
export function joinParts(faces: readonly OpenFace[]): OpenFace {
  const main = faces[0]!;
  if (faces.length === 1) return main;
  const at = <T>(whole: number, ask: (face: OpenFace, glyphId: number) => T): T => {
    const { part, glyphId } = glyphInPart(whole);
    return ask(faces[part] ?? main, glyphId);
  };
  const has = (face: OpenFace, codePoint: number) => face.glyphOf(codePoint) !== null;
  /** The part before is kept where it can be, and for what no part has (joiners): letters of one part join and kern. */
  const partOf = (codePoint: number, before: number) => {
    if (has(faces[before]!, codePoint)) return before;
    const found = faces.findIndex((face) => has(face, codePoint));
    return found < 0 ? before : found;
  };
  return {
    ...main,
    sizeBytes: faces.reduce((sum, face) => sum + face.sizeBytes, 0),
    parts: { faces, partOf },
    outline: (g) => at(g, (face, id) => face.outline(id)),
    polygons: (g) => at(g, (face, id) => face.polygons(id)),
    isDrawn: (g) => at(g, (face, id) => face.isDrawn(id)),
    advanceFu: (g) => at(g, (face, id) => face.advanceFu(id)),
    glyphOf(codePoint) {
      const part = partOf(codePoint, 0);
      const glyphId = faces[part]!.glyphOf(codePoint);
      return glyphId === null ? null : glyphInWhole(part, glyphId);
    },
    features: () => [...new Set(faces.flatMap((face) => face.features()))],
  };
}

/** The same for faces whose axes move: all parts move together. */
export function joinMovingParts(parts: readonly MovingFace[]): MovingFace {
  return {
    face: joinParts(parts.map((p) => p.face)),
    moveTo: (coordinates) => parts.forEach((p) => p.moveTo(coordinates)),
    defaultOf: parts[0]!.defaultOf,
  };
}
