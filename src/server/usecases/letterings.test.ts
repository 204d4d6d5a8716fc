// Letterings of a brief in a real database: steps back and forth, old versions, what no document may be.
import { beforeEach, describe, expect, test } from "@jest/globals";
import { BriefCreate } from "@/contracts/brief";
import type { BriefId } from "@/contracts/ids";
import { MOST_LETTERS, type Lettering, type LetteringDocument } from "@/contracts/lettering";
import { openDataFolder } from "../../../tests/fixtures/dataFolder";
import { blockOf, documentOf } from "../../../tests/fixtures/lettering";
import { valueOf } from "../../../tests/fixtures/outcomes";
import { openDatabase, type Db } from "../db/open";
import { findLettering, listLetterings } from "../queries/letterings";
import { createBrief } from "./briefs";
import {
  changeLettering,
  checkLetteringIn,
  createLettering,
  deleteLettering,
  layOutLettering,
  listBriefLetterings,
  stepLettering,
  writeLetteringFile,
} from "./letterings";

openDataFolder("letterings");

let db: Db;
let briefId: BriefId;
let made: Lettering;
beforeEach(() => {
  db = openDatabase(":memory:");
  briefId = createBrief(db, BriefCreate.parse({ name: "Hull letters" }))!.briefId;
  made = valueOf(createLettering(db, briefId, { name: "Hull", document: documentOf(blockOf("Wren")) }));
});
const put = (text: string, version?: number) =>
  changeLettering(db, made.letteringId, { document: documentOf(blockOf(text)), version });
const textNow = () => findLettering(db, made.letteringId)!.document.blocks[0]!.text;
const stepsNow = () => {
  const { stepsBack, stepsForward } = findLettering(db, made.letteringId)!;
  return [stepsBack, stepsForward];
};

describe("steps", () => {
  test("go back to the first and on to the last", () => {
    for (const text of ["Tern", "Fog", "Quay"]) valueOf(put(text));
    expect([textNow(), stepsNow()]).toEqual(["Quay", [3, 0]]);
    valueOf(stepLettering(db, made.letteringId, -1));
    valueOf(stepLettering(db, made.letteringId, -1));
    expect([textNow(), stepsNow()]).toEqual(["Tern", [1, 2]]);
    valueOf(stepLettering(db, made.letteringId, 1));
    expect([textNow(), stepsNow()]).toEqual(["Fog", [2, 1]]);
  });

  test("that were undone cannot be done again after another change", () => {
    for (const text of ["Tern", "Fog"]) valueOf(put(text));
    stepLettering(db, made.letteringId, -1);
    valueOf(put("Quay"));
    expect([textNow(), stepsNow()]).toEqual(["Quay", [2, 0]]);
    expect(stepLettering(db, made.letteringId, 1)).toMatchObject({ ok: false, code: "nothing-to-undo" });
  });

  test("end at the first", () => {
    expect(stepLettering(db, made.letteringId, -1)).toMatchObject({ ok: false, code: "nothing-to-undo" });
    expect(textNow()).toBe("Wren");
  });

  test("are kept to five hundred", () => {
    for (let i = 0; i < 510; i++) valueOf(put(`No. ${i}`));
    expect(stepsNow()).toEqual([500, 0]);
    for (let i = 0; i < 500; i++) valueOf(stepLettering(db, made.letteringId, -1));
    expect([textNow(), stepsNow()]).toEqual(["No. 9", [0, 500]]);
  });

  test("give back the very bytes", () => {
    const odd: LetteringDocument = {
      blocks: [{ ...blockOf("No. 7"), pairs: [{ at: 1, shiftEm: -0.1 + 0.3 }], size: { capHeightMm: 1 / 3 } }],
      sheet: { heightMm: 90.125, ground: "#fbf9f4", widthMm: 200 },
    };
    const changed = valueOf(changeLettering(db, made.letteringId, { document: odd }));
    const written = JSON.stringify(changed.document);
    valueOf(put("Fog"));
    expect(JSON.stringify(valueOf(stepLettering(db, made.letteringId, -1)).document)).toBe(written);
  });
});

describe("versions", () => {
  test("grow with every change, undo too; an old one is refused with the present state", () => {
    expect(made.version).toBe(1);
    expect(valueOf(put("Tern", 1)).version).toBe(2);
    const late = put("Fog", 1);
    expect(late).toMatchObject({ ok: false, code: "changed-meanwhile", details: { lettering: { version: 2 } } });
    expect(textNow()).toBe("Tern");
    expect(valueOf(stepLettering(db, made.letteringId, -1)).version).toBe(3);
    expect(valueOf(put("Fog", 3)).version).toBe(4);
  });

  test("a name is no step", () => {
    const renamed = valueOf(changeLettering(db, made.letteringId, { name: "Bow letters" }));
    expect([renamed.name, renamed.stepsBack, renamed.version]).toEqual(["Bow letters", 0, 1]);
  });
});

test("one that is deleted is not listed, and can be brought back as it was", () => {
  valueOf(put("Tern"));
  expect(valueOf(deleteLettering(db, made.letteringId))).toEqual({ letteringId: made.letteringId });
  expect(listLetterings(db, briefId)).toEqual([]);
  expect(put("Fog")).toMatchObject({ code: "not-found" });
  expect(stepLettering(db, made.letteringId, -1)).toMatchObject({ code: "not-found" });
  expect(deleteLettering(db, made.letteringId)).toMatchObject({ code: "not-found" });
  valueOf(changeLettering(db, made.letteringId, { deleted: false }));
  expect([textNow(), stepsNow()]).toEqual(["Tern", [1, 0]]);
});

test("several stand under one brief in the order in which they were begun", () => {
  const second = valueOf(createLettering(db, briefId, { name: "Bow", document: documentOf() }));
  const listed = valueOf(listBriefLetterings(db, briefId)).letterings.map((l) => l.letteringId);
  expect(new Set(listed)).toEqual(new Set([made.letteringId, second.letteringId]));
  expect(listBriefLetterings(db, "b_never-was")).toMatchObject({ code: "not-found" });
});

describe("what no document may be", () => {
  const refused: [string, LetteringDocument, string][] = [
    ["of a newer form", { ...documentOf(blockOf("Wren")), version: 2 }, "lettering-newer"],
    ["too long", documentOf(blockOf("w".repeat(MOST_LETTERS + 1))), "letters-too-many"],
    ["with two blocks of one id", documentOf(blockOf("Wren"), blockOf("Tern")), "bad-request"],
  ];
  test.each(refused)("%s: refused, whatever is asked of it", async (_, document, code) => {
    const before = JSON.stringify(findLettering(db, made.letteringId));
    expect(createLettering(db, briefId, { name: "Hull", document })).toMatchObject({ ok: false, code });
    expect(changeLettering(db, made.letteringId, { document })).toMatchObject({ ok: false, code });
    expect(await layOutLettering(db, document)).toMatchObject({ ok: false, code });
    expect(await checkLetteringIn(db, document, { minStrokeMm: 1, minGapMm: 1 })).toMatchObject({ ok: false, code });
    expect(await writeLetteringFile(db, { document, format: "svg" })).toMatchObject({ ok: false, code });
    expect(JSON.stringify(findLettering(db, made.letteringId))).toBe(before);
  });

  test("with a face that is not here: kept, but neither laid out nor written", async () => {
    const document = documentOf(blockOf("Wren"));
    expect(createLettering(db, briefId, { name: "Hull", document }).ok).toBe(true);
    expect(await layOutLettering(db, document)).toMatchObject({
      code: "not-found",
      message: expect.stringContaining("line-1"),
    });
  });
});
