// npm run eval:letter: lettering against independent readers and another geometry engine: unions of script words against shapely, files of
// twenty documents by rsvg, poppler, ezdxf and a small reader of HPGL. Needs
// Debian's python3-shapely, python3-ezdxf, librsvg2-bin and poppler-utils, which it installs.
import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import sharp from "sharp";
import type { StyleId } from "../../src/contracts/ids";
import type { Block, LetteringDocument } from "../../src/contracts/lettering";
import { areaOf, flattenOutline } from "../../src/core/geometry/outline";
import { seededRandom } from "../../src/core/geometry/numbers";
import { checkLettering } from "../../src/core/letter/checkLettering";
import { layoutLettering } from "../../src/core/letter/layoutLettering";
import { boundsOfPaint, paintLettering } from "../../src/core/letter/paintLettering";
import { shapeBlock } from "../../src/core/letter/shapeBlock";
import { openFont } from "../../src/core/open/openFont";
import { openFace, type OpenFace } from "../../src/core/outlines/openFace";
import { writeLetteringDxf } from "../../src/core/write/lettering/dxf";
import { writeLetteringHpgl } from "../../src/core/write/lettering/hpgl";
import { writeLetteringPdf } from "../../src/core/write/lettering/pdf";
import { writeLetteringSvg } from "../../src/core/write/lettering/svg";

execFileSync(
  "apt-get",
  ["install", "-y", "-qq", "python3-shapely", "python3-ezdxf", "python3-pil", "librsvg2-bin", "poppler-utils"],
  {
    stdio: "ignore",
  },
);
const PYTHON = "/usr/bin/python3";

async function openDemo(id: string, weight = 400): Promise<OpenFace> {
  const bytes = readFileSync(`node_modules/@fontsource/${id}/files/${id}-latin-${weight}-normal.woff2`);
  return openFace((await openFont(new Uint8Array(bytes))).sfnt);
}

const documentOf = (...blocks: Block[]): LetteringDocument => ({
  sheet: { widthMm: 600, heightMm: 300, ground: null },
  blocks,
});
const blockOf = (text: string, more: Partial<Block> = {}): Block => ({
  ...{ id: "word", text, styleId: "s_aaaaaaaaaaaa" as StyleId, size: { emMm: 100 } },
  ...{ at: { xMm: 40, yMm: 160 }, fill: "#20262b" },
  ...more,
});
const SCRIPTS = [
  "great-vibes",
  "pacifico",
  "allura",
  "kaushan-script",
  "lobster",
  "dancing-script",
  "parisienne",
  "sacramento",
  "yellowtail",
  "pinyon-script",
];
const WORDS = ["Skerrow", "Wren", "harbour", "Lantern", "Keepers", "Fog", "millpond", "Quayside", "offing", "Bollard"];

async function judgeUnions() {
  const lines: string[] = [];
  const own: { area: number; pieces: number; islands: number; ms: number; isFlattened: boolean; word: string }[] = [];
  for (const id of SCRIPTS) {
    const face = await openDemo(id);
    for (const text of WORDS) {
      const document = documentOf(blockOf(text, { joined: true }));
      const laid = layoutLettering(document, () => face);
      if (!laid.ok) throw new Error(laid.code);
      const began = performance.now();
      const shape = shapeBlock(laid.blocks[0]!);
      const ms = performance.now() - began;
      const fine = (o: Parameters<typeof flattenOutline>[0]) => flattenOutline(o, 0.0005);
      const united = fine(shape.whole!);
      const check = checkLettering([shape], { minStrokeMm: 0.1, minGapMm: 0.1 });
      own.push({
        word: `${id} ${text}`,
        area: united.reduce((sum, p) => sum + areaOf(p), 0),
        ms,
        ...shape,
        ...pick(check),
      });
      lines.push(
        JSON.stringify({
          letters: shape.letters.map((l) => fine(l.outline).map((p) => [...p])),
          united: united.map((p) => [...p]),
        }),
      );
    }
  }
  const said = execFileSync(PYTHON, ["scripts/eval/letter/unions.py"], {
    input: lines.join("\n"),
    maxBuffer: 1e9,
  }).toString();
  const wanted = said
    .trim()
    .split("\n")
    .map((l) => JSON.parse(l) as { area: number; pieces: number; islands: number; crossing: string[] });
  let [worst, counts, crossing, flattened] = [0, 0, 0, 0];
  wanted.forEach((w, i) => {
    const o = own[i]!;
    const off = Math.abs(o.area / w.area - 1);
    worst = Math.max(worst, off);
    const isSame = w.pieces === o.pieces && w.islands === o.islands;
    if (!isSame) counts++;
    if (w.crossing.length) crossing++;
    if (o.isFlattened) flattened++;
    if (!isSame || off > 0.001 || w.crossing.length || o.isFlattened) console.log(o.word, o, w);
  });
  for (const o of [...own].sort((a, b) => b.ms - a.ms).slice(0, 6)) console.log(o.word, Math.round(o.ms));
  const times = own.map((o) => o.ms).sort((a, b) => a - b);
  console.log(
    `unions: ${own.length} words, area within ${(worst * 100).toFixed(4)} %, counts differ ${counts}, crossing ${crossing}, curves not kept ${flattened}; ${times[times.length >> 1]!.toFixed(1)} ms middle, ${times[times.length - 1]!.toFixed(1)} ms most`,
  );
}
const pick = ({ pieces, islands }: { pieces: number; islands: number }) => ({ pieces, islands });

