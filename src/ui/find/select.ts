// Pure answers about the wall: where a key moves the focus, what is active in words.
import { KIND_WORDS, TREATMENT_WORDS, VERDICT_WORDS } from "@/contracts/words";
import type { FindAddress } from "./address";

/** @returns the new index, or null when the key does not move. */
export function moveFocus(key: string, at: number, total: number, columns: number, rowsShown: number): number | null {
  const steps: Record<string, number> = {
    ArrowRight: 1,
    ArrowLeft: -1,
    ArrowDown: columns,
    ArrowUp: -columns,
    PageDown: columns * rowsShown,
    PageUp: -columns * rowsShown,
    Home: -at,
    End: total - 1 - at,
  };
  const step = steps[key];
  if (step === undefined || !total) return null;
  return Math.min(total - 1, Math.max(0, at + step));
}

/** Everything of the sieve that is on, as words that can be taken away. */
export function selectActive(a: FindAddress): { label: string; off: Partial<Record<keyof FindAddress, unknown>> }[] {
  const without = <T>(list: T[], value: T) => list.filter((v) => v !== value);
  const range = (name: string, low: number | null, high: number | null) =>
    low !== null && high !== null
      ? `${name} ${low}–${high}`
      : low !== null
        ? `${name} from ${low}`
        : `${name} to ${high}`;
  return [
    ...a.kinds.map((k) => ({ label: KIND_WORDS[k].toLowerCase(), off: { kinds: without(a.kinds, k) } })),
    ...a.treatments.map((t) => ({
      label: TREATMENT_WORDS[t].toLowerCase(),
      off: { treatments: without(a.treatments, t) },
    })),
    ...a.verdicts.map((v) => ({ label: VERDICT_WORDS[v].toLowerCase(), off: { verdicts: without(a.verdicts, v) } })),
    ...(a.weightMin !== null || a.weightMax !== null
      ? [{ label: range("weight", a.weightMin, a.weightMax), off: { weightMin: null, weightMax: null } }]
      : []),
    ...(a.widthMin !== null || a.widthMax !== null
      ? [{ label: range("width", a.widthMin, a.widthMax), off: { widthMin: null, widthMax: null } }]
      : []),
    ...(a.complete ? [{ label: "has all characters", off: { complete: null } }] : []),
    ...(a.pictures !== "in"
      ? [{ label: a.pictures === "out" ? "no picture fonts" : "only picture fonts", off: { pictures: null } }]
      : []),
  ];
}
