// npm run eval:pairs: sixty pairs judged before anything scored them. Prints how often a good pair scores above a poor one (AUROC), for
// the half that was looked at while the score was made, and with --sealed for the other.
import { readFileSync } from "node:fs";
import { pairFaceOf, scorePair } from "../../src/core/pair/scorePair";
import type { FindRow } from "../../src/core/find/findIndex";
import { readRows } from "./measured";

type Judged = { half: string; heading: [string, number]; text: [string, number]; isGood: boolean; reason: string };
const judged: Judged[] = readFileSync("scripts/eval/pairs.tsv", "utf8")
  .split("\n")
  .filter((line) => line && !line.startsWith("#"))
  .map((line) => {
    const [half, a, wa, b, wb, judgement, reason] = line.split("\t");
    return {
      half: half!,
      heading: [a!, Number(wa)],
      text: [b!, Number(wb)],
      isGood: judgement === "good",
      reason: reason!,
    };
  });

// Parts of a face that hold other alphabets are no styles of their own.
const rows = (await readRows()).filter(
  (r) => r.traits.weight !== null && !/-(?:latin-ext|cyrillic|greek|vietnamese)/.test(r.styleId),
);
const squash = (name: string) => name.toLowerCase().replace(/[^a-z0-9]/g, "");
function find([family, weight]: [string, number]): FindRow {
  const upright = rows.filter(
    (r) =>
      squash(r.family) === squash(family) && Math.abs(r.traits.slantDeg ?? 0) < 4.5 && !/italic|oblique/i.test(r.style),
  );
  const own = upright.length ? upright : rows.filter((r) => squash(r.family) === squash(family));
  if (!own.length) throw new Error(`no family ${family}`);
  // Stated by the style's name where it can be, else by measure.
  return own.reduce((best, r) => (off(r, weight) < off(best, weight) ? r : best));
}
const STATED: Record<string, number> = {
  light: 300,
  regular: 400,
  medium: 500,
  semibold: 600,
  bold: 700,
  extrabold: 800,
  black: 900,
};
const off = (r: FindRow, weight: number) => Math.abs((STATED[squash(r.style)] ?? r.traits.weight ?? 400) - weight);

function auroc(scores: { score: number; isGood: boolean }[]): number {
  const [good, poor] = [scores.filter((s) => s.isGood), scores.filter((s) => !s.isGood)];
  let sum = 0;
  for (const g of good) for (const p of poor) sum += g.score > p.score ? 1 : g.score === p.score ? 0.5 : 0;
  return sum / (good.length * poor.length);
}

const isSealed = process.argv.includes("--sealed");
for (const half of isSealed ? ["seen", "sealed"] : ["seen"]) {
  const scored = judged
    .filter((j) => j.half === half)
    .map((j) => {
      const [a, b] = [find(j.heading), find(j.text)];
      return { ...j, a, b, ...scorePair(pairFaceOf(a), pairFaceOf(b), "text") };
    })
    .sort((p, q) => q.score - p.score);
  for (const s of scored)
    console.log(
      s.score.toFixed(3),
      s.isGood ? "good" : "    poor",
      `${s.a.family} ${s.a.style} + ${s.b.family} ${s.b.style}`,
      s.reasons.map((r) => `${r.aspect} ${r.good.toFixed(2)}`).join(", "),
    );
  console.log(`${half}: AUROC ${auroc(scored).toFixed(3)} of ${scored.length}`);
}
