import { describe, expect, test } from "@jest/globals";
import { zlibSync } from "fflate";
import { compress } from "woff2-encoder";
import { demoBytes } from "../../../tests/fixtures/demoFont";
import { makeFont } from "../../../tests/fixtures/makeFont";
import { assembleSfnt, checksumOf, openContainer, sniffFormat } from "./container";
import { FontFileError } from "./fontFileError";
import { openFont } from "./openFont";
import { hasCodePoint } from "../unicode/blocks";

/** Takes a bare font apart, changes its tables, puts it together again with right checksums. */
async function rebuild(
  bytes: Uint8Array,
  change: (tables: Map<string, Uint8Array>) => void,
  wrongChecksum = "",
): Promise<Uint8Array> {
  const { tables } = await openContainer(bytes);
  const copy = new Map([...tables].map(([tag, data]) => [tag, data.slice()]));
  change(copy);
  return assembleSfnt(
    0x4f54544f,
    [...copy].map(([tag, data]) => ({ tag, data, checksum: tag === wrongChecksum ? 1 : checksumOf(data) })),
  );
}

function wrapWoff(tables: Map<string, Uint8Array>): Uint8Array {
  const parts = [...tables].map(([tag, data]) => {
    const packed = zlibSync(data);
    return { tag, data, packed: packed.length < data.length ? packed : data };
  });
  let at = 44 + 20 * parts.length;
  const places = parts.map((p) => {
    const place = at;
    at += (p.packed.length + 3) & ~3;
    return place;
  });
  const out = new Uint8Array(at);
  const view = new DataView(out.buffer);
  view.setUint32(0, 0x774f4646);
  view.setUint32(4, 0x4f54544f);
  view.setUint32(8, at);
  view.setUint16(12, parts.length);
  parts.forEach((p, i) => {
    const entry = 44 + 20 * i;
    for (let k = 0; k < 4; k++) out[entry + k] = p.tag.charCodeAt(k);
    [places[i]!, p.packed.length, p.data.length, checksumOf(p.data)].forEach((v, k) =>
      view.setUint32(entry + 4 + 4 * k, v),
    );
    out.set(p.packed, places[i]);
  });
  return out;
}

const codeOf = async (bytes: Uint8Array) => {
  try {
    await openFont(bytes);
    return "opened";
  } catch (error) {
    if (error instanceof FontFileError) return error.code;
    throw error;
  }
};

