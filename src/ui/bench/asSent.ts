// What became of a save that was sent: taken, or a fault with its status; 0 where no answer came.
import { ApiFault } from "../parts/client";
import type { Sent } from "./saves";

export async function asSent(answer: Promise<unknown>): Promise<Sent> {
  try {
    return { ok: true, body: await answer };
  } catch (error) {
    if (error instanceof ApiFault) return { ok: false, fault: error.fault, status: error.status };
    return { ok: false, fault: { code: "internal", message: String((error as Error).message) }, status: 0 };
  }
}
