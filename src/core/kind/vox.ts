// The Vox-ATypI class of a style, for those who think in it, from measures alone.
// Source: the classes as ATypI adopted them in 1962 (humanist, garalde, transitional, didone, mechanistic, lineal, incised, script,
// manual, blackletter); the thresholds are ours.
import type { KindGuess, Traits, VoxGuess } from "@/contracts/traits";

const { abs } = Math;

/**
 * @param kinds - as `classifyFont` named them. @param proportion - ink width / height of usual letters.
 * @returns the class with confidence and reason; null for picture faces and where too little was measured.
 */
export function nameVox(traits: Traits, kinds: readonly KindGuess[], isEven: boolean): VoxGuess | null {
  const has = (k: KindGuess["value"]) => kinds.some((g) => g.value === k && g.confidence >= 0.5);
  const guess = (value: VoxGuess["value"], confidence: number, because: string): VoxGuess => ({
    value,
    confidence,
    because,
  });
  if (has("picture")) return null;
  if (has("blackletter")) return guess("blackletter", 0.8, "its bowls are broken");
  if (has("script")) return guess("script", 0.8, "it is written in one flow");
  if (has("handwritten")) return guess("manual", 0.75, "it is drawn by hand, not written in one flow");
  if (has("slab")) return guess("mechanistic", 0.85, "its serifs are blocks");
  if (has("serif")) return nameSerif(traits, guess);
  const flare = traits.serif ?? 0;
  if (flare > 0.15 && flare < 0.45 && (traits.contrast ?? 1) > 1.35)
    return guess("incised", 0.6, "its stems widen at their ends without serifs");
  return has("sans") || has("monospaced") ? nameLineal(traits, isEven, guess) : null;
}

type Make = (value: VoxGuess["value"], confidence: number, because: string) => VoxGuess;

function nameSerif({ contrast, stressDeg, serifForm, serifThickness }: Traits, guess: Make): VoxGuess | null {
  if (contrast === null) return null;
  const stress = stressDeg ?? 0;
  const thin = serifThickness ?? 0.4;
  if (contrast > 3.3 && abs(stress) < 9 && (serifForm === "hairline" || thin < 0.3))
    return guess("didone", 0.8, `contrast ${contrast.toFixed(1)}, upright stress, hair-line serifs`);
  if (stress >= 17 && contrast < 2.6)
    return guess("humanist", 0.55, `its round letters lean back by ${Math.round(stress)}°, little contrast`);
  if (stress >= 7) return guess("garalde", 0.65, `its round letters lean back by ${Math.round(stress)}°`);
  return guess("transitional", 0.6, `nearly upright stress (${Math.round(stress)}°), contrast ${contrast.toFixed(1)}`);
}

function nameLineal({ contrast, storeysA, aperture, roundness }: Traits, isEven: boolean, guess: Make): VoxGuess {
  const steady = (contrast ?? 1.2) < 1.22;
  if (isEven && steady && (storeysA === 1 || (roundness ?? 0) > 0.5))
    return guess("geometric", 0.7, "circular bowls, strokes of one thickness");
  if ((aperture ?? 0.3) >= 0.42 && !steady) return guess("humanist-lineal", 0.6, "open c and e, strokes that swell");
  return (aperture ?? 0.3) < 0.33
    ? guess("grotesque", 0.65, "c and e close upon themselves")
    : guess("neo-grotesque", 0.5, "without serifs, neither circular nor written");
}
