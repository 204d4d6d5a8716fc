// Letters that a designer chose otherwise: where a face agrees but for a few letters, its own alternates are tried in their place.
import { refit, type FaceLoader, type Tried } from "./fit";
import { drawnGlyphs, makeParts, shapeVariant } from "./place";
import { clonePose, type Imaging, type Part, type Pose } from "./pose";
import type { SignatureIndex } from "../../descriptors/extractDescriptors";
import { writeSmall, type Wording } from "../../picture/wording";

/** Features by which one glyph stands for another where a designer asks for it. */
const CHOSEN_BY_LETTER = /^(salt|ss\d\d|cv\d\d|swsh|titl|hist|zero|onum|lnum|case)$/;
/** Features of a face that are tried at most: some have one a letter. */
const MAX_FEATURES = 40;
/** A letter that agrees this well needs no other. */
const WELL_ENOUGH = 0.86;
/** What another letter must gain for itself, and what each feature must gain for the whole: the plain letters are believed first. */
const GAIN = 0.04;
const COST_A_FEATURE = 0.006;
const ROUNDS = 2;

/**
 * Tries a face's alternates for the letters that agree least.
 * @param tried - as it was found to lie. @returns the same with other letters, moved onto the line once more; null where none comes nearer.
 */
export function tryAlternates(
  tried: Tried,
  wording: Wording,
  imaging: Imaging,
  index: SignatureIndex,
  load: FaceLoader,
): Tried | null {
  const { features: own } = tried.result.pose;
  // Capitals drawn smaller are a program's, not the face's.
  const isScaled = wording.small && !own.includes("smcp");
  if (isScaled || !weakOf(tried).some(Boolean)) return null;
  const face = load(index.ids[tried.entry]!, index.coordinates[tried.entry]!);
  const tags = face?.features().filter((tag) => CHOSEN_BY_LETTER.test(tag) && !own.includes(tag)) ?? [];
  if (!face || !tags.length) return null;
  const text = writeSmall(wording, "lower");
  let best = tried;
  for (const tag of tags.slice(0, MAX_FEATURES)) {
    const set = shapeVariant(face, text, [...own, tag]);
    // Most features leave a word as it is: its outlines are asked for only where one does not.
    if (!standsForWeak(drawnGlyphs(face, set), best)) continue;
    const { parts } = makeParts(face, text, wording.characters.length, set);
    best = takeBetter(best, parts, tag, imaging);
  }
  if (best === tried) return null;
  const moved = refit(best, clonePose(best.result.pose), imaging, ROUNDS);
  return moved.total < tried.total ? moved : null;
}

const weakOf = ({ result }: Tried) => result.letters.map((agreement) => agreement < WELL_ENOUGH);

/** Whether a variant has another glyph for a weak letter, and as many in all. */
function standsForWeak(glyphs: readonly { glyphId: number }[], tried: Tried): boolean {
  const { parts } = tried.result.pose;
  const weak = weakOf(tried);
  return glyphs.length === parts.length && glyphs.some((g, i) => weak[i] && g.glyphId !== parts[i]!.glyphId);
}

/** Takes of another variant those letters that agree clearly better than the weak ones they stand for. */
function takeBetter(tried: Tried, others: Part[], tag: string, imaging: Imaging): Tried {
  const { pose, letters } = tried.result;
  const weak = weakOf(tried);
  const swapped = others.map((o, i) => (weak[i] && o.glyphId !== pose.parts[i]!.glyphId ? o : null));
  const swap = (by: (Part | null)[]): Pose => ({
    ...pose,
    features: [...pose.features, tag],
    parts: pose.parts.map((p, i) => ({ ...(by[i] ?? p), atPx: p.atPx, dyPx: p.dyPx })),
  });
  const all = refit(tried, swap(swapped), imaging, 1);
  const better = swapped.map((o, i) => (o && all.result.letters[i]! > letters[i]! + GAIN ? o : null));
  if (!better.some(Boolean)) return tried;
  const some = refit(tried, swap(better), imaging, 1);
  return some.total + COST_A_FEATURE < tried.total ? some : tried;
}
