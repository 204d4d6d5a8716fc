// Briefs as several people change them: versions, merging, steps that are undone and done again, copies that are whole, faces kept as seen.
import { beforeEach, describe, expect, test } from "@jest/globals";
import { openDataFolder } from "../../../tests/fixtures/dataFolder";
import { BriefCreate, type Brief, type BriefEvent } from "@/contracts/brief";
import type { StyleId } from "@/contracts/ids";
import { demoBytes } from "../../../tests/fixtures/demoFont";
import { valueOf } from "../../../tests/fixtures/outcomes";
import { openDatabase, type Db } from "../db/open";
import { hearBrief } from "../events/briefEvents";
import type { FontReading } from "@/core/read/readFont";
import readFont from "../workers/readFont.worker";
import { findBrief, putBriefPicture } from "../queries/briefs";
import { putLibrary } from "../queries/libraries";
import { changeBrief, changeKept, createBrief, keepAt, keepStyle, letGo, setAside, stepBack } from "./briefs";
import { storeReading } from "../store/storeReading";

openDataFolder("briefs");

let db: Db;
let id = "";
let face: StyleId;
let reading: FontReading | null = null;
beforeEach(async () => {
  db = openDatabase(":memory:");
  putLibrary(db, "open", "Open", "folder", "2026-11-25");
  const bytes = demoBytes("lora");
  if (!reading) {
    const reply = await readFont({ bytes, fallbackFamily: "x" });
    if (reply.ok) reading = reply.reading;
  }
  face = await storeReading(db, bytes, reading!, { libraryId: "open", path: "a", statedFamily: null, evidence: [] });
  const lines = ["Skerrow Light", "Open Night"].map((text) => ({ text, role: "title" as const }));
  id = createBrief(db, BriefCreate.parse({ name: "Open Night poster", lines, uses: ["video"] }))!.briefId;
});
const brief = () => findBrief(db, id)!;
const texts = (b: Brief = brief()) => b.lines.map((l) => l.text);
const retext = (at: number, text: string) => brief().lines.map((l, i) => (i === at ? { ...l, text } : l));

describe("versions", () => {
  test("every change raises it; an old one is refused with the present brief; nothing changed is no change", () => {
    const { version } = brief();
    expect(valueOf(changeBrief(db, id, { ink: "#000000", version })).version).toBe(version + 1);
    expect(changeBrief(db, id, { ink: "#111111", version })).toMatchObject({
      code: "changed-meanwhile",
      details: { brief: { ink: "#000000", version: version + 1 } },
    });
    valueOf(changeBrief(db, id, { ink: "#000000" }));
    expect(brief().version).toBe(version + 1);
    keepStyle(db, id, face, {});
    setAside(db, id, face, true);
    expect(brief().version).toBe(version + 3);
  });

  test("with what they knew, two people's changes are merged; of the same word one is asked", () => {
    const base = { lines: brief().lines };
    valueOf(changeBrief(db, id, { lines: retext(0, "Skerrow Lamp"), base }, "aaaaaaaa"));
    const mine = base.lines.map((l, i) => (i ? { ...l, text: "Open Nights" } : l));
    valueOf(changeBrief(db, id, { lines: mine, base }, "bbbbbbbb"));
    expect(texts()).toEqual(["Skerrow Lamp", "Open Nights"]);
    const clash = changeBrief(db, id, { lines: base.lines.map((l) => ({ ...l, text: "Skerrow Beam" })), base });
    expect(clash).toMatchObject({ code: "changed-meanwhile", details: { conflicts: [{ field: "lines.text" }, {}] } });
    expect(texts()).toEqual(["Skerrow Lamp", "Open Nights"]);
  });

  test("others hear of it, with who did it", () => {
    const heard: BriefEvent[] = [];
    const deaf = hearBrief(id, (event) => heard.push(event));
    changeBrief(db, id, { ink: "#000000" }, "aaaaaaaa");
    keepStyle(db, id, face, {}, "bbbbbbbb");
    deaf();
    changeBrief(db, id, { ink: "#111111" }, "aaaaaaaa");
    expect(heard.map((e) => [e.by, e.fields])).toEqual([
      ["aaaaaaaa", ["ink"]],
      ["bbbbbbbb", ["kept"]],
    ]);
  });
});

