// npm run fit:chance -- answers.json … — fits how sure an answer may be. Takes what `npm run eval:identify -- --absent --out answers.json` wrote,
// learns from families of tuning alone and prints the numbers for src/core/identify/answer/chance.ts, with what they reach on families kept out.
import { readFileSync } from "node:fs";
import { CHANCE, noneChanceOf, sharesOf, termsOf } from "../../src/core/identify/answer/chance";
import { areaUnderRoc } from "../eval/figures";
import type { Answered } from "../eval/solve";

const ROUNDS = 20000;
const RATE = 0.5;
/** What holds the numbers to those that stand there now, which more pictures were fitted on over time than are here. */
const HOLD = 0.05;

const answers = process.argv
  .slice(2)
  .flatMap((file) => JSON.parse(readFileSync(file, "utf8")) as Answered[])
  .filter((a) => a.evidence);
const tuning = answers.filter((a) => !a.heldOut);
const keptOut = answers.filter((a) => a.heldOut);

const keys = Object.keys(CHANCE.none) as (keyof typeof CHANCE.none)[];
const weights = { ...CHANCE.none };
const rows = tuning.map((a) => ({ terms: termsOf(a.evidence!), isNone: a.isAbsent ? 1 : 0 }));
for (let round = 0; round < ROUNDS; round++) {
  const slope = Object.fromEntries(keys.map((k) => [k, HOLD * (weights[k] - CHANCE.none[k])])) as typeof weights;
  for (const { terms, isNone } of rows) {
    const sum = keys.reduce((s, k) => s + weights[k] * terms[k], 0);
    const off = 1 / (1 + Math.exp(-sum)) - isNone;
    for (const k of keys) slope[k] += (off * terms[k]) / rows.length;
  }
  for (const k of keys) weights[k] -= RATE * slope[k];
}

/** How surely the right family is named, over pictures whose family was there. */
function likelihood(list: readonly Answered[], temperature: number): number {
  let sum = 0;
  for (const a of list) {
    if (a.isAbsent || a.familyRank < 0) continue;
    const shares = sharesOf(
      a.ranked.map((r) => r.cost),
      a.evidence!,
      temperature,
    );
    const family = a.familyOfPicture;
    sum += Math.log(
      Math.max(
        1e-6,
        shares.reduce((s, v, i) => s + (a.ranked[i]!.family === family ? v : 0), 0),
      ),
    );
  }
  return sum;
}
let best = { temperature: 0.02, value: -Infinity };
for (let t = 0.004; t < 0.12; t *= 1.08) {
  const value = likelihood(tuning, t);
  if (value > best.value) best = { temperature: t, value };
}

console.log(`temperature: ${best.temperature.toFixed(4)}`);
console.log(`none: { ${keys.map((k) => `${k}: ${weights[k].toFixed(2)}`).join(", ")} }`);
for (const [name, list] of [
  ["tuning", tuning],
  ["kept out", keptOut],
] as const) {
  const said = list.map((a) => ({ none: noneChanceOf(a.evidence!, weights), isNone: a.isAbsent }));
  const [absent, there] = [true, false].map((isNone) => said.filter((s) => s.isNone === isNone).map((s) => s.none));
  console.log(
    `${name}: ${absent!.length} absent, ${there!.length} there, AUROC ${areaUnderRoc(absent!, there!).toFixed(3)}`,
  );
}
