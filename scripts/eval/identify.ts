// npm run eval:identify — how often the right face is found, on pictures from renderers that are not ours. Prints a table per condition.
// Options: --count 250, --seed 11, --text given|none (given), --held-out (only families kept out of tuning), --only warped (conditions with that word), --misses (list them)
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import sharp from "sharp";
import { identifyPicture } from "../../src/core/identify/identifyPicture";
import { readPicture } from "../../src/core/picture/readPicture";
import { readEvalLibrary } from "./library";
import { CONDITIONS, drawPictures } from "./pictures";

const option = (name: string, otherwise: string) => {
  const at = process.argv.indexOf(`--${name}`);
  return at < 0 ? otherwise : (process.argv[at + 1] ?? otherwise);
};
const count = Number(option("count", "250"));
const seed = Number(option("seed", "11"));
const onlyHeldOut = process.argv.includes("--held-out");
const only = option("only", "");
const listMisses = process.argv.includes("--misses");

const library = await readEvalLibrary();
console.log(`${library.styles.length} styles read in ${library.secondsToRead.toFixed(1)} s`);
const folder = mkdtempSync(join(tmpdir(), "fond-quarry-eval-"));
const pictures = drawPictures(library.styles, count, seed, folder).filter(
  (p) => (!onlyHeldOut || p.heldOut) && p.condition.includes(only),
);

type Tally = { n: number; familyFirst: number; familyFive: number; styleFirst: number; cpuMs: number[] };
const tally = (): Tally => ({ n: 0, familyFirst: 0, familyFive: 0, styleFirst: 0, cpuMs: [] });
const tallies = new Map<string, Tally>(
  [...CONDITIONS, "all", "tuning families", "held-out families"].map((c) => [c, tally()]),
);
const calibration: { chance: number; right: boolean }[] = [];
for (const p of pictures) {
  const { data, info } = await sharp(p.file).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  const started = process.cpuUsage();
  const line = readPicture({
    widthPx: info.width,
    heightPx: info.height,
    rgba: new Uint8Array(data.buffer, data.byteOffset, data.length),
  });
  const result = line && identifyPicture(line, p.text, library.index, library.load, 20);
  const used = process.cpuUsage(started);
  const matches = result?.matches ?? [];
  const families = [...new Set(matches.map((m) => m.family))];
  const familyRank = families.indexOf(p.style.family);
  const styleFirst = matches[0]?.styleId === p.style.styleId;
  if (matches[0])
    calibration.push({
      chance: matches.filter((m) => m.family === matches[0]!.family).reduce((a, m) => a + m.chance, 0),
      right: familyRank === 0,
    });
  for (const key of [p.condition, "all", p.heldOut ? "held-out families" : "tuning families"]) {
    const t = tallies.get(key)!;
    t.n++;
    t.cpuMs.push((used.user + used.system) / 1000);
    if (familyRank === 0) t.familyFirst++;
    if (familyRank >= 0 && familyRank < 5) t.familyFive++;
    if (styleFirst) t.styleFirst++;
  }
  if (listMisses && familyRank !== 0)
    console.log(
      `miss [${p.condition}] ${p.style.styleId} “${p.text}” rank ${familyRank} cuts ${line?.letters.length}/${p.text.replace(/\s/g, "").length} first ${matches[0]?.styleId} ${matches[0]?.score.toFixed(3)} right ${matches.find((m) => m.family === p.style.family)?.score.toFixed(3)} blur ${result?.imaging.blurPx} gain ${result?.imaging.gain} slope ${line?.slopeDeg.toFixed(1)} ${p.file}`,
    );
}
const share = (a: number, n: number) => (n ? `${((100 * a) / n).toFixed(1)} %` : "–").padStart(8);
console.log("condition".padEnd(28), "n".padStart(4), "family 1st", "family ≤5", "style 1st", "CPU ms (median)");
for (const [key, t] of tallies) {
  const ms = [...t.cpuMs].sort((a, b) => a - b)[Math.floor(t.n / 2)] ?? 0;
  console.log(
    key.padEnd(28),
    String(t.n).padStart(4),
    share(t.familyFirst, t.n),
    " ",
    share(t.familyFive, t.n),
    " ",
    share(t.styleFirst, t.n),
    ms.toFixed(0).padStart(10),
  );
}
console.log("calibration of the family's chance: said → right");
for (let low = 0; low < 1; low += 0.2) {
  const inside = calibration.filter((c) => c.chance >= low && c.chance < low + 0.2);
  if (inside.length)
    console.log(
      `  ${(low * 100).toFixed(0)}–${((low + 0.2) * 100).toFixed(0)} %: ${inside.length} said, ${share(inside.filter((c) => c.right).length, inside.length).trim()} right`,
    );
}
if (!listMisses) rmSync(folder, { recursive: true, force: true });
