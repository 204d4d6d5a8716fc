// The one error a malformed font file makes core throw. It says where, what was expected and what was there.
import type { FontFaultCode } from "@/contracts/errors";

export class FontFileError extends Error {
  override name = "FontFileError";
  /**
   * @param code - one of FONT_FAULTS. @param table - four-letter tag, or "file".
   * @param byteOffset - from the start of the table (or file). @param expected, actual - in words or numbers.
   */
  constructor(
    readonly code: FontFaultCode,
    readonly table: string,
    readonly byteOffset: number,
    readonly expected: string,
    readonly actual: string,
  ) {
    super(`${table} at byte ${byteOffset}: expected ${expected}, found ${actual}`);
  }
}
