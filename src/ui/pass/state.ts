// Where a pass stands: marks by place, and the place in view. One reducer; every mark goes to the server in order.
import { nextUnmarked, type Mark, type Pass } from "@/contracts/passes";

export type PassState = {
  total: number;
  marks: ReadonlyMap<number, Mark["mark"]>;
  place: number;
  /** Places in the order they were marked: what undo takes back, last first. */
  trail: readonly number[];
};

export type PassAction =
  { type: "marked"; place: number; mark: Mark["mark"] } | { type: "undone" } | { type: "looked at"; place: number };

export const startPass = (pass: Pass): PassState => ({
  total: pass.total,
  marks: new Map(pass.marks.map((m) => [m.place, m.mark])),
  place: Math.min(pass.next, pass.total),
  // After a reload the order of marking is the order of places.
  trail: pass.marks.map((m) => m.place),
});

export function passReducer(state: PassState, action: PassAction): PassState {
  switch (action.type) {
    case "marked": {
      const marks = new Map(state.marks).set(action.place, action.mark);
      const trail = [...state.trail.filter((p) => p !== action.place), action.place];
      return { ...state, marks, trail, place: nextUnmarked(marks, action.place + 1, state.total) };
    }
    case "undone": {
      const place = state.trail[state.trail.length - 1];
      if (place === undefined) return state;
      const marks = new Map(state.marks);
      marks.delete(place);
      return { ...state, marks, trail: state.trail.slice(0, -1), place };
    }
    case "looked at":
      return { ...state, place: Math.min(state.total, Math.max(0, action.place)) };
  }
}

export const countMarks = (marks: PassState["marks"]) => {
  const counts = { kept: 0, aside: 0, left: 0 };
  for (const m of marks.values()) counts[m]++;
  return counts;
};
