// Names of fonts in PDFs against an independent reader (pdffonts of Debian's poppler-utils), over files written by five programs.
// npm run eval:documents   needs: apt-get install chromium ghostscript poppler-utils librsvg2-bin pango1.0-tools
import { spawnSync } from "node:child_process";
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import fontkit from "@pdf-lib/fontkit";
import { PDFDocument, PDFName, StandardFonts } from "pdf-lib";
import { readDocument } from "../../src/core/documents/readDocument";
import { rankByOutlines } from "../../src/core/descriptors/nearestFaces";
import { openContainer } from "../../src/core/open/container";
import { readEvalLibrary } from "./library";

const folder = mkdtempSync(join(tmpdir(), "fond-quarry-documents-"));
const home = join(folder, "fonts");
mkdirSync(home);
const font = (family: string, file: string) => `node_modules/@fontsource/${family}/files/${family}-latin-${file}.woff2`;
/** Unpacked, as programs other than browsers read it. */
async function bare(family: string, file: string): Promise<string> {
  const { sfnt } = await openContainer(new Uint8Array(readFileSync(font(family, file))));
  const path = join(home, `${family}-${file}.ttf`);
  writeFileSync(path, sfnt);
  return path;
}
const run = (command: string, args: string[]) => {
  const { status, stderr } = spawnSync(command, args, {
    encoding: "utf8",
    env: { ...process.env, XDG_DATA_HOME: home, FONTCONFIG_FILE: join(folder, "fonts.conf") },
  });
  if (status) throw new Error(`${command}: ${stderr}`);
};
writeFileSync(
  join(folder, "fonts.conf"),
  `<?xml version="1.0"?><!DOCTYPE fontconfig SYSTEM "fonts.dtd"><fontconfig><dir>${home}</dir><cachedir>${join(folder, "cache")}</cachedir></fontconfig>`,
);
const at = (name: string) => join(folder, name);

function byBrowser(name: string, faces: [string, string][], body: string) {
  const css = faces
    .map(([family, path]) => `@font-face{font-family:"${family}";src:url(file://${join(process.cwd(), path)})}`)
    .join("");
  writeFileSync(at(`${name}.html`), `<meta charset="utf-8"><style>${css}</style>${body}`);
  run("chromium", [
    "--headless",
    "--no-sandbox",
    "--no-pdf-header-footer",
    `--print-to-pdf=${at(`${name}.pdf`)}`,
    `file://${at(`${name}.html`)}`,
  ]);
}
const set = (family: string, text: string, more = "") =>
  `<p style="font-family:'${family}';font-size:30px;${more}">${text}</p>`;

async function byPackage(name: string, make: (pdf: PDFDocument) => Promise<void>, objectStreams = true) {
  const pdf = await PDFDocument.create();
  pdf.registerFontkit(fontkit);
  await make(pdf);
  writeFileSync(at(`${name}.pdf`), await pdf.save({ useObjectStreams: objectStreams }));
}

