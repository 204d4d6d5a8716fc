import { beforeAll, describe, expect, test } from "@jest/globals";
import { readDemo } from "../../../tests/fixtures/demoFont";
import { extractDescriptors, SIGNATURE_BYTES } from "./extractDescriptors";
import { shapeDistance } from "./shapeDistance";

const described: Record<string, Uint8Array> = {};
beforeAll(async () => {
  for (const [id, weight] of [
    ["lora", 400],
    ["lora", 500],
    ["lora", 700],
    ["work-sans", 400],
    ["libre-barcode-39", 400],
  ] as const)
    described[`${id} ${weight}`] = extractDescriptors((await readDemo(id, weight, "normal")).face);
});

describe("nearness by outlines", () => {
  test("nothing from itself, a weight further than its neighbour, another kind further still", () => {
    const from = (other: string) => shapeDistance(described["lora 400"]!, described[other]!)!;
    expect(from("lora 400")).toBe(0);
    expect(from("lora 500")).toBeGreaterThan(0);
    expect(from("lora 700")).toBeGreaterThan(from("lora 500"));
    expect(from("work-sans 400")).toBeGreaterThan(from("lora 500"));
  });
  test("the way does not matter, and without common letters there is no distance", () => {
    expect(shapeDistance(described["lora 400"]!, described["work-sans 400"]!)).toBeCloseTo(
      shapeDistance(described["work-sans 400"]!, described["lora 400"]!)!,
      6,
    );
    const empty = new Uint8Array(SIGNATURE_BYTES);
    new DataView(empty.buffer);
    for (let i = 0; i < SIGNATURE_BYTES; i += 46) new DataView(empty.buffer).setInt16(i + 44, -32768, true);
    expect(shapeDistance(described["lora 400"]!, empty)).toBeNull();
  });
});
