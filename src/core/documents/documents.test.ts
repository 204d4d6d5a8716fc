// Documents built in code with known fonts: what each reader names, where it says they are used, whose letters it finds.
import { describe, expect, jest, test } from "@jest/globals";
import fontkit from "@pdf-lib/fontkit";
import { PDFDocument, PDFName, StandardFonts } from "pdf-lib";
import { makeFont } from "../../../tests/fixtures/makeFont";
import { rankByAdvances, rankByOutlines } from "../descriptors/nearestFaces";
import { SignatureIndex, extractDescriptors } from "../descriptors/extractDescriptors";
import type { Outline } from "../geometry/outline";
import { openFont } from "../open/openFont";
import { openFace } from "../outlines/openFace";
import { DocumentError, type FoundFont, type Parts } from "./found";
import { partName, readStyleWords } from "./fontNames";
import { readDocument } from "./readDocument";

const encode = (text: string) => new TextEncoder().encode(text);
const partsOf = (files: Record<string, string | Uint8Array>): Parts => ({
  paths: Object.keys(files),
  read: async (path) => {
    const file = files[path];
    return file === undefined ? null : typeof file === "string" ? encode(file) : file;
  },
});
const fontsIn = async (name: string, content: string | Uint8Array) =>
  (await readDocument({ name, bytes: typeof content === "string" ? encode(content) : content, parts: null }))?.fonts;
const fontsOf = async (files: Record<string, string | Uint8Array>) =>
  (await readDocument({ name: "x.zip", bytes: encode("PK"), parts: partsOf(files) }))!;
const brief = (fonts: FoundFont[] | undefined) =>
  fonts?.map((f) => `${f.family}|${f.style ?? ""}|${f.embedded ? "embedded" : ""}|${f.usedFor ?? ""}`);

/** Path operators of an outline (ISO 32000-2, 8.5.2). */
function drawAsPdf({ verbs, coords }: Outline, by: number): string {
  let at = 0;
  let [x, y] = [0, 0];
  return [...verbs]
    .map((verb) => {
      const count = { M: 2, L: 2, Q: 4, C: 6, Z: 0 }[verb]!;
      const p = [...coords.subarray(at, (at += count))].map((v) => v * by);
      const [cx, cy, ex, ey] = p as [number, number, number, number];
      const cubic = [
        x + (2 / 3) * (cx - x),
        y + (2 / 3) * (cy - y),
        ex + (2 / 3) * (cx - ex),
        ey + (2 / 3) * (cy - ey),
      ];
      const args = verb === "Q" ? [...cubic, ex, ey] : p;
      if (args.length) [x, y] = args.slice(-2) as [number, number];
      return `${args.join(" ")} ${{ M: "m", L: "l", Q: "c", C: "c", Z: "h" }[verb]}`;
    })
    .join(" ");
}

/** The key of a drawn font that takes its units to those of text begins so. */
const OF_GLYPHS = "Font";
const quay = makeFont({ family: "Quay Test", stem: 90 });
const heavy = makeFont({ family: "Quay Test", style: "Black", stem: 190 });
const sign = async (bytes: Uint8Array) => extractDescriptors(openFace((await openFont(bytes)).sfnt));
const library = async () =>
  SignatureIndex.of([
    { id: "heavy", family: "Quay Test", signature: await sign(heavy) },
    { id: "quay", family: "Quay Test", signature: await sign(quay) },
  ]);

describe("names", () => {
  test.each([
    ["ABCDEF+Lora-BoldItalic", "Lora", "Bold Italic"],
    ["Lantern Amber,Bold", "Lantern Amber", "Bold"],
    ["FogBellTowerPS-BoldMT", "Fog Bell Tower", "Bold"],
    ["SourceSans3-Semibold", "Source Sans 3", "Semibold"],
    ["Zilla Slab Medium", "Zilla Slab", "Medium"],
    ["Courier", "Courier", null],
    ["IBMPlexSans-Identity-H", "IBMPlex Sans", null],
    ["DejaVuSans", "Deja Vu Sans", null],
  ])("%s", (name, family, style) => {
    expect(partName(name)).toEqual({ family, style });
  });
  test("weights and slants are read from a style's words", () => {
    expect(readStyleWords("Semi Bold Italic")).toEqual({ weight: 600, isSlanted: true });
    expect(readStyleWords("ExtraLight")).toEqual({ weight: 200, isSlanted: false });
    expect(readStyleWords(null)).toEqual({ weight: 400, isSlanted: false });
    expect(readStyleWords("Bold")).toEqual({ weight: 700, isSlanted: false });
  });
});

