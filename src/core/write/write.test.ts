import { writeSpdx } from "./spdx";
import { describe, expect, test } from "@jest/globals";
import { PDFDocument, PDFName, PDFRawStream } from "pdf-lib";
import { openFont } from "../open/openFont";
import { demoBytes, demoVariableBytes } from "../../../tests/fixtures/demoFont";
import { inkOf } from "../../../tests/fixtures/pdfInk";
import { makeFont } from "../../../tests/fixtures/makeFont";
import { splitRuns } from "../brief/runs";
import { writeContactSheet, type SheetEntry } from "./contactSheet";
import { writeCredits } from "./credits";
import { writeCsv } from "./csv";

describe("CSV", () => {
  test("cells with commas, quotes and line ends are quoted", () => {
    expect(
      writeCsv(
        ["a", "b"],
        [
          ['say "hi"', "x,y"],
          ["two\nlines", null],
          [1.5, ""],
        ],
      ),
    ).toBe('\ufeffa,b\r\n"say ""hi""","x,y"\r\n"two\nlines",\r\n1.5,\r\n');
  });

  test("what a spreadsheet would run is made text", () => {
    expect(writeCsv(["n"], [["=1+1"], ["@cmd"], ["-2"], [-2]])).toBe(
      `\ufeffn\r\n"'=1+1"\r\n"'@cmd"\r\n"'-2"\r\n-2\r\n`,
    );
    // Full-width signs are signs too, and ";" separates cells in half of Europe.
    expect(writeCsv(["n"], [["＝1+1"], ["x;=1+1"]])).toBe(`\ufeffn\r\n"'＝1+1"\r\n"x;=1+1"\r\n`);
  });
});

test("credits name maker, terms and source", () => {
  const text = writeCredits("Open Night poster", [
    {
      name: "Lora Bold",
      designer: "A. Maker",
      foundry: null,
      copyright: "Copyright 2011",
      spdx: "OFL-1.1",
      source: "open-collection, lora",
    },
    { name: "Own Face", designer: null, foundry: null, copyright: null, spdx: null, source: "own-fonts, face.ttf" },
  ]);
  expect(text).toContain(
    "Lora Bold\n  Designer: A. Maker\n  Copyright 2011\n  Licence: OFL-1.1\n  Source: open-collection, lora",
  );
  expect(text).toContain("Own Face\n  Licence: not recognised");
  expect(text).toContain("not legal advice");
});

describe("the contact sheet", () => {
  const entry = async (name: string, bytes: Uint8Array): Promise<SheetEntry> => {
    const font = await openFont(bytes);
    return { name, facts: "title · Cleared", note: "", sfnt: font.sfnt, coverage: font.codePoints, level: 1 };
  };
  const labels = async () => {
    const label = (await openFont(demoBytes("familjen-grotesk", 400))).sfnt;
    return { labelSfnt: label, labelBoldSfnt: label };
  };
  const embedded = (doc: PDFDocument) =>
    doc.context.enumerateIndirectObjects().flatMap(([, o]) => {
      const dict =
        o instanceof PDFRawStream ? o.dict : "get" in o ? (o as never as { get(n: PDFName): unknown }) : null;
      const type = dict && "get" in dict ? String(dict.get(PDFName.of("Type"))) : "";
      return type === "/FontDescriptor" && dict ? [String(dict.get(PDFName.of("FontName")))] : [];
    });

  test("embeds every face once, on as many pages as needed", async () => {
    const entries = [
      await entry("Lora", demoBytes("lora")),
      await entry("Pacifico", demoBytes("pacifico")),
      await entry("Quay", makeFont({ family: "Quay" })),
    ];
    const many = Array.from({ length: 5 }, () => entries).flat();
    const { pdf, notDrawn } = await writeContactSheet({
      title: "Open Night poster",
      subtitle: "Trust",
      lines: ["Skerrow Light", "12 lamps & one tide"],
      ink: "#20262B",
      paper: "#F3EFE6",
      entries: many,
      ...(await labels()),
    });
    expect(notDrawn).toEqual([]);
    const doc = await PDFDocument.load(pdf);
    expect(doc.getPageCount()).toBeGreaterThan(1);
    const names = embedded(doc).join(" ");
    for (const family of ["Lora", "Pacifico", "FamiljenGrotesk"]) expect(names).toContain(family);
    // OpenType with CFF outlines is drawn: readers put another face in the place of its subset.
    expect(names).not.toContain("Quay");
  });

  /** A sheet of one word, without its faces. */
  const hamburg = async () => ({
    ...{ title: "T", subtitle: "", lines: ["HAMBURG"], ink: "#000000", paper: "#FFFFFF" },
    ...(await labels()),
  });

  test("a face with CFF outlines looks the same in two readers, and like its own outlines", async () => {
    const plan = await hamburg();
    const { pdf } = await writeContactSheet({ ...plan, entries: [await entry("Quay", makeFont({ family: "Quay" }))] });
    const [poppler, ghostscript] = await Promise.all([inkOf(pdf, "poppler"), inkOf(pdf, "ghostscript")]);
    expect(poppler).toBeGreaterThan(1500);
    expect(Math.abs(poppler - ghostscript) / poppler).toBeLessThan(0.08);
    const { pdf: empty } = await writeContactSheet({ ...plan, entries: [] });
    expect(await inkOf(empty, "poppler")).toBeLessThan(poppler / 2);
  });

  test("a variable face is set where it was kept on its axes", async () => {
    const recursive = await entry("Recursive", demoVariableBytes("recursive"));
    const plan = await hamburg();
    const at = async (location: Record<string, number>) =>
      inkOf((await writeContactSheet({ ...plan, entries: [{ ...recursive, location }] })).pdf, "poppler");
    expect(await at({ wght: 1000 })).toBeGreaterThan((await at({ wght: 300 })) * 1.3);
  });

  test("a missing character becomes a box of its own, never another face", () => {
    expect(splitRuns("A & B", [[0x41, 0x5a]])).toEqual([
      { text: "A ", missing: false },
      { text: "&", missing: true },
      { text: " B", missing: false },
    ]);
  });

  test("a file that cannot be embedded is named, the rest is written", async () => {
    const broken = { ...(await entry("Broken", demoBytes("lora"))), sfnt: new Uint8Array(40) };
    const { pdf, notDrawn } = await writeContactSheet({
      title: "T",
      subtitle: "",
      lines: ["a"],
      ink: "#000000",
      paper: "#FFFFFF",
      entries: [broken, await entry("Lora", demoBytes("lora"))],
      ...(await labels()),
    });
    expect(notDrawn).toEqual(["Broken"]);
    expect((await PDFDocument.load(pdf)).getPageCount()).toBe(1);
  });

  test("names with characters that the label face lacks do not break it", async () => {
    const e = { ...(await entry("Лора ☃", demoBytes("lora"))), note: "日本" };
    await expect(
      writeContactSheet({
        title: "☃",
        subtitle: "",
        lines: ["☃ a"],
        ink: "#000000",
        paper: "#FFFFFF",
        entries: [e],
        ...(await labels()),
      }),
    ).resolves.toBeDefined();
  });
});

