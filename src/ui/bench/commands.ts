// What was done, and can be taken back and done again, in its order. A command is plain data, so that it outlives a reload: a view says how
// its changes are applied. No React here; useCommands.ts joins it to the page.
import type { Sent } from "@/contracts/operations/operation";
import type { OperationName, Operations } from "@/contracts/operations/table";

/** @param Change - a change of one view, as it is applied forwards and backwards. */
export type Command<Change> = {
  /** What was done, for the line that tells it; empty: it is not told. */
  summary: string;
  forward: Change;
  backward: Change;
  /** Of the brief, when it was done: the brief's own steps stand before or after it. */
  version?: number;
  /** The page that shows what was taken back. */
  opens?: string;
};
/** Where commands are kept over a reload. */
export type CommandStore<Change> = { read: () => Commands<Change> | null; write: (commands: Commands<Change>) => void };
export type Commands<Change> = { done: readonly Command<Change>[]; undone: readonly Command<Change>[] };

/** An operation of the table with what is sent. */
export type Call = { name: OperationName; sent: { params?: Record<string, string>; body?: unknown } };
export const call = <N extends OperationName>(name: N, sent: Sent<Operations[N]>): Call => ({ name, sent });

const NONE: Commands<never> = { done: [], undone: [] };

export class CommandStack<Change> {
  private commands: Commands<Change>;
  private readonly listeners = new Set<() => void>();

  /** @param max - commands kept; the oldest go first. */
  constructor(
    private readonly store: CommandStore<Change> | null,
    private readonly max: number,
  ) {
    this.commands = store?.read() ?? NONE;
  }

  /** What undo takes back. */
  get last(): Command<Change> | null {
    return this.commands.done.at(-1) ?? null;
  }
  /** What redo does again. */
  get next(): Command<Change> | null {
    return this.commands.undone.at(-1) ?? null;
  }

  /** Adds what was done; what was undone before can no longer be done again. */
  push(command: Command<Change>) {
    this.put({ done: [...this.commands.done, command].slice(-this.max), undone: [] });
  }
  /** Something was done elsewhere: what was undone cannot be done again after it. */
  forgetUndone() {
    if (this.commands.undone.length) this.put({ ...this.commands, undone: [] });
  }
  /** @returns what is to be applied backwards. */
  takeBack(): Command<Change> | null {
    const { last, commands } = this;
    if (last) this.put({ done: commands.done.slice(0, -1), undone: [...commands.undone, last] });
    return last;
  }
  /** @returns what is to be applied forwards. */
  takeAgain(): Command<Change> | null {
    const { next, commands } = this;
    if (next) this.put({ done: [...commands.done, next], undone: commands.undone.slice(0, -1) });
    return next;
  }

  /** The same object until something changes. */
  list = (): Commands<Change> => this.commands;
  subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };

  private put(commands: Commands<Change>) {
    this.commands = commands;
    this.store?.write(commands);
    for (const listener of this.listeners) listener();
  }
}
