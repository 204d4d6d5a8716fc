// What the bench around every view knows: the brief in view, what is kept, what can be undone, what the foot line says. One reducer.
import type { Brief, Kept } from "@/contracts/brief";
import type { KeptId, StyleId } from "@/contracts/ids";
import type { Conflict } from "@/core/brief/mergeBrief";

export type Notice = { id: number; message: string; canUndo: boolean; isFault: boolean };

export type Resolution = "mine" | "theirs" | "both";
/** Two people changed the same: the brief as it stands, what differs, and what is done about it. */
export type OpenConflict = { conflicts: Conflict[]; brief: Brief; answer: (choice: Resolution) => void };

export type BenchState = {
  brief: Brief;
  notice: Notice | null;
  trayOpen: boolean;
  /** Facts on the face under focus, for the foot line. */
  facts: string[];
  /** Changes that the server does not have yet, and the status the last try failed with (0: no answer). */
  unsaved: { count: number; failing: number | null };
  /** The server does not answer. */
  isAway: boolean;
  conflict: OpenConflict | null;
};

export type BenchAction =
  | { type: "brief arrived"; brief: Brief }
  | { type: "kept"; entry: Kept }
  | { type: "let go"; keptId: KeptId }
  | { type: "set aside"; styleId: StyleId; aside: boolean }
  | { type: "unsaved"; count: number; failing: number | null }
  | { type: "away"; isAway: boolean }
  | { type: "conflict"; conflict: OpenConflict | null }
  | { type: "said"; notice: Notice | null }
  | { type: "tray folded" }
  | { type: "facts"; facts: string[] };

/** The bench as it opens on a brief. */
export const openBench = (brief: Brief): BenchState => ({
  brief,
  notice: null,
  trayOpen: true,
  facts: [],
  unsaved: { count: 0, failing: null },
  isAway: false,
  conflict: null,
});

export function benchReducer(state: BenchState, action: BenchAction): BenchState {
  const { brief } = state;
  switch (action.type) {
    case "brief arrived":
      return { ...state, brief: action.brief };
    case "kept": {
      const others = brief.kept.filter((k) => k.keptId !== action.entry.keptId);
      const at = Math.min(action.entry.place, others.length);
      const kept = [...others.slice(0, at), action.entry, ...others.slice(at)].map((k, place) => ({ ...k, place }));
      return {
        ...state,
        brief: { ...brief, kept, setAside: brief.setAside.filter((s) => s !== action.entry.styleId) },
      };
    }
    case "let go":
      return { ...state, brief: { ...brief, kept: brief.kept.filter((k) => k.keptId !== action.keptId) } };
    case "set aside": {
      const others = brief.setAside.filter((s) => s !== action.styleId);
      // One state a face: what is set aside is kept no longer.
      const kept = action.aside ? brief.kept.filter((k) => k.styleId !== action.styleId) : brief.kept;
      return { ...state, brief: { ...brief, kept, setAside: action.aside ? [...others, action.styleId] : others } };
    }
    case "unsaved":
      return { ...state, unsaved: { count: action.count, failing: action.failing } };
    case "away":
      return action.isAway === state.isAway ? state : { ...state, isAway: action.isAway };
    case "conflict":
      return { ...state, conflict: action.conflict };
    case "said":
      return { ...state, notice: action.notice };
    case "tray folded":
      return { ...state, trayOpen: !state.trayOpen };
    case "facts":
      return { ...state, facts: action.facts };
  }
}

/** The state as it is now, whatever render it is read in. */
export type Now = { readonly current: BenchState };
/** What is told to whoever works: a line, a fault, a line about what was done, with a way back. */
export type Notices = {
  say: (message: string, isFault?: boolean) => void;
  sayFault: (error: unknown) => void;
  sayDone: (message: string) => void;
};
