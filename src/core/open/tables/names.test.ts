import { describe, expect, test } from "@jest/globals";
import { TableReader } from "../reader";
import { readFamilyAndStyle, readNames, readOtherFamilies } from "./names";

describe("family and style from name strings", () => {
  test.each([
    [{ 16: "Quay", 17: "Thin Italic", 1: "Quay Thin", 2: "Italic" }, 100, "Quay", "Thin Italic"],
    [{ 1: "Quay Medium", 2: "Italic" }, 500, "Quay", "Medium Italic"],
    [{ 1: "Quay Medium", 2: "Regular" }, 500, "Quay", "Medium"],
    [{ 1: "Quay", 2: "Bold" }, 700, "Quay", "Bold"],
    [{ 1: "Quay", 2: "Regular" }, 400, "Quay", "Regular"],
    [{ 1: "Quay" }, null, "Quay", "Regular"],
    [{ 1: "Into Light", 2: "Regular" }, 400, "Into Light", "Regular"],
    [{ 1: "Quay Black", 2: "Italic" }, 900, "Quay", "Black Italic"],
    [{}, 400, null, "Regular"],
  ] as const)("%j at %s is %s, %s", (names, weight, family, style) => {
    expect(readFamilyAndStyle(names, weight)).toEqual({ family, style });
  });
});

describe("what a family is called in other languages", () => {
  type NameRecord = [platform: number, encoding: number, language: number, id: number, text: string];
  function tableOf(records: NameRecord[]): TableReader {
    const strings = records.map(([, , , , text]) => Buffer.from(text, "utf16le").swap16());
    const head = 6 + records.length * 12;
    const bytes = Buffer.concat([Buffer.alloc(head), ...strings]);
    bytes.writeUInt16BE(records.length, 2);
    bytes.writeUInt16BE(head, 4);
    let at = 0;
    records.forEach(([platform, encoding, language, id], i) => {
      const length = strings[i]!.length;
      [platform, encoding, language, id, length, at].forEach((v, k) => bytes.writeUInt16BE(v, 6 + i * 12 + k * 2));
      at += length;
    });
    return new TableReader("name", new Uint8Array(bytes));
  }
  test("is kept beside its English name, once, and only where it is in another script", () => {
    const table = tableOf([
      [3, 1, 0x409, 1, "Beacon Hei"],
      [3, 1, 0x804, 1, "灯塔黑"],
      [3, 1, 0x404, 1, "燈塔黑"],
      [3, 1, 0xc04, 1, "燈塔黑"],
      [3, 1, 0x407, 1, "Leuchtfeuer Hei"],
      [3, 1, 0x804, 2, "常规"],
      [3, 3, 0x804, 16, "乱码"],
    ]);
    const names = readNames(table);
    expect(names[1]).toBe("Beacon Hei");
    expect(readOtherFamilies(table, names)).toEqual(["灯塔黑", "燈塔黑"]);
  });

  test("a family that has no English name goes by its own, and is not called so twice", () => {
    const table = tableOf([[3, 1, 0x419, 1, "Маяк"]]);
    const names = readNames(table);
    expect(names[1]).toBe("Маяк");
    expect(readOtherFamilies(table, names)).toEqual([]);
  });

  test("is bounded, and a damaged record is passed over", () => {
    const many = tableOf(Array.from({ length: 40 }, (_, i): NameRecord => [3, 1, 0x800 + i, 1, `塔${i}`]));
    expect(readOtherFamilies(many, {})).toHaveLength(12);
    const damaged = tableOf([[3, 1, 0x804, 1, "灯塔"]]);
    expect(readOtherFamilies(new TableReader("name", damaged.slice(0, 19)), {})).toEqual([]);
  });
});
