// Why nothing can be served: told by whoever starts the server, asked by every page and route.
import type { FaultCode } from "@/contracts/errors";

const shared = globalThis as unknown as { fondQuarryBootFault?: FaultCode | null };

/** Null when all is well. */
export const bootFault = (): FaultCode | null => shared.fondQuarryBootFault ?? null;
export const setBootFault = (code: FaultCode | null) => {
  shared.fondQuarryBootFault = code;
};
