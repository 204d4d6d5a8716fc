// npm run eval:measure: what we measure of every demo font against what the fonts and their packages state, which measuring
// never reads: category, usWeightClass, OS/2 heights, italic angle, fixed pitch. Prints each exception. --json writes readings.
import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { extractDescriptors } from "../../src/core/descriptors/extractDescriptors";
import { classifyFont } from "../../src/core/kind/classifyFont";
import { spansAtY } from "../../src/core/geometry/rays";
import { lettersOf, pick, type Letters } from "../../src/core/measure/letters";
import { measureFont } from "../../src/core/measure/measureFont";
import { openFont } from "../../src/core/open/openFont";
import { openFace } from "../../src/core/outlines/openFace";
import { TableReader } from "../../src/core/open/reader";
import { readPost } from "../../src/core/open/tables/metrics";
import { openContainer } from "../../src/core/open/container";
import { listDemoFonts } from "../../demo/packages";
import type { Kind, Traits } from "../../src/contracts/traits";

type Row = {
  name: string;
  family: string;
  style: string;
  category: string;
  variable: boolean;
  traits: Traits;
  kinds: { value: Kind; confidence: number }[];
  treatments: string[];
  build: unknown;
  legibility: number | null;
  proportion: number | null;
  /** Tops of x and H as their boxes say: as they are, and less what they go below the baseline. */
  boxes: Record<string, number[]>;
  /** Leans of single straight letters, degrees. */
  leans: number[];
  stated: {
    weight: number | null;
    xHeightEm: number | null;
    capHeightEm: number | null;
    italicAngleDeg: number | null;
    fixedPitch: boolean;
  };
};

/** Which of our kinds answer to a package's category. "display" compares where a style is display and nothing else: see below. */
const ANSWERS: Record<string, Kind[]> = {
  "sans-serif": ["sans"],
  serif: ["serif", "slab"],
  monospace: ["monospaced"],
  handwriting: ["script", "handwritten"],
  display: ["display", "script", "handwritten", "blackletter", "slab"],
};

const categoryOf = (folder: string) =>
  (JSON.parse(readFileSync(join(folder, "metadata.json"), "utf8")) as { category: string }).category;

function boxesOf(letters: Letters): Record<string, number[]> {
  const out: Record<string, number[]> = {};
  for (const c of ["x", "H"]) {
    const b = letters.get(c)?.bounds;
    if (b) out[c] = [b.yMax / letters.em, (b.yMax + Math.min(0, b.yMin)) / letters.em];
  }
  return out;
}

const leansOf = (letters: Letters) => [
  ...pick(letters, "HIEFLTNlihnmr").flatMap((l) => {
    const spans = [0.3, 0.7].map((s) => {
      const y = l.bounds.yMin + s * (l.bounds.yMax - l.bounds.yMin) * ("hnmr".includes(l.char) ? 0.6 : 1);
      return { y, first: spansAtY(l.polygons, y)[0] };
    });
    const [a, b] = spans;
    if (!a?.first || !b?.first) return [];
    return [
      (Math.atan(((b.first.from + b.first.to) / 2 - (a.first.from + a.first.to) / 2) / (b.y - a.y)) * 180) / Math.PI,
    ];
  }),
];

const SMALL_N = 0x6e;
/** How packages name the file that has the alphabet, and those of pictures. */
const ALPHABET = /-(latin|symbols|emoji)-\d+-/;

async function readAll(): Promise<Row[]> {
  const rows: Row[] = [];
  for (const entry of listDemoFonts(process.cwd())) {
    const font = await openFont(readFileSync(entry.path));
    const face = openFace(font.sfnt);
    // Of a face in parts the one with the alphabet is measured, as in the product.
    if (!face.glyphOf(SMALL_N) && !ALPHABET.test(entry.path)) continue;
    const measured = measureFont(face);
    const classified = classifyFont({
      measured,
      signature: extractDescriptors(face),
      family: font.family ?? entry.family,
      features: font.features,
    });
    const post = (await openContainer(font.sfnt)).tables.get("post");
    const em = (v: number | null | undefined) => (v ? v / font.unitsPerEm : null);
    rows.push({
      name: entry.name,
      family: entry.family,
      style: font.style,
      category: categoryOf(entry.packageFolder),
      variable: font.axes.length > 0,
      traits: measured.traits,
      kinds: classified.kinds,
      treatments: classified.treatments.map((t) => t.value),
      build: measured.build,
      legibility: measured.legibility,
      proportion: measured.proportion,
      boxes: boxesOf(lettersOf(face)),
      leans: leansOf(lettersOf(face)),
      stated: {
        weight: font.os2?.usWeightClass ?? null,
        xHeightEm: em(font.os2?.xHeightFu),
        capHeightEm: em(font.os2?.capHeightFu),
        italicAngleDeg: font.italicAngleDeg,
        fixedPitch: post ? readPost(new TableReader("post", post)).isFixedPitch : false,
      },
    });
  }
  return rows;
}