describe("PDF", () => {
  async function makePdf(): Promise<Uint8Array> {
    const pdf = await PDFDocument.create();
    pdf.registerFontkit(fontkit);
    const face = await pdf.embedFont(quay);
    pdf.addPage().drawText("Skerrow", { font: face, y: 500 });
    const page = pdf.addPage();
    page.drawText("Light", { font: face, y: 500 });
    page.drawText("12 lamps", {
      font: await pdf.embedFont(StandardFonts.TimesRomanBoldItalic),
      y: 300,
    });
    page.node.newFontDictionary("Unused", (await pdf.embedFont(StandardFonts.Symbol)).ref);
    return pdf.save();
  }

  test("names all that pages reach, with the pages of what is used and the letters of what is embedded", async () => {
    const fonts = (await fontsIn("poster.pdf", await makePdf()))!;
    expect(fonts.map((f) => f.name.replace(/-\d+$/, "")).sort()).toEqual([
      "QuayTestRegular",
      "Symbol",
      "Times-BoldItalic",
    ]);
    const embedded = fonts.find((f) => f.embedded)!;
    expect(embedded.usedFor).toBe("pages 1–2, 12 characters");
    expect(embedded.characters).toBe("SkerowLight");
    const [best] = rankByOutlines(embedded.signature!, await library());
    expect(best).toMatchObject({ entry: 1, isSame: true });
    const times = fonts.find((f) => f.name === "Times-BoldItalic")!;
    expect(times).toMatchObject({
      family: "Times",
      style: "Bold Italic",
      embedded: false,
      usedFor: "page 2, 8 characters",
    });
    expect(fonts.find((f) => f.name === "Symbol")!.usedFor).toBeNull();
  });

  test("a drawn font has no name and is part of the file", async () => {
    const pdf = await PDFDocument.create();
    const page = pdf.addPage();
    const drawn = pdf.context.obj({
      Type: "Font",
      Subtype: "Type3",
      FontBBox: [0, 0, 1, 1],
      CharProcs: {},
      Encoding: {},
      FirstChar: 0,
      LastChar: 0,
      Widths: [0],
    });
    page.node.newFontDictionary("T3", pdf.context.register(drawn));
    page.node.newFontDictionary(
      "Odd",
      pdf.context.register(
        pdf.context.obj({ Type: "Font", Subtype: "TrueType", BaseFont: PDFName.of("ABCDEF+Lantern Amber,Bold") }),
      ),
    );
    const fonts = (await fontsIn("drawn.pdf", await pdf.save()))!;
    expect(fonts.map(({ name, embedded, subset }) => [name, embedded, subset])).toEqual([
      ["[none]", true, false],
      ["ABCDEF+Lantern Amber,Bold", false, true],
    ]);
  });

  test("a drawn font is found by its drawings, whatever the units they are drawn in", async () => {
    const index = await library();
    const face = openFace((await openFont(quay)).sfnt);
    for (const units of [1, 0.1]) {
      const pdf = await PDFDocument.create();
      const page = pdf.addPage();
      const letters = [..."Skerow"];
      const ids = letters.map((c) => face.glyphOf(c.codePointAt(0)!)!);
      const pages = ids.map((id) => {
        const drawn = drawAsPdf(face.outline(id), units);
        return pdf.context.register(pdf.context.flateStream(`${face.advanceFu(id) * units} 0 d0 ${drawn} f`));
      });
      const scale = 1 / (face.unitsPerEm * units);
      const font = pdf.context.obj({
        ...{
          Type: "Font",
          Subtype: "Type3",
          FontBBox: [0, 0, 0, 0],
          [`${OF_GLYPHS}Matrix`]: [scale, 0, 0, scale, 0, 0],
        },
        ...{ FirstChar: 65, LastChar: 64 + letters.length, Widths: ids.map((id) => face.advanceFu(id) * units) },
        CharProcs: Object.fromEntries(letters.map((c, i) => [c, pages[i]!])),
        Encoding: { Type: "Encoding", Differences: [65, ...letters.map((c) => PDFName.of(c))] },
      });
      page.node.setFontDictionary(PDFName.of("T3"), pdf.context.register(font));
      const said = "BT /T3 40 Tf 50 500 Td (ABCDEF) Tj ET";
      page.node.addContentStream(pdf.context.register(pdf.context.flateStream(said)));
      const [found] = (await fontsIn("drawn.pdf", await pdf.save()))!;
      expect(found!.characters).toBe("Skerow");
      expect(rankByOutlines(found!.signature!, index)[0]).toMatchObject({ entry: 1, isSame: true });
      expect(found!.advancesEm!.S).toBeCloseTo(face.advanceFu(ids[0]!) / face.unitsPerEm, 3);
    }
  });

  test("a damaged one is refused with its code", async () => {
    // The package that reads objects tells the console what it stumbles over.
    const warned = jest.spyOn(console, "warn").mockImplementation(() => undefined);
    const whole = await makePdf();
    await expect(fontsIn("cut.pdf", whole.subarray(0, 200))).rejects.toMatchObject({ code: "document-broken" });
    await expect(fontsIn("junk.pdf", "%PDF-1.7\nnothing more")).rejects.toBeInstanceOf(DocumentError);
    warned.mockRestore();
  });

  test("widths alone rank faces too", async () => {
    const index = await library();
    const advances = Object.fromEntries([..."Skerow"].map((c) => [c, index.box(1, SignatureIndex.at(c))!.advance]));
    expect(rankByAdvances(advances, index)[0]).toMatchObject({ entry: 1, isSame: false });
    expect(rankByAdvances({ S: 0.5 }, index)).toEqual([]);
  });
});

