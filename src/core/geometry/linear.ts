// Small systems of linear equations, and the main direction of a cloud of points.
const { abs, hypot } = Math;

/** Solves [A | b] by elimination with pivoting. @param rows - shape [n][n + 1]. @returns null when A is singular. */
export function solveLinear(rows: number[][]): number[] | null {
  const n = rows.length;
  const m = rows.map((r) => [...r]);
  for (let i = 0; i < n; i++) {
    let p = i;
    for (let r = i + 1; r < n; r++) if (abs(m[r]![i]!) > abs(m[p]![i]!)) p = r;
    if (abs(m[p]![i]!) < 1e-12) return null;
    [m[i], m[p]] = [m[p]!, m[i]!];
    for (let r = 0; r < n; r++) {
      if (r === i) continue;
      const f = m[r]![i]! / m[i]![i]!;
      for (let k = i; k <= n; k++) m[r]![k]! -= f * m[i]![k]!;
    }
  }
  return m.map((r, i) => r[n]! / r[i]!);
}

/** Solves a symmetric system of three, its upper half given by rows (a b c, d e, f), by Cramer's rule. @returns null when it is singular. */
export function solveSymmetric3(
  a: number,
  b: number,
  c: number,
  d: number,
  e: number,
  f: number,
  v: number[],
): [number, number, number] | null {
  const det = a * (d * f - e * e) - b * (b * f - c * e) + c * (b * e - c * d);
  if (abs(det) < 1e-9) return null;
  const [p, q, r] = v as [number, number, number];
  return [
    (p * (d * f - e * e) - b * (q * f - r * e) + c * (q * e - r * d)) / det,
    (a * (q * f - e * r) - p * (b * f - c * e) + c * (b * r - c * q)) / det,
    (a * (d * r - e * q) - b * (b * r - c * q) + p * (b * e - c * d)) / det,
  ];
}

/** Direction of greatest energy (power iteration on the 3 × 3 second moments). */
export function mainDirection(points: Float32Array, n: number): [number, number, number] {
  const m = [0, 0, 0, 0, 0, 0, 0, 0, 0];
  for (let i = 0; i < n; i++)
    for (let a = 0; a < 3; a++) for (let b = 0; b < 3; b++) m[3 * a + b]! += points[3 * i + a]! * points[3 * i + b]!;
  let v: [number, number, number] = [0.58, 0.58, 0.57];
  for (let k = 0; k < 24; k++) {
    const next = [0, 1, 2].map((a) => m[3 * a]! * v[0] + m[3 * a + 1]! * v[1] + m[3 * a + 2]! * v[2]);
    const length = hypot(...next) || 1;
    v = [next[0]! / length, next[1]! / length, next[2]! / length];
  }
  return v;
}
