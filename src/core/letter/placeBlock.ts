// Lays a block's letters on the sheet: size, alignment, the line they stand on, what was done to single letters, the block's turn.
// Outlines come out in millimetres, y down, as they are cut and printed.
import { LEADING_EM, type Block, type Letter, type PointMm } from "@/contracts/lettering";
import {
  boundsOf,
  flattenOutline,
  IN_PLACE,
  joinMaps,
  mapOutline,
  middleOf,
  type Affine,
  type Bounds,
  type Outline,
} from "../geometry/outline";
import type { OpenFace } from "../outlines/openFace";
import { baseOf, inkOfLine, type SetGlyph, type SetLetter, type SetLineOfLetters } from "./setBlock";
import { applyPoints } from "./movePoint";
import type { Baseline, PlaceOnPath } from "./paths";

/** Curves are taken apart to this when their box is asked for. */
export const FLAT_MM = 0.005;

const { PI, cos, sin } = Math;

/** `origin`: where the glyph's own origin came to lie, and how it is turned. */
export type PlacedGlyphMm = SetGlyph & { origin: PointMm & { turnDeg: number }; outline: Outline };
export type PlacedLetter = Pick<SetLetter, "at" | "cluster" | "text" | "isMissing"> & {
  line: number;
  /** The letter's left and right edge on its baseline, as it is placed, without what was done to it alone. */
  from: PointMm;
  to: PointMm;
  turnRad: number;
  advanceMm: number;
  glyphs: PlacedGlyphMm[];
};

/** Em in mm as the block's size says. @returns null where the face has no letter to measure, or no ink to fit. */
export function findEmMm(face: OpenFace, { size, fitWidthMm }: Block, lines: readonly SetLineOfLetters[]) {
  if (fitWidthMm !== undefined) {
    const widthsFu = lines.flatMap((line) => {
      const box = inkOfLine(face, line);
      return box ? [box.xMax - box.xMin] : [];
    });
    const widest = Math.max(0, ...widthsFu);
    return widest > 0 ? (fitWidthMm * face.unitsPerEm) / widest : null;
  }
  if ("emMm" in size) return size.emMm;
  const isCapital = "capHeightMm" in size;
  const heightEm = heightOf(face, isCapital ? "HIETZ" : "xzvnu");
  return heightEm ? (isCapital ? size.capHeightMm : size.xHeightMm) / heightEm : null;
}

/** Top of the first of these letters that the face has, in em: flat ones first, so that overshoot does not count. */
function heightOf(face: OpenFace, letters: string): number | null {
  for (const letter of letters) {
    const glyphId = face.glyphOf(letter.codePointAt(0)!);
    const box = glyphId === null ? null : boundsOf(face.polygons(glyphId));
    if (box && box.yMax > 0) return box.yMax / face.unitsPerEm;
  }
  return null;
}

/** @param emMm - of `findEmMm`. @param baseline - of `followPath`. */
export function placeBlock(
  face: OpenFace,
  block: Block,
  lines: readonly SetLineOfLetters[],
  emMm: number,
  baseline: Baseline,
): PlacedLetter[] {
  const mmPerFu = emMm / face.unitsPerEm;
  const edits = new Map((block.letters ?? []).map((l) => [l.at, l]));
  const leadingMm = (block.leadingEm ?? LEADING_EM) * emMm;
  const turned = turnAbout(block.at, ((block.turnDeg ?? 0) * PI) / 180);
  return lines.flatMap(({ letters, widthFu }, line) => {
    const startMm = startOf(block, widthFu * mmPerFu, baseline.lengthMm);
    return letters.map((letter) => {
      const halfMm = (letter.advanceFu / 2) * mmPerFu;
      const place = baseline.at(startMm + letter.xFu * mmPerFu + halfMm, line * leadingMm);
      const stands = standAt(place, halfMm, mmPerFu);
      const edit = edits.get(letter.at);
      return { ...drawLetter(face, letter, edit, stands, turned), line, advanceMm: 2 * halfMm };
    });
  });
}

