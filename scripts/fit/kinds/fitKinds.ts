// Fits the table that letterforms are told by: node scripts/runScript.mjs scripts/fit/kinds/fitKinds.ts <measured.jsonl …> [--write]
// Families that share the first word of their name stay together: cross-validation judges each by a table that saw none of its kin, and the
// families of `isKeptOut` are seen by no fit that is judged. --kept-out judges by them. What --write puts into the product is fitted to all.
// Fonts: scripts/fit/kinds/fetch.mjs and measureFamilies.ts. Labels: scripts/fit/kinds/labels.tsv.
import { readFileSync, writeFileSync } from "node:fs";
import { BENDS, FEATURES_LENGTH, featuresOf, MEASURES, measuresOf, type Spread } from "../../../src/core/kind/features";
import { LETTERFORMS } from "../../../src/core/kind/letterform";
import type { Measured } from "../../../src/core/measure/measureFont";
import { quantile } from "../../../src/core/geometry/numbers";

const FOLDS = 5;
const ROUNDS = 250;
const RATE = 0.05;
/** Weights of measures and of forms are held towards zero. */
const RIDGE = { measures: 3e-3, forms: 3e-4 };
/** How far rare kinds are raised towards the common ones. */
const BALANCE = 0.8;
const BARE_SHARE = 0.25;
const QUANTILES = [0.03, 0.2, 0.5, 0.8, 0.97];
const isKeptOut = (kin: string) => hash(kin) % 9 < 2;

type Style = {
  family: string;
  kin: string;
  path: string;
  kinds: string[];
  /** null where nobody says. */
  isDisplay: boolean | null;
  measured: Measured;
  signature: Uint8Array;
};

const files = process.argv.slice(2).filter((a) => !a.startsWith("--"));
const labels = readLabels();
const styles = files.flatMap(readStyles);
const seen = styles.filter((s) => !isKeptOut(s.kin));
console.log(
  `${styles.length} styles of ${new Set(styles.map((s) => s.family)).size} families; ${new Set(styles.filter((s) => isKeptOut(s.kin)).map((s) => s.family)).size} families kept out`,
);

if (process.argv.includes("--folds")) {
  const judged = Array.from({ length: FOLDS }, (_, fold) => {
    const model = fit(seen.filter((s) => hash(`fold ${s.kin}`) % FOLDS !== fold));
    return seen.filter((s) => hash(`fold ${s.kin}`) % FOLDS === fold).map((s) => judge(model, s));
  }).flat();
  report("cross-validated", judged);
}
if (process.argv.includes("--kept-out")) {
  const model = fit(seen);
  report(
    "kept out",
    styles.filter((s) => isKeptOut(s.kin)).map((s) => judge(model, s)),
  );
}
if (process.argv.includes("--write"))
  writeFileSync("src/core/kind/model.json", `${JSON.stringify(toJson(fit(styles)))}\n`);

function hash(text: string): number {
  let h = 2166136261;
  for (const c of text) h = Math.imul(h ^ c.codePointAt(0)!, 16777619);
  return (h ^ (h >>> 15)) >>> 0;
}

function rowsOf(file: string): string[][] {
  return readFileSync(`scripts/fit/kinds/${file}`, "utf8")
    .split("\n")
    .filter((line) => line && !line.startsWith("#"))
    .map((line) => line.split("\t"));
}

/** By family, and for fonts of Debian's packages by file. */
function readLabels() {
  const out = new Map<string, { kinds: string[]; isDisplay: boolean | null }>();
  for (const [family, kinds, , , display] of rowsOf("labels.tsv"))
    out.set(family!, { kinds: kinds!.split("+"), isDisplay: display === "display" });
  for (const [, file, kinds] of rowsOf("debianMore.tsv")) out.set(file!, { kinds: kinds!.split("+"), isDisplay: null });
  return out;
}

function readStyles(file: string): Style[] {
  return readFileSync(file, "utf8")
    .split("\n")
    .filter(Boolean)
    .flatMap((line) => {
      const { path, measured, signature } = JSON.parse(line) as { path: string; measured: Measured; signature: string };
      // A family's folder, or the file of a package that holds many families.
      const family = path.split("/")[0]!;
      const label = labels.get(family);
      if (!label || measured.traits.picture || !(LETTERFORMS as readonly string[]).includes(label.kinds[0]!)) return [];
      return [
        {
          family,
          kin: family.split(/[-.]/)[0]!,
          path,
          ...label,
          measured,
          signature: new Uint8Array(Buffer.from(signature, "base64")),
        },
      ];
    });
}

