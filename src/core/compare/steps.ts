// How measures are told beside each other: the step that a reader notices, the sentence for more and for less, and the letters in which
// it shows. A table, in the order in which equal differences are told.
import type { Traits } from "@/contracts/traits";
import { STEPS } from "../find/alike";

type NumberTrait = { [T in keyof Traits]-?: Traits[T] extends number | null | undefined ? T : never }[keyof Traits];
/** How the amount of a difference is told: relative to the other, as it is, or as both values. */
type Amount = "percent" | "degrees" | "units" | "both";
export type ComparedTrait = {
  trait: NumberTrait;
  /** Traits of one subject are told once, by the one that differs most. */
  subject: string;
  /** As much as one step is, in the unit of the trait. */
  step: number;
  unit: string;
  /** What follows the name of the face; {} is the amount. */
  more: string;
  less: string;
  amount?: Amount;
  /** Letters in which it shows, the most telling first; empty: in the whole word. */
  shownIn: string;
};

const OWN_STEPS: Partial<Record<NumberTrait, number>> = {
  stemEm: 0.02,
  barEm: 0.02,
  widthEm: 0.05,
  ascenderEm: 0.05,
  descenderEm: 0.05,
  storeysA: 0.8,
  storeysG: 0.8,
};
const compared = (trait: NumberTrait, told: Omit<ComparedTrait, "trait" | "step">): ComparedTrait => ({
  trait,
  step: OWN_STEPS[trait] ?? (STEPS as Partial<Record<NumberTrait, number>>)[trait]!,
  ...told,
});

const ROUND = "oOecbdpqCDGQ";
const UPRIGHT = "liInhrHTLE";
export const COMPARED: readonly ComparedTrait[] = [
  compared("weight", {
    subject: "weight",
    unit: "usWeightClass",
    more: "is heavier by {}",
    less: "is lighter by {}",
    amount: "units",
    shownIn: "",
  }),
  compared("stemEm", {
    subject: "weight",
    unit: "em",
    more: "has stems {} thicker",
    less: "has stems {} thinner",
    amount: "percent",
    shownIn: UPRIGHT,
  }),
  compared("barEm", {
    subject: "bars",
    unit: "em",
    more: "has bars {} thicker",
    less: "has bars {} thinner",
    amount: "percent",
    shownIn: "etHfAEFTz",
  }),
  compared("widthEm", {
    subject: "width",
    unit: "em",
    more: "is {} wider",
    less: "is {} narrower",
    amount: "percent",
    shownIn: "",
  }),
  compared("width", { subject: "width", unit: "usWidthClass", more: "is wider", less: "is narrower", shownIn: "" }),
  compared("contrast", {
    subject: "contrast",
    unit: ":1",
    more: "has more contrast between thick and thin, {}",
    less: "has less contrast between thick and thin, {}",
    amount: "both",
    shownIn: ROUND,
  }),
  compared("xHeightEm", {
    subject: "x-height",
    unit: "em",
    more: "has an x-height {} larger",
    less: "has an x-height {} smaller",
    amount: "percent",
    shownIn: "xzvnoaers",
  }),
  compared("capHeightEm", {
    subject: "capitals",
    unit: "em",
    more: "has capitals {} taller",
    less: "has capitals {} lower",
    amount: "percent",
    shownIn: "HIETLNMKPRSBDOAC",
  }),
  compared("ascenderEm", {
    subject: "ascenders",
    unit: "em",
    more: "has ascenders {} longer",
    less: "has ascenders {} shorter",
    amount: "percent",
    shownIn: "ldbhkf",
  }),
  compared("descenderEm", {
    subject: "descenders",
    unit: "em",
    more: "has descenders {} shorter",
    less: "has descenders {} longer",
    amount: "percent",
    shownIn: "pgqyj",
  }),
  compared("slantDeg", {
    subject: "slant",
    unit: "°",
    more: "leans {} more to the right",
    less: "leans {} less to the right",
    amount: "degrees",
    shownIn: "lhntdHI",
  }),
  compared("serif", {
    subject: "serifs",
    unit: "0–1",
    more: "has more serif",
    less: "has less serif",
    shownIn: UPRIGHT,
  }),
  compared("serifThickness", {
    subject: "serifs",
    unit: "of the stem",
    more: "has heavier serifs",
    less: "has finer serifs",
    shownIn: UPRIGHT,
  }),
  compared("stressDeg", {
    subject: "stress",
    unit: "°",
    more: "has stress {} more oblique",
    less: "has stress {} less oblique",
    amount: "degrees",
    shownIn: ROUND,
  }),
  compared("roundness", {
    subject: "corners",
    unit: "0–1",
    more: "has rounder corners",
    less: "has sharper corners",
    shownIn: "tlkiEFTL",
  }),
  compared("roundEnds", {
    subject: "corners",
    unit: "0–1",
    more: "has rounder stroke ends",
    less: "has squarer stroke ends",
    shownIn: "tlkcsEFTL",
  }),
  compared("roughness", {
    subject: "edges",
    unit: "0–1",
    more: "has rougher edges",
    less: "has cleaner edges",
    shownIn: "",
  }),
  compared("connected", {
    subject: "joins",
    unit: "0–1",
    more: "joins more of its letters",
    less: "joins fewer of its letters",
    shownIn: "",
  }),
  compared("aperture", {
    subject: "openings",
    unit: "of the height",
    more: "has wider openings",
    less: "has tighter openings",
    shownIn: "ceaSsCGg",
  }),
  compared("evenness", {
    subject: "colour",
    unit: "0–1",
    more: "sets a more even grey",
    less: "sets a less even grey",
    shownIn: "",
  }),
  compared("storeysA", {
    subject: "a",
    unit: "storeys",
    more: "has a double-storey a",
    less: "has a single-storey a",
    shownIn: "a",
  }),
  compared("storeysG", {
    subject: "g",
    unit: "storeys",
    more: "has a double-storey g",
    less: "has a single-storey g",
    shownIn: "g",
  }),
];
