// Pictures that are being identified, kept in the browser until they are closed: a reload, or another view, loses nothing.
import { createStore, get, set } from "idb-keyval";
import { makeId } from "../bench/makeId";
import type { IdentifyState } from "./state";

/** What of a case is kept: all that was done with the picture. */
export type CaseSnapshot = Pick<
  IdentifyState,
  | "frame"
  | "corners"
  | "baseline"
  | "ink"
  | "areas"
  | "text"
  | "isTyped"
  | "result"
  | "answered"
  | "tried"
  | "savedAs"
  | "layout"
>;
type LeftCase = { key: string; file: File; snapshot: CaseSnapshot | null };

const store = () => createStore("fond-quarry", "identify");

/** Cases left open for a brief; none where the browser keeps nothing. */
export const readOpenCases = async (briefId: string): Promise<LeftCase[]> =>
  (await get<LeftCase[]>(briefId, store()).catch(() => undefined)) ?? [];

export const writeOpenCases = (briefId: string, cases: LeftCase[]): Promise<void> =>
  set(briefId, cases, store()).catch(() => undefined);

/** A picture from another view, before those that are open. */
export async function addOpenCase(briefId: string, file: File): Promise<void> {
  const open = await readOpenCases(briefId);
  await writeOpenCases(briefId, [{ key: makeId(2), file, snapshot: null }, ...open]);
}

export const snapshotOf = (state: IdentifyState): CaseSnapshot => ({
  frame: state.frame,
  corners: state.corners,
  baseline: state.baseline,
  ink: state.ink,
  areas: state.areas,
  text: state.text,
  isTyped: state.isTyped,
  result: state.result,
  answered: state.answered,
  tried: state.tried,
  savedAs: state.savedAs,
  // What was only begun is not kept.
  layout: state.layout?.isWhole ? state.layout : null,
});
