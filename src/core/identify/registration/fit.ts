// One entry of the index laid over a line and moved onto it: what is done for every candidate, by whichever thread has it.
import type { OpenFace } from "../../outlines/openFace";
import { halveLine, type InkLine } from "../../picture/readPicture";
import { UPRIGHT, type Lean } from "../../picture/straighten";
import { refinePose, type FineResult } from "./fine";
import type { VariationLocation } from "../../descriptors/instances";
import { placeWord, shapeVariants } from "./place";
import { scalePose, type Imaging, type Pose } from "./pose";
import type { SignatureIndex } from "../../descriptors/extractDescriptors";
import type { Wording } from "../../picture/wording";

const { abs } = Math;

/** Opens a style's face, at a location of its axes. */
export type FaceLoader = (styleId: string, coordinates: VariationLocation | null) => OpenFace | null;

/** The line under one hypothesis of its ink and of how far perspective made its letters lean; `first` is its copy for a first look. */
export type View = { line: InkLine; lean: Lean; first: InkLine; perFirst: number };

/** An entry under a view, and where it lay when it was last looked at; null: nowhere yet. `per`: pixels of the line one of the pose is. */
export type Laid = { entry: number; view: View; pose: Pose | null; per: number };

/** An entry as it was found to lie. */
export type Tried = { entry: number; view: View; per: number; result: FineResult; total: number };

export const START: Imaging = { blurPx: 0.7, gain: 0 };
const SPACING_WEIGHT = 1.2;
/** What an assumed lean costs: a face that fits as it stands is believed first. */
const LEAN_COST = 0.12;
/** Ink of fewer pixels than this is not halved for the first look. */
const HALVE_FROM_PX = 44;
/** Rounds of fitting over the whole line. */
const CLOSEST_ROUNDS = 4;

export function viewOf(line: InkLine, lean: Lean): View {
  const isHalved = line.strip.heightPx - 16 >= HALVE_FROM_PX;
  return { line, lean, first: isHalved ? halveLine(line) : line, perFirst: isHalved ? 2 : 1 };
}

const asTheyStand = new WeakMap<InkLine, View>();
/** A line as it stands: always the same view, so that what lay on it before is moved on from there. */
export function viewAsItStands(line: InkLine): View {
  let view = asTheyStand.get(line);
  if (!view) asTheyStand.set(line, (view = viewOf(line, UPRIGHT)));
  return view;
}

/** Fits over the small copy. @returns null when the face draws nothing of the text or cannot be placed. */
export function fitPreview(
  { entry, view, pose }: Laid,
  wording: Wording,
  imaging: Imaging,
  rounds: number,
  index: SignatureIndex,
  load: FaceLoader,
): Tried | null {
  const shrunk = shrink(imaging, view);
  const face = pose ? null : load(index.ids[entry]!, index.coordinates[entry]!);
  const placed = face && place(face, view, wording, shrunk);
  const begun = pose ?? placed?.pose;
  if (!begun) return null;
  const result = placed && !rounds ? placed : refinePose(begun, view.first, shrunk, rounds);
  return scoreFit(entry, view, view.perFirst, result);
}

/** Fits over the whole line, from where another fit ended. */
export function fitFull({ entry, view, per, pose }: Laid, imaging: Imaging): Tried {
  return scoreFit(entry, view, 1, refinePose(scalePose(pose!, per), view.line, imaging, CLOSEST_ROUNDS));
}

/** Another location of the same font over the small copy, begun where this one lies. */
export function fitAtLocation(
  { entry, view, per, result }: Tried,
  coordinates: VariationLocation,
  wording: Wording,
  imaging: Imaging,
  index: SignatureIndex,
  load: FaceLoader,
): Tried | null {
  const face = load(index.ids[entry]!, coordinates);
  const placed = face && place(face, view, wording, shrink(imaging, view))?.pose;
  if (!placed || placed.parts.length !== result.pose.parts.length) return null;
  const at = scalePose(result.pose, per / view.perFirst);
  const pose: Pose = {
    ...at,
    parts: placed.parts.map((p, i) => ({ ...p, atPx: at.parts[i]!.atPx, dyPx: at.parts[i]!.dyPx })),
  };
  return scoreFit(entry, view, view.perFirst, refinePose(pose, view.first, shrink(imaging, view), 1));
}

/** Another pose of the same entry over the small copy. @param pose - is moved. */
export function refit({ entry, view }: Tried, pose: Pose, imaging: Imaging, rounds: number): Tried {
  return scoreFit(entry, view, view.perFirst, refinePose(pose, view.first, shrink(imaging, view), rounds));
}

/** Of the variants of the text, and of the places where each may begin, the one that comes nearest as it lies. @param imaging - over the small copy. */
function place(face: OpenFace, view: View, wording: Wording, imaging: Imaging): FineResult | null {
  let best: FineResult | null = null;
  for (const set of shapeVariants(face, wording))
    for (const pose of placeWord(face, view.first, wording, set)) {
      const result = refinePose(pose, view.first, imaging, 0);
      if (!best || costOf(result) < costOf(best)) best = result;
    }
  return best;
}

const costOf = ({ cost, spacing }: FineResult) => cost + SPACING_WEIGHT * spacing;

function scoreFit(entry: number, view: View, per: number, result: FineResult): Tried {
  const total = costOf(result) + LEAN_COST * abs(view.lean.tan);
  return { entry, view, per, result, total };
}

const shrink = (imaging: Imaging, { perFirst }: View): Imaging => ({ ...imaging, blurPx: imaging.blurPx / perFirst });
export const byTotal = (a: Tried, b: Tried) => a.total - b.total;
