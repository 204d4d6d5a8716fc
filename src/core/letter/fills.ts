// Fills of letters, told to what knows no gradients. Of its own, so that the page's main thread takes in nothing else.
import type { Fill } from "@/contracts/lettering";

/** One colour: the fill itself, or the one that its gradient begins with. */
export const solidOf = (fill: Fill): string => (typeof fill === "string" ? fill : fill.from);
