// What differs between faces by their measures, largest first, each in a sentence; and what does not. Stands behind the first line of Compare.
import type { Traits } from "@/contracts/traits";
import { COMPARED, type ComparedTrait } from "./steps";

/** From this many steps on a reader sees a difference; under it faces count as the same in that. */
const SEEN_FROM_STEPS = 0.5;

type TraitDifference = {
  trait: ComparedTrait["trait"];
  unit: string;
  /** One a face, in the unit; null where it cannot be measured. */
  values: (number | null)[];
  /** Between the least and the most, in steps that a reader sees. */
  steps: number;
  says: string;
  /** Place of the face that the sentence is of. */
  face: number;
  /** Letters in which it shows; empty: in the whole word. */
  shownIn: string;
  subject: string;
};

/**
 * @param faces - two or more, each by the name that sentences call it.
 * @returns differences of at least half a step, most steps first; and the traits that are the same in all.
 */
export function compareTraits(faces: readonly { name: string; traits: Traits }[]): {
  differences: TraitDifference[];
  same: ComparedTrait["trait"][];
} {
  const names = faces.map((f) => f.name);
  const differences: TraitDifference[] = [];
  const same: ComparedTrait["trait"][] = [];
  for (const compared of COMPARED) {
    const { trait, unit, shownIn, subject } = compared;
    const values = faces.map(({ traits }) => traits[trait] ?? null);
    const known = values.filter((v) => v !== null);
    if (known.length < 2) continue;
    const steps = (Math.max(...known) - Math.min(...known)) / compared.step;
    if (steps >= SEEN_FROM_STEPS)
      differences.push({
        ...{ trait, unit, values, steps: Number(steps.toFixed(2)), shownIn, subject },
        ...tell(compared, names, values),
      });
    else if (known.length === values.length) same.push(trait);
  }
  return { differences: differences.sort((a, b) => b.steps - a.steps), same };
}

/** One difference a subject, the largest: what a person reads first. */
export function tellOnce<D extends Pick<TraitDifference, "subject">>(differences: readonly D[]): D[] {
  const told = new Set<string>();
  return differences.filter(({ subject }) => !told.has(subject) && told.add(subject));
}

/** The sentence is of the face that stands apart: the one farther from the middle of all. Of two it is the second: the first is known. */
function tell(
  { more, less, amount }: ComparedTrait,
  names: readonly string[],
  values: readonly (number | null)[],
): { face: number; says: string } {
  const placed = values
    .flatMap((value, face) => (value === null ? [] : [{ value, face }]))
    .sort((a, b) => a.value - b.value || a.face - b.face);
  const [least, most] = [placed[0]!, placed[placed.length - 1]!];
  const middle = (placed[(placed.length - 1) >> 1]!.value + placed[placed.length >> 1]!.value) / 2;
  const isMost = placed.length === 2 ? most.face > least.face : most.value - middle >= middle - least.value;
  const [told, other] = isMost ? [most, least] : [least, most];
  const sentence = (isMost ? more : less).replace("{}", writeAmount(amount, told.value, other.value));
  const than =
    placed.length > 2 && amount !== "both" && !sentence.includes("storey") ? ` than ${names[other.face]}` : "";
  return { face: told.face, says: `${names[told.face]} ${sentence}${than}` };
}

/** More is told as a multiple. */
const MOST_PERCENT = 199;

function writeAmount(amount: ComparedTrait["amount"], value: number, other: number): string {
  const off = Math.abs(value - other);
  switch (amount) {
    case "percent": {
      const percent = Math.max(1, Math.round((100 * off) / Math.max(1e-6, Math.abs(other))));
      return percent <= MOST_PERCENT ? `${percent} %` : `about ${Math.round(1 + percent / 100)} times`;
    }
    case "degrees":
      return `${Math.max(1, Math.round(off))}°`;
    case "units":
      return String(Math.max(10, Math.round(off / 10) * 10));
    case "both":
      return `${value.toFixed(1)} : 1 against ${other.toFixed(1)} : 1`;
    default:
      return "";
  }
}
