// Measures the fonts that kinds are fitted to: every file below a folder, as the reading of a font does it, into one line of JSON each.
// node scripts/runScript.mjs scripts/fit/kinds/measureFamilies.ts <folder> <out> [part of parts, as 1/2]
import { closeSync, openSync, readdirSync, readFileSync, statSync, writeSync } from "node:fs";
import { join, relative } from "node:path";
import { extractDescriptors } from "../../../src/core/descriptors/extractDescriptors";
import { measureFont } from "../../../src/core/measure/measureFont";
import { openFont } from "../../../src/core/open/openFont";
import { openFace } from "../../../src/core/outlines/openFace";
import { withoutRules } from "../../../src/core/outlines/withoutRules";

const [folder, out, part = "1/1"] = process.argv.slice(2) as [string, string, string?];
const [own, parts] = part.split("/").map(Number) as [number, number];

function* filesIn(path: string): Generator<string> {
  for (const name of readdirSync(path).sort()) {
    const full = join(path, name);
    if (statSync(full).isDirectory()) yield* filesIn(full);
    else if (/\.(woff2?|ttf|otf)$/i.test(name)) yield full;
  }
}

const file = openSync(out, "w");
let n = 0;
for (const path of filesIn(folder)) {
  if (n++ % parts !== own - 1) continue;
  try {
    const font = await openFont(readFileSync(path));
    const face = openFace(font.sfnt);
    const measured = measureFont(face);
    const signature = Buffer.from(extractDescriptors(withoutRules(face))).toString("base64");
    const { family, style, features } = font;
    writeSync(
      file,
      `${JSON.stringify({ path: relative(folder, path), family, style, features, measured, signature })}\n`,
    );
  } catch (error) {
    console.error(path, (error as Error).message);
  }
}
closeSync(file);
