// Names of other scripts in Latin letters, as people type them: by a package (any-ascii) that has a romanisation for every script.
import anyAscii from "any-ascii";
import { hasOtherScript } from "./scripts";

/** @returns the text in Latin letters; null where it has no letter of another script. */
export const toLatin = (text: string): string | null => (hasOtherScript(text) ? anyAscii(text) : null);
