// Nearness of two styles by their letters’ outlines, from stored signatures.
import { DESCRIBED, BYTES_PER_CHARACTER } from "./extractDescriptors";
import { FORM_LENGTH } from "../measure/cellForm";

const LETTERS = DESCRIBED.map((c, i) => ({ c, i })).filter(({ c }) => /^[A-Za-z0-9&]$/.test(c));
const ABSENT = -32768;
/** Signature bytes a step: about what two neighbouring weights of one family differ by. */
const BYTES_A_STEP = 7;

/**
 * @param a, b - Uint8Array, shape [DESCRIBED.length, BYTES_PER_CHARACTER], as `extractDescriptors` gives them.
 * @returns steps, 0 for the same letters; null when fewer than eight letters are in both.
 */
export function shapeDistance(a: Uint8Array, b: Uint8Array): number | null {
  const [va, vb] = [viewOf(a), viewOf(b)];
  let sum = 0;
  let letters = 0;
  for (const { i } of LETTERS) {
    const base = i * BYTES_PER_CHARACTER;
    const advance = base + FORM_LENGTH + 8;
    if (va.getInt16(advance, true) === ABSENT || vb.getInt16(advance, true) === ABSENT) continue;
    let d = 0;
    for (let k = 0; k < FORM_LENGTH; k++) {
      const e = va.getInt8(base + k) - vb.getInt8(base + k);
      d += e * e;
    }
    sum += Math.sqrt(d / FORM_LENGTH);
    letters++;
  }
  return letters < 8 ? null : sum / letters / BYTES_A_STEP;
}

const viewOf = (bytes: Uint8Array) => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