describe("openFont on a font made in code", () => {
  const bytes = makeFont({ family: "Quay Test", style: "Bold", without: "&é" });

  test("reads names, metrics, coverage", async () => {
    const font = await openFont(bytes);
    expect(font.format).toBe("otf");
    expect(font.family).toBe("Quay Test");
    expect(font.style).toBe("Bold");
    expect(font.unitsPerEm).toBe(1000);
    expect(font.hhea?.ascenderFu).toBe(800);
    expect(hasCodePoint(font.codePoints, 0x41)).toBe(true);
    expect(hasCodePoint(font.codePoints, 0x26)).toBe(false);
    expect(hasCodePoint(font.codePoints, 0xe9)).toBe(false);
    expect(font.axes).toEqual([]);
  });

  test("reads the same through WOFF and WOFF2", async () => {
    const plain = await openFont(bytes);
    const { tables } = await openContainer(bytes);
    for (const [format, wrapped] of [
      ["woff", wrapWoff(tables)],
      ["woff2", new Uint8Array(await compress(bytes.slice()))],
    ] as const) {
      expect(sniffFormat(wrapped)).toBe(format);
      const font = await openFont(wrapped);
      expect(font.format).toBe(format);
      expect(font.codePoints).toEqual(plain.codePoints);
      expect(font.family).toBe("Quay Test");
    }
  });

  test("a wrong checksum is a fault, not a refusal", async () => {
    const font = await openFont(await rebuild(bytes, () => {}, "name"));
    expect(font.health.degree).toBe("with-care");
    expect(font.health.faults).toContainEqual(expect.objectContaining({ code: "checksum", table: "name" }));
  });

  test("absent, damaged and read are told apart for OS/2", async () => {
    const absent = await openFont(await rebuild(bytes, (t) => t.delete("OS/2")));
    expect(absent.os2).toBeNull();
    expect(absent.health.faults).toContainEqual(expect.objectContaining({ code: "table-missing", table: "OS/2" }));
    const damaged = await openFont(await rebuild(bytes, (t) => t.set("OS/2", t.get("OS/2")!.slice(0, 5))));
    expect(damaged.os2).toBeNull();
    expect(damaged.health.faults).toContainEqual(expect.objectContaining({ code: "table-damaged", table: "OS/2" }));
    expect((await openFont(bytes)).os2?.usWeightClass).toBeGreaterThan(0);
  });

  test("characters that point beyond the glyphs count as missing", async () => {
    const font = await openFont(
      await rebuild(bytes, (t) => {
        const maxp = t.get("maxp")!;
        new DataView(maxp.buffer, maxp.byteOffset).setUint16(4, 10);
      }),
    );
    expect(font.health.faults).toContainEqual(expect.objectContaining({ code: "cmap-beyond-glyphs" }));
    expect([...font.characters.values()].every((g) => g < 10)).toBe(true);
  });

  test.each([
    ["nothing", new Uint8Array(0), "empty-file"],
    ["text", new TextEncoder().encode("This is a readme, not a font."), "not-a-font"],
    ["three bytes", Uint8Array.of(0, 1, 0), "not-a-font"],
    ["a collection", Uint8Array.from([0x74, 0x74, 0x63, 0x66, ...new Array<number>(60).fill(0)]), "unsupported-format"],
    ["a picture named like a font", Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a]), "not-a-font"],
    [
      "a WOFF2 header alone",
      Uint8Array.from([0x77, 0x4f, 0x46, 0x32, ...new Array<number>(20).fill(0)]),
      "file-truncated",
    ],
  ] as const)("refuses %s", async (_what, input, code) => {
    expect(await codeOf(input)).toBe(code);
  });

  test.each([
    ["head", "table-missing"],
    ["maxp", "table-missing"],
    ["cmap", "table-missing"],
    ["CFF ", "no-outlines"],
  ])("refuses a font without %s", async (tag, code) => {
    expect(await codeOf(await rebuild(bytes, (t) => t.delete(tag)))).toBe(code);
  });

  test("an error tells table, offset, expected and actual", async () => {
    const broken = await rebuild(bytes, (t) => {
      const head = t.get("head")!;
      new DataView(head.buffer, head.byteOffset).setUint16(18, 3);
    });
    await expect(openFont(broken)).rejects.toMatchObject({
      code: "table-damaged",
      table: "head",
      byteOffset: 18,
      actual: "3",
    });
  });

  test("cut at any place it is refused with a known code", async () => {
    for (let length = 0; length < bytes.length - 1; length += Math.max(1, Math.floor(bytes.length / 60)))
      expect(await codeOf(bytes.slice(0, length))).not.toBe("opened");
  });

  test("with random bits flipped it opens or is refused with a known code, never anything else", async () => {
    let seed = 7;
    const next = () => (seed = (seed * 1103515245 + 12345) & 0x7fffffff) / 0x7fffffff;
    let opened = 0;
    for (let round = 0; round < 120; round++) {
      const bent = bytes.slice();
      for (let k = 0; k < 6; k++)
        bent[Math.floor(next() * Math.min(bent.length, 3000))]! ^= 1 << Math.floor(next() * 8);
      if ((await codeOf(bent)) === "opened") opened++;
    }
    expect(opened).toBeGreaterThan(0);
    expect(opened).toBeLessThan(120);
  });
});

describe("openFont on fonts of the demo library", () => {
  test("a static one", async () => {
    const font = await openFont(demoBytes("lora", 700, "italic"));
    expect(font.family).toBe("Lora");
    expect(font.style).toBe("Bold Italic");
    expect(font.health.degree).toBe("fine");
    expect(font.features).toContain("liga");
    expect(font.os2?.usWeightClass).toBe(700);
  });

  test("a damaged WOFF2 is refused as such", async () => {
    const bytes = demoBytes("lora");
    bytes.fill(0x55, 2000, 9000);
    expect(await codeOf(bytes)).toBe("decompression-failed");
  });

  test("a WOFF2 cut short is refused as such", async () => {
    expect(await codeOf(demoBytes("lora").slice(0, 5000))).toBe("file-truncated");
  });

  test.each([
    ["archivo", 400, "italic", "Archivo SemiBold", "Regular Italic"],
    ["shadows-into-light", 400, "normal", "Shadows Into Light", "Regular"],
    ["hepta-slab", 900, "normal", "Hepta Slab ExtraLight", "Black"],
    ["alegreya-sans", 500, "italic", "Alegreya Sans", "Medium Italic"],
  ] as const)("names %s %i %s", async (id, weight, slope, family, style) => {
    const font = await openFont(demoBytes(id, weight, slope));
    expect([font.family, font.style]).toEqual([family, style].map((s) => s.replace("Regular Italic", "Italic")));
  });
});