function groupBy<T>(list: readonly T[], of: (item: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const item of list) groups.set(of(item), [...(groups.get(of(item)) ?? []), item]);
  return groups;
}

/** Spearman's rank correlation, ties at their middle rank. */
function rankCorrelation(pairs: [number, number][]): number {
  const ranks = (values: number[]) => {
    const order = values.map((v, i) => [v, i] as const).sort((a, b) => a[0] - b[0]);
    const out = new Array<number>(values.length);
    for (let i = 0; i < order.length;) {
      let j = i;
      while (j < order.length && order[j]![0] === order[i]![0]) j++;
      for (let k = i; k < j; k++) out[order[k]![1]] = (i + j - 1) / 2;
      i = j;
    }
    return out;
  };
  const a = ranks(pairs.map((p) => p[0]));
  const b = ranks(pairs.map((p) => p[1]));
  const mean = (v: number[]) => v.reduce((x, y) => x + y, 0) / v.length;
  const [ma, mb] = [mean(a), mean(b)];
  let [ab, aa, bb] = [0, 0, 0];
  a.forEach((v, i) => {
    ab += (v - ma) * (b[i]! - mb);
    aa += (v - ma) ** 2;
    bb += (b[i]! - mb) ** 2;
  });
  return aa && bb ? ab / Math.sqrt(aa * bb) : 1;
}

const rows = process.argv.includes("--again")
  ? (JSON.parse(readFileSync("dist-workers/measured.json", "utf8")) as Row[])
  : await readAll();
if (process.argv.includes("--json")) writeFileSync("dist-workers/measured.json", JSON.stringify(rows));
const verbose = !process.argv.includes("--brief");
const say = (line: string) => console.log(line);
const list = (lines: string[]) => verbose && lines.forEach((l) => say(`    ${l}`));
const share = (good: number, of: number) => `${((100 * good) / Math.max(1, of)).toFixed(1)} % of ${of}`;

say(`${rows.length} styles of ${new Set(rows.map((r) => r.family)).size} families`);

// Kinds.
for (const category of Object.keys(ANSWERS)) {
  const of = rows.filter((r) => r.category === category && !r.traits.picture);
  const wrong = of.filter((r) => !r.kinds.some((k) => k.confidence >= 0.5 && ANSWERS[category]!.includes(k.value)));
  say(`kind, ${category}: ${share(of.length - wrong.length, of.length)}`);
  const byFamily = groupBy(wrong, (r) => r.family);
  list(
    [...byFamily].map(
      ([f, w]) => `${f} (${w.length}): ${w[0]!.kinds.map((k) => `${k.value} ${k.confidence}`).join(", ")}`,
    ),
  );
}
const compared = rows.filter((r) => r.category in ANSWERS && !r.traits.picture);
const right = compared.filter((r) =>
  r.kinds.some((k) => k.confidence >= 0.5 && ANSWERS[r.category]!.includes(k.value)),
);
say(`KIND over all compared: ${share(right.length, compared.length)}`);

// Weight.
const weighed = rows.filter(
  (r) => !r.variable && r.traits.weight !== null && r.stated.weight !== null && !r.traits.picture,
);
say(
  `WEIGHT across: ${rankCorrelation(weighed.map((r) => [r.traits.weight!, r.stated.weight!])).toFixed(3)} over ${weighed.length}`,
);
const families = [...groupBy(weighed, (r) => `${r.family}${/italic/.test(r.name) ? " Italic" : ""}`)].filter(
  ([, l]) => new Set(l.map((r) => r.stated.weight)).size >= 3,
);
const within = families.map(
  ([f, l]) => [f, rankCorrelation(l.map((r) => [r.traits.weight!, r.stated.weight!]))] as const,
);
say(
  `WEIGHT within families: mean ${(within.reduce((s, w) => s + w[1], 0) / within.length).toFixed(4)}, least ${Math.min(...within.map((w) => w[1])).toFixed(3)}, over ${within.length} families of three weights or more`,
);
list(within.filter((w) => w[1] < 0.95).map(([f, c]) => `${f}: ${c.toFixed(3)}`));

