import { describe, expect, test } from "@jest/globals";
import { zipSync } from "fflate";
import { makeFont } from "../../../tests/fixtures/makeFont";
import { listDemoFonts, readDemoTerms } from "../libraries/demoPackages";
import { ARCHIVE_LIMITS, openArchive } from "./archive";
import { sortFile } from "./sort";

const text = (s: string) => new TextEncoder().encode(s);
const codeOf = async (bytes: Uint8Array) => {
  const opened = await openArchive(bytes);
  return opened.ok ? "opened" : opened.code;
};
/** Changes bytes wherever a pattern stands, in local headers and the directory alike. */
function patch(bytes: Uint8Array, find: string, put: string): Uint8Array {
  const out = bytes.slice();
  const [a, b] = [text(find), text(put)];
  for (let i = 0; i + a.length <= out.length; i++) if (a.every((v, k) => out[i + k] === v)) out.set(b, i);
  return out;
}

describe("zips", () => {
  test("give their files, folders left out", async () => {
    const font = makeFont({});
    const opened = await openArchive(
      zipSync({ "fonts/": new Uint8Array(0), "fonts/a.otf": font, "OFL.txt": text("terms") }),
    );
    expect(opened.ok && opened.value.map((f) => f.path).sort()).toEqual(["OFL.txt", "fonts/a.otf"]);
    expect(opened.ok && opened.value.find((f) => f.path === "fonts/a.otf")!.bytes).toEqual(font);
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

  test("lists every static style and each variable one once", () => {
    expect(fonts.filter((f) => f.source.startsWith("@fontsource/")).length).toBe(776);
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