describe("runs of a line", () => {
  test("spaces belong to the run they stand in, whatever the coverage", () => {
    expect(splitRuns("  a  ", [[0x61, 0x61]])).toEqual([{ text: "  a  ", missing: false }]);
    expect(splitRuns("", [])).toEqual([]);
  });

  test("neighbouring missing characters keep a box each", () => {
    const runs = splitRuns("a☃☃b", [[0x61, 0x62]]);
    expect(runs.map((r) => r.missing)).toEqual([false, true, true, false]);
    expect(runs.map((r) => r.text)).toEqual(["a", "☃", "☃", "b"]);
  });

  test("characters beyond the first plane are one", () => {
    expect(splitRuns("😀", [[0x61, 0x61]])).toEqual([{ text: "😀", missing: true }]);
    expect(splitRuns("😀", [[0x1f600, 0x1f600]])).toEqual([{ text: "😀", missing: false }]);
  });

  test("a line of missing characters only has no covered run", () => {
    expect(splitRuns("☃☃", []).every((r) => r.missing)).toBe(true);
  });
});

describe("SPDX", () => {
  const font = {
    id: "s_abc",
    name: "Skerrow Sans Bold",
    version: "1.1",
    supplier: "Tidewrack Commons",
    originator: null,
    fileName: "a.otf",
    sha256: "ab".repeat(32),
    licence: "OFL-1.1",
    copyright: null,
    texts: [{ source: "OFL.txt", text: "terms" }],
    comment: "web: Cleared with credit",
  };
  const write = (fonts: Parameters<typeof writeSpdx>[1]) =>
    JSON.parse(writeSpdx({ name: "Open Night poster", id: "b_1", createdAt: "2026-11-25T10:00:00.123Z" }, fonts)) as {
      creationInfo: { created: string };
      packages: Record<string, unknown>[];
      hasExtractedLicensingInfos?: { licenseId: string; extractedText: string }[];
      relationships: { relatedSpdxElement: string }[];
    };

  test("a listed licence by its id, without its text", () => {
    const doc = write([font]);
    expect(doc).toMatchObject({ spdxVersion: "SPDX-2.3", dataLicense: "CC0-1.0", SPDXID: "SPDXRef-DOCUMENT" });
    expect(doc.creationInfo.created).toBe("2026-11-25T10:00:00Z");
    expect(doc.packages[0]).toMatchObject({
      SPDXID: "SPDXRef-s-abc",
      licenseDeclared: "OFL-1.1",
      copyrightText: "NOASSERTION",
      checksums: [{ algorithm: "SHA256", checksumValue: font.sha256 }],
    });
    expect(doc.hasExtractedLicensingInfos).toBeUndefined();
    expect(doc.relationships[0]!.relatedSpdxElement).toBe("SPDXRef-s-abc");
  });

  test("terms that are in no list are carried word for word; none at all is NOASSERTION", () => {
    const named = (id: string) => ({ id, ...rest });
    const { id: _first, ...rest } = font;
    const [second, third] = [named("s_def"), named("s_ghi")];
    const doc = write([
      { ...font, licence: null },
      { ...second, licence: null, texts: [] },
      { ...third, licence: "LicenseRef-public-domain" },
    ]);
    expect(doc.packages.map((p) => p.licenseConcluded)).toEqual([
      "LicenseRef-s-abc",
      "NOASSERTION",
      "LicenseRef-public-domain",
    ]);
    expect(doc.hasExtractedLicensingInfos!.map((e) => e.licenseId)).toEqual([
      "LicenseRef-s-abc",
      "LicenseRef-public-domain",
    ]);
    expect(doc.hasExtractedLicensingInfos![0]!.extractedText).toBe("OFL.txt:\nterms");
  });
});
