// Variable fonts are described at some locations; the one of the picture may lie between them.
import { byTotal, fitAtLocation, fitFull, type FaceLoader, type Tried } from "./fit";
import type { VariationLocation } from "../../descriptors/instances";
import type { Imaging } from "./pose";
import type { SignatureIndex } from "../../descriptors/extractDescriptors";
import type { Wording } from "../../picture/wording";

/** Axes whose location is refined between those described, and how far apart those may be. */
const SETTLED_AXES: Record<string, number> = { wght: 65, wdth: 12, slnt: 4 };

/** An entry at a location that comes nearer than the one described. */
export type RefinedLocation = { tried: Tried; coordinates: VariationLocation };

/** Looks between the locations described. @returns null for a font that is not variable, and where no location comes nearer. */
export function refineLocation(
  tried: Tried,
  wording: Wording,
  imaging: Imaging,
  index: SignatureIndex,
  load: FaceLoader,
): RefinedLocation | null {
  const begun = index.coordinates[tried.entry];
  if (!begun) return null;
  let best = fitAtLocation(tried, begun, wording, imaging, index, load);
  let at = begun;
  for (const [tag, step] of Object.entries(SETTLED_AXES)) {
    if (at[tag] === undefined) continue;
    for (const by of [step, -step, step / 2, -step / 2]) {
      const next = { ...at, [tag]: at[tag]! + by };
      const looked: Tried | null = best && fitAtLocation(best, next, wording, imaging, index, load);
      if (looked && best && byTotal(looked, best) < 0) [best, at] = [looked, next];
    }
  }
  if (at === begun || !best) return null;
  const whole = fitFull({ ...best, pose: best.result.pose }, imaging);
  return byTotal(whole, tried) < 0 ? { tried: whole, coordinates: at } : null;
}
