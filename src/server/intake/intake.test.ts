import { describe, expect, test } from "@jest/globals";
import iconv from "iconv-lite";
import { zipSync } from "fflate";
import { replaceBytes } from "../../../demo/libraries/archives";
import { makeOverlappingBomb } from "../../../tests/fixtures/archives";
import { makeFont } from "../../../tests/fixtures/makeFont";
import { listDemoFonts, readDemoTerms } from "../../../demo/packages";
import { ARCHIVE_LIMITS, openArchive } from "./archive";
import { evidenceFor, readTerms } from "./evidence";
import { decodeFileName } from "./fileNames";
import { sortFile } from "./sort";

const text = (s: string) => new TextEncoder().encode(s);
/** "opened", or the code: of the directory, else of the first entry that does not unpack. */
const codeOf = async (bytes: Uint8Array) => {
  const opened = await openArchive(bytes);
  if (!opened.ok) return opened.code;
  for (const entry of opened.value.entries) {
    const read = await opened.value.read(entry);
    if (!read.ok) return read.code;
  }
  return "opened";
};
const patch = (bytes: Uint8Array, find: string, put: string) => replaceBytes(bytes, text(find), text(put));

describe("zips", () => {
  test("give their files, folders left out", async () => {
    const font = makeFont({});
    const opened = await openArchive(
      zipSync({ "fonts/": new Uint8Array(0), "fonts/a.otf": font, "OFL.txt": text("terms") }),
    );
    if (!opened.ok) throw new Error(opened.code);
    const { entries, read } = opened.value;
    expect(entries.map((f) => f.path).sort()).toEqual(["OFL.txt", "fonts/a.otf"]);
    expect(await read(entries.find((f) => f.path === "fonts/a.otf")!)).toEqual({ ok: true, value: font });
  });

  test("cut short, empty, not a zip", async () => {
    const whole = zipSync({ "a.otf": makeFont({}) });
    expect(await codeOf(whole.slice(0, whole.length - 40))).toBe("archive-broken");
    expect(await codeOf(whole.slice(0, 200))).toBe("archive-broken");
    expect(await codeOf(zipSync({}))).toBe("archive-empty");
    expect(await codeOf(text("PK but no zip at all"))).toBe("archive-broken");
  });

  test("a path out of the folder is refused", async () => {
    expect(await codeOf(patch(zipSync({ "aa/bb.otf": text("x") }), "aa/bb.otf", "../bb.otf"))).toBe(
      "archive-unsafe-path",
    );
    expect(await codeOf(patch(zipSync({ "aa/bb.otf": text("x") }), "aa/bb.otf", "/a/bb.otf"))).toBe(
      "archive-unsafe-path",
    );
  });

  test("encryption is refused", async () => {
    const zip = zipSync({ "a.otf": makeFont({}) }, { level: 9 });
    // The flag stands at byte 6 of the local header and byte 8 of the directory's entry.
    zip[6]! |= 1;
    const at = zip.findIndex((_, i) => zip[i] === 0x50 && zip[i + 1] === 0x4b && zip[i + 2] === 1 && zip[i + 3] === 2);
    zip[at + 8]! |= 1;
    expect(await codeOf(zip)).toBe("archive-encrypted");
  });

  test("a bomb is refused by its ratio, before it is unpacked", async () => {
    const bomb = zipSync({ "zeros.otf": new Uint8Array(30_000_000) }, { level: 9 });
    expect(bomb.length).toBeLessThan(60_000);
    const before = process.memoryUsage().rss;
    expect(await codeOf(bomb)).toBe("archive-too-large");
    expect(process.memoryUsage().rss - before).toBeLessThan(60_000_000);
  });

  test("two gigabytes out of shared bytes cost neither memory nor time", async () => {
    const bomb = makeOverlappingBomb(250, 8_000_000);
    expect(bomb.length).toBeLessThan(100_000);
    const before = process.memoryUsage().rss;
    const t = performance.now();
    expect(await codeOf(bomb)).toBe("archive-too-large");
    expect(performance.now() - t).toBeLessThan(5000);
    expect(process.memoryUsage().rss - before).toBeLessThan(300_000_000);
    // Fewer entries stay under the sum, and are found out by their places.
    expect(await codeOf(makeOverlappingBomb(20, 900_000))).toBe("archive-broken");
  });

  test("a link is no file", async () => {
    const zip = zipSync({ "a.otf": text("../../etc/passwd") });
    const at = zip.findIndex((_, i) => zip[i] === 0x50 && zip[i + 1] === 0x4b && zip[i + 2] === 1 && zip[i + 3] === 2);
    new DataView(zip.buffer).setUint32(at + 38, 0xa1ff0000, true);
    expect(await codeOf(zip)).toBe("archive-unsafe-path");
  });

  test("a size that lies is found out while unpacking", async () => {
    const zip = zipSync({ "a.otf": new Uint8Array(50_000).fill(7) }, { level: 9 });
    const at = zip.findIndex((_, i) => zip[i] === 0x50 && zip[i + 1] === 0x4b && zip[i + 2] === 1 && zip[i + 3] === 2);
    new DataView(zip.buffer).setUint32(at + 24, 100, true);
    expect(await codeOf(zip)).toBe("archive-broken");
  });

  test("too many entries", async () => {
    const many = Object.fromEntries(
      Array.from({ length: ARCHIVE_LIMITS.entries + 1 }, (_, i) => [`${i}.txt`, new Uint8Array(0)]),
    );
    expect(await codeOf(zipSync(many, { level: 0 }))).toBe("archive-too-many");
  });
});

