// Changes on their way to the server, in order, one at a time. One that fails because the server is away, full or busy stays and is tried
// again; nothing is dropped but what the server refuses for good. Kept in the browser's storage, so that a reload goes on. No React here.
import type { Fault } from "../messages";

export type Save = {
  /** Names the change: one that waits is replaced by the next of its name. */
  name: string;
  path: string;
  method: "PATCH" | "PUT" | "POST" | "DELETE";
  json?: Record<string, unknown>;
  /** Undone by itself: it is put together with no other. */
  isStep?: boolean;
};
export type Sent = { ok: true; body: unknown } | { ok: false; fault: Fault; status: number };

export type SaveQueueOptions = {
  send: (save: Save) => Promise<Sent>;
  /** Where what waits is kept; null: nowhere (tests, private windows). */
  store: { read: () => Save[]; write: (saves: Save[]) => void } | null;
  /** Called whenever what waits, or how the last try failed, has changed. @param failing - its status (0: no answer); null: it did not. */
  onChange: (waiting: number, failing: number | null) => void;
  onSaved: (save: Save, body: unknown) => void;
  /** Two people changed the same: what is sent instead, or null to give it up. The queue waits for the answer. */
  onConflict: (save: Save, fault: Fault) => Promise<Save | null>;
  /** The server will never take it. */
  onRefused: (save: Save, fault: Fault) => void;
  /** Milliseconds before the n-th new try. */
  pause?: (n: number) => number;
};

/** Refusals that pass by themselves, or once somebody has signed in again. */
const isPassing = (status: number) => status === 0 || status >= 500 || [SIGNED_OUT, 408, 429, 499].includes(status);
export const SIGNED_OUT = 401;
const PAUSE = (n: number) => Math.min(500 * 2 ** n, 8_000);

export class SaveQueue {
  private readonly saves: Save[];
  private isRunning = false;
  private failures = 0;
  private failing: number | null = null;
  private wake = () => {};

  constructor(private readonly options: SaveQueueOptions) {
    this.saves = options.store?.read() ?? [];
    if (this.saves.length) void this.run();
  }

  get waiting(): number {
    return this.saves.length;
  }
  get list(): Save[] {
    return this.saves;
  }

  /** Adds a change. Fields of one that waits under the same name, and is not on its way, are put together; its base stays the older. */
  add(save: Save) {
    const last = this.saves[this.saves.length - 1];
    const isOnItsWay = this.isRunning && this.saves.length === 1;
    const isAlike = last?.name === save.name && last.method === save.method && !last.isStep && !save.isStep;
    if (last && !isOnItsWay && isAlike) {
      last.json = mergeJson(last.json, save.json);
    } else this.saves.push(save);
    this.changed();
    void this.run();
  }

  /** Puts another change in the place of one that waits. */
  replace(save: Save, by: Save) {
    const at = this.saves.indexOf(save);
    if (at < 0) return;
    this.saves[at] = by;
    this.changed();
  }

  /** Gives up what waits; the one on its way goes on. */
  giveUp() {
    this.saves.splice(1);
    this.changed();
  }

  /** Tries at once what waits for its next try. */
  retry() {
    this.wake();
  }

  /** Resolves when nothing waits. */
  async settled(): Promise<void> {
    while (this.saves.length) await new Promise((r) => setTimeout(r, 20));
  }

  private changed() {
    this.options.store?.write(this.saves);
    this.options.onChange(this.saves.length, this.failing);
  }

  private async run() {
    if (this.isRunning) return;
    this.isRunning = true;
    while (this.saves.length) {
      const save = this.saves[0]!;
      const sent = await this.options.send(save);
      if (sent.ok) {
        this.failures = 0;
        this.failing = null;
        this.saves.shift();
        this.options.onSaved(save, sent.body);
      } else if (sent.status === 409) {
        const again = await this.options.onConflict(save, sent.fault);
        if (again) this.saves[0] = again;
        else this.saves.shift();
      } else if (isPassing(sent.status)) {
        this.failures++;
        this.failing = sent.status;
        this.changed();
        await this.pauseFor((this.options.pause ?? PAUSE)(this.failures));
      } else {
        this.saves.shift();
        this.options.onRefused(save, sent.fault);
      }
      this.changed();
    }
    this.isRunning = false;
  }

  private pauseFor(ms: number) {
    return new Promise<void>((resolve) => {
      const timer = setTimeout(resolve, ms);
      this.wake = () => {
        clearTimeout(timer);
        resolve();
      };
    });
  }
}

/** The newer value of each field; of `base` the older. */
function mergeJson(older: Save["json"], newer: Save["json"]): Save["json"] {
  if (!older || !newer) return newer;
  const base = newer.base || older.base ? { ...(newer.base as object), ...(older.base as object) } : undefined;
  return { ...older, ...newer, ...(base && { base }) };
}
