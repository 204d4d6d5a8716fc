// The words of a brief as they are set: lines that are still empty are none.
import type { BriefFields } from "@/contracts/brief";

type Words = Pick<BriefFields, "name" | "lines">;

export const setLines = ({ lines }: Pick<BriefFields, "lines">): string[] =>
  lines.map((line) => line.text).filter((text) => text.trim());

/** Its first line; its name where every line is empty. */
export const firstWords = (brief: Words): string => setLines(brief)[0] ?? brief.name;