describe("names in old encodings", () => {
  const bytes = (...b: number[]) => Uint8Array.from(b);
  test.each([
    ["code page 437", bytes(0x4c, 0x81, 0x62, 0x65, 0x63, 0x6b), "Lübeck"],
    ["Windows 1252", bytes(0x4c, 0xfc, 0x62, 0x65, 0x63, 0x6b), "Lübeck"],
    ["Mac Roman", bytes(0x4c, 0x9f, 0x62, 0x65, 0x63, 0x6b), "Lübeck"],
    ["UTF-8 that does not say so", text("Lübeck"), "Lübeck"],
    ["UTF-8, decomposed", text("Lu\u0308beck"), "Lübeck"],
    ["Shift JIS", bytes(0x96, 0xbe, 0x92, 0xa9, 0x91, 0xcc), "明朝体"],
    ["code page 866", bytes(0x98, 0xe0, 0xa8, 0xe4, 0xe2), "Шрифт"],
    ["plain", text("Beacon-Bold.otf"), "Beacon-Bold.otf"],
  ])("%s", (_name, raw, name) => expect(decodeFileName(raw, false)).toBe(name));
});

describe("texts", () => {
  test("in UTF-16, Windows 1252, RTF and HTML keep their words", () => {
    const read = (path: string, raw: Uint8Array) => readTerms(path, raw, "2026-11-25").evidence.text;
    expect(read("a.txt", Uint8Array.from([0xff, 0xfe, 0x46, 0, 0xfc, 0, 0x72, 0]))).toBe("Für");
    expect(read("a.txt", Uint8Array.from([0x46, 0xfc, 0x72]))).toBe("Für");
    expect(read("a.rtf", text("{\\rtf1\\ansi{\\fonttbl\\f0 Arial;}\\f0 Free for\\par personal use}"))).toBe(
      "Free for\npersonal use",
    );
    expect(read("a.html", text("<html><style>p{}</style><p>Free &amp; <b>open</b></p><li>print</li></html>"))).toMatch(
      /^Free & open\s+- print$/,
    );
  });

  test.each([
    ["windows-1251", "Этот шрифт можно использовать бесплатно только в личных целях."],
    ["shift_jis", "このフォントは個人利用に限り無料です。商用利用にはライセンスが必要です。"],
    ["gb18030", "本字体仅限个人免费使用。商业用途需要购买许可证。"],
    ["windows-1250", "Písmo je zdarma pouze pro osobní použití. Šíření není dovoleno."],
    ["windows-1253", "Η γραμματοσειρά είναι δωρεάν για προσωπική χρήση"],
  ])("in %s are told by their letters", (encoding, words) => {
    expect(readTerms("a.txt", iconv.encode(words, encoding), "2026-11-25").evidence.text).toBe(words);
  });

  test("speak for their own folder and what lies below", () => {
    const texts = ["LICENSE.txt", "a/readme.txt", "b/OFL.txt"].map((p) => readTerms(p, text(p), "2026-11-25"));
    expect(evidenceFor("a/x/font.ttf", texts).map((e) => [e.source, e.kind])).toEqual([
      ["LICENSE.txt", "licence-file"],
      ["a/readme.txt", "readme"],
    ]);
    expect(evidenceFor("font.ttf", texts).map((e) => e.source)).toEqual(["LICENSE.txt"]);
  });
});

describe("what a file is", () => {
  test.each([
    ["a.otf", makeFont({}), "font"],
    ["misnamed.txt", makeFont({}), "font"],
    ["broken.ttf", text("not a font"), "font"],
    ["x.zip", zipSync({ a: text("b") }), "archive"],
    ["x.zip", text("not a zip"), "archive"],
    ["OFL.txt", text("terms"), "evidence"],
    ["Licence.md", text("terms"), "evidence"],
    ["LIESMICH", text("Hallo"), "evidence"],
    ["preview.png", text("\u0089PNG"), "junk"],
    ["__MACOSX/._a.otf", text("x"), "junk"],
    [".DS_Store", text("x"), "junk"],
  ] as const)("%s is %s", (name, bytes, sort) => expect(sortFile(name, bytes)).toBe(sort));
});

describe("the demo library", () => {
  const fonts = listDemoFonts(process.cwd());

  test("lists every part of every static style and of each variable one, once", () => {
    const plain = fonts.filter((f) => f.source.startsWith("@fontsource/"));
    expect(plain.filter((f) => /-latin-\d+-/.test(f.name)).length).toBe(776);
    expect(plain.length).toBeGreaterThan(2500);
    expect(plain.map((f) => f.name)).toContain("rubik-arabic-400-normal.woff2");
    const variable = fonts.filter((f) => f.source.startsWith("@fontsource-variable/"));
    expect(variable.length).toBeGreaterThanOrEqual(20);
    expect(new Set(fonts.map((f) => f.source)).size).toBe(fonts.length);
    expect(variable.map((f) => f.name)).toContain("recursive-latin-full-normal.woff2");
    expect(variable.map((f) => f.name)).toContain("nunito-latin-wght-italic.woff2");
  });

  test("each has its terms", () => {
    for (const f of fonts.slice(0, 40)) {
      const terms = readDemoTerms(f.packageFolder);
      expect(terms.licenceText!.length).toBeGreaterThan(500);
      expect(terms.statement).toMatch(/OFL|Apache/);
    }
  });

  test("nothing is listed where there are no packages", () => expect(listDemoFonts("/nowhere")).toEqual([]));
});
