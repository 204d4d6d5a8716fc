// Colours as documents hold them.
import { z } from "zod";

/** Red, green, blue and, where it is there, alpha: two hexadecimal digits each. */
export const InkColour = z.string().regex(/^#(?:[0-9a-fA-F]{6}|[0-9a-fA-F]{8})$/);
