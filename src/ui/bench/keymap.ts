// Keys of the whole interface: what each does, in which part of it, and the words that say so. The newest part goes first: a view's keys
// before those that work everywhere. No React here; useKeys.ts registers, KeyHelp.tsx and the foot line show.

export type Binding = {
  /** As KeyboardEvent.key has them, letters lowercase: any of them. */
  keys: readonly string[];
  /** Ctrl, or Command on a Mac. */
  mod?: boolean;
  /** True: with Shift; false: without. Absent: either. */
  shift?: boolean;
  /** What it does, for the foot line and the list of keys; absent: it is not told. */
  legend?: string;
  /** How the key is written there; by itself, where absent. */
  shown?: string;
  /** Told in the list of keys alone. */
  isLesser?: boolean;
  /** @returns false when it is not for this: the next part is asked. */
  run: (event: KeyboardEvent) => boolean | void;
  /** When the key is let go of, or the window is left. */
  release?: () => void;
};
type Part = { name: string; bindings: readonly Binding[] };

/** Whether a key belongs to a field that is typed into, or to a list, menu or dialog that is open. */
function isTyping(event: Pick<KeyboardEvent, "target">): boolean {
  const target = event.target as HTMLElement | null;
  if (!target?.closest) return false;
  if (target.closest("[role=listbox], [role=menu], [role=dialog]")) return true;
  const input = target.closest("input, textarea, select, [contenteditable=true]");
  return Boolean(input) && !["range", "checkbox", "radio"].includes((input as HTMLInputElement).type ?? "");
}

function matches(binding: Binding, event: KeyboardEvent): boolean {
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
  return (
    binding.keys.includes(key) &&
    Boolean(binding.mod) === (event.ctrlKey || event.metaKey) &&
    (binding.shift === undefined || binding.shift === event.shiftKey)
  );
}

export class Keymap {
  private parts: Part[] = [];
  private readonly held = new Map<string, Binding>();
  private readonly listeners = new Set<() => void>();

  /**
   * Adds a part; its bindings may be exchanged later.
   * @param isBase - it stands behind all others, whenever it is added.
   * @returns what exchanges them, and what removes the part.
   */
  add(name: string, isBase = false) {
    const part: Part = { name, bindings: [] };
    this.parts = isBase ? [...this.parts, part] : [part, ...this.parts];
    return {
      put: (bindings: readonly Binding[]) => {
        const isTold = (list: readonly Binding[]) => list.map((b) => `${writeKeys(b)} ${b.legend ?? ""}`).join("\n");
        const isNews = isTold(part.bindings) !== isTold(bindings);
        part.bindings = bindings;
        if (isNews) this.tell();
      },
      remove: () => {
        this.parts = this.parts.filter((p) => p !== part);
        this.tell();
      },
    };
  }

  /** @returns whether somebody took the key. */
  press(event: KeyboardEvent): boolean {
    if (event.altKey || isTyping(event)) return false;
    for (const { bindings } of this.parts)
      for (const binding of bindings) {
        if (!matches(binding, event) || binding.run(event) === false) continue;
        if (binding.release) this.held.set(event.key.toLowerCase(), binding);
        return true;
      }
    return false;
  }
  release(key: string) {
    this.held.get(key.toLowerCase())?.release?.();
    this.held.delete(key.toLowerCase());
  }
  releaseAll() {
    for (const key of [...this.held.keys()]) this.release(key);
  }

  /** What is told, the newest part first. The same object until something changes. */
  list = (): readonly Part[] => this.parts;
  subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };
  private tell() {
    this.parts = [...this.parts];
    for (const listener of this.listeners) listener();
  }
}

const NAMES: Record<string, string> = { " ": "Space", Escape: "Esc", ArrowLeft: "←", ArrowRight: "→" };

/** A binding's key as people write it. */
export function writeKeys({ keys, mod, shift, shown }: Binding): string {
  if (shown) return shown;
  const [key = ""] = keys;
  const name = NAMES[key] ?? (key.length === 1 ? key.toUpperCase() : key);
  return `${mod ? "Ctrl " : ""}${shift ? "Shift " : ""}${name}`;
}
