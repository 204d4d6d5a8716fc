import { describe, expect, test } from "@jest/globals";
import { BriefFields, BriefPatch } from "@/contracts/brief";
import { convertLength, writeLength } from "@/contracts/units";
import { readRights } from "../rights/readRights";
import { charactersOf, findMissing } from "./characters";
import { checkBrief } from "./checkBrief";
import { levelFactor } from "./level";

const brief = BriefFields.parse({
  name: "Hull letters",
  lines: [
    { text: "Wren & Tern No. 7", role: "title" },
    { text: "Fog + Brass", role: "second" },
  ],
  uses: ["cutting", "goods-for-sale"],
  wanted: "é",
});
const style = {
  coverage: [
    [0x20, 0x25],
    [0x27, 0x7e],
  ] as [number, number][],
  rights: readRights([]),
  health: { degree: "fine" as const, faults: [] },
};

describe("checks", () => {
  const checks = checkBrief(brief, style);

  test("one for each line, for the wanted characters, for each use, for the file", () => {
    expect(checks.map((c) => c.check)).toEqual(["characters", "characters", "characters", "use", "use", "health"]);
  });

  test("a missing character is named", () => {
    expect(checks[0]).toMatchObject({ outcome: "fail", measured: "9 of 10", wanted: "10 of 10" });
    expect(checks[0]!.reason).toContain("& (ampersand, U+0026)");
    expect(checks[1]!.outcome).toBe("pass");
    expect(checks[2]!.reason).toContain("latin small letter e with acute");
  });

  test("without evidence a use is never passed", () => {
    expect(checks[3]).toMatchObject({ outcome: "care", measured: "unread" });
    expect(checks[3]!.reason).toContain("no terms were found");
  });

  test("a file with faults asks for care and says why", () => {
    const [last] = checkBrief(brief, {
      ...style,
      health: { degree: "with-care", faults: [{ code: "checksum", table: "name", meaning: "Changed later." }] },
    }).slice(-1);
    expect(last).toMatchObject({ outcome: "care", reason: "name: Changed later." });
  });
});

describe("characters", () => {
  test("each once, in order, without spaces and controls", () => {
    expect(charactersOf({ lines: [{ text: "a b\tba\u200f", role: "text" }], wanted: "bc" })).toEqual(["a", "b", "c"]);
  });

  test("composed and decomposed accents are the same", () => {
    expect(charactersOf({ lines: [{ text: "e\u0301", role: "text" }], wanted: "é" })).toEqual(["é"]);
  });

  test("beyond the first plane", () => expect(findMissing(["😀", "a"], [[97, 97]])).toEqual(["😀"]));
});

describe("level", () => {
  const traits = { xHeightEm: 0.4, capHeightEm: 0.8, cases: "both" as const };
  test.each([
    ["point-size", 1],
    ["x-height", 1.25],
    ["capitals", 0.875],
  ] as const)("by %s", (by, factor) => expect(levelFactor(traits, by)).toBeCloseTo(factor, 6));

  test("a face without lowercase letters is levelled by its capitals", () => {
    expect(levelFactor({ ...traits, cases: "capitals-only" }, "x-height")).toBeCloseTo(0.875, 6);
  });

  test("absurd measures stay within bounds, missing ones change nothing", () => {
    expect(levelFactor({ xHeightEm: 0.05, capHeightEm: null, cases: "both" }, "x-height")).toBe(2.5);
    expect(levelFactor({ xHeightEm: null, capHeightEm: null, cases: null }, "x-height")).toBe(1);
  });
});

describe("contracts", () => {
  test("a patch has no defaults: what is left out stays", () =>
    expect(BriefPatch.parse({ ink: "#000000" })).toEqual({ ink: "#000000" }));

  test.each([{ lines: [] }, { ink: "red" }, { size: -1 }, { uses: ["billboard"] }, { name: " " }])(
    "%j is refused",
    (patch) => {
      expect(BriefPatch.safeParse(patch).success).toBe(false);
    },
  );

  test("lengths", () => {
    expect(convertLength(1, "in", "mm")).toBeCloseTo(25.4, 9);
    expect(convertLength(72, "pt", "px")).toBeCloseTo(96, 9);
    expect(convertLength(convertLength(84, "mm", "pt"), "pt", "mm")).toBeCloseTo(84, 9);
    expect(writeLength(84.04, "mm")).toBe("84 mm");
    expect(writeLength(3.3071, "in")).toBe("3.31 in");
  });
});
