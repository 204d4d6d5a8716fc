// One lettering between this page and the server: what is done shows at once and goes there in order, each change made on the version that
// the one before gave; what waits outlives a reload. No React here.
import type { Lettering, LetteringDocument } from "@/contracts/lettering";
import { SaveQueue, type Save, type Sent } from "../bench/saves";
import type { Fault } from "../messages";

type SyncState = {
  /** As the server has it. */
  server: Lettering;
  /** What is shown instead, until somebody else's is. */
  draft: LetteringDocument | null;
  unsaved: number;
  /** The last try did not reach the server, or it could not take it now. */
  isFailing: boolean;
  /** Somebody else saved meanwhile: theirs, until it is decided. */
  clash: Lettering | null;
};
type Choice = "mine" | "theirs";
type SyncOptions = {
  send: (save: Save) => Promise<Sent>;
  store: { read: () => Save[]; write: (saves: Save[]) => void } | null;
  /** something was saved, or read again. */
  onSaved: () => void;
  onFault: (fault: Fault) => void;
  pause?: (n: number) => number;
};

const DOCUMENT = "document";
const isChange = (save: Save) => save.name.startsWith(DOCUMENT);
const documentOf = (save: Save) => save.json!.document as LetteringDocument;

export class LetteringSync {
  private state: SyncState;
  private readonly heard = new Set<() => void>();
  private readonly queue: SaveQueue;
  private count = 0;
  private decide: ((choice: Choice) => void) | null = null;

  constructor(
    first: Lettering,
    private readonly options: SyncOptions,
  ) {
    const { store } = options;
    this.state = { server: first, draft: null, unsaved: 0, isFailing: false, clash: null };
    this.queue = new SaveQueue({
      send: options.send,
      // Read once the queue is there to be looked into.
      store: store && { read: () => [], write: (saves) => store.write(saves) },
      ...(options.pause && { pause: options.pause }),
      onChange: (unsaved, failing) => this.put({ unsaved, isFailing: failing !== null }),
      onSaved: (save, body) => this.saved(save, body as Lettering),
      onConflict: (save, fault) => this.settleConflict(save, fault),
      onRefused: (save, fault) => this.refused(save, fault),
    });
    const left = store?.read() ?? [];
    const last = left.findLast(isChange);
    if (last) this.state.draft = documentOf(last);
    for (const save of left) this.queue.add(save);
  }

  get now(): SyncState {
    return this.state;
  }
  subscribe = (listener: () => void): (() => void) => {
    this.heard.add(listener);
    return () => this.heard.delete(listener);
  };

  change(document: LetteringDocument) {
    this.put({ draft: document });
    // Those that wait will have raised the version by then.
    const version = this.state.server.version + this.queue.waiting;
    this.add(`${DOCUMENT} ${++this.count}`, "PATCH", "", { document, version });
  }
  undo = () => this.add(`undo ${++this.count}`, "POST", "/undo");
  redo = () => this.add(`redo ${++this.count}`, "POST", "/redo");
  retry = () => this.queue.retry();
  settle = (choice: Choice) => this.decide?.(choice);
  settled = () => this.queue.settled();

  /** It was read again from the server. */
  arrived(lettering: Lettering) {
    if (!this.queue.waiting && lettering.version > this.state.server.version)
      this.put({ server: lettering, draft: null });
  }

  private add(name: string, method: "PATCH" | "POST", path: string, json?: Record<string, unknown>) {
    const { letteringId } = this.state.server;
    this.queue.add({ name, method, path: `/letterings/${letteringId}${path}`, ...(json && { json }) });
  }

  private put(part: Partial<SyncState>) {
    this.state = { ...this.state, ...part };
    this.heard.forEach((listener) => listener());
  }

  private saved(save: Save, server: Lettering) {
    const showsServer = !isChange(save) && !this.queue.list.some(isChange);
    this.put({ server, ...(showsServer && { draft: null }) });
    this.options.onSaved();
  }

  /** What no server takes is not tried again: the lettering is shown as it was before. */
  private refused(save: Save, fault: Fault) {
    if (isChange(save) && !this.queue.list.some(isChange)) this.put({ draft: null });
    this.options.onFault(fault);
  }

  /** @returns what is sent instead; null to give it up. */
  private async settleConflict(save: Save, fault: Fault): Promise<Save | null> {
    const theirs = (fault.details as { lettering?: Lettering } | undefined)?.lettering;
    if (!theirs) {
      this.options.onFault(fault);
      return null;
    }
    // It had arrived, and only its answer was lost.
    if (isChange(save) && writeInOrder(theirs.document) === writeInOrder(documentOf(save))) {
      this.put({ server: theirs });
      return null;
    }
    // One that waited before it was given up: nobody else saved.
    if (theirs.version === this.state.server.version) return this.onVersion(save, theirs.version);
    this.put({ clash: theirs });
    const choice = await new Promise<Choice>((resolve) => (this.decide = resolve));
    this.decide = null;
    if (choice === "mine") {
      this.put({ clash: null, server: theirs });
      return this.onVersion(save, theirs.version);
    }
    this.queue.giveUp();
    this.put({ clash: null, server: theirs, draft: null });
    this.options.onSaved();
    return null;
  }

  private onVersion = (save: Save, version: number): Save => ({ ...save, json: { ...save.json, version } });
}

/** A document with its fields by name: the server gives them back in an order of its own. */
const writeInOrder = (document: LetteringDocument) =>
  JSON.stringify(document, (_, value: unknown) =>
    value && typeof value === "object" && !Array.isArray(value)
      ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
      : value,
  );
