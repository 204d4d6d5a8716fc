// Every fault that can be planted in a font is named, with its table; sound fonts stay fine.
import { beforeAll, describe, expect, test } from "@jest/globals";
import { readFileSync } from "node:fs";
import { decompress } from "woff2-encoder";
import { SANS, type Design } from "../../../demo/foundry/design";
import { drawFace, type Face } from "../../../demo/foundry/face";
import { polygon } from "../../../demo/foundry/pen";
import { writeTrueType, tableOf } from "../../../demo/foundry/write/writeFont";
import { fontFacts } from "../../../tests/fixtures/fontFacts";
import { assembleSfnt, checksumOf, openContainer, splitCollection } from "../open/container";
import { openFont } from "../open/openFont";
import { openFace } from "../outlines/openFace";
import { checkFont } from "./checkFont";
import { countCrossings } from "./crossings";

let sound: Face;
beforeAll(() => {
  sound = drawFace({ ...SANS } satisfies Design);
});
const written = (face: Face = sound, over: Parameters<typeof fontFacts>[0] = {}) =>
  writeTrueType(face, fontFacts(over));

async function healthOf(bytes: Uint8Array) {
  const opened = await openFont(bytes);
  return checkFont(opened, openFace(opened.sfnt));
}
/** The font with one table's bytes changed; checksums are made right again. */
async function withTable(
  bytes: Uint8Array,
  tag: string,
  change: (data: Uint8Array, view: DataView) => Uint8Array | void,
) {
  const { tables } = await openContainer(bytes);
  const parts = [...tables].map(([t, data]) => {
    const copy = data.slice();
    const changed = t === tag ? (change(copy, new DataView(copy.buffer)) ?? copy) : copy;
    return { tag: t, data: changed, checksum: checksumOf(changed) };
  });
  return assembleSfnt(0x00010000, parts);
}
const codes = (health: { faults: { code: string }[] }) => health.faults.map((f) => f.code);
const withGlyph = (name: string, change: (g: Face["glyphs"][number]) => Face["glyphs"][number]): Face => ({
  ...sound,
  glyphs: sound.glyphs.map((g) => (g.name === name ? change(g) : g)),
});
/** A name table of one string per record, Windows English. */
function nameTable(records: [id: number, text: string][]): Uint8Array {
  const strings = records.map(([, text]) => Buffer.from(text, "utf16le").swap16());
  const head = Buffer.alloc(6 + 12 * records.length);
  head.writeUInt16BE(records.length, 2);
  head.writeUInt16BE(head.length, 4);
  let at = 0;
  records.forEach(([id], i) => {
    [3, 1, 0x409, id, strings[i]!.length, at].forEach((v, k) => head.writeUInt16BE(v, 6 + 12 * i + 2 * k));
    at += strings[i]!.length;
  });
  return new Uint8Array(Buffer.concat([head, ...strings]));
}

