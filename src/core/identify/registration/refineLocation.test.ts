// Variable fonts: locations that are described, and those between them found from a picture.
import { beforeAll, describe, expect, test } from "@jest/globals";
import { readFileSync } from "node:fs";
import type { Axis } from "@/contracts/traits";
import { drawLine } from "../../../../tests/fixtures/drawLine";
import { readDemo } from "../../../../tests/fixtures/demoFont";
import { openFont } from "../../open/openFont";
import { openFace, type OpenFace } from "../../outlines/openFace";
import { readPicture } from "../../picture/readPicture";
import { inlineExecutor } from "../executor";
import { identifyLine } from "../identifyLine";
import { instancesOf, type VariationLocation } from "../../descriptors/instances";
import { SignatureIndex, extractDescriptors } from "../../descriptors/extractDescriptors";

const axis = (tag: string, min: number, own: number, max: number): Axis => ({ tag, min, default: own, max }) as Axis;

describe("described locations", () => {
  test("a font without axes has none; the default is not among them", () => {
    expect(instancesOf([])).toEqual([]);
    const settings = instancesOf([axis("wght", 100, 400, 900)]);
    expect(settings).not.toContainEqual({ wght: 400 });
    expect(settings.map((s) => s.wght)).toEqual(expect.arrayContaining([100, 900]));
  });

  test.each([
    ["weight and width", [axis("wght", 100, 400, 900), axis("wdth", 75, 100, 125)]],
    [
      "four axes",
      [axis("wght", 100, 400, 900), axis("wdth", 25, 100, 151), axis("opsz", 6, 14, 144), axis("slnt", -10, 0, 0)],
    ],
  ])("%s: no more than can be held, ends kept", (_what, axes) => {
    const settings = instancesOf(axes);
    expect(settings.length).toBeLessThanOrEqual(27);
    for (const a of axes) for (const end of [a.min, a.max]) expect(settings.some((s) => s[a.tag] === end)).toBe(true);
  });

  test("axes of other tags stay where they are", () => {
    expect(instancesOf([axis("CASL", 0, 0, 1), axis("MONO", 0, 0, 1)])).toEqual([]);
    expect(instancesOf([axis("wght", 400, 400, 400)])).toEqual([]);
  });
});

describe("between the described locations", () => {
  let sfnt: Uint8Array;
  let index: SignatureIndex;
  const others = new Map<string, OpenFace>();
  const open = new Map<string, OpenFace>();
  const load = (id: string, at: VariationLocation | null) => {
    if (id !== "variable") return others.get(id) ?? null;
    const key = JSON.stringify(at ?? {});
    if (!open.has(key)) open.set(key, openFace(sfnt, at ?? {}));
    return open.get(key)!;
  };
  beforeAll(async () => {
    const path = "node_modules/@fontsource-variable/archivo/files/archivo-latin-standard-normal.woff2";
    sfnt = (await openFont(new Uint8Array(readFileSync(path)))).sfnt;
    const rows = [];
    for (const at of [{}, ...[100, 900].flatMap((wght) => [62, 100, 125].map((wdth) => ({ wght, wdth })))])
      rows.push({
        id: "variable",
        family: "Archivo",
        coordinates: at,
        signature: extractDescriptors(openFace(sfnt, at)),
      });
    for (const id of ["work-sans", "oswald", "lora"]) {
      const { face } = await readDemo(id, 600);
      others.set(id, face);
      rows.push({ id, family: id, signature: extractDescriptors(face) });
    }
    index = SignatureIndex.of(rows);
  });

  test.each([
    [{ wght: 840, wdth: 100 }, 120],
    [{ wght: 160, wdth: 118 }, 120],
  ])("%j is found, and its weight about right", async (at, within) => {
    const lines = readPicture(drawLine(openFace(sfnt, at), "Harbour Quay"))!;
    const { matches } = await identifyLine(lines, "Harbour Quay", index, inlineExecutor(index, load), 4);
    expect(matches[0]!.styleId).toBe("variable");
    expect(Math.abs(matches[0]!.coordinates!.wght! - at.wght)).toBeLessThan(within);
    // One match a style, however many of its settings came near.
    expect(matches.filter((m) => m.styleId === "variable")).toHaveLength(1);
  });

  test("a picture of a static face is not bent to a variable one", async () => {
    const lines = readPicture(drawLine(others.get("lora")!, "Harbour Quay"))!;
    const { matches } = await identifyLine(lines, "Harbour Quay", index, inlineExecutor(index, load), 4);
    expect(matches[0]).toMatchObject({ styleId: "lora", coordinates: null });
  });
});
