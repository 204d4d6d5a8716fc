// Variable fonts are signed at some settings; the one of the picture may lie between them.
import { byTotal, lookAt, lookClosely, type FaceLoader, type Tried } from "./fit";
import type { Coordinates } from "../../descriptors/instances";
import type { Imaging } from "./pose";
import type { SignatureIndex } from "../../descriptors/extractDescriptors";
import type { Wording } from "../../picture/wording";

/** Axes whose setting is looked for between the signed ones, and how far apart those may be. */
const SETTLED_AXES: Record<string, number> = { wght: 65, wdth: 12, slnt: 4 };

/** An entry at a setting that comes nearer than the signed one. */
export type Settled = { tried: Tried; coordinates: Coordinates };

/** Looks between the signed settings. @returns null for a font that is not variable, and where no setting comes nearer. */
export function settleAxes(
  tried: Tried,
  wording: Wording,
  imaging: Imaging,
  index: SignatureIndex,
  load: FaceLoader,
): Settled | null {
  const begun = index.coordinates[tried.entry];
  if (!begun) return null;
  let best = lookAt(tried, begun, wording, imaging, index, load);
  let at = begun;
  for (const [tag, step] of Object.entries(SETTLED_AXES)) {
    if (at[tag] === undefined) continue;
    for (const by of [step, -step, step / 2, -step / 2]) {
      const next = { ...at, [tag]: at[tag]! + by };
      const looked: Tried | null = best && lookAt(best, next, wording, imaging, index, load);
      if (looked && best && byTotal(looked, best) < 0) [best, at] = [looked, next];
    }
  }
  if (at === begun || !best) return null;
  const whole = lookClosely({ ...best, pose: best.result.pose }, imaging);
  return byTotal(whole, tried) < 0 ? { tried: whole, coordinates: at } : null;
}
