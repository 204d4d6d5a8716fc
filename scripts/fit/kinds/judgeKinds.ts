// Judges kinds on fonts of Debian's packages that were classed by eye before:
// node scripts/runScript.mjs scripts/fit/kinds/judgeKinds.ts <measured.jsonl> [labels.tsv]
// Right is a style whose first kind is one of those written down. Labels: scripts/fit/kinds/debian.tsv, and debianMore.tsv; files are known by their names.
import { readFileSync } from "node:fs";
import { basename } from "node:path";
import { classifyFont } from "../../../src/core/kind/classifyFont";
import type { Measured } from "../../../src/core/measure/measureFont";

const truth = new Map(
  readFileSync(process.argv[3] ?? "scripts/fit/kinds/debian.tsv", "utf8")
    .split("\n")
    .filter((line) => line && !line.startsWith("#"))
    .map((line) => line.split("\t"))
    .map(([, file, kinds]) => [file!, kinds!.split("+")]),
);
type Line = { path: string; family: string; style: string; features: string[]; measured: Measured; signature: string };
const tally = new Map<string, [right: number, all: number]>();
let pictures = 0;
let others = 0;
for (const line of readFileSync(process.argv[2]!, "utf8").split("\n").filter(Boolean)) {
  const font = JSON.parse(line) as Line;
  const kinds = truth.get(basename(font.path));
  const signature = new Uint8Array(Buffer.from(font.signature, "base64"));
  const classified = classifyFont({ ...font, signature });
  // "monospaced" and "display" say how it is used, not which letterforms it has.
  const first = classified.kinds.find((k) => k.value !== "monospaced" && k.value !== "display");
  if (!kinds) {
    others++;
    if (first?.value === "picture") {
      pictures++;
      console.log(`   not judged, called a picture: ${font.path} ${font.family}`);
    }
    continue;
  }
  const isRight = first !== undefined && kinds.includes(first.value);
  for (const of of ["all", kinds[0]!]) {
    const [right, all] = tally.get(of) ?? [0, 0];
    tally.set(of, [right + Number(isRight), all + 1]);
  }
  if (!isRight)
    console.log(
      `   ${font.path} ${font.family}: ${kinds.join(" or ")}, called ${classified.kinds.map((k) => `${k.value} ${k.confidence}`).join(", ")}`,
    );
}
for (const [kind, [right, all]] of tally)
  console.log(`${kind}: ${right} of ${all} right (${((100 * right) / all).toFixed(1)} %)`);
console.log(`${others} other fonts: ${pictures} called pictures`);
