// How often the reading of terms gives the verdict that a careful reader gave. npm run eval:rights [--held] [--all]
// Without --held only the half is run on which the rules may be worked; --held runs the other half.
import type { Use, Verdict } from "../../src/contracts/traits";
import { readRights } from "../../src/core/rights/readRights";
import { CONDITION_WORDINGS } from "../../tests/fixtures/rights/conditionWordings";
import { HELD_CONDITION_WORDINGS } from "../../tests/fixtures/rights/conditionWordingsHeld";
import { LAST_CONDITION_WORDINGS } from "../../tests/fixtures/rights/conditionWordingsLast";
import { FOURTH_CONDITION_WORDINGS } from "../../tests/fixtures/rights/conditionWordingsFourth";
import { FIFTH_CONDITION_WORDINGS } from "../../tests/fixtures/rights/conditionWordingsFifth";
import { FRESH_WORDINGS } from "../../tests/fixtures/rights/freshWordings";
import { CLOSING_WORDINGS } from "../../tests/fixtures/rights/closingWordings";
import { LAST_WORDINGS, TRAPS } from "../../tests/fixtures/rights/lastWordings";
import { LONG_WORDINGS } from "../../tests/fixtures/rights/longWordings";
import type { Wording } from "../../tests/fixtures/rights/wording";
import { WORDINGS } from "../../tests/fixtures/rights/wordings";

const flags = new Set(process.argv.slice(2).map((flag) => flag.replace(/^--/, "")));
const wanted = flags.has("held");
const isAll = flags.has("all");
const CONDITIONS = {
  fifth: FIFTH_CONDITION_WORDINGS,
  fourth: FOURTH_CONDITION_WORDINGS,
  last: LAST_CONDITION_WORDINGS,
  held: HELD_CONDITION_WORDINGS,
};
const OTHERS = { closing: CLOSING_WORDINGS, last: LAST_WORDINGS, fresh: FRESH_WORDINGS };
/** Of several flags the first set that one of them names. */
const named = (sets: Record<string, Wording[]>) => Object.entries(sets).find(([name]) => flags.has(name))?.[1];
const usual = [
  ...WORDINGS,
  ...LONG_WORDINGS,
  ...(isAll ? [...FRESH_WORDINGS, ...LAST_WORDINGS, ...CLOSING_WORDINGS] : []),
].filter((w) => isAll || w.held === wanted);
const set = flags.has("conditions") ? (named(CONDITIONS) ?? CONDITION_WORDINGS) : (named(OTHERS) ?? usual);
let right = 0;
let asked = 0;
let whole = 0;
let falseCleared = 0;
for (const w of set) {
  const { verdicts } = readRights([
    { kind: w.kind, source: w.kind === "name-table" ? "name 13" : "terms.txt", date: "2026-11-25", text: w.text },
  ]);
  const off: string[] = [];
  for (const [use, should] of Object.entries(w.expect) as [Use, Verdict][]) {
    const is = verdicts[use].verdict;
    asked++;
    if (is === should) right++;
    else off.push(`${use}: ${is} instead of ${should}`);
    if (is === "cleared" && should !== "cleared" && should !== "cleared-with-credit") falseCleared++;
  }
  if (!off.length) whole++;
  else console.log(`${w.id}\n   ${off.join("\n   ")}`);
}
const share = (n: number, of: number) => `${n} of ${of} (${((100 * n) / of).toFixed(1)} %)`;
console.log(
  `\n${wanted ? "held-out" : isAll ? "all" : "working"} half: ${share(right, asked)} verdicts right, ${share(whole, set.length)} wordings wholly right, ${falseCleared} falsely cleared`,
);

const sprung = TRAPS.filter(([kind, text, use]) =>
  readRights([{ kind, source: "terms.txt", date: "2026-11-25", text }]).verdicts[use].verdict.startsWith("cleared"),
);
for (const [, text] of sprung) console.log(`   cleared, and should not be: ${text}`);
console.log(`traps: ${sprung.length} of ${TRAPS.length} falsely cleared`);