const PX_PER_MM = 40;
/** Twenty documents of their own: faces, paths, joins, outlines, colours, several blocks. */
function makeDocuments(count: number): LetteringDocument[] {
  const random = seededRandom(183);
  const among = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  return Array.from({ length: count }, (_, i) => ({
    sheet: { widthMm: 150, heightMm: 90, ground: null },
    blocks: Array.from({ length: 1 + (i % 3) }, (__, k): Block => {
      const path: Block["path"] = among([
        undefined,
        { kind: "arc", radiusMm: among([90, -120]), startDeg: -90 },
        { kind: "wave", heightMm: 8, lengthMm: 70 },
        { kind: "drawn", d: "M0 0 C20 -15 50 15 90 0" },
      ]);
      return {
        ...blockOf(among(["Wren & Tern", "No. 7", "Skerrow", "High 04:52", "Fog + Brass"])),
        ...{ id: `line-${k}`, styleId: `s_${String(i % SCRIPTS.length).padStart(12, "0")}` as StyleId },
        ...{ size: { emMm: 12 + 6 * random() }, at: { xMm: 14, yMm: 28 + 22 * k }, turnDeg: among([0, 0, 4]) },
        ...(path && { path }),
        ...(random() < 0.4 && { joined: true }),
        ...(random() < 0.3 && {
          outline: { widthMm: 0.6, colour: "#101418", side: among(["inside", "middle", "outside"] as const) },
        }),
        ...(random() < 0.3 && { keepTogether: "hull" }),
        fill: among(["#20262b", { from: "#101418", to: "#48525a", angleDeg: 30 }]),
      };
    }),
  }));
}

async function judgeFormats() {
  const folder = mkdtempSync(join(tmpdir(), "fond-quarry-files-"));
  try {
    const faces = await Promise.all(SCRIPTS.map((id) => openDemo(id)));
    const documents = makeDocuments(20);
    const wanted: (number[] | null)[] = [];
    let picture = 0;
    for (const [i, document] of documents.entries()) {
      const laid = layoutLettering(document, (b) => faces[Number(b.styleId.slice(2))]!);
      if (!laid.ok) throw new Error(laid.code);
      const painted = paintLettering(document, laid.blocks.map(shapeBlock));
      const box = boundsOfPaint(painted)!;
      wanted.push([box.xMin, box.yMin, box.xMax, box.yMax]);
      const at = (ending: string) => join(folder, `${i}.${ending}`);
      writeFileSync(at("svg"), writeLetteringSvg(painted, { title: "Hull letters" }));
      writeFileSync(at("pdf"), await writeLetteringPdf(painted, { title: "Hull letters", bleedMm: 0, marks: false }));
      writeFileSync(at("dxf"), writeLetteringDxf(painted));
      writeFileSync(at("plt"), writeLetteringHpgl(painted));
      const [width, height] = [document.sheet.widthMm * PX_PER_MM, document.sheet.heightMm * PX_PER_MM];
      execFileSync("rsvg-convert", ["-w", `${width}`, "-h", `${height}`, "-o", at("svg.png"), at("svg")]);
      execFileSync("pdftoppm", [
        "-png",
        "-singlefile",
        "-scale-to-x",
        `${width}`,
        "-scale-to-y",
        `${height}`,
        at("pdf"),
        at("pdf"),
      ]);
      // The picture as it is saved at 6,000 pixels, against the PDF by poppler, which renders by itself.
      const own = await sharp(
        Buffer.from(
          writeLetteringSvg(painted, { title: "" }).replace(
            /width="150mm" height="90mm"/,
            'width="6000" height="3600"',
          ),
        ),
        { unlimited: true },
      )
        .flatten({ background: "#ffffff" })
        .greyscale()
        .raw()
        .toBuffer();
      const other = await sharp(at("pdf.png")).flatten({ background: "#ffffff" }).greyscale().raw().toBuffer();
      let sum = 0;
      for (let k = 0; k < own.length; k++) sum += Math.abs(own[k]! - other[k]!);
      picture = Math.max(picture, sum / own.length / 255);
    }
    writeFileSync(join(folder, "sheets.json"), JSON.stringify(documents.map((d) => d.sheet.heightMm)));
    const said = execFileSync(PYTHON, ["scripts/eval/letter/boxes.py", folder, "20", `${PX_PER_MM}`], {
      maxBuffer: 1e8,
    }).toString();
    const off: Record<string, number> = { dxf: 0, hpgl: 0, svg: 0, pdf: 0 };
    said
      .trim()
      .split("\n")
      .forEach((line, i) => {
        const read = JSON.parse(line) as Record<string, number[]>;
        if (Number(read.errors)) console.log(`document ${i}: ${read.errors} errors in DXF`);
        for (const format of Object.keys(off))
          read[format]!.forEach((v, k) => {
            const d = Math.abs(v - wanted[i]![k]!);
            if (d > 0.05)
              console.log(
                `document ${i} ${format}: ${["left", "top", "right", "bottom"][k]} off by ${d.toFixed(3)} mm`,
              );
            off[format] = Math.max(off[format]!, d);
          });
      });
    console.log(
      `boxes of 20 documents, furthest off in mm: ${Object.entries(off)
        .map(([f, d]) => `${f} ${d.toFixed(3)}`)
        .join(", ")}; picture at 6,000 px by another renderer: mean difference ${(picture * 100).toFixed(2)} % at most`,
    );
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

await judgeUnions();
await judgeFormats();
