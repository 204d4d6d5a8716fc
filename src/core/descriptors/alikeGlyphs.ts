// Which glyphs of a face look like one of them: by their form within their box, and by how wide and high that box is and where it stands.
import { boundsOf } from "../geometry/outline";
import { FORM_LENGTH } from "../measure/cellForm";
import type { OpenFace } from "../outlines/openFace";
import { describeForm } from "./extractDescriptors";

const { abs, log, sqrt } = Math;

/** More than these are like nothing any more. */
const MOST_ALIKE = 48;
/** A box of twice the size is as far off as a form of quite another ink; one that stands half an em higher, too. */
const SIZE_WEIGHT = 0.35;
const PLACE_WEIGHT = 0.5;

type Described = { form: Float32Array; width: number; height: number; middle: number };

/** @param glyphIds - to choose from. @returns the nearest first, without the glyph itself and without what has no ink. */
export function alikeGlyphs(face: OpenFace, glyphId: number, glyphIds: readonly number[]): number[] {
  const own = describeGlyph(face, glyphId);
  if (!own) return [];
  const ranked = glyphIds.flatMap((id) => {
    const other = id === glyphId ? null : describeGlyph(face, id);
    return other ? [{ id, away: distance(own, other) }] : [];
  });
  return ranked
    .sort((a, b) => a.away - b.away)
    .slice(0, MOST_ALIKE)
    .map((r) => r.id);
}

function describeGlyph(face: OpenFace, glyphId: number): Described | null {
  if (!face.isDrawn(glyphId)) return null;
  const b = boundsOf(face.polygons(glyphId));
  if (!b || b.xMax <= b.xMin || b.yMax <= b.yMin) return null;
  return {
    form: describeForm(face, glyphId, b),
    width: (b.xMax - b.xMin) / face.unitsPerEm,
    height: (b.yMax - b.yMin) / face.unitsPerEm,
    middle: (b.yMax + b.yMin) / 2 / face.unitsPerEm,
  };
}

function distance(a: Described, b: Described): number {
  let sum = 0;
  for (let i = 0; i < FORM_LENGTH; i++) sum += (a.form[i]! - b.form[i]!) ** 2;
  const size = abs(log(a.width / b.width)) + abs(log(a.height / b.height));
  return sqrt(sum) / 4 + SIZE_WEIGHT * size + PLACE_WEIGHT * abs(a.middle - b.middle);
}
