// What is wrong with a font that opens: faults in its metrics and outlines, beside those that `open` found in its tables.
// Every fault says what it means for use. Only what matters to someone who sets, cuts or hands over type is looked for.
import type { Fault, Health } from "@/contracts/traits";
import { gradeHealth, type OpenedFont } from "../open/openFont";
import type { OpenFace } from "../outlines/openFace";
import { countCrossings } from "./crossings";

/** Characters whose outlines are looked at closely. */
const CLOSE = [..."ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789&"];
/** Characters that are blank by right. */
const BLANK = /[\p{Z}\p{C}\u00ad\u115f\u1160\u2800\u3164\uffa0\u034f\u17b4\u17b5]/u;
/** At most so many mapped characters are looked at for emptiness. */
const MAX_CHARACTERS = 1500;

/** @param opened - as `openFont` gave it. @returns its faults and those found here, graded. */
export function checkFont(opened: OpenedFont, face: OpenFace): Health {
  const faults = [...opened.health.faults];
  checkMetrics(opened, face, faults);
  checkBlanks(opened, face, faults);
  checkContours(opened, face, faults);
  if (!opened.hasKerning && opened.characters.size > 60 && !isEvenlySpaced(opened, face))
    faults.push({
      code: "kerning-none",
      table: "GPOS",
      weight: "note",
      meaning: "There is no kerning: pairs as AV and To stand too far apart until they are spaced by hand.",
    });
  return gradeHealth(faults);
}

function checkMetrics(opened: OpenedFont, face: OpenFace, faults: Fault[]) {
  const em = opened.unitsPerEm;
  const add = (table: string, meaning: string) => faults.push({ code: "metrics-nonsense", table, meaning });
  const { hhea, os2 } = opened;
  if (hhea) {
    const height = hhea.ascenderFu - hhea.descenderFu;
    if (hhea.ascenderFu <= 0 || hhea.descenderFu > 0 || height < 0.4 * em || height > 5 * em)
      add(
        "hhea",
        `Lines would be ${(height / em).toFixed(2)} em high (ascender ${hhea.ascenderFu}, descender ${hhea.descenderFu} at ${em} to the em): line spacing must be set by hand.`,
      );
  }
  if (os2 && (os2.usWeightClass < 1 || os2.usWeightClass > 1000))
    add("OS/2", `The stated weight is ${os2.usWeightClass}, which is none: styles may be listed in the wrong order.`);
  if (os2 && (os2.usWidthClass < 1 || os2.usWidthClass > 9))
    add("OS/2", `The stated width is ${os2.usWidthClass}, which is none: styles may be listed in the wrong order.`);
  const letters = CLOSE.filter((c) => opened.characters.has(c.codePointAt(0)!));
  const advances = letters.map((c) => face.advanceFu(opened.characters.get(c.codePointAt(0)!)!));
  const none = advances.filter((a) => a <= 0).length;
  const vast = advances.filter((a) => a > 6 * em).length;
  if (none) add("hmtx", `${none} letters have no width: what follows stands on top of them.`);
  if (vast) add("hmtx", `${vast} letters are wider than six em: lines fall apart.`);
}

function checkBlanks(opened: OpenedFont, face: OpenFace, faults: Fault[]) {
  const blank: number[] = [];
  let looked = 0;
  for (const [code, glyph] of opened.characters) {
    if (BLANK.test(String.fromCodePoint(code)) || (code >= 0xfe00 && code <= 0xfe0f)) continue;
    if (looked++ > MAX_CHARACTERS) break;
    if (!face.isDrawn(glyph)) blank.push(code);
  }
  // Fonts of colour or bitmap glyphs keep their drawings elsewhere.
  if (blank.length && blank.length < looked)
    faults.push({
      code: "glyph-empty",
      table: "glyf",
      meaning: `${blank.length} characters are promised but drawn empty (${blank.slice(0, 4).map(nameOf).join(", ")}${blank.length > 4 ? " …" : ""}): they print as gaps.`,
    });
  if (!face.isDrawn(0))
    faults.push({
      code: "notdef-missing",
      table: "glyf",
      weight: "note",
      meaning: "The glyph .notdef is empty: characters that the font lacks vanish without a sign in other programs.",
    });
}
const nameOf = (code: number) => {
  const hex = `U+${code.toString(16).toUpperCase().padStart(4, "0")}`;
  return code > 32 && code < 0x2000 && code !== 127 ? `${String.fromCodePoint(code)} ${hex}` : hex;
};

/** From so many letters on, overlaps are the rule of the font, not a slip. */
const MANY = 3;

function checkContours(opened: OpenedFont, face: OpenFace, faults: Fault[]) {
  const crossed: string[] = [];
  const open: string[] = [];
  for (const char of CLOSE) {
    const glyph = opened.characters.get(char.codePointAt(0)!);
    if (glyph === undefined) continue;
    const polygons = face.polygons(glyph);
    if (hasLooseEnds(face.outline(glyph).verbs) || polygons.some((p) => hasNoBody(p, opened.unitsPerEm)))
      open.push(char);
    // Variable fonts keep strokes apart so that they can move.
    if (!opened.axes.length && countCrossings(polygons, opened.unitsPerEm * 0.0012)) crossed.push(char);
  }
  const list = (chars: string[]) => `${chars.slice(0, 8).join(" ")}${chars.length > 8 ? " …" : ""}`;
  if (crossed.length)
    faults.push({
      code: "contours-overlap",
      table: "glyf",
      weight: crossed.length >= MANY ? "care" : "note",
      meaning: `Contours of ${crossed.length} letters cross (${list(crossed)}): cut or outlined, their seams show until they are joined.`,
    });
  if (open.length)
    faults.push({
      code: "contours-open",
      table: "glyf",
      meaning: `${open.length} letters have contours without a body (${list(open)}): nothing prints there, yet a cutter follows them.`,
    });
}

/** A contour of a point, or of one straight line, encloses nothing. */
const hasLooseEnds = (verbs: string) =>
  verbs
    .split("M")
    .slice(1)
    .some((contour) => !/[QC]/.test(contour) && contour.replace(/Z/g, "").length < 2);

/** A contour that runs there and back on one line. */
function hasNoBody(p: Float64Array, em: number): boolean {
  let area = 0;
  let length = 0;
  for (let i = 0, j = p.length - 2; i < p.length; j = i, i += 2) {
    area += p[j]! * p[i + 1]! - p[i]! * p[j + 1]!;
    length += Math.hypot(p[i]! - p[j]!, p[i + 1]! - p[j + 1]!);
  }
  return length > em * 0.01 && Math.abs(area / 2) < length * em * 0.00002;
}

function isEvenlySpaced(opened: OpenedFont, face: OpenFace): boolean {
  const advances = [..."imWl.A"].flatMap((c) => {
    const glyph = opened.characters.get(c.codePointAt(0)!);
    return glyph === undefined ? [] : [face.advanceFu(glyph)];
  });
  return advances.length > 3 && Math.max(...advances) - Math.min(...advances) <= opened.unitsPerEm / 500;
}
