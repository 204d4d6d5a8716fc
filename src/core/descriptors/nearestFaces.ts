// Which faces of the libraries have given letters: by signatures of outlines, or where only widths are known, by advances.
import { FORM_LENGTH } from "../measure/cellForm";
import { DESCRIBED, SignatureIndex } from "./extractDescriptors";

type NearFace = {
  /** Entry of the index. */
  entry: number;
  /** Mean over the letters that both have, in steps as between two neighbouring weights of a family. */
  steps: number;
  /** No letter differs by more than what rounding does. */
  isSame: boolean;
};

/** Fewer letters than this tell nothing. */
const MIN_LETTERS = 3;
/** Form numbers a step, box and advance in em a step: about what two neighbouring weights differ by. */
const FORM_STEP = 7;
const BOX_STEP_EM = 0.02;
/** Programs that embed fonts round outlines to their own grid, and hinting moves nothing here. */
const SAME_FORM = 1.6;
const SAME_BOX_EM = 0.006;
/** One letter in ten may be another: alternates stand for the same character. */
const SAME_SHARE = 0.9;

/**
 * Ranks every entry by outlines.
 * @param probe - as `extractDescriptors` gives it; letters that are not known are absent.
 * @returns entries that have at least half of the letters, nearest first; empty when too few letters are known.
 */
export function rankByOutlines(probe: Uint8Array, index: SignatureIndex): NearFace[] {
  const one = SignatureIndex.of([{ id: "", family: "", signature: probe }]);
  const letters = DESCRIBED.flatMap((_, position) => {
    const box = one.box(0, position);
    return box ? [{ position, box, form: one.form(0, position) }] : [];
  });
  if (letters.length < MIN_LETTERS) return [];
  const near: NearFace[] = [];
  for (let entry = 0; entry < index.ids.length; entry++) {
    let [sum, both, same] = [0, 0, 0];
    for (const { position, box, form } of letters) {
      const other = index.box(entry, position);
      if (!other) continue;
      both++;
      const formOff = Math.sqrt(formDistance(form, index.form(entry, position)) / FORM_LENGTH);
      const boxOff =
        (Math.abs(box.left - other.left) +
          Math.abs(box.right - other.right) +
          Math.abs(box.top - other.top) +
          Math.abs(box.bottom - other.bottom) +
          Math.abs(box.advance - other.advance)) /
        5;
      sum += formOff / FORM_STEP + boxOff / BOX_STEP_EM;
      if (formOff < SAME_FORM && boxOff < SAME_BOX_EM) same++;
    }
    if (both * 2 >= letters.length)
      near.push({ entry, steps: sum / both, isSame: same >= SAME_SHARE * letters.length });
  }
  return near.sort((a, b) => a.steps - b.steps);
}

function formDistance(a: Int8Array, b: Int8Array): number {
  let d = 0;
  for (let k = 0; k < FORM_LENGTH; k++) {
    const e = a[k]! - b[k]!;
    d += e * e;
  }
  return d;
}

/** A letter's advance differs by about this much between faces that nobody would take for each other. */
const ADVANCE_STEP_EM = 0.03;
const MIN_ADVANCES = 6;

/** Ranks every entry by advances alone. @param advancesEm - character → advance in em. */
export function rankByAdvances(advancesEm: Readonly<Record<string, number>>, index: SignatureIndex): NearFace[] {
  const known = Object.entries(advancesEm).flatMap(([char, advance]) => {
    const position = SignatureIndex.at(char);
    return position < 0 || advance <= 0 ? [] : [{ position, advance }];
  });
  if (known.length < MIN_ADVANCES) return [];
  const near: NearFace[] = [];
  for (let entry = 0; entry < index.ids.length; entry++) {
    let [sum, both] = [0, 0];
    for (const { position, advance } of known) {
      const box = index.box(entry, position);
      if (!box) continue;
      both++;
      sum += Math.abs(box.advance - advance);
    }
    if (both * 1.25 >= known.length) near.push({ entry, steps: sum / both / ADVANCE_STEP_EM, isSame: false });
  }
  return near.sort((a, b) => a.steps - b.steps);
}
