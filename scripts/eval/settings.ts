// Pictures of text that is not set plainly: by a face's own features, or in capitals that the browser draws smaller.
import { openFace, type OpenFace } from "../../src/core/outlines/openFace";
import { glyphsOf, typesetLine } from "../../src/core/typeset/typesetText";
import type { EvalStyle } from "./library";

export const SETTINGS = ["small capitals", "alternates", "old-style figures", "ligatures"] as const;
export type SettingCondition = (typeof SETTINGS)[number];
export const isSetting = (condition: string): condition is SettingCondition =>
  (SETTINGS as readonly string[]).includes(condition);

const TAGS: Record<SettingCondition, RegExp> = {
  "small capitals": /^smcp$/,
  alternates: /^(salt|ss\d\d|swsh)$/,
  "old-style figures": /^onum$/,
  ligatures: /^dlig$/,
};

const faces = new Map<string, OpenFace>();
function faceOf(style: EvalStyle): OpenFace {
  let face = faces.get(style.styleId);
  if (!face) faces.set(style.styleId, (face = openFace(style.sfnt)));
  return face;
}

/** Whether a style may be drawn under a condition. Small capitals are made of any. */
export const maySet = (style: EvalStyle, condition: SettingCondition) =>
  condition === "small capitals" ||
  faceOf(style)
    .features()
    .some((tag) => TAGS[condition].test(tag));

/** The style sheet's words for a text so set; null where the face draws it no other way. */
export function setAs(style: EvalStyle, text: string, condition: SettingCondition, next: () => number): string | null {
  if (condition === "small capitals") return "font-variant-caps:small-caps;font-synthesis:small-caps";
  const face = faceOf(style);
  const glyphIds = (features: Record<string, number>) =>
    glyphsOf(typesetLine(face, text, { features }))
      .map((g) => g.glyphId)
      .join(" ");
  const plain = glyphIds({});
  const tags = face.features().filter((tag) => TAGS[condition].test(tag) && glyphIds({ [tag]: 1 }) !== plain);
  const tag = tags[Math.floor(next() * tags.length)];
  return tag ? `font-feature-settings:"${tag}" 1` : null;
}
