// Which pictures are open in Identify, and which of them is shown. One reducer.
import type { SavedIdentification } from "@/contracts/identifications";
import { makeId } from "../bench/makeId";
import type { CaseSnapshot } from "./openCases";

/** A picture that was chosen, or one that was kept with the brief and is opened again. */
export type OpenCase = {
  key: string;
  file: File;
  saved: SavedIdentification | null;
  /** As it was left by a reload or another view. */
  left?: CaseSnapshot | null;
};

/** @property shown - key of a case; null: the place where pictures are chosen. */
export type CasesState = { cases: readonly OpenCase[]; shown: string | null };
export type CasesAction =
  /** The first of them is shown. */
  | { type: "opened"; cases: readonly OpenCase[] }
  /** Found again as they were left: they stand before those that were opened meanwhile. */
  | { type: "found"; cases: readonly OpenCase[] }
  | { type: "shown"; key: string | null }
  | { type: "closed"; key: string };

export const NO_CASES: CasesState = { cases: [], shown: null };

export const openFiles = (files: readonly File[]): OpenCase[] =>
  files.map((file) => ({ key: makeId(2), file, saved: null }));

export function casesReducer({ cases, shown }: CasesState, action: CasesAction): CasesState {
  switch (action.type) {
    case "opened":
      return { cases: [...without(cases, action.cases), ...action.cases], shown: action.cases[0]?.key ?? shown };
    case "found":
      return { cases: [...without(action.cases, cases), ...cases], shown: shown ?? action.cases[0]?.key ?? null };
    case "shown":
      return { cases, shown: action.key };
    case "closed": {
      const at = cases.findIndex((c) => c.key === action.key);
      const left = cases.filter((c) => c.key !== action.key);
      const next = left[Math.min(at, left.length - 1)]?.key ?? null;
      return { cases: left, shown: shown === action.key ? next : shown };
    }
  }
}

const without = (cases: readonly OpenCase[], others: readonly OpenCase[]) =>
  cases.filter((c) => !others.some((o) => o.key === c.key));