// Heights. A statement counts as true of the font when its own letter stands there: the glyph's box, less what it overshoots.
const LETTER = { xHeightEm: "x", capHeightEm: "H" } as const;
for (const key of ["xHeightEm", "capHeightEm"] as const) {
  const of = rows.filter((r) => r.stated[key] !== null && !r.traits.picture);
  const agrees = (r: Row) => r.traits[key] !== null && Math.abs(r.traits[key] - r.stated[key]!) <= 0.0101;
  const isTrue = (r: Row) => r.boxes[LETTER[key]]?.some((v) => Math.abs(v - r.stated[key]!) <= 0.0101) ?? false;
  const trueOnes = of.filter(isTrue);
  say(`${key} within 1 % of em: ${share(of.filter(agrees).length, of.length)} as stated`);
  say(
    `${key.toUpperCase()} within 1 % of em where the font's own ${LETTER[key]} stands at the stated height: ${share(trueOnes.filter(agrees).length, trueOnes.length)}`,
  );
  const off = trueOnes.filter((r) => !agrees(r));
  list(
    [...groupBy(off, (r) => r.family)].map(
      ([f, w]) =>
        `differs: ${f} (${w.length}): measured ${w[0]!.traits[key]}, stated ${w[0]!.stated[key]!.toFixed(4)} [${w[0]!.style}]`,
    ),
  );
  list(
    [
      ...groupBy(
        of.filter((r) => !isTrue(r)),
        (r) => r.family,
      ),
    ].map(
      ([f, w]) =>
        `stated wrongly: ${f} (${w.length}): OS/2 ${w[0]!.stated[key]!.toFixed(4)}, its ${LETTER[key]} stands at ${w[0]!.boxes[LETTER[key]]?.[0]?.toFixed(4)}, measured ${w[0]!.traits[key]}`,
    ),
  );
}

// Slant. A stated angle that neither capitals nor lowercase letters lean at, is not the font's.
const italics = rows.filter((r) => Math.abs(r.stated.italicAngleDeg ?? 0) >= 1);
const leansSo = (r: Row) => r.leans.some((v) => Math.abs(v + r.stated.italicAngleDeg!) <= 1);
const slantAgrees = (r: Row) =>
  r.traits.slantDeg !== null && Math.abs(r.traits.slantDeg + r.stated.italicAngleDeg!) <= 1;
const trueSlants = italics.filter(leansSo);
say(
  `slant within 1° of the stated angle: ${share(italics.filter(slantAgrees).length, italics.length)} italics as stated`,
);
say(
  `SLANT within 1° where any letter leans as stated: ${share(trueSlants.filter(slantAgrees).length, trueSlants.length)}`,
);
list(
  [
    ...groupBy(
      italics.filter((r) => !slantAgrees(r)),
      (r) => `${leansSo(r) ? "differs" : "stated wrongly"}: ${r.family}`,
    ),
  ].map(([f, w]) => `${f} (${w.length}): measured ${w[0]!.traits.slantDeg}, stated ${w[0]!.stated.italicAngleDeg}`),
);

// Monospaced.
const fixed = rows.filter((r) => r.stated.fixedPitch || r.category === "monospace");
const notFixed = rows.filter((r) => r.traits.monospaced !== (r.stated.fixedPitch || r.category === "monospace"));
say(`MONOSPACED: ${fixed.length} stated, ${notFixed.length} differ`);
list(
  notFixed.map(
    (r) => `${r.family} ${r.style}: measured ${r.traits.monospaced}, post ${r.stated.fixedPitch}, ${r.category}`,
  ),
);

// Cases and pictures, against outlines compared exactly (a = A) and against the packages' lists.
say(
  `CAPITALS ONLY: ${[...new Set(rows.filter((r) => r.traits.cases === "capitals-only").map((r) => r.family))].join(", ")}`,
);
say(
  `SMALL CAPITALS: ${[...new Set(rows.filter((r) => r.traits.cases === "small-capitals").map((r) => r.family))].join(", ")}`,
);
say(`PICTURES: ${[...new Set(rows.filter((r) => r.traits.picture).map((r) => r.family))].join(", ")}`);
const traits = Object.keys(rows[0]!.traits) as (keyof Traits)[];
say(
  "null: " +
    traits
      .map((t) => [t, rows.filter((r) => r.traits[t] === null && !r.traits.picture).length] as const)
      .filter((x) => x[1])
      .map(([t, n]) => `${t} ${n}`)
      .join(", "),
);