function startOf({ align }: Block, widthMm: number, lengthMm: number | null): number {
  if (align === "centre") return ((lengthMm ?? 0) - widthMm) / 2;
  if (align === "right") return (lengthMm ?? 0) - widthMm;
  return 0;
}

/** A map from millimetres of the block to the sheet's. */
const turnAbout = ({ xMm, yMm }: PointMm, turnRad: number): Affine => ({
  a: cos(turnRad),
  b: sin(turnRad),
  c: -sin(turnRad),
  d: cos(turnRad),
  e: xMm,
  f: yMm,
});

/** A map from a letter's font units (y up, from its left edge) to the block's millimetres; the letter turns about the middle of its advance. */
const standAt = ({ xMm, yMm, turnRad }: PlaceOnPath, halfMm: number, mmPerFu: number): Affine => ({
  a: cos(turnRad) * mmPerFu,
  b: sin(turnRad) * mmPerFu,
  c: sin(turnRad) * mmPerFu,
  d: -cos(turnRad) * mmPerFu,
  e: xMm - cos(turnRad) * halfMm,
  f: yMm - sin(turnRad) * halfMm,
});

const mapPoint = (by: Affine, x: number, y: number): PointMm => ({
  xMm: by.a * x + by.c * y + by.e,
  yMm: by.b * x + by.d * y + by.f,
});

function drawLetter(
  face: OpenFace,
  letter: SetLetter,
  edit: Letter | undefined,
  stands: Affine,
  turned: Affine,
): Omit<PlacedLetter, "line" | "advanceMm"> {
  const base = baseOf(letter);
  const drawn = letter.glyphs.map((g) => {
    const own = face.outline(g.glyphId);
    return { g, outline: g === base && edit?.points ? applyPoints(own, edit.points, face.unitsPerEm) : own };
  });
  const moved = joinMaps(edit ? moveLetter(drawn, edit, stands) : stands, turned);
  const whole = joinMaps(stands, turned);
  const { at, cluster, text, isMissing } = letter;
  return {
    at,
    cluster,
    text,
    isMissing,
    from: mapPoint(whole, 0, 0),
    to: mapPoint(whole, letter.advanceFu, 0),
    turnRad: Math.atan2(whole.b, whole.a),
    glyphs: drawn.map(({ g, outline }) => {
      const by = joinMaps(inLetter(g), moved);
      const turnDeg = (Math.atan2(by.b, by.a) * 180) / PI;
      return { ...g, origin: { xMm: by.e, yMm: by.f, turnDeg }, outline: mapOutline(g.glyphId ? outline : EMPTY, by) };
    }),
  };
}

/** From a glyph's own place to its letter's. */
const inLetter = ({ dxFu, dyFu }: SetGlyph): Affine => ({ ...IN_PLACE, e: dxFu, f: dyFu });

const EMPTY: Outline = { verbs: "", coords: new Float64Array(0) };

/** Turns and scales about the middle of the ink, then moves; all in the block's own millimetres. */
function moveLetter(drawn: { g: SetGlyph; outline: Outline }[], edit: Letter, stands: Affine): Affine {
  const box = boundsOf(
    drawn.flatMap(({ g, outline }) =>
      g.glyphId ? flattenOutline(mapOutline(outline, joinMaps(inLetter(g), stands)), FLAT_MM) : [],
    ),
  );
  const { x, y } = box ? middleOf(box) : { x: stands.e, y: stands.f };
  const scale = edit.scale ?? 1;
  const turn = ((edit.turnDeg ?? 0) * PI) / 180;
  const [a, b] = [cos(turn) * scale, sin(turn) * scale];
  const about: Affine = {
    ...{ a, b, c: -b, d: a },
    e: x - a * x + b * y + (edit.dxMm ?? 0),
    f: y - b * x - a * y + (edit.dyMm ?? 0),
  };
  return joinMaps(stands, about);
}

/** Box around letters, in mm; null when nothing is drawn. */
export const inkOfLetters = (letters: readonly PlacedLetter[]): Bounds | null =>
  boundsOf(letters.flatMap(({ glyphs }) => glyphs.flatMap((g) => flattenOutline(g.outline, FLAT_MM))));
