// Makes core/measure/letterForms.ts: a few typical forms of every Latin letter, as centres of the measured library's forms.
// Run: npm run fit:collect > measured.jsonl && npm run fit:forms < measured.jsonl
import { readFileSync, writeFileSync } from "node:fs";
import { likeness } from "../../src/core/measure/cellForm";

const CENTRES = 6;
type Row = { id: string; weightStated: number; forms: Record<string, number[]> };
const rows = readFileSync(0, "utf8")
  .trim()
  .split("\n")
  .map((l) => JSON.parse(l) as Row);
// One regular and one bold style a family, so that large families do not outvote small ones.
const used = rows.filter((r) => [400, 700].includes(r.weightStated));
const chars = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz";
const table = [...chars].map((char) => {
  const forms = used.flatMap((r) => (r.forms[char] ? [Float32Array.from(r.forms[char])] : []));
  return `  ${char}: ${JSON.stringify(findCentres(forms).map((c) => [...c].map((v) => Number(v.toFixed(2)))))},`;
});
writeFileSync(
  "src/core/measure/letterForms.ts",
  `// Typical forms of each Latin letter as described by cellForm.ts. Made by scripts/fit/letterForms.ts from the demo library. A data table.\nexport const LETTER_FORMS: Record<string, number[][]> = {\n${table.join("\n")}\n};\n`,
);

/** Centres by repeated averaging (k-means on likeness), started from evenly spaced members: no chance involved. */
function findCentres(forms: Float32Array[]): Float32Array[] {
  let centres = Array.from({ length: CENTRES }, (_, i) => forms[Math.floor(((i + 0.5) * forms.length) / CENTRES)]!);
  for (let round = 0; round < 12; round++) {
    const groups: Float32Array[][] = centres.map(() => []);
    for (const f of forms) {
      const scores = centres.map((c) => likeness(c, f));
      groups[scores.indexOf(Math.max(...scores))]!.push(f);
    }
    centres = groups.map((g, i) =>
      g.length
        ? Float32Array.from({ length: g[0]!.length }, (_, k) => g.reduce((a, f) => a + f[k]!, 0) / g.length)
        : centres[i]!,
    );
  }
  return centres;
}
