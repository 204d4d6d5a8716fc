// What the lettering worker does with a document and its fonts: lays it out, paints it, and finds the other forms of its letters.
import type { Block, LetteringDocument, PointMm } from "@/contracts/lettering";
import { boundsOf, IN_PLACE, writePath, type Bounds, type Outline } from "@/core/geometry/outline";
import { layoutLettering, type LayoutFault } from "@/core/letter/layoutLettering";
import { paintLettering, type Paint } from "@/core/letter/paintLettering";
import type { PlacedBlock } from "@/core/letter/layoutLettering";
import type { PlacedLetter } from "@/core/letter/placeBlock";
import { baseOf } from "@/core/letter/setBlock";
import { shapeBlock, type LetterShape } from "@/core/letter/shapeBlock";
import { countParts } from "@/core/letter/letterParts";
import { otherForms, type OtherForm } from "@/core/letter/otherForms";
import type { OpenFace } from "@/core/outlines/openFace";

export { smoothStroke } from "@/core/letter/paths";

export type LaidLetter = Pick<
  PlacedLetter,
  "at" | "cluster" | "text" | "isMissing" | "line" | "turnRad" | "advanceMm"
> & {
  from: PointMm;
  to: PointMm;
  d: string;
  box: Bounds | null;
  parts: number;
  hasForms: boolean;
  /** Of its base: what is drawn now. */
  glyphId: number;
};
export type LaidPart = { role: "shadow" | "outline" | "fill"; d: string; paint: Paint; blurMm: number };
export type LaidBlock = {
  id: string;
  emMm: number;
  ink: Bounds | null;
  missing: string[];
  letters: LaidLetter[];
  parts: LaidPart[];
  /** Of the letter whose points were asked for. */
  points: LaidPoints | null;
};
/** The outline of a letter's base as the face draws it, where its points lie on the sheet, and how they are turned and scaled there. */
export type LaidPoints = {
  at: number;
  outline: Outline;
  unitsPerEm: number;
  placesMm: Float64Array;
  mmPerEm: number;
  turnRad: number;
};
/** A letter whose points are wanted. */
export type PointsOf = { blockId: string; at: number | null };
export type Laid =
  | { ok: true; blocks: LaidBlock[] }
  | LayoutFault
  | { ok: false; code: "face-unread"; blockId: string };

const DIGITS = 3;
const pathOf = (outline: Outline) => writePath(outline, IN_PLACE, DIGITS);

export function layOut(
  document: LetteringDocument,
  faceOf: (block: Block) => OpenFace,
  pointsOf: PointsOf | null = null,
): Laid {
  const laid = layoutLettering(document, faceOf);
  if (!laid.ok) return laid;
  const shapes = laid.blocks.map(shapeBlock);
  const painted = paintLettering(document, shapes);
  return {
    ok: true,
    blocks: shapes.map(({ placed, letters }, i) => {
      const drawn = new Map(letters.map((shape) => [shape.letter, shape]));
      const face = faceOf(placed.block);
      return {
        id: placed.block.id,
        emMm: placed.emMm,
        ink: boundsOf(letters.flatMap((shape) => shape.polygons)),
        missing: placed.missing,
        letters: placed.letters.map((letter) => describeLetter(letter, drawn.get(letter), face)),
        points: pointsOf?.blockId === placed.block.id ? findPoints(placed, face, pointsOf.at) : null,
        parts: painted.blocks[i]!.parts.map(({ outline, ...part }) => ({ ...part, d: pathOf(outline) })),
      };
    }),
  };
}

function findPoints({ letters, block, emMm }: PlacedBlock, face: OpenFace, at: number | null): LaidPoints | null {
  const letter = letters.find((l) => l.at === at);
  const base = letter && baseOf(letter);
  if (at === null || !base?.outline.verbs) return null;
  const scale = block.letters?.find((l) => l.at === at)?.scale ?? 1;
  return {
    at,
    outline: face.outline(base.glyphId),
    unitsPerEm: face.unitsPerEm,
    placesMm: base.outline.coords,
    mmPerEm: emMm * scale,
    turnRad: (base.origin.turnDeg * Math.PI) / 180,
  };
}

/** @param shape - absent: the letter has no ink. */
function describeLetter(letter: PlacedLetter, shape: LetterShape | undefined, face: OpenFace): LaidLetter {
  const { at, cluster, text, isMissing, line, turnRad, advanceMm, from, to } = letter;
  return {
    ...{ at, cluster, text, isMissing, line, turnRad, advanceMm, from, to },
    d: shape ? pathOf(shape.outline) : "",
    box: shape ? boundsOf(shape.polygons) : null,
    parts: shape ? countParts(shape.polygons) : 0,
    hasForms: hasForms(face, text),
    glyphId: baseOf(letter)?.glyphId ?? 0,
  };
}

/** Whether a letter has other forms, by face: it is asked with every move of the hand, and never changes. */
const known = new WeakMap<OpenFace, Map<string, boolean>>();
function hasForms(face: OpenFace, text: string): boolean {
  let ofFace = known.get(face);
  if (!ofFace) known.set(face, (ofFace = new Map()));
  let has = ofFace.get(text);
  if (has === undefined) ofFace.set(text, (has = otherForms(face, text).length > 1));
  return has;
}

/** Another form as it is drawn in a box of one em, its baseline at 0, y down. */
export type DrawnForm = OtherForm & { d: string; advanceEm: number };

export function drawForms(face: OpenFace, text: string): DrawnForm[] {
  const s = 1 / face.unitsPerEm;
  return otherForms(face, text).map((form) => ({
    ...form,
    d: writePath(face.outline(form.glyphId), { a: s, b: 0, c: 0, d: -s, e: 0, f: 0 }, 4),
    advanceEm: face.advanceFu(form.glyphId) * s,
  }));
}
