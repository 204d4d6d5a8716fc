// Faces that carry the ruled lines of an exercise book behind every letter: the same face without them, for whoever judges its letters.
import { ARITY, boundsOf, flattenOutline, type Outline, type Polygons } from "../geometry/outline";
import type { OpenFace } from "./openFace";

/** Letters that are asked for rules. */
const ASKED = "HILTlnhraeou";
/** A rule stands at its height in this share of the letters, and is as wide as this share of their advance. */
const IN_LETTERS = 0.6;
const OF_ADVANCE = 0.95;
/** Heights that differ by less are one, in em; a rule is thinner than this. */
const SAME_EM = 0.002;
const THICKEST_EM = 0.1;

type Rule = { yMin: number; yMax: number };

/** @returns the face itself where its letters stand on no rules of their own. */
export function withoutRules(face: OpenFace): OpenFace {
  const rules = findRules(face);
  if (!rules.length) return face;
  const near = SAME_EM * face.unitsPerEm;
  // Where a letter crosses it, a rule is often cut into pieces: these are as high, and shorter.
  const isKept = (contour: Outline) => {
    const box = rectangleOf(contour);
    return !box || !rules.some((r) => Math.abs(r.yMin - box.yMin) < near && Math.abs(r.yMax - box.yMax) < near);
  };
  const outlines = new Map<number, Outline>();
  const polygons = new Map<number, Polygons>();
  const outline = (glyphId: number) => {
    let known = outlines.get(glyphId);
    if (!known) outlines.set(glyphId, (known = join(contoursOf(face.outline(glyphId)).filter(isKept))));
    return known;
  };
  return {
    ...face,
    outline,
    polygons(glyphId) {
      let known = polygons.get(glyphId);
      if (!known) polygons.set(glyphId, (known = flattenOutline(outline(glyphId), face.unitsPerEm / 1000)));
      return known;
    },
  };
}

/** Heights, in font units, at which a thin rectangle as wide as the letter stands in most of the letters. */
function findRules(face: OpenFace): Rule[] {
  const glyphs = [...ASKED].flatMap((c) => face.glyphOf(c.codePointAt(0)!) ?? []);
  const found = new Map<string, Rule & { letters: number }>();
  for (const glyphId of glyphs) {
    const seen = new Set<string>();
    for (const contour of contoursOf(face.outline(glyphId))) {
      const box = rectangleOf(contour);
      if (!box || box.yMax - box.yMin > THICKEST_EM * face.unitsPerEm) continue;
      if (box.xMax - box.xMin < OF_ADVANCE * face.advanceFu(glyphId)) continue;
      const key = `${Math.round(box.yMin)} ${Math.round(box.yMax)}`;
      if (seen.has(key)) continue;
      seen.add(key);
      const { yMin, yMax } = box;
      found.set(key, { yMin, yMax, letters: (found.get(key)?.letters ?? 0) + 1 });
    }
  }
  return [...found.values()].filter((r) => r.letters >= Math.max(4, IN_LETTERS * glyphs.length));
}

/** The box of a contour that is an upright rectangle; null of any other. */
function rectangleOf({ verbs, coords }: Outline) {
  if (!/^ML{3,4}Z?$/.test(verbs)) return null;
  for (let i = 2; i < coords.length; i += 2)
    if (coords[i] !== coords[i - 2] && coords[i + 1] !== coords[i - 1]) return null;
  return boundsOf([coords]);
}

function contoursOf({ verbs, coords }: Outline): Outline[] {
  const contours: Outline[] = [];
  let [verb, at] = [0, 0];
  while (verb < verbs.length) {
    const [firstVerb, firstAt] = [verb, at];
    do at += ARITY[verbs[verb++]!]!;
    while (verb < verbs.length && verbs[verb] !== "M");
    contours.push({ verbs: verbs.slice(firstVerb, verb), coords: coords.subarray(firstAt, at) });
  }
  return contours;
}

const join = (contours: Outline[]): Outline => ({
  verbs: contours.map((c) => c.verbs).join(""),
  coords: Float64Array.from(contours.flatMap((c) => [...c.coords])),
});