type Fitted = { spreads: Spread[]; weights: Float32Array[]; display: Float32Array };

function fit(list: Style[]): Fitted {
  const rows = list.map((s) => measuresOf(s.measured));
  const spreads = MEASURES.map((_, m): Spread => {
    const values = rows.map((r) => r[m]!).filter((v) => !Number.isNaN(v));
    return {
      quantiles: QUANTILES.map((q) => Number((quantile(values, q) ?? 0).toFixed(4))),
      mean: Number((values.reduce((a, b) => a + b, 0) / Math.max(1, values.length)).toFixed(4)),
    };
  });
  const whole = list.map((s) => Float32Array.from(featuresOf(s.measured, s.signature, spreads)));
  // Each style once more without its forms: a face that lacks these letters is judged by its measures alone.
  const bare = whole.map((x) => x.map((v, k) => (k < MEASURES.length * BENDS ? v : 0)));
  const features = [...whole, ...bare];
  const both = <T>(of: T[]) => [...of, ...of];
  const halve = (counts: number[]) => [
    ...counts.map((c) => c * (1 - BARE_SHARE)),
    ...counts.map((c) => c * BARE_SHARE),
  ];
  const targets = list.map((s) => {
    const share = 0.5 / s.kinds.length;
    return LETTERFORMS.map((kind) => (s.kinds.includes(kind) ? share : 0) + (s.kinds[0] === kind ? 0.5 : 0));
  });
  const weights = descend(features, both(targets), halve(weigh(list, (s) => s.kinds[0]!)), softmax);
  const isDisplay = list.map((s) => [Number(s.isDisplay)]);
  const ofDisplay = weigh(list, (s) => String(s.isDisplay), 0).map((w, i) => (list[i]!.isDisplay === null ? 0 : w));
  const [display] = descend(features, both(isDisplay), halve(ofDisplay), sigmoid);
  return { spreads, weights, display: display! };
}

/** Each family counts once, kin and common kinds for less. */
function weigh(list: Style[], classOf: (s: Style) => string, balance = BALANCE): number[] {
  const count = (of: (s: Style) => string) => {
    const counts = new Map<string, number>();
    for (const s of list) counts.set(of(s), (counts.get(of(s)) ?? 0) + 1);
    return counts;
  };
  const families = count((s) => s.family);
  const kin = new Map<string, Set<string>>();
  for (const s of list) kin.set(s.kin, (kin.get(s.kin) ?? new Set()).add(s.family));
  const plain = list.map((s) => 1 / families.get(s.family)! / Math.sqrt(kin.get(s.kin)!.size));
  const ofClass = new Map<string, number>();
  list.forEach((s, i) => ofClass.set(classOf(s), (ofClass.get(classOf(s)) ?? 0) + plain[i]!));
  const all = plain.reduce((a, b) => a + b, 0);
  const raised = list.map((s, i) => plain[i]! * (all / ofClass.get(classOf(s))!) ** balance);
  const total = raised.reduce((a, b) => a + b, 0);
  return raised.map((w) => w / total);
}

type Link = (scores: Float32Array) => void;
function softmax(scores: Float32Array) {
  const greatest = Math.max(...scores);
  let total = 0;
  for (let c = 0; c < scores.length; c++) total += scores[c] = Math.exp(scores[c]! - greatest);
  for (let c = 0; c < scores.length; c++) scores[c]! /= total;
}
function sigmoid(scores: Float32Array) {
  for (let c = 0; c < scores.length; c++) scores[c] = 1 / (1 + Math.exp(-scores[c]!));
}

