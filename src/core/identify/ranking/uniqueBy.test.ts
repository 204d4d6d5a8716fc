import { describe, expect, test } from "@jest/globals";
import { fewOfEachFirst, uniqueBy } from "./uniqueBy";

const ranked = ["Lora 1", "Lora 2", "Lora 3", "Arvo 1", "Lora 4", "Arvo 2"];
const family = (name: string) => name.split(" ")[0];

test("of each family the first", () => {
  expect(uniqueBy(ranked, family)).toEqual(["Lora 1", "Arvo 1"]);
});

describe("few of each family first", () => {
  test("the others keep their order behind, none is lost", () => {
    expect(fewOfEachFirst(ranked, 2, family)).toEqual(["Lora 1", "Lora 2", "Arvo 1", "Arvo 2", "Lora 3", "Lora 4"]);
  });

  test("where all are of one family nothing changes", () => {
    const one = ranked.filter((name) => family(name) === "Lora");
    expect(fewOfEachFirst(one, 1, family)).toEqual(one);
  });
});
