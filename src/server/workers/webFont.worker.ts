// Worker entry: web fonts of one face, each of its files cut to the characters that it adds. The subsetter is started afresh for every face:
// a font that breaks it breaks no other.
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { createSubsetter } from "@/core/webkit/subsetter";
import { makeWebFont, type WebFont, type WebFontAsked } from "@/core/webkit/makeWebFont";
import { openFont } from "@/core/open/openFont";
import { readStored } from "../db/fileStore";

export type WebFontRequest = Omit<WebFontAsked, "sfnt"> & {
  /** Digests of its files, the main one first. */
  sfntSha256s: string[];
};

/** @returns one for each file that has some of the characters; those of a file before are not in it again. */
export default async function makeWebFonts({ sfntSha256s, ...asked }: WebFontRequest): Promise<WebFont[]> {
  const program = readFileSync(
    /* turbopackIgnore: true */ join(process.cwd(), "node_modules", "harfbuzzjs", "dist", "harfbuzz-subset.wasm"),
  );
  const subset = await createSubsetter(program);
  const made: WebFont[] = [];
  const there = new Set<number>();
  for (const sha256 of sfntSha256s) {
    const { sfnt, codePoints } = await openFont(readStored(sha256));
    const web = await makeWebFont(subset, { ...asked, sfnt }, codePoints, there);
    if (!web) continue;
    for (const code of web.codePoints) there.add(code);
    made.push(web);
  }
  return made;
}