/** Adam (Kingma and Ba, 2015) over the whole set. @returns for each class its weights, the bias last. */
function descend(features: Float32Array[], targets: number[][], counts: number[], link: Link): Float32Array[] {
  const classes = targets[0]!.length;
  const size = FEATURES_LENGTH + 1;
  const make = () => Array.from({ length: classes }, () => new Float32Array(size));
  const [weights, mean, square] = [make(), make(), make()];
  const scores = new Float32Array(classes);
  for (let t = 1; t <= ROUNDS; t++) {
    const slope = make();
    features.forEach((x, i) => {
      for (let c = 0; c < classes; c++) scores[c] = dot(weights[c]!, x);
      link(scores);
      for (let c = 0; c < classes; c++) {
        const off = counts[i]! * (scores[c]! - targets[i]![c]!);
        const g = slope[c]!;
        for (let k = 0; k < FEATURES_LENGTH; k++) g[k]! += off * x[k]!;
        g[FEATURES_LENGTH]! += off;
      }
    });
    for (let c = 0; c < classes; c++)
      for (let k = 0; k < size; k++) {
        const ridge = k < MEASURES.length * BENDS ? RIDGE.measures : k < FEATURES_LENGTH ? RIDGE.forms : 0;
        const g = slope[c]![k]! + ridge * weights[c]![k]!;
        mean[c]![k] = 0.9 * mean[c]![k]! + 0.1 * g;
        square[c]![k] = 0.999 * square[c]![k]! + 0.001 * g * g;
        weights[c]![k]! -=
          (RATE * (mean[c]![k]! / (1 - 0.9 ** t))) / (Math.sqrt(square[c]![k]! / (1 - 0.999 ** t)) + 1e-8);
      }
  }
  return weights;
}

function dot(weights: Float32Array, x: Float32Array): number {
  let sum = weights[FEATURES_LENGTH]!;
  for (let k = 0; k < FEATURES_LENGTH; k++) sum += weights[k]! * x[k]!;
  return sum;
}

type Judgement = { style: Style; kind: string; chance: number; isRight: boolean; isDisplayRight: boolean };
function judge(fitted: Fitted, style: Style): Judgement {
  const x = Float32Array.from(featuresOf(style.measured, style.signature, fitted.spreads));
  const scores = Float32Array.from(fitted.weights, (w) => dot(w, x));
  softmax(scores);
  const best = scores.indexOf(Math.max(...scores));
  const kind = LETTERFORMS[best]!;
  const isDisplay = dot(fitted.display, x) > 0;
  return {
    style,
    kind,
    chance: scores[best]!,
    isRight: style.kinds.includes(kind),
    isDisplayRight: isDisplay === style.isDisplay,
  };
}

/** Shares of families: each counts once, by the share of its styles that are right. */
function report(name: string, judged: Judgement[]) {
  const byFamily = new Map<string, Judgement[]>();
  for (const j of judged) byFamily.set(j.style.family, [...(byFamily.get(j.style.family) ?? []), j]);
  const families = [...byFamily.values()];
  const share = (list: Judgement[][], isRight: (j: Judgement) => boolean = (j) => j.isRight) =>
    `${((100 * list.reduce((sum, f) => sum + f.filter(isRight).length / f.length, 0)) / Math.max(1, list.length)).toFixed(1)} % of ${list.length}`;
  console.log(
    `${name}: ${share(families)} families right; display ${share(
      families.filter(([j]) => j!.style.isDisplay !== null),
      (j) => j.isDisplayRight,
    )}`,
  );
  for (const kind of LETTERFORMS)
    console.log(`   ${kind}: ${share(families.filter(([j]) => j!.style.kinds[0] === kind))}`);
  for (const band of [0.4, 0.6, 0.8, 0.9, 0.97]) {
    const within = judged.filter(
      (j) =>
        j.chance >= band && j.chance < (band === 0.97 ? 2 : [0.6, 0.8, 0.9, 0.97][[0.4, 0.6, 0.8, 0.9].indexOf(band)]!),
    );
    console.log(
      `   said with ${band}: ${((100 * within.filter((j) => j.isRight).length) / Math.max(1, within.length)).toFixed(0)} % of ${within.length} right`,
    );
  }
  if (process.argv.includes("--told"))
    for (const j of judged)
      if (!j.isRight)
        console.log(`   ${j.style.path}: ${j.style.kinds.join(" or ")}, called ${j.kind} (${j.chance.toFixed(2)})`);
}

function toJson({ spreads, weights, display }: Fitted) {
  const round = (v: number) => Math.round(1_000 * v);
  const column = (name: string, w: Float32Array) => ({
    name,
    bias: round(w[FEATURES_LENGTH]!),
    measures: MEASURES.map((_, m) => Array.from(w.subarray(m * BENDS, (m + 1) * BENDS), round)),
    forms: Array.from(w.subarray(MEASURES.length * BENDS, FEATURES_LENGTH), round),
  });
  return { spreads, columns: [...LETTERFORMS.map((kind, c) => column(kind, weights[c]!)), column("display", display)] };
}