describe("health", () => {
  test("a sound font is fine", async () => expect(await healthOf(written())).toEqual({ degree: "fine", faults: [] }));

  test("every fault says what it means, in a sentence", async () => {
    const { faults } = await healthOf(written(withGlyph("n", (g) => ({ ...g, contours: [] }))));
    for (const f of faults) expect(f.meaning).toMatch(/^[A-Z0-9].{20,}\.$/);
  });

  test("an empty glyph behind a mapped character, named with its code point", async () => {
    const health = await healthOf(written(withGlyph("n", (g) => ({ ...g, contours: [] }))));
    expect(health.degree).toBe("with-care");
    expect(health.faults.find((f) => f.code === "glyph-empty")!.meaning).toMatch(/n U\+006E/);
  });

  test("contours that cross", async () => {
    const square = (x: number) =>
      polygon([
        [x, 0],
        [x, 500],
        [x + 300, 500],
        [x + 300, 0],
      ]);
    const face = {
      ...sound,
      glyphs: sound.glyphs.map((g) => (/^[nuoH]$/.test(g.name) ? { ...g, contours: [square(40), square(200)] } : g)),
    };
    const health = await healthOf(written(face));
    expect(codes(health)).toContain("contours-overlap");
    expect(health.degree).toBe("with-care");
  });

  test("contours of two points, and lines there and back", async () => {
    const line = polygon([
      [100, 100],
      [400, 100],
    ]);
    const back = polygon([
      [100, 300],
      [400, 300],
      [250, 300],
    ]);
    for (const contour of [line, back])
      expect(
        codes(await healthOf(written(withGlyph("x", (g) => ({ ...g, contours: [...g.contours, contour] }))))),
      ).toContain("contours-open");
  });

  test("letters without a width, lines of nonsense height, weights that are none", async () => {
    expect(codes(await healthOf(written(withGlyph("a", (g) => ({ ...g, advance: 0 })))))).toContain("metrics-nonsense");
    const flat = await withTable(written(), "hhea", (_, view) => view.setInt16(4, -50));
    expect(codes(await healthOf(flat))).toContain("metrics-nonsense");
    const heavy = await withTable(written(), "OS/2", (_, view) => view.setUint16(4, 0));
    expect((await healthOf(heavy)).faults.find((f) => f.table === "OS/2")!.code).toBe("metrics-nonsense");
  });

  test("no kerning is a note, not a reason for care; none is missed in an evenly spaced face", async () => {
    const health = await healthOf(written({ ...sound, kerning: {} }));
    expect(health).toMatchObject({ degree: "fine", faults: [{ code: "kerning-none", weight: "note" }] });
    const even = drawFace({ ...SANS, monospaced: 600 });
    expect(codes(await healthOf(written(even)))).not.toContain("kerning-none");
  });

  test("a first glyph that is no .notdef, or an empty one", async () => {
    const renamed = await withTable(written(), "post", (_, view) => view.setUint16(34, 36));
    expect(codes(await healthOf(renamed))).toContain("notdef-missing");
    const empty = { ...sound, glyphs: sound.glyphs.map((g, i) => (i ? g : { ...g, contours: [] })) };
    expect(codes(await healthOf(written(empty)))).toContain("notdef-missing");
  });

  test("glyph names that stand twice", async () => {
    const twice = {
      ...sound,
      kerning: {},
      features: {},
      glyphs: sound.glyphs.map((g) =>
        g.name === "uni0110" || g.name === "germandbls" ? { ...g, name: "uni00FE" } : g,
      ),
    };
    const names = twice.glyphs.map((g) => g.name);
    expect(codes(await healthOf(written(twice))).includes("glyph-names-duplicate")).toBe(
      new Set(names).size < names.length,
    );
  });

  test("names with hidden characters, names said twice", async () => {
    const hidden = await withTable(written(), "name", () =>
      nameTable([
        [1, "Pro\u202Ebe"],
        [2, "Regular"],
        [4, "Probe\u0007"],
      ]),
    );
    const health = await healthOf(hidden);
    expect(health.faults.find((f) => f.code === "name-hidden-characters")!.meaning).toMatch(/Name 1, 4/);
    const twice = await withTable(written(), "name", () =>
      nameTable([
        [1, "Probe"],
        [1, "Sonde"],
        [2, "Regular"],
      ]),
    );
    expect(codes(await healthOf(twice))).toContain("names-duplicate");
    const lines = await withTable(written(), "name", () =>
      nameTable([
        [1, "Probe"],
        [2, "Regular"],
        [13, "One\r\nTwo"],
      ]),
    );
    expect(codes(await healthOf(lines))).not.toContain("name-hidden-characters");
  });

  test("tables that share bytes, checksums that do not match, a table listed twice", async () => {
    const bytes = written();
    const view = new DataView(bytes.buffer);
    const entry = (tag: string) => {
      for (let i = 0; i < view.getUint16(4); i++)
        if (String.fromCharCode(...bytes.subarray(12 + 16 * i, 16 + 16 * i)) === tag) return 12 + 16 * i;
      throw new Error(tag);
    };
    const overlapping = bytes.slice();
    const glyf = view.getUint32(entry("glyf") + 8);
    new DataView(overlapping.buffer).setUint32(entry("post") + 8, glyf + 64);
    expect(codes(await healthOf(overlapping))).toEqual(expect.arrayContaining(["tables-overlap", "checksum"]));
    const doubled = bytes.slice();
    doubled.set(bytes.subarray(entry("GPOS"), entry("GPOS") + 16), entry("GSUB"));
    expect(codes(await healthOf(doubled))).toContain("table-twice");
  });

  test("a map to glyphs that do not exist, and an old map alone", async () => {
    const beyond = await withTable(written(), "cmap", () => {
      const t = Buffer.alloc(12 + 28);
      [0, 1, 3, 10].forEach((v, i) => t.writeUInt16BE(v, 2 * i));
      t.writeUInt32BE(12, 8);
      t.writeUInt16BE(12, 12);
      [28, 0, 1].forEach((v, i) => t.writeUInt32BE(v, 16 + 4 * i));
      [65, 90, 3].forEach((v, i) => t.writeUInt32BE(v, 28 + 4 * i));
      t.writeUInt32BE(60_000, 36);
      return new Uint8Array(Buffer.concat([t]));
    }).catch(() => null);
    if (beyond) await expect(healthOf(beyond)).rejects.toMatchObject({ code: "no-characters" });
    const legacy = await withTable(written(), "cmap", () => {
      const t = Buffer.alloc(12 + 262);
      [0, 1, 1, 0].forEach((v, i) => t.writeUInt16BE(v, 2 * i));
      t.writeUInt32BE(12, 8);
      [0, 262, 0].forEach((v, i) => t.writeUInt16BE(v, 12 + 2 * i));
      for (let c = 65; c < 91; c++) t[12 + 6 + c] = c - 60;
      return new Uint8Array(t);
    });
    expect(codes(await healthOf(legacy))).toContain("cmap-legacy");
  });
});