describe("steps", () => {
  test("words, uses, colours, order, notes and what is kept are undone one by one, and done again", () => {
    const states = [brief()];
    const does = [
      () => changeBrief(db, id, { uses: ["video", "web"] }),
      () => changeBrief(db, id, { size: 12, unit: "px" }),
      () => changeBrief(db, id, { lines: retext(1, "Late Night") }),
      () => changeBrief(db, id, { lines: [...brief().lines].reverse() }),
      () => keepStyle(db, id, face, { role: "title" }),
      () => changeKept(db, id, brief().kept[0]!.keptId, { note: "warm" }),
      () => setAside(db, id, face, true),
      () => setAside(db, id, face, false),
    ];
    for (const run of does) {
      run();
      states.push(brief());
    }
    const told = ({ version: _v, changedAt: _c, ...rest }: Brief) => rest;
    for (let i = does.length - 1; i >= 0; i--) {
      expect(stepBack(db, id, "undo", null)!.canRedo).toBe(true);
      expect(told(brief())).toEqual(told(states[i]!));
    }
    expect(stepBack(db, id, "undo", null)).toMatchObject({ summary: null, canUndo: false });
    for (let i = 1; i <= does.length; i++) {
      stepBack(db, id, "redo", null);
      expect(told(brief())).toEqual(told(states[i]!));
    }
  });

  test("typing in one line is one step; another line is another", () => {
    for (const text of ["S", "Sk", "Ske"]) changeBrief(db, id, { lines: retext(0, text) }, "aaaaaaaa");
    changeBrief(db, id, { lines: retext(1, "O") }, "aaaaaaaa");
    stepBack(db, id, "undo", "aaaaaaaa");
    expect(texts()).toEqual(["Ske", "Open Night"]);
    expect(stepBack(db, id, "undo", "aaaaaaaa")!.summary).toBe("Line 1 changed");
    expect(texts()).toEqual(["Skerrow Light", "Open Night"]);
  });

  test("what is said to be a step of its own is undone by itself, though it follows typing in the same line", () => {
    changeBrief(db, id, { lines: retext(0, "Skerrow") }, "aaaaaaaa");
    changeBrief(db, id, { lines: retext(0, "Skerrow&"), step: true }, "aaaaaaaa");
    changeBrief(db, id, { lines: retext(0, "Skerrow& L") }, "aaaaaaaa");
    const undone = [1, 2, 3].map(() => stepBack(db, id, "undo", "aaaaaaaa") && texts()[0]);
    expect(undone).toEqual(["Skerrow&", "Skerrow", "Skerrow Light"]);
  });

  test("undo takes back one's own step and leaves what others did since", () => {
    changeBrief(db, id, { lines: retext(0, "Skerrow Lamp") }, "aaaaaaaa");
    changeBrief(db, id, { lines: retext(1, "Late Night"), ink: "#000000" }, "bbbbbbbb");
    stepBack(db, id, "undo", "aaaaaaaa");
    expect(texts()).toEqual(["Skerrow Light", "Late Night"]);
    expect(brief().ink).toBe("#000000");
  });

  test("steps before and after something else are told apart by the brief's version", () => {
    changeBrief(db, id, { ink: "#000000" });
    const between = brief().version;
    changeBrief(db, id, { paper: "#eeeeee" });
    expect(stepBack(db, id, "undo", null, { after: between })!.summary).toBe("Paper changed");
    expect(stepBack(db, id, "undo", null, { after: between })).toMatchObject({ summary: null, canUndo: true });
    stepBack(db, id, "undo", null);
    expect(stepBack(db, id, "redo", null, { upTo: between })!.summary).toBe("Ink changed");
    expect(stepBack(db, id, "redo", null, { upTo: between })).toMatchObject({ summary: null, canRedo: true });
  });

  test("what was undone before something else was done is not done again after it", () => {
    changeBrief(db, id, { ink: "#000000" });
    stepBack(db, id, "undo", null);
    // Here a tag was given, say, which is no step of the brief.
    const { version } = brief();
    expect(stepBack(db, id, "redo", null, { after: version })).toMatchObject({ summary: null });
    expect(brief().ink).not.toBe("#000000");
  });

  test("a new step ends what could be done again", () => {
    changeBrief(db, id, { ink: "#000000" });
    stepBack(db, id, "undo", null);
    changeBrief(db, id, { ink: "#111111" });
    expect(stepBack(db, id, "redo", null)).toMatchObject({ summary: null });
    expect(stepBack(db, "b_gone", "undo", null)).toBeNull();
  });
});

describe("keeping", () => {
  const thin = { wght: 250 };
  test("one face at several settings, each with its entry; by a style's id it is kept as it comes", () => {
    const plain = keepStyle(db, id, face, { role: "text" })!;
    const located = keepAt(db, id, { styleId: face, location: thin, features: { ss01: 1 } })!;
    expect(located.keptId).not.toBe(plain.keptId);
    expect(brief().kept.map((k) => [k.keptId, k.location, k.features])).toEqual([
      [plain.keptId, {}, {}],
      [located.keptId, thin, { ss01: 1 }],
    ]);
    expect(keepAt(db, id, { styleId: face, location: thin, features: { ss01: 1 } })!.keptId).toBe(located.keptId);
    expect(letGo(db, id, face)).toBe(true);
    expect(brief().kept.map((k) => k.keptId)).toEqual([located.keptId]);
    expect(letGo(db, id, located.keptId)).toBe(true);
    expect(letGo(db, id, located.keptId)).toBe(false);
  });

  test("one state a face: what is set aside is kept no longer, and undo keeps it as it was", () => {
    keepAt(db, id, { styleId: face, location: thin, note: "thin" });
    setAside(db, id, face, true);
    expect([brief().kept.length, brief().setAside]).toEqual([0, [face]]);
    stepBack(db, id, "undo", null);
    expect(brief().kept).toMatchObject([{ location: thin, note: "thin" }]);
  });
});

test("a copy is whole: fields, uses, colours, what is kept and set aside, the picture", () => {
  changeBrief(db, id, {
    client: "Skerrow Light Trust",
    medium: "A2",
    size: 84,
    unit: "in",
    ink: "#010203",
    paper: "#040506",
  });
  keepAt(db, id, { styleId: face, location: { wght: 300 }, note: "warm", favourite: true });
  putBriefPicture(db, id, { sha256: "ab", widthPx: 3, heightPx: 2, name: "quay.jpg" }, "2026-11-25");
  // As it comes over the wire: through the schema, which must not fill in defaults.
  const copy = createBrief(db, BriefCreate.parse({ name: "Copy", copyOf: id }))!;
  const same = ({ briefId: _i, name: _n, createdAt: _c, changedAt: _h, version: _v, kept, ...rest }: Brief) => ({
    ...rest,
    kept: kept.map(({ keptAt: _k, ...k }) => k),
  });
  expect(same(copy)).toEqual(same(brief()));
});
