// npm run eval:themes: how far words carry. Over the seen phrases: families that fit among the first eight as they are read, with the words that
// a phrase names left out of the themes, and with the whole themes left out. --told says what each phrase read; --fit searches the settings.
// --sealed takes the half that was put away; it was opened on 28 November 2026, when themes were built.
import { readFileSync } from "node:fs";
import { LOOKS } from "../../src/core/theme/looks";
import { fitTheme, readTheme, THEME_SETTINGS, writeTheme, type ThemeSettings } from "../../src/core/theme/readTheme";
import { WordTable } from "../../src/core/theme/wordTable";
import { indexStyles } from "../../src/core/find/findIndex";
import { mean } from "../../src/core/geometry/numbers";
import { readRows } from "./measured";
import { familiesOf } from "./themes/groups";
import { SEALED } from "./themes/sealed";
import { SEEN } from "./themes/seen";

const PHRASES = process.argv.includes("--sealed") ? SEALED : SEEN;
const FIRST = 8;
const rows = await readRows();
const words = WordTable.parse(new Uint8Array(readFileSync("dist-workers/words.bin")))!;
const degrees = indexStyles(rows).looks();
const told = process.argv.includes("--told") ? process.argv[process.argv.indexOf("--told") + 1] : "";
const isTold = told !== "";

/** Families, the best fitting first. */
function rank(weights: Float32Array): string[] {
  const best = new Map<string, number>();
  const fits = fitTheme(weights, degrees);
  rows.forEach(({ family }, i) => best.set(family, Math.max(fits[i]!, best.get(family) ?? -1)));
  return [...best].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1)).map(([family]) => family);
}

type LeftOut = "nothing" | "words" | "themes";
function judge(settings: ThemeSettings, leftOut: LeftOut) {
  let unread = 0;
  const shares = Object.entries(PHRASES).map(([phrase, list]) => {
    const tokens = phrase.split(" ");
    const read = readTheme(tokens, words, undefined, {
      ...settings,
      ...(leftOut === "words" && { skip: (_, word) => tokens.includes(word) || word === phrase }),
      ...(leftOut === "themes" && { skip: (t) => t.words.includes(phrase) || tokens.some((w) => t.words.includes(w)) }),
    });
    if (!read) unread++;
    const fair = familiesOf(list);
    const first = read ? rank(read.weights).slice(0, FIRST) : [];
    const share = first.filter((f) => fair.has(f)).length / FIRST;
    if (isTold && leftOut === told)
      console.log(
        `   ${share * FIRST}/8 “${phrase}” ${read && writeTheme(read)}: ${first.map((f) => (fair.has(f) ? f : `[${f}]`)).join(", ")}`,
      );
    return share;
  });
  return { mean: mean(shares)!, half: shares.filter((s) => s >= 0.5).length / shares.length, unread };
}

if (process.argv.includes("--fit")) {
  const tried: [number, ThemeSettings][] = [];
  for (const most of [12, 20, 40])
    for (const power of [2, 3, 4])
      for (const floor of [0.3, 0.45, 0.6])
        for (const from of [0.1]) {
          const settings = { most, power, floor, from };
          const all = (["nothing", "words", "themes"] as const).map((leftOut) => judge(settings, leftOut));
          tried.push([all.reduce((sum, { mean: m, half }) => sum + m + 0.3 * half, 0), settings]);
        }
  for (const [score, settings] of tried.sort((a, b) => b[0] - a[0]).slice(0, 8))
    console.log(score.toFixed(3), JSON.stringify(settings));
}
const percent = (share: number) => `${(100 * share).toFixed(0)} %`;
for (const leftOut of ["nothing", "words", "themes"] as const) {
  const { mean: share, half, unread } = judge(THEME_SETTINGS, leftOut);
  console.log(
    `${leftOut} left out: ${percent(share)} fit, half or more for ${percent(half)}, ${unread} of ${Object.keys(PHRASES).length} not read (${LOOKS.length} looks)`,
  );
}
