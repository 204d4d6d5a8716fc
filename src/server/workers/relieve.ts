// HarfBuzz keeps a copy of each file in a memory of its own and frees it when the face's handle is collected. Nothing hurries that, since the handle
// is small: a thread that opens face after face would run out of that memory with few of them still in use.
import { setImmediate } from "node:timers/promises";
import { setFlagsFromString } from "node:v8";
import { runInNewContext } from "node:vm";
import { countOpenedBytes } from "@/core/outlines/openFace";

setFlagsFromString("--expose-gc");
const collect = runInNewContext("gc") as () => void;

/** Of files opened since the last time. The memory ends at two gigabytes. */
const BUDGET_BYTES = 400e6;
let countedBytes = 0;

/** Frees the faces that nobody uses any more, where many were opened since the last time. */
export async function relieve(): Promise<void> {
  if (countOpenedBytes() - countedBytes < BUDGET_BYTES) return;
  countedBytes = countOpenedBytes();
  collect();
  // What was collected is freed in a turn of the event loop of its own.
  await setImmediate();
}
