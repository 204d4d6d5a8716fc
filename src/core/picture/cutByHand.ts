// A line whose letters a person has cut: the boxes are theirs, and ink outside of all of them is no lettering.
import type { InkLine } from "./readPicture";
import type { CutBox } from "./straighten";

/** Ink share from which a pixel belongs to a letter. */
const IS_INK = 0.4;

/**
 * @param boxes - in the strip's pixels, in any order; may overlap. Not modified.
 * @returns the line with only the ink in the boxes, and each box drawn tight around its ink; null when none of them holds any.
 */
export function cutByHand(line: InkLine, boxes: readonly CutBox[]): InkLine | null {
  const { widthPx, heightPx, ink } = line.strip;
  const kept = new Float32Array(ink.length);
  const letters: CutBox[] = [];
  for (const box of [...boxes].sort((a, b) => a.left - b.left)) {
    const from = Math.max(0, Math.floor(box.left));
    const to = Math.min(widthPx, Math.ceil(box.right));
    const above = Math.max(0, Math.floor(box.top));
    const below = Math.min(heightPx, Math.ceil(box.bottom));
    const tight = { left: to, top: below, right: from, bottom: above };
    for (let y = above; y < below; y++)
      for (let x = from; x < to; x++) {
        const v = ink[y * widthPx + x]!;
        kept[y * widthPx + x] = v;
        if (v < IS_INK) continue;
        tight.left = Math.min(tight.left, x);
        tight.right = Math.max(tight.right, x + 1);
        tight.top = Math.min(tight.top, y);
        tight.bottom = Math.max(tight.bottom, y + 1);
      }
    if (tight.right > tight.left) letters.push({ ...box, ...tight });
  }
  return letters.length ? { ...line, strip: { ...line.strip, ink: kept }, letters } : null;
}