describe("pages, style sheets, drawings", () => {
  test("asked-for faces with their selectors; generic names are none", async () => {
    const css = `:root { --head: "Zilla Slab", serif }
      h1, .title { font: italic 600 40px/1.2 Lora, Georgia, serif }
      h2 { font-family: var(--head); font-weight: 700 }
      body { font-family: system-ui, sans-serif }
      code { font-family: 'Courier Prime' }
      h3 { font: 700 40px/1 "Alfa Slab One", serif }`;
    expect(brief(await fontsIn("page.css", css))).toEqual([
      "Lora|Semi Bold Italic||h1,.title",
      "Zilla Slab|Bold||h2",
      "Courier Prime|||code",
      "Alfa Slab One|Bold||h3",
    ]);
  });

  test("a page with an embedded face, style attributes and linked sheets that are not fetched", async () => {
    const data = `data:font/otf;base64,${Buffer.from(quay).toString("base64")}`;
    const fonts = await fontsIn(
      "page.html",
      `<!doctype html><link rel="stylesheet" href="https://elsewhere.example/x.css"><style>@font-face{font-family:Quay;src:url("${data}")} p{font-family:Quay}</style>
       <p class="lead" style="font-family:'Dancing Script'">one tide</p><font face="Anton">x</font>`,
    );
    expect(brief(fonts)).toEqual(["Quay||embedded|p", "Dancing Script|||p.lead", "Anton|||“x”"]);
    expect(rankByOutlines(fonts![0]!.signature!, await library())[0]).toMatchObject({ entry: 1, isSame: true });
  });

  test("the attributes of a drawing's text, with the text", async () => {
    const svg = `<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg"><style>.a{font-family:Cardo}</style>
      <text font-family="Zilla Slab" font-weight="600" font-style="italic">Fog + Brass</text><g font-family="Lora"><text>Keepers of the <tspan>Lamp</tspan></text></g></svg>`;
    expect(brief(await fontsIn("title.svg", svg))).toEqual([
      "Cardo|||.a",
      "Zilla Slab|Semi Bold Italic||“Fog + Brass”",
      "Lora|||“Keepers of the”",
    ]);
  });

  test("unclosed marks, wild entities and a thousand levels do no harm", async () => {
    expect(
      await fontsIn("wild.html", `${"<div style='font-family:Lora'>".repeat(3000)}&lol;<style>p{font-family:`),
    ).toHaveLength(1);
    expect(
      await fontsIn("wild.css", "}}}{{{ @font-face { font-family: ; src: url( } p { font: }; font-family: Lora"),
    ).toEqual([]);
  });
});

