// What a picture did to letters, told from the faces that come nearest.
import { START, type Tried } from "./fit";
import { drawPose, imageInk, type Imaging } from "./pose";

/**
 * Blur and ink gain of the picture: those under which one of the best few comes nearest. Not their mean: a wrong face
 * asks for blur to hide what differs, the right one does not.
 */
export function estimateImaging(tried: Tried[]): Imaging {
  let best = { cost: Infinity, imaging: START };
  for (const { result, view } of tried) {
    const { ink: seen } = view.first.strip;
    const drawn = drawPose(result.pose, view.first.strip);
    const total = seen.reduce((a, v) => a + v, 0);
    const imaged = new Float32Array(seen.length);
    for (const blurPx of BLURS_PX) {
      imageInk(drawn, { blurPx, gain: 0 }, imaged);
      for (const gain of GAINS) {
        let cost = 0;
        for (let i = 0; i < seen.length; i++) {
          const v = imaged[i]!;
          const d = v + gain * 4 * v * (1 - v) - seen[i]!;
          cost += d < 0 ? -d : d;
        }
        if (cost / total < best.cost) best = { cost: cost / total, imaging: { blurPx: blurPx * view.perFirst, gain } };
      }
    }
  }
  return best.imaging;
}
const BLURS_PX = [0.3, 0.6, 0.9, 1.3, 1.8, 2.5];
const GAINS = [-0.2, -0.1, 0, 0.1, 0.2];
