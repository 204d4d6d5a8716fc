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
import { WORDINGS } from "../../tests/fixtures/rights/wordings";

const wanted = process.argv.includes("--held");
const isAll = process.argv.includes("--all");
let right = 0;
let asked = 0;
let whole = 0;
let falseCleared = 0;
const isFresh = process.argv.includes("--fresh");
const isLast = process.argv.includes("--last");
const isClosing = process.argv.includes("--closing");
const isConditions = process.argv.includes("--conditions");
const isFourth = process.argv.includes("--fourth");
const set = isConditions
  ? process.argv.includes("--fifth")
    ? FIFTH_CONDITION_WORDINGS
    : isFourth
      ? FOURTH_CONDITION_WORDINGS
      : isLast
        ? LAST_CONDITION_WORDINGS
        : wanted
          ? HELD_CONDITION_WORDINGS
          : CONDITION_WORDINGS
  : isClosing
    ? CLOSING_WORDINGS
    : isLast
      ? LAST_WORDINGS
      : isFresh
        ? FRESH_WORDINGS
        : [
            ...WORDINGS,
            ...LONG_WORDINGS,
            ...(isAll ? [...FRESH_WORDINGS, ...LAST_WORDINGS, ...CLOSING_WORDINGS] : []),
          ].filter((w) => isAll || w.held === wanted);
for (const w of set) {
  const { verdicts } = readRights([
    { kind: w.kind, source: w.kind === "name-table" ? "name 13" : "terms.txt", date: "2026-11-25", text: w.text },
  ]);
  const off: string[] = [];
  for (const [use, should] of Object.entries(w.expect) as [Use, Verdict][]) {
    const is = verdicts[use]!.verdict;
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
  readRights([{ kind, source: "terms.txt", date: "2026-11-25", text }]).verdicts[use]!.verdict.startsWith("cleared"),
);
for (const [, text] of sprung) console.log(`   cleared, and should not be: ${text}`);
console.log(`traps: ${sprung.length} of ${TRAPS.length} falsely cleared`);
