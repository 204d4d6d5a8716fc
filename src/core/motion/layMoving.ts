// A block's letters laid out at a moment, each at its own place on the axes and with its own tracking: where one is wider already, those
// after it stand further on.
import type { Block } from "@/contracts/lettering";
import type { LayoutFault, PlacedBlock } from "../letter/layoutLettering";
import { layoutBlock, missingOf } from "../letter/layoutLettering";
import { followPath } from "../letter/paths";
import { findEmMm, placeBlock, type PlacedLetter } from "../letter/placeBlock";
import { setBlock, type SetLineOfLetters } from "../letter/setBlock";
import type { MovingFace } from "../outlines/openFace";

/** What of a letter's state its outline and its width depend on. */
type LetterForm = { coordinates?: Record<string, number> | undefined; trackingEm?: number | undefined };
type LaidMoving = { ok: true; placed: PlacedBlock } | LayoutFault;

export const keyOfForm = ({ coordinates, trackingEm }: LetterForm) =>
  `${JSON.stringify(coordinates ?? {})} ${trackingEm}`;

/** The block as it is laid out by itself: about its own place, unturned. */
const alone = (block: Block, { coordinates, trackingEm }: LetterForm): Block => {
  const { coordinates: _, trackingEm: __, turnDeg: ___, ...rest } = block;
  return {
    ...rest,
    ...(coordinates && { coordinates }),
    ...(trackingEm !== undefined && { trackingEm }),
    at: { xMm: 0, yMm: 0 },
  };
};

/** All letters in one form. */
export function layTogether(block: Block, form: LetterForm, { face, moveTo }: MovingFace): LaidMoving {
  moveTo(form.coordinates ?? {});
  return layoutBlock(alone(block, form), face);
}

/** @param forms - of every letter, by its index. */
export function layMoving(block: Block, forms: ReadonlyMap<number, LetterForm>, moving: MovingFace): LaidMoving {
  const { face, moveTo } = moving;
  const keys = new Map([...forms].map(([at, form]) => [at, keyOfForm(form)]));
  const distinct = new Map([...forms].map(([at, form]) => [keys.get(at)!, form]));
  if (distinct.size < 2) return layTogether(block, [...distinct.values()][0] ?? block, moving);
  const baseline = followPath(block.path);
  if (typeof baseline === "string") return { ok: false, code: baseline, blockId: block.id };
  const set = new Map<string, { lines: SetLineOfLetters[]; emMm: number }>();
  for (const [key, form] of distinct) {
    moveTo(form.coordinates ?? {});
    const own = alone(block, form);
    const lines = setBlock(face, own);
    const emMm = findEmMm(face, own, lines);
    if (emMm === null) return { ok: false, code: "no-size", blockId: block.id };
    set.set(key, { lines, emMm });
  }
  const keyAt = (at: number) => keys.get(at) ?? keyOfForm(block);
  const lines = mixLines(set, keyAt);
  const ats = lines.flatMap((l) => l.letters.map((letter) => letter.at));
  // As large as its letters are on the whole: it does not jump when the last of them has come.
  const emMm = ats.reduce((sum, at) => sum + set.get(keyAt(at))!.emMm, 0) / ats.length;
  const letters: PlacedLetter[] = [];
  for (const [key, form] of distinct) {
    moveTo(form.coordinates ?? {});
    const own = lines.map((line) => ({ ...line, letters: line.letters.filter((l) => keyAt(l.at) === key) }));
    letters.push(...placeBlock(face, alone(block, form), own, emMm, baseline));
  }
  letters.sort((a, b) => a.line - b.line || a.at - b.at);
  return {
    ok: true,
    placed: { block: alone(block, block), emMm, unitsPerEm: face.unitsPerEm, letters, missing: missingOf(letters) },
  };
}

/** Lines whose letters are each as their own form sets them, spaced on from one another. */
function mixLines(
  set: ReadonlyMap<string, { lines: SetLineOfLetters[] }>,
  keyAt: (at: number) => string,
): SetLineOfLetters[] {
  const [first] = [...set.values()];
  return first!.lines.map(({ letters }, line) => {
    let xFu = 0;
    const mixed = letters.map(({ at }, i) => {
      const own = set.get(keyAt(at))!.lines[line]!;
      const letter = own.letters[i]!;
      const placed = { ...letter, xFu };
      xFu += (own.letters[i + 1]?.xFu ?? own.widthFu) - letter.xFu;
      return placed;
    });
    return { letters: mixed, widthFu: xFu };
  });
}
