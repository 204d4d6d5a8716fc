// Who looks at a brief hears of its changes: within this process, which is the one that answers requests.
import { EventEmitter } from "node:events";
import type { BriefEvent } from "@/contracts/brief";

const shared = globalThis as unknown as { fondQuarryEvents?: EventEmitter };
function emitter(): EventEmitter {
  shared.fondQuarryEvents ??= new EventEmitter().setMaxListeners(0);
  return shared.fondQuarryEvents;
}

export const tellBrief = (briefId: string, event: BriefEvent) => emitter().emit(briefId, event);

/** @returns what stops the listening. */
export function hearBrief(briefId: string, heard: (event: BriefEvent) => void): () => void {
  emitter().on(briefId, heard);
  return () => emitter().off(briefId, heard);
}
