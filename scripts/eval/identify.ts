// npm run eval:identify — how often the right face is found, on pictures from renderers that are not ours. Prints a table per condition,
// with the text given and unread.
// Options: --count 250, --seed 11, --fonts folder (another set of fonts than the demo library), --only words of a condition, --settings
// (small capitals, alternates, old-style figures, ligatures instead of the ten conditions), --held-out (only families kept out of tuning),
// --wild (photographs, frames of films and things instead: POV-Ray, FFmpeg, Ghostscript, ImageMagick, Chromium; --apart: families and scenes kept out
// of tuning; --draw: only draws; --letters-alone: of each picture its letters, white on black), --text given|unread|both, --absent (some families are kept out of the index), --parted (the index is parted by shape), --script cyrillic|greek (words of that script, in fonts that have all its letters), --misses (list them), --out file (answers as JSON, for fitting)
import { writeFileSync } from "node:fs";
import { availableParallelism } from "node:os";
import { fileURLToPath } from "node:url";
import { isMainThread, parentPort, Worker, workerData } from "node:worker_threads";
import { areaUnderRoc, binChances, calibrationError, type Bin } from "./figures";
import { isReader, readEvalStyles } from "./library";
import { CONDITIONS, drawPictures, type Condition, type EvalPicture } from "./pictures";
import { SETTINGS } from "./settings";
import { drawWild, WILD, type WildPicture } from "./wild/draw";
import { SCRIPT_TEXTS, TEXTS } from "./texts";
import { answerPictures, type Answered, type Mode, type Slice } from "./solve";

function option(name: string, otherwise: string): string {
  const at = process.argv.indexOf(`--${name}`);
  return at < 0 ? otherwise : (process.argv[at + 1] ?? otherwise);
}

const isSettings = process.argv.includes("--settings");
const isWild = process.argv.includes("--wild");
const conditions: readonly Condition[] = isWild ? WILD : isSettings ? SETTINGS : CONDITIONS;

if (!isMainThread && !isReader) {
  const slice = workerData as Slice;
  await answerPictures(slice, (answer) => parentPort!.postMessage(answer));
  process.exit(0);
}
if (isMainThread) await report();

async function report() {
  const fonts = option("fonts", "");
  const text = option("text", "both");
  const modes: Mode[] = text === "both" ? ["given", "unread"] : [text as Mode];
  const { styles, secondsToRead } = await readEvalStyles(fonts);
  console.log(
    `${styles.length} styles of ${new Set(styles.map((s) => s.family)).size} families (read in ${secondsToRead.toFixed(1)} s)`,
  );
  const script = option("script", "") as keyof typeof SCRIPT_TEXTS | "";
  const [count, seed, only] = [Number(option("count", "250")), Number(option("seed", "11")), option("only", "")];
  const drawn = isWild
    ? await drawWild(styles, count, seed, process.argv.includes("--apart"), only)
    : await drawPictures(
        styles,
        count,
        seed,
        `${fonts ? "folder" : "demo"}${isSettings ? "-settings" : ""}${script ? `-${script}` : ""}`,
        conditions,
        script ? SCRIPT_TEXTS[script] : TEXTS,
      );
  if (process.argv.includes("--draw")) return;
  const pictures = drawn
    .filter((p) => p.condition.includes(only) && (!process.argv.includes("--held-out") || p.heldOut))
    .map((p) => (process.argv.includes("--letters-alone") ? { ...p, file: (p as WildPicture).mask } : p));
  const started = Date.now();
  const answers = await askAll(pictures, modes, fonts);
  console.log(`${pictures.length} pictures, ${((Date.now() - started) / 1000).toFixed(0)} s\n`);
  for (const mode of modes)
    printTable(
      answers.filter((a) => a.mode === mode),
      mode,
    );
  if (process.argv.includes("--misses")) for (const a of answers) if (a.familyRank !== 0) console.log(writeMiss(a));
  const out = option("out", "");
  if (out) writeFileSync(out, JSON.stringify(answers));
}