async function writeAll(): Promise<string[]> {
  const [lora, zilla, dancing, mono] = await Promise.all([
    bare("lora", "700-normal"),
    bare("zilla-slab", "600-italic"),
    bare("dancing-script", "400-normal"),
    bare("courier-prime", "400-normal"),
  ]);
  byBrowser(
    "browser-two",
    [
      ["A", font("lora", "700-normal")],
      ["B", font("dancing-script", "400-normal")],
    ],
    set("A", "Skerrow Light") + set("B", "Open Night &amp; one tide"),
  );
  byBrowser(
    "browser-variable",
    [["V", "node_modules/@fontsource-variable/fraunces/files/fraunces-latin-full-normal.woff2"]],
    set("V", "Keepers of the Lamp", "font-weight:640") + set("V", "Part 3: Fog + Brass"),
  );
  byBrowser(
    "browser-pages",
    [
      ["A", font("anton", "400-normal")],
      ["B", font("cardo", "400-italic")],
    ],
    Array.from(
      { length: 5 },
      (_, i) => `<div style="break-after:page">${set(i % 2 ? "A" : "B", `High water 0${i}:52`)}</div>`,
    ).join(""),
  );
  await byPackage("package-subset", async (pdf) => {
    const page = pdf.addPage();
    page.drawText("Wren & Tern No. 7", { font: await pdf.embedFont(readFileSync(zilla), { subset: true }), y: 500 });
    page.drawText("Hull letters", { font: await pdf.embedFont(readFileSync(lora)), y: 400 });
  });
  await byPackage(
    "package-standard",
    async (pdf) => {
      const page = pdf.addPage();
      page.drawText("Skerrow", { font: await pdf.embedFont(StandardFonts.TimesRomanBoldItalic), y: 500 });
      page.drawText("12 lamps", { font: await pdf.embedFont(StandardFonts.Courier), y: 400 });
      page.drawText("\u2720 \u2714", { font: await pdf.embedFont(StandardFonts.ZapfDingbats), y: 300 });
    },
    false,
  );
  await byPackage("package-form", async (pdf) => {
    const page = pdf.addPage();
    const field = pdf.getForm().createTextField("keeper");
    field.setText("Ada Brandt");
    field.addToPage(page, {
      x: 50,
      y: 500,
      width: 200,
      height: 40,
      font: await pdf.embedFont(StandardFonts.HelveticaOblique),
    });
    // A font within a form within the page, and one that is listed and never used.
    const inner = await PDFDocument.create();
    inner.registerFontkit(fontkit);
    inner.addPage([300, 100]).drawText("one tide", { font: await inner.embedFont(readFileSync(dancing)), y: 30 });
    const [form] = await pdf.embedPdf(await inner.save());
    page.drawPage(form!, { x: 20, y: 100 });
    page.node.newFontDictionary("Unused", (await pdf.embedFont(StandardFonts.Symbol)).ref);
  });
  await byPackage("package-nameless", async (pdf) => {
    const page = pdf.addPage();
    const context = pdf.context;
    const glyph = context.register(context.stream("500 0 0 0 400 700 d1 0 0 400 700 re f"));
    const drawn = context.obj({
      Type: "Font",
      Subtype: "Type3",
      FontBBox: [0, 0, 400, 700],
      CharProcs: { block: glyph },
      Encoding: { Type: "Encoding", Differences: [65, "block"] },
      FirstChar: 65,
      LastChar: 65,
      Widths: [500],
      Resources: {},
    });
    page.node.newFontDictionary("T3", context.register(drawn));
    page.node.addContentStream(context.register(context.stream("BT /T3 30 Tf 50 300 Td (A) Tj ET")));
    const odd = context.obj({
      Type: "Font",
      Subtype: "TrueType",
      BaseFont: PDFName.of("Lantern Amber,Bold"),
      Encoding: "WinAnsiEncoding",
    });
    page.node.newFontDictionary("Odd", context.register(odd));
  });
  run("pango-view", ["--font", "Courier Prime 30", "--text", "Tide tables 3.8 m", "-q", "-o", at("pango.pdf")]);
  writeFileSync(
    at("drawing.svg"),
    `<svg xmlns="http://www.w3.org/2000/svg" width="400" height="200"><text y="60" font-family="Zilla Slab" font-style="italic" font-weight="600" font-size="40">Fog + Brass</text><text y="150" font-family="Dancing Script" font-size="40">one tide</text></svg>`,
  );
  run("rsvg-convert", ["-f", "pdf", "-o", at("rsvg.pdf"), at("drawing.svg")]);
  run("gs", [
    "-q",
    "-dBATCH",
    "-dNOPAUSE",
    "-sDEVICE=pdfwrite",
    `-sOutputFile=${at("gs-again.pdf")}`,
    at("browser-two.pdf"),
  ]);
  writeFileSync(
    at("type1.ps"),
    "%!PS\n/Bookman-Demi findfont 40 scalefont setfont 50 600 moveto (Skerrow) show /NimbusSans-Regular findfont 30 scalefont setfont 50 500 moveto (one tide) show showpage\n",
  );
  run("gs", ["-q", "-dBATCH", "-dNOPAUSE", "-sDEVICE=pdfwrite", `-sOutputFile=${at("gs-type1.pdf")}`, at("type1.ps")]);
  run("gs", [
    "-q",
    "-dBATCH",
    "-dNOPAUSE",
    "-sDEVICE=pdfwrite",
    "-sOwnerPassword=keeper",
    "-sUserPassword=",
    "-dEncryptionR=3",
    "-dKeyLength=128",
    "-dPermissions=-3904",
    `-sOutputFile=${at("enciphered.pdf")}`,
    at("browser-two.pdf"),
  ]);
  writeFileSync(at("cut-short.pdf"), readFileSync(at("browser-pages.pdf")).subarray(0, -300));
  void mono;
  return [
    "browser-two",
    "browser-variable",
    "browser-pages",
    "package-subset",
    "package-standard",
    "package-form",
    "package-nameless",
    "pango",
    "rsvg",
    "gs-again",
    "gs-type1",
    "enciphered",
    "cut-short",
  ];
}

