// A lettering document → where every letter of it stands and what it is drawn as. What is checked, joined and written starts from this.
import type { Block, InkBox, LetteringDocument, LetteringLayout } from "@/contracts/lettering";
import type { Bounds } from "../geometry/outline";
import type { OpenFace } from "../outlines/openFace";
import { findEmMm, inkOfLetters, placeBlock, type PlacedLetter } from "./placeBlock";
import { followPath, type PathFault } from "./paths";
import { setBlock } from "./setBlock";

/** `emMm`: as large as the block came to be. `missing`: characters that the face lacks, each once. */
export type PlacedBlock = {
  block: Block;
  emMm: number;
  unitsPerEm: number;
  letters: PlacedLetter[];
  missing: string[];
};
/** Why a block cannot be laid out; `blockId` says which. */
export type LayoutFault = { ok: false; code: PathFault | "no-size"; blockId: string };

/**
 * Lays a whole document out.
 * @param faceOf - opens the face of a block at its location; the caller keeps faces that are used again.
 * @returns blocks in the document's order, or the first block that cannot be laid out and why.
 * @throws what `faceOf` throws.
 */
export function layoutLettering(
  { blocks }: LetteringDocument,
  faceOf: (block: Block) => OpenFace,
): { ok: true; blocks: PlacedBlock[] } | LayoutFault {
  const placed: PlacedBlock[] = [];
  for (const block of blocks) {
    const laid = layoutBlock(block, faceOf(block));
    if (!laid.ok) return laid;
    placed.push(laid.placed);
  }
  return { ok: true, blocks: placed };
}

/** One block alone. */
export function layoutBlock(block: Block, face: OpenFace): { ok: true; placed: PlacedBlock } | LayoutFault {
  const baseline = followPath(block.path);
  if (typeof baseline === "string") return { ok: false, code: baseline, blockId: block.id };
  const lines = setBlock(face, block);
  const hasLetters = lines.some((line) => line.letters.some((l) => l.text.trim()));
  const emMm = findEmMm(face, block, lines);
  // A block without words has no size of its own yet; one whose face has no such letter cannot be sized by it.
  if (emMm === null && hasLetters) return { ok: false, code: "no-size", blockId: block.id };
  const letters = emMm === null ? [] : placeBlock(face, block, lines, emMm, baseline);
  return {
    ok: true,
    placed: { block, emMm: emMm ?? 0, unitsPerEm: face.unitsPerEm, letters, missing: missingOf(letters) },
  };
}

/** Characters that the face lacks, each once. */
export const missingOf = (letters: readonly PlacedLetter[]): string[] => [
  ...new Set(letters.filter((l) => l.isMissing).map((l) => l.text)),
];

const toInkBox = (b: Bounds): InkBox => ({
  xMm: b.xMin,
  yMm: b.yMin,
  widthMm: b.xMax - b.xMin,
  heightMm: b.yMax - b.yMin,
});

/** A layout as it is told over HTTP: numbers, without outlines. */
export function describeLayout(blocks: readonly PlacedBlock[]): LetteringLayout {
  return {
    blocks: blocks.map(({ block, emMm, unitsPerEm, letters, missing }) => {
      const ink = inkOfLetters(letters);
      return {
        id: block.id,
        emMm,
        glyphs: letters.flatMap(({ at, glyphs }) =>
          glyphs.map(({ glyphId, cluster, origin, advanceFu }) => ({
            at,
            glyphId,
            cluster,
            ...origin,
            advanceMm: (advanceFu / unitsPerEm) * emMm,
          })),
        ),
        inkBox: ink && toInkBox(ink),
        missing,
      };
    }),
  };
}