async function askAll(pictures: EvalPicture[], modes: Mode[], fonts: string): Promise<Answered[]> {
  const threads = Math.min(availableParallelism(), Number(option("threads", "2")));
  const answers: Answered[] = [];
  await Promise.all(
    Array.from(
      { length: threads },
      (_, k) =>
        new Promise<void>((resolve, reject) => {
          const slice: Slice = {
            pictures: pictures.filter((_, i) => i % threads === k),
            modes,
            fonts,
            absent: process.argv.includes("--absent"),
            parted: process.argv.includes("--parted"),
          };
          new Worker(fileURLToPath(import.meta.url), { workerData: slice, argv: process.argv.slice(2) })
            .on("message", (a: Answered) => {
              answers.push(a);
              if (answers.length % 100 === 0) console.error(`${answers.length} answers`);
            })
            .once("error", reject)
            .once("exit", () => resolve());
        }),
    ),
  );
  return answers;
}

function printTable(answers: Answered[], mode: Mode) {
  const share = (list: Answered[], holds: (a: Answered) => boolean) =>
    (list.length ? `${((100 * list.filter(holds).length) / list.length).toFixed(1)} %` : "–").padStart(9);
  console.log(
    `${mode === "given" ? "text given" : "unread"}`.padEnd(28),
    "   n  family 1st  or twin   ≤5    style 1st  or twin   ≤5   ms median  p90",
  );
  const rows: [string, Answered[]][] = [
    ...conditions.map((c): [string, Answered[]] => [c, answers.filter((a) => a.condition === c)]),
    ...(isWild ? [] : (["magick", "pango", "chromium"] as const)).map((r): [string, Answered[]] => [
      `drawn by ${r}`,
      answers.filter((a) => a.renderer === r),
    ]),
    ["families of tuning", answers.filter((a) => !a.heldOut)],
    ["families kept out", answers.filter((a) => a.heldOut)],
    ["all", answers],
  ];
  for (const [name, list] of rows) {
    const ms = list.map((a) => a.ms).sort((a, b) => a - b);
    console.log(
      name.padEnd(28),
      String(list.length).padStart(4),
      share(list, (a) => a.familyRank === 0),
      share(list, (a) => a.familyRank === 0 || a.isTwinFirst),
      share(list, (a) => (a.familyRank >= 0 && a.familyRank < 5) || a.isTwinFirst),
      share(list, (a) => a.styleRank === 0),
      share(list, (a) => a.styleRank === 0 || a.isTwinFirst),
      share(list, (a) => a.styleRank >= 0 && a.styleRank < 5),
      (ms[Math.floor(ms.length / 2)] ?? 0).toFixed(0).padStart(6),
      (ms[Math.floor(ms.length * 0.9)] ?? 0).toFixed(0).padStart(6),
    );
  }
  if (mode === "unread")
    console.log(
      "read without a mistake:",
      share(answers, (a) => a.isReadRight),
      "by the letter reader alone:",
      share(answers, (a) => a.isOcrRight),
    );
  printCalibration(answers.filter((a) => !a.isAbsent));
  if (answers.some((a) => a.isAbsent)) printNone(answers);
}

/** How well "not in the libraries" is told, for all answers and for those of families kept out of tuning. */
function printNone(all: Answered[]) {
  for (const [name, answers] of [
    ["all", all],
    ["families kept out of tuning", all.filter((a) => a.heldOut)],
  ] as const) {
    const absent = answers.filter((a) => a.isAbsent).map((a) => a.noneChance);
    const there = answers.filter((a) => !a.isAbsent).map((a) => a.noneChance);
    const bins = binChances(answers.map((a) => ({ chance: a.noneChance, isRight: a.isAbsent })));
    console.log(
      `not in the libraries, ${name}: ${absent.length} absent, ${there.length} there, AUROC ${areaUnderRoc(absent, there).toFixed(3)}, expected calibration error ${calibrationError(bins).toFixed(3)}`,
    );
    for (const bin of bins) console.log(writeBin(bin));
  }
}

function printCalibration(answers: Answered[]) {
  console.log("chance said of the family named first → how often it was right");
  const bins = binChances(
    answers.map((a) => ({ chance: a.familyChance, isRight: a.familyRank === 0 || a.isTwinFirst })),
  );
  for (const bin of bins) console.log(writeBin(bin));
  console.log(`  expected calibration error ${calibrationError(bins).toFixed(3)}\n`);
}

function writeBin({ said, right, count }: Bin): string {
  return `  ${(100 * said).toFixed(0).padStart(3)} % said ${count} times: ${(100 * right).toFixed(1)} % right`;
}

function writeMiss(a: Answered): string {
  return `miss ${a.mode} [${a.condition}] ${a.styleId} “${a.text}”${a.mode === "unread" ? ` read “${a.read}”` : ""} rank ${a.familyRank} ${a.note} ${a.file}`;
}
