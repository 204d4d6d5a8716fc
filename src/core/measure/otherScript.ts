// What can be measured of letters in any script: strokes by rays in both directions, the lean of upright edges, the height of the letters.
// For faces without Latin, Greek or Cyrillic letters; everything that is read from letters of these stays unmeasured.
import type { Traits } from "@/contracts/traits";
import { median } from "../geometry/numbers";
import { boundsOf, type Bounds, type Polygons } from "../geometry/outline";
import { spansAtX, spansAtY } from "../geometry/rays";
import type { OpenFace } from "../outlines/openFace";
import { densest, leanOf } from "./lean";

/** Letters looked at, spread over those of the script. */
const LETTERS = 24;
/** Rays through each letter, in both directions. */
const RAYS = 11;
/** Ink longer than this share of the body runs along the ray, not across it. */
const ACROSS = 0.45;
/** Share of near-upright edges that must run one way before that way is taken for the lean. */
const CLEAR_SHARE = 0.3;
/** Middle height of letters of a usual text face: what a stem is compared with, whatever the script's own letters measure. */
const USUAL_BODY_EM = 0.5;

type OtherScript = Pick<Traits, "stemEm" | "barEm" | "contrast" | "slantDeg" | "bodyEm"> & {
  /** Stem / body: what the scale of weight is read at. */
  relative: number | null;
};

/** @param characters - letters that the face has. @returns each null where too few strokes agree. */
export function measureOtherScript(face: OpenFace, characters: readonly string[]): OtherScript {
  const letters = choose(characters).flatMap((char) => {
    const glyphId = face.glyphOf(char.codePointAt(0)!);
    const polygons = glyphId ? face.polygons(glyphId) : [];
    const bounds = boundsOf(polygons);
    return bounds ? [{ polygons, bounds }] : [];
  });
  const bodyFu = median(letters.map(({ bounds }) => bounds.yMax - bounds.yMin));
  if (!bodyFu) return { stemEm: null, barEm: null, contrast: null, slantDeg: null, bodyEm: null, relative: null };
  const em = face.unitsPerEm;
  const upright = thicknessAlong("across", letters, bodyFu);
  const level = thicknessAlong("down", letters, bodyFu);
  const lean = leanOf(letters.map((l) => l.polygons));
  // Scripts differ in which strokes are the thick ones; the weight is theirs.
  const thick = Math.max(upright ?? 0, level ?? 0) || null;
  return {
    stemEm: upright && upright / em,
    barEm: level && level / em,
    contrast: upright && level && Math.max(upright / level, level / upright),
    slantDeg: lean && lean.share >= CLEAR_SHARE ? lean.leanDeg : null,
    bodyEm: bodyFu / em,
    relative: thick && thick / em / USUAL_BODY_EM,
  };
}

/** Evenly spread, so that no part of an alphabet is left out. */
const choose = (characters: readonly string[]): string[] =>
  characters.filter(
    (_, i) => Math.floor((i * LETTERS) / characters.length) !== Math.floor(((i - 1) * LETTERS) / characters.length),
  );

/** Where the widths of strokes that a ray crosses lie closest together, in font units. */
function thicknessAlong(
  way: "across" | "down",
  letters: readonly { polygons: Polygons; bounds: Bounds }[],
  bodyFu: number,
): number | null {
  const found = letters.flatMap(({ polygons, bounds: { xMin, xMax, yMin, yMax } }) =>
    Array.from({ length: RAYS }, (_, k) => (k + 1) / (RAYS + 1)).flatMap((share) =>
      way === "across"
        ? spansAtY(polygons, yMin + share * (yMax - yMin))
        : spansAtX(polygons, xMin + share * (xMax - xMin)),
    ),
  );
  const widths = found.map((s) => s.to - s.from).filter((w) => w > 0 && w < ACROSS * bodyFu);
  return widths.length < 2 * RAYS ? null : densest(widths);
}
