// What the typesetting worker does with a font: one text, set by the core and drawn as outlines.
import { joinParts } from "@/core/outlines/joinParts";
import { openFace } from "@/core/outlines/openFace";
import { writeTypesetSvg } from "@/core/typeset/pens";
import { typesetText } from "@/core/typeset/typesetText";

export type TypesetRequest = {
  id: number;
  /** Where the font's bare tables are: one file, or the parts that the text needs, the main part first. */
  addresses: string[];
  location: Record<string, number>;
  features: Record<string, number>;
  /** Lines are broken where it says so. */
  text: string;
  sizePx: number;
  title: string;
  ink: string;
};

/** @returns null when the face draws nothing of the text. @throws when the face cannot be opened. */
export function typesetSvg(fonts: readonly Uint8Array[], request: TypesetRequest): string | null {
  const { location, features, text } = request;
  const face = joinParts(fonts.map((font) => openFace(font, location)));
  return writeTypesetSvg(face, typesetText(face, text, { features, widthEm: null }), request);
}
