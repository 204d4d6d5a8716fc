// Where a review stands: marks by place, and the place in view. One reducer; what is marked is a command that can be taken back.
import { nextUnmarked, type Mark, type Pass } from "@/contracts/passes";
import type { Commands } from "../bench/commands";

export type Marks = ReadonlyMap<number, Mark["mark"]>;
export type PassState = { total: number; marks: Marks; place: number };

/** A mark of one place; null: it has none. */
export type MarkChange = { place: number; mark: Mark["mark"] | null };
export type PassAction =
  /** @param goesOn - to the next place without a mark; else the place stays in view. */
  { type: "marked"; change: MarkChange; goesOn: boolean } | { type: "looked at"; place: number };

export const startPass = (pass: Pass): PassState => ({
  total: pass.total,
  marks: new Map(pass.marks.map((m) => [m.place, m.mark])),
  place: Math.min(pass.next, pass.total),
});

export function passReducer(state: PassState, action: PassAction): PassState {
  switch (action.type) {
    case "marked": {
      const { place } = action.change;
      const marks = putMark(state.marks, action.change);
      return { ...state, marks, place: action.goesOn ? nextUnmarked(marks, place + 1, state.total) : place };
    }
    case "looked at":
      return { ...state, place: Math.min(state.total, Math.max(0, action.place)) };
  }
}

export function putMark(marks: Marks, { place, mark }: MarkChange): Marks {
  const next = new Map(marks);
  if (mark) next.set(place, mark);
  else next.delete(place);
  return next;
}

/** Marks as commands, for a review that was begun in another tab: the order of marking is then the order of places. */
export const commandsOf = (marks: Marks): Commands<MarkChange> => ({
  done: [...marks]
    .sort(([a], [b]) => a - b)
    .map(([place, mark]) => ({ summary: "", forward: { place, mark }, backward: { place, mark: null } })),
  undone: [],
});

/** Whether commands end in just these marks. */
export function endIn({ done, undone }: Commands<MarkChange>, marks: Marks): boolean {
  let ended: Marks = new Map();
  for (const { forward } of done) ended = putMark(ended, forward);
  const next = undone.at(-1);
  const isNextThere = !next || (ended.get(next.backward.place) ?? null) === next.backward.mark;
  return isNextThere && ended.size === marks.size && [...ended].every(([place, mark]) => marks.get(place) === mark);
}

export const countMarks = (marks: Marks) => {
  const counts = { kept: 0, aside: 0, left: 0 };
  for (const m of marks.values()) counts[m]++;
  return counts;
};