describe("books and saved pages", () => {
  test("fonts beside the sheet that asks for them", async () => {
    const { kind, fonts } = await fontsOf({
      "site/index.html": "<html><link rel=stylesheet href=css/a.css><h1>x</h1></html>",
      "site/css/a.css":
        "@font-face{font-family:Quay;font-weight:900;src:url(../fonts/q%20b.otf)} h1{font-family:Quay;font-weight:900}",
      "site/fonts/q b.otf": heavy,
    });
    expect(kind).toBe("zip");
    expect(brief(fonts)).toEqual(["Quay|Black|embedded|h1"]);
    expect(rankByOutlines(fonts[0]!.signature!, await library())[0]).toMatchObject({ entry: 0, isSame: true });
  });

  test("masked fonts of a book are read with the book's name", async () => {
    const id = "urn:uuid:12345678-1234-1234-1234-123456789abc";
    const key = new Uint8Array(await crypto.subtle.digest("SHA-1", encode(id)));
    const masked = quay.map((b, i) => (i < 1040 ? b ^ key[i % 20]! : b));
    const { kind, fonts } = await fontsOf({
      "META-INF/container.xml": `<container><rootfiles><rootfile full-path="OPS/book.opf"/></rootfiles></container>`,
      "META-INF/encryption.xml": `<encryption><enc:EncryptedData><enc:EncryptionMethod Algorithm="http://www.idpf.org/2008/embedding"/><enc:CipherData><enc:CipherReference URI="OPS/q.otf"/></enc:CipherData></enc:EncryptedData></encryption>`,
      "OPS/book.opf": `<package unique-identifier="pub"><dc:identifier id="pub"> ${id} </dc:identifier></package>`,
      "OPS/a.css": "@font-face{font-family:Quay;src:url(q.otf)}",
      "OPS/1.xhtml": `<html><p style="font-family: Quay">x</p></html>`,
      "OPS/q.otf": masked,
    });
    expect(kind).toBe("epub");
    expect(brief(fonts)).toEqual(["Quay||embedded|p"]);
    expect(rankByOutlines(fonts[0]!.signature!, await library())[0]).toMatchObject({ entry: 1, isSame: true });
  });
});

