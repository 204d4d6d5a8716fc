// A picture of cells as a short description: the low frequencies of its cosine transform. Shared by measuring and identifying.

// Taken out of the global object once: the loops below call them millions of times.
const { cos, max, sqrt } = Math;
const N = 16;
/** Frequencies kept: all (u, v) with u + v small, 36 of 256. */
export const FORM_LENGTH = 36;
const ORDER: [number, number][] = [];
for (let sum = 0; ORDER.length < FORM_LENGTH; sum++)
  for (let u = 0; u <= sum && ORDER.length < FORM_LENGTH; u++) ORDER.push([u, sum - u]);
const SIDE = max(...ORDER.map(([u]) => u), ...ORDER.map(([, v]) => v)) + 1;
const COS = new Float32Array(SIDE * N);
for (let u = 0; u < SIDE; u++)
  for (let x = 0; x < N; x++) COS[u * N + x] = (cos(((2 * x + 1) * u * Math.PI) / (2 * N)) * (u ? Math.SQRT2 : 1)) / N;

// Scratch of describeCells, which is called for every letter of every style.
const rows = new Float32Array(SIDE * N);

/**
 * @param cells - Float32Array, shape [16, 16], 0–1.
 * @returns Float32Array, shape [36]: orthonormal cosine coefficients, low frequencies first; [0] is the mean ink.
 */
export function describeCells(cells: Float32Array): Float32Array {
  for (let y = 0; y < N; y++)
    for (let u = 0; u < SIDE; u++) {
      let sum = 0;
      for (let x = 0; x < N; x++) sum += cells[y * N + x]! * COS[u * N + x]!;
      rows[u * N + y] = sum;
    }
  const out = new Float32Array(FORM_LENGTH);
  for (let k = 0; k < FORM_LENGTH; k++) {
    const [u, v] = ORDER[k]!;
    let sum = 0;
    for (let y = 0; y < N; y++) sum += rows[u * N + y]! * COS[v * N + y]!;
    out[k] = (sum * N) / 4;
  }
  return out;
}

/** Likeness of two forms: correlation of all but the mean ink, −1 to 1. */
export function likeness(a: Float32Array, b: Float32Array): number {
  let ab = 0;
  let aa = 0;
  let bb = 0;
  for (let k = 1; k < FORM_LENGTH; k++) {
    ab += a[k]! * b[k]!;
    aa += a[k]! * a[k]!;
    bb += b[k]! * b[k]!;
  }
  return aa && bb ? ab / sqrt(aa * bb) : 0;
}
