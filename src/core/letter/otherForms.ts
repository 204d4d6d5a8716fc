// Other forms of a letter in its face: what each feature puts in its place, alternates one by one.
import type { OpenFace } from "../outlines/openFace";
import { shapeRun } from "../typeset/shapeRun";

/** `feature`: what reaches it, null of the form that comes by itself. */
export type OtherForm = { glyphId: number; feature: string | null; value: number };

/** Features that only join letters, place marks or space out: they give a single letter no other form. */
const NO_FORMS =
  /^(?:kern|mark|mkmk|liga|clig|calt|rlig|ccmp|locl|size|cpsp|dist|abvm|blwm|init|medi|fina|isol|rclt|rvrn)$/;
/** Alternates of one feature that are looked at; a feature with more is no choice any more. */
const MOST_ALTERNATES = 24;

/**
 * @param text - one cluster.
 * @returns each form once, the one that comes by itself first; empty for what the face lacks.
 */
export function otherForms(face: OpenFace, text: string): OtherForm[] {
  const glyphOf = (features: Record<string, number>) => {
    const { glyphs } = shapeRun(face, text, { from: 0, to: text.length, direction: "ltr" }, features);
    return glyphs.length === 1 ? glyphs[0]!.glyphId : 0;
  };
  const own = glyphOf({});
  if (!own) return [];
  const forms = new Map<number, OtherForm>([[own, { glyphId: own, feature: null, value: 0 }]]);
  for (const tag of face.features()) {
    if (NO_FORMS.test(tag)) continue;
    let last = 0;
    for (let value = 1; value <= MOST_ALTERNATES; value++) {
      const glyphId = glyphOf({ [tag]: value });
      // Past its last alternate a feature gives the letter as it comes, or the last one again.
      if (!glyphId || glyphId === own || glyphId === last) break;
      last = glyphId;
      if (!forms.has(glyphId)) forms.set(glyphId, { glyphId, feature: tag, value });
    }
  }
  return [...forms.values()];
}
