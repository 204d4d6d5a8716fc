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
const rows = new Float64Array(SIDE * N);
const HALF = N / 2;
const folded = new Float64Array(N);

/**
 * @param cells - Float32Array, shape [16, 16], 0–1.
 * @returns Float32Array, shape [36]: orthonormal cosine coefficients, low frequencies first; [0] is the mean ink.
 */
export function describeCells(cells: Float32Array): Float32Array {
  // A cosine of even frequency is the same in both halves of a row, one of odd frequency turned round: half the work.
  for (let y = 0; y < N; y++) {
    fold(cells, y * N);
    for (let u = 0; u < SIDE; u++) rows[u * N + y] = foldedSum(u);
  }
  const out = new Float32Array(FORM_LENGTH);
  let at = -1;
  for (let i = 0; i < FORM_LENGTH; i++) {
    const k = BY_COLUMN[i]!;
    const u = ACROSS[k]!;
    if (u !== at) fold(rows, u * N);
    at = u;
    out[k] = (foldedSum(UP[k]!) * N) / 4;
  }
  return out;
}
/** The wanted frequencies, those of one column together. */
const BY_COLUMN = Uint8Array.from(ORDER.map((_, k) => k).sort((a, b) => ORDER[a]![0] - ORDER[b]![0]));
/** Frequencies of each number of a description, across and upright. */
const ACROSS = Uint8Array.from(ORDER, ([u]) => u);
const UP = Uint8Array.from(ORDER, ([, v]) => v);

function fold(values: Float32Array | Float64Array, from: number) {
  for (let x = 0; x < HALF; x++) {
    const a = values[from + x]!;
    const b = values[from + N - 1 - x]!;
    folded[x] = a + b;
    folded[HALF + x] = a - b;
  }
}

function foldedSum(u: number): number {
  const from = u & 1 ? HALF : 0;
  let sum = 0;
  for (let x = 0; x < HALF; x++) sum += folded[from + x]! * COS[u * N + x]!;
  return sum;
}

/** For each frequency upright, the wanted ones across: where each stands in a description. */
const PLACED = Array.from({ length: SIDE }, (_, v) =>
  Uint8Array.from(
    ORDER.flatMap(([u, w], k) => (w === v ? [{ u, k }] : [])).sort((p, q) => p.u - q.u),
    ({ k }) => k,
  ),
);
const column = new Float64Array(SIDE);

/**
 * What a description draws, without its high frequencies, at some places of its sixteen columns and rows.
 * @param form - shape [36], as of `describeCells` times `steps`. @param xs, ys - cells, 0–15.
 * @param out - Float32Array, shape [xs.length, ys.length], written to: ink 0–1.
 */
export function drawCells(
  form: ArrayLike<number>,
  steps: number,
  xs: readonly number[],
  ys: readonly number[],
  out: Float32Array,
): void {
  // COS holds a factor of 1/N each way.
  const scale = (N * N) / (4 * steps);
  let at = 0;
  for (const x of xs) {
    for (let v = 0; v < SIDE; v++) {
      const placed = PLACED[v]!;
      let sum = 0;
      // All frequencies across from none to the highest that is kept.
      for (let u = 0; u < placed.length; u++) sum += form[placed[u]!]! * COS[u * N + x]!;
      column[v] = sum * scale;
    }
    for (const y of ys) {
      let sum = 0;
      for (let v = 0; v < SIDE; v++) sum += column[v]! * COS[v * N + y]!;
      out[at++] = sum < 0 ? 0 : sum > 1 ? 1 : sum;
    }
  }
}

/**
 * Mean ink of rows of what a description draws, without its high frequencies.
 * @param form, steps - as of `drawCells`. @param ys - cells, 0–15. @param out - shape [ys.length], written to.
 */
export function meanInk(form: ArrayLike<number>, steps: number, ys: readonly number[], out: Float32Array): void {
  const scale = N / (4 * steps);
  ys.forEach((y, i) => {
    let sum = 0;
    for (let v = 0; v < SIDE; v++) sum += form[PLACED[v]![0]!]! * COS[v * N + y]!;
    out[i] = sum * scale;
  });
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
