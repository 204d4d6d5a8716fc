// Where the face of a picture is not there: which of those that come near are nearest by look.

/** What a face looks like, the likeliest first, and how near it came (0–1). */
type FaceLook<Kind extends string, Treatment extends string> = {
  score: number;
  kinds: readonly Kind[];
  treatments: readonly Treatment[];
};
type ByLook<Kind, Treatment, Face> = { kind: Kind | null; treatments: Treatment[]; faces: Face[] };

/** A face that comes this much less near says less than half as much about the look of the picture. */
const SCORE_STEP = 0.05;

/**
 * The kind and the treatments that the nearest faces have are taken for those of the picture; faces of both come first, then of the
 * kind, then the rest, each as near as they came.
 */
export function orderByLook<Kind extends string, Treatment extends string, Face>(
  faces: readonly (Face & FaceLook<Kind, Treatment>)[],
): ByLook<Kind, Treatment, Face> {
  const best = Math.max(...faces.map((f) => f.score));
  type Looked = Face & FaceLook<Kind, Treatment>;
  const weightOf = (f: Looked) => Math.exp((f.score - best) / SCORE_STEP);
  const all = faces.reduce((sum, f) => sum + weightOf(f), 0);
  const kinds = new Map<Kind, number>();
  const treatments = new Map<Treatment, number>();
  for (const face of faces) {
    const [kind] = face.kinds;
    if (kind) kinds.set(kind, (kinds.get(kind) ?? 0) + weightOf(face));
    for (const t of face.treatments) treatments.set(t, (treatments.get(t) ?? 0) + weightOf(face));
  }
  const kind = [...kinds].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null;
  const usual = [...treatments].filter(([, weight]) => weight > all / 2).map(([t]) => t);
  const isTreatedSo = (f: Looked) =>
    usual.length ? f.treatments.some((t) => usual.includes(t)) : f.treatments.length === 0;
  const rankOf = (f: Looked) => (kind !== null && !f.kinds.includes(kind) ? 2 : isTreatedSo(f) ? 0 : 1);
  return {
    kind,
    treatments: usual,
    faces: [...faces].sort((a, b) => rankOf(a) - rankOf(b) || b.score - a.score),
  };
}