type Line = { name: string; embedded: boolean; subset: boolean };
function byPoppler(path: string): Line[] {
  const { stdout } = spawnSync("pdffonts", [path], { encoding: "utf8" });
  const [head = "", rule = "", ...rows] = stdout.split("\n");
  void head;
  const starts = [...rule.matchAll(/-+/g)].map((m) => m.index);
  return rows.filter(Boolean).map((row) => ({
    name: row.slice(0, starts[1]).trim(),
    embedded: row.slice(starts[3], starts[4]).trim() === "yes",
    subset: row.slice(starts[4], starts[5]).trim() === "yes",
  }));
}

const write = (l: Line) => `${l.name} ${l.embedded ? "embedded" : "-"} ${l.subset ? "subset" : "-"}`;
const library = await readEvalLibrary("");
let [whole, asked, outlines, ofOutlines] = [0, 0, 0, 0];
for (const name of await writeAll()) {
  const path = at(`${name}.pdf`);
  const theirs = byPoppler(path).map(write).sort();
  const read = await readDocument({ name, bytes: new Uint8Array(readFileSync(path)), parts: null }).catch(
    (error: Error) => {
      console.log(`      refused: ${error.message}`);
      return { fonts: [] };
    },
  );
  const ours = read!.fonts.map(write).sort();
  const isEqual = JSON.stringify(ours) === JSON.stringify(theirs);
  asked++;
  if (isEqual) whole++;
  console.log(
    `${isEqual ? "same " : "OTHER"} ${name}: ${theirs.join(" | ")}${isEqual ? "" : `\n      ours: ${ours.join(" | ")}`}`,
  );
  for (const font of read!.fonts) {
    if (!font.signature) continue;
    const [best] = rankByOutlines(font.signature, library.index);
    if (!best) continue;
    const family = library.index.families[best.entry]!;
    const isFamily = (font.family ?? "")
      .replace(/\s/g, "")
      .toLowerCase()
      .startsWith(family.replace(/\s/g, "").toLowerCase().slice(0, 6));
    const isHere = library.index.families.some(
      (f) => f.replace(/\s/g, "").toLowerCase() === (font.family ?? "").replace(/\s/g, "").toLowerCase(),
    );
    if (isHere) {
      ofOutlines++;
      if (isFamily && best.isSame) outlines++;
    }
    console.log(
      `      ${font.name}: ${family} ${library.styles.find((s) => s.styleId === library.index.ids[best.entry])?.name ?? ""}, ${best.steps.toFixed(2)} steps, ${best.isSame ? "the same" : "near"}; ${font.usedFor ?? "not used"}`,
    );
  }
}
console.log(
  `\nnames as pdffonts gives them: ${whole} of ${asked} files; found by outlines: ${outlines} of ${ofOutlines} embedded fonts of the library`,
);
rmSync(folder, { recursive: true });
