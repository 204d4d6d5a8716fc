// What the bench around every view knows: the brief in view, what is kept, what can be undone, what the foot line says. One reducer.
import type { Brief, BriefPatch, Kept } from "@/contracts/brief";
import type { StyleId } from "@/contracts/ids";

/** A done thing that can be taken back. `undo` is run at most once. */
export type Undoable = { id: number; says: string; undo: () => void };
export type Notice = { id: number; says: string; canUndo: boolean; isFault: boolean };

export type BenchState = {
  brief: Brief;
  undoable: Undoable[];
  notice: Notice | null;
  trayOpen: boolean;
  /** Facts on the face under focus, for the foot line. */
  facts: string[];
  keys: { key: string; does: string }[];
};

export type BenchAction =
  | { type: "brief changed here"; patch: BriefPatch }
  | { type: "brief arrived"; brief: Brief }
  | { type: "kept"; entry: Kept }
  | { type: "let go"; styleId: StyleId }
  | { type: "set aside"; styleId: StyleId; aside: boolean }
  | { type: "done"; undoable: Undoable }
  | { type: "undone"; id: number }
  | { type: "said"; notice: Notice | null }
  | { type: "tray folded" }
  | { type: "facts"; facts: string[]; keys: BenchState["keys"] };

const UNDO_KEPT = 60;

export function benchReducer(state: BenchState, action: BenchAction): BenchState {
  const { brief } = state;
  switch (action.type) {
    case "brief changed here": {
      const { deleted: _deleted, ...patch } = action.patch;
      return { ...state, brief: { ...brief, ...patch } };
    }
    case "brief arrived":
      return { ...state, brief: action.brief };
    case "kept": {
      const others = brief.kept.filter((k) => k.styleId !== action.entry.styleId);
      const at = Math.min(action.entry.place, others.length);
      const kept = [...others.slice(0, at), action.entry, ...others.slice(at)].map((k, place) => ({ ...k, place }));
      return {
        ...state,
        brief: { ...brief, kept, setAside: brief.setAside.filter((s) => s !== action.entry.styleId) },
      };
    }
    case "let go":
      return { ...state, brief: { ...brief, kept: brief.kept.filter((k) => k.styleId !== action.styleId) } };
    case "set aside": {
      const others = brief.setAside.filter((s) => s !== action.styleId);
      return { ...state, brief: { ...brief, setAside: action.aside ? [...others, action.styleId] : others } };
    }
    case "done":
      return {
        ...state,
        undoable: [...state.undoable.slice(-UNDO_KEPT + 1), action.undoable],
        notice: { id: action.undoable.id, says: action.undoable.says, canUndo: true, isFault: false },
      };
    case "undone":
      return { ...state, undoable: state.undoable.filter((u) => u.id !== action.id), notice: null };
    case "said":
      return { ...state, notice: action.notice };
    case "tray folded":
      return { ...state, trayOpen: !state.trayOpen };
    case "facts":
      return { ...state, facts: action.facts, keys: action.keys };
  }
}