describe("text and slides", () => {
  test("runs by their own look, their style's and the defaults; embedded fonts unmasked", async () => {
    const guid = "{1DA7A2B3-0102-0304-0506-0708090A0B0C}";
    const key = guid
      .replace(/[^0-9A-F]/g, "")
      .match(/../g)!
      .map((h) => parseInt(h, 16))
      .reverse();
    const { kind, fonts } = await fontsOf({
      "word/document.xml": `<w:document><w:body>
        <w:p><w:pPr><w:pStyle w:val="T"/></w:pPr><w:r><w:t>Skerrow</w:t></w:r></w:p>
        <w:p><w:r><w:t>Open </w:t></w:r><w:r><w:rPr><w:b/></w:rPr><w:t>Night</w:t></w:r></w:p>
        <w:p><w:r><w:rPr><w:rFonts w:ascii="Quay Test"/></w:rPr><w:t>tide</w:t></w:r></w:p></w:body></w:document>`,
      "word/styles.xml": `<w:styles><w:docDefaults><w:rPrDefault><w:rPr><w:rFonts w:asciiTheme="minorHAnsi"/></w:rPr></w:rPrDefault></w:docDefaults>
        <w:style w:type="paragraph" w:default="1" w:styleId="N"><w:name w:val="Normal"/></w:style>
        <w:style w:type="paragraph" w:styleId="T"><w:name w:val="Title"/><w:basedOn w:val="N"/><w:rPr><w:rFonts w:ascii="Anton"/></w:rPr></w:style></w:styles>`,
      "word/theme/theme1.xml": `<a:theme><a:majorFont><a:latin typeface="Cardo"/></a:majorFont><a:minorFont><a:latin typeface="Lora"/></a:minorFont></a:theme>`,
      "word/fontTable.xml": `<w:fonts><w:font w:name="Quay Test"><w:embedRegular r:id="r1" w:fontKey="${guid}"/></w:font><w:font w:name="Never Used"/></w:fonts>`,
      "word/_rels/fontTable.xml.rels": `<Relationships><Relationship Id="r1" Target="fonts/font1.odttf"/></Relationships>`,
      "word/fonts/font1.odttf": quay.map((b, i) => (i < 32 ? b ^ key[i % 16]! : b)),
    });
    expect(kind).toBe("docx");
    expect(brief(fonts)).toEqual([
      "Anton|||Title, 7 characters",
      "Lora|||Normal, 5 characters",
      "Lora|Bold||Normal, 5 characters",
      "Quay Test||embedded|Normal, 4 characters",
      "Never Used|||",
    ]);
    expect(rankByOutlines(fonts[3]!.signature!, await library())[0]).toMatchObject({ entry: 1, isSame: true });
  });

  test("slides by theme and by hand", async () => {
    const { kind, fonts } = await fontsOf({
      "ppt/presentation.xml": `<p:presentation><p:embeddedFontLst><p:embeddedFont><p:font typeface="Anton"/></p:embeddedFont></p:embeddedFontLst></p:presentation>`,
      "ppt/theme/theme1.xml": `<a:theme><a:majorFont><a:latin typeface="Anton"/></a:majorFont><a:minorFont><a:latin typeface="Lora"/></a:minorFont></a:theme>`,
      "ppt/slides/slide2.xml": `<p:sld><p:sp><p:nvPr><p:ph type="title"/></p:nvPr><a:r><a:rPr b="1"/><a:t>Fog</a:t></a:r></p:sp><p:sp><a:r><a:rPr><a:latin typeface="Cardo"/></a:rPr><a:t>Brass</a:t></a:r></p:sp></p:sld>`,
    });
    expect(kind).toBe("pptx");
    expect(brief(fonts)).toEqual([
      "Anton|Bold|embedded|slide 2 (title), 3 characters",
      "Cardo|||slide 2, 5 characters",
      "Lora|||",
    ]);
  });

  test("OpenDocument: styles upon styles, a font in the file", async () => {
    const { kind, fonts } = await fontsOf({
      "content.xml": `<office:document-content><office:font-face-decls><style:font-face style:name="Q" svg:font-family="'Quay Test'"><svg:font-face-src><svg:font-face-uri xlink:href="Fonts/q.otf"/></svg:font-face-src></style:font-face><style:font-face style:name="L" svg:font-family="Lora"/></office:font-face-decls>
        <office:automatic-styles><style:style style:name="P1" style:family="paragraph" style:parent-style-name="Head"><style:text-properties fo:font-weight="bold"/></style:style></office:automatic-styles>
        <office:body><office:text><text:h text:style-name="P1">Tide tables</text:h><text:p text:style-name="Body">High <text:span>water</text:span></text:p></office:text></office:body></office:document-content>`,
      "styles.xml": `<office:document-styles><office:styles><style:style style:name="Head" style:display-name="Heading" style:family="paragraph"><style:text-properties style:font-name="Q"/></style:style><style:style style:name="Body" style:family="paragraph"><style:text-properties style:font-name="L"/></style:style></office:styles></office:document-styles>`,
      "Fonts/q.otf": quay,
    });
    expect(kind).toBe("odt");
    expect(brief(fonts)).toEqual(["Quay Test|Bold|embedded|Heading, 11 characters", "Lora|||Body, 10 characters"]);
  });

  test("a text without its body is refused; what is none of these is not guessed at", async () => {
    await expect(fontsOf({ "word/document.xml": "<w:document/>" })).rejects.toMatchObject({ code: "document-broken" });
    expect(await readDocument({ name: "a.zip", bytes: encode("PK"), parts: partsOf({ "a.txt": "x" }) })).toBeNull();
    expect(await readDocument({ name: "a.bin", bytes: new Uint8Array([1, 2, 3, 0, 5]), parts: null })).toBeNull();
  });
});