describe("crossings", () => {
  const ring = (...points: number[]) => Float64Array.from(points);
  const square = (x: number, y: number, s: number) => ring(x, y, x + s, y, x + s, y + s, x, y + s);
  test.each([
    ["apart", [square(0, 0, 10), square(20, 0, 10)], 0],
    ["a hole", [square(0, 0, 30), ring(10, 10, 10, 20, 20, 20, 20, 10)], 0],
    ["one inside the other", [square(0, 0, 30), square(10, 10, 10)], 1],
    ["one upon the other along an edge", [square(0, 0, 30), square(0, 0, 20)], 1],
    ["sharing an edge", [square(0, 0, 10), square(10, 0, 10)], 0],
    ["touching in a corner", [square(0, 0, 10), square(10, 10, 10)], 0],
    ["overlapping", [square(0, 0, 20), square(10, 10, 20)], 2],
    ["a loop in itself", [ring(0, 0, 30, 30, 30, 0, 0, 30)], 1],
  ] as const)("%s", (_name, polygons, count) => expect(countCrossings([...polygons], 0.5)).toBe(count));
});

describe("collections", () => {
  test("are split into fonts that open; a broken one says where", async () => {
    const { writeCollection } = await import("../../../demo/foundry/write/writeFont");
    const both = writeCollection([written(), written(sound, { style: "Bold", weightClass: 700 })]);
    const members = splitCollection(both);
    expect(members).toHaveLength(2);
    expect((await openFont(members[1]!)).style).toBe("Bold");
    expect(tableOf(members[0]!, "glyf")).toEqual(tableOf(written(), "glyf"));
    expect(() => splitCollection(both.slice(0, 400))).toThrow(expect.objectContaining({ code: "file-truncated" }));
    await expect(openFont(both)).rejects.toMatchObject({ code: "unsupported-format" });
  });

  test("real fonts of the library stay what they were", async () => {
    const sfnt = new Uint8Array(
      await decompress(readFileSync("node_modules/@fontsource/lora/files/lora-latin-400-normal.woff2")),
    );
    expect((await healthOf(sfnt)).faults.filter((f) => f.weight !== "note" && f.code !== "contours-overlap")).toEqual(
      [],
    );
  });
});
