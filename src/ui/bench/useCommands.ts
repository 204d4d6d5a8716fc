"use client";
// The commands of one view, or of the whole bench, kept over reloads of this tab; and the keys that take them back, the same everywhere.
import { useState, useSyncExternalStore } from "react";
import { CommandStack, type Command, type Commands, type CommandStore } from "./commands";
import type { Binding } from "./keymap";

const NONE: Commands<never> = { done: [], undone: [] };
const MAX_COMMANDS = 5_000;

/** Commands in the storage of this tab, in one place for each scope. */
function openStore<Change>(scope: string): CommandStore<Change> | null {
  if (typeof sessionStorage === "undefined") return null;
  const key = `commands ${scope}`;
  return {
    read: () => {
      try {
        return JSON.parse(sessionStorage.getItem(key) ?? "null") as Commands<Change> | null;
      } catch {
        return null;
      }
    },
    write: (commands) => {
      try {
        sessionStorage.setItem(key, JSON.stringify(commands));
      } catch {
        // Full or forbidden: nothing is kept over a reload.
        sessionStorage.removeItem(key);
      }
    },
  };
}

/** The stack of a scope. @param begin - what it begins with, of what was kept. */
export function useCommandStack<Change>(
  scope: string,
  begin: (kept: Commands<Change> | null) => Commands<Change> = (kept) => kept ?? NONE,
): CommandStack<Change> {
  const [stack] = useState(() => {
    const store = openStore<Change>(scope);
    return new CommandStack<Change>(store && { ...store, read: () => begin(store.read()) }, MAX_COMMANDS);
  });
  return stack;
}

type ViewCommands<Change> = {
  /** What was done and not taken back, the first first. */
  done: readonly Command<Change>[];
  /** Applies a change and remembers how it is taken back. */
  run: (forward: Change, backward: Change) => void;
  undo: () => void;
  redo: () => void;
  canUndo: boolean;
  canRedo: boolean;
};

/** Commands that a view applies by itself, at once. @param onNothing - there is nothing to take back, or to do again. */
export function useViewCommands<Change>(
  stack: CommandStack<Change>,
  apply: (change: Change, way: "forward" | "backward") => void,
  onNothing: (which: "undo" | "redo") => void = () => {},
): ViewCommands<Change> {
  const { done, undone } = useSyncExternalStore(stack.subscribe, stack.list, () => NONE as Commands<Change>);
  return {
    done,
    run: (forward, backward) => {
      apply(forward, "forward");
      stack.push({ summary: "", forward, backward });
    },
    undo: () => {
      const command = stack.takeBack();
      if (command) apply(command.backward, "backward");
      else onNothing("undo");
    },
    redo: () => {
      const command = stack.takeAgain();
      if (command) apply(command.forward, "forward");
      else onNothing("redo");
    },
    canUndo: done.length > 0,
    canRedo: undone.length > 0,
  };
}

type UndoKeys = {
  undo: () => void;
  redo: () => void;
  undoLegend?: string;
  redoLegend?: string;
  /** Undo stands in the foot line, too. */
  isInFootLine?: boolean;
};

/** Bindings of undo and redo. Legends name what a view takes back. */
export const bindUndo = ({
  undo,
  redo,
  undoLegend = "undo",
  redoLegend = "redo",
  isInFootLine = false,
}: UndoKeys): Binding[] => [
  { keys: ["u"], shift: false, legend: undoLegend, isLesser: !isInFootLine, run: undo },
  { keys: ["u"], shift: true, legend: redoLegend, isLesser: true, run: redo },
  { keys: ["z"], mod: true, shift: false, run: undo },
  { keys: ["z"], mod: true, shift: true, run: redo },
  { keys: ["y"], mod: true, run: redo },
];
