// Passes, tags, saved searches, likeness, pages of the wall and the picture of a brief on a real database.
import { beforeEach, describe, expect, test } from "@jest/globals";
import { openDataFolder } from "../../../tests/fixtures/dataFolder";
import { makeFont, type FontPlan } from "../../../tests/fixtures/makeFont";
import type { StyleId } from "@/contracts/ids";
import { Pass } from "@/contracts/passes";
import { AlikeList, StyleDetail, StyleList, StyleQuery, Suggestions } from "@/contracts/styles";
import { valueOf } from "../../../tests/fixtures/outcomes";
import { openDatabase, type Db } from "../db/open";
import type { FontReading } from "@/core/read/readFont";
import readFont from "../workers/readFont.worker";
import { findBrief } from "../queries/briefs";
import { updateReading, findStyle } from "../queries/styles";
import { forgetKeywords, putKeywords } from "../queries/finding";
import { putLibrary } from "../queries/libraries";
import { listAlike } from "./alike";
import { createBrief, keepStyle, setAside } from "./briefs";
import { listFound, listItems, listSuggestions } from "./findings";
import { getLanguages, setsLanguage } from "./languages";
import {
  beginPass,
  changePass,
  forgetPass,
  getPass,
  listPassItems,
  listPassSummaries,
  markPlace,
  unmarkPlace,
} from "./passes";
import { forgetSearch, listSearches, saveSearch, tagStyle } from "./searches";
import { storeReading } from "../store/storeReading";
import { Beside, BesideQuery } from "@/contracts/identify";
import { getAnatomy, getBeside, getStyleDetail, listGlyphs } from "./styleDetail";

let db: Db;
let ids: StyleId[] = [];
let briefId = "";
openDataFolder("finding");

/** Fonts are read once; every test stores the readings into a database of its own. */
const readings = new Map<string, Promise<{ bytes: Uint8Array; reading: FontReading }>>();

async function store(plan: FontPlan): Promise<StyleId> {
  const key = JSON.stringify(plan);
  if (!readings.has(key)) readings.set(key, read(plan));
  const { bytes, reading } = await readings.get(key)!;
  return storeReading(db, bytes, reading, {
    libraryId: "open",
    path: `${reading.family}.otf`,
    statedFamily: null,
    evidence: [],
  });
}

async function read(plan: FontPlan): Promise<{ bytes: Uint8Array; reading: FontReading }> {
  const bytes = makeFont(plan);
  const reply = await readFont({ bytes, fallbackFamily: "Unnamed" });
  if (!reply.ok) throw new Error(reply.detail);
  return { bytes, reading: reply.reading };
}

beforeEach(async () => {
  db = openDatabase(":memory:");
  putLibrary(db, "open", "Open", "folder", "2026-11-25");
  ids = [];
  for (const [family, stem, serif] of [
    ["Skerry", 60, 0],
    ["Voe", 90, 0],
    ["Tarn", 120, 40],
    ["Kelp", 150, 40],
    ["Brine", 190, 0],
  ] as const)
    ids.push(await store({ family, stem, serif, without: family === "Kelp" ? "&" : "" }));
  briefId = createBrief(db, { name: "B", lines: [{ text: "Wren & Tern", role: "title" }], uses: ["web"] })!.briefId;
});
const found = (query: object) => listFound(db, StyleQuery.parse({ briefId, ...query }));
const begin = (question = "sort=name") => valueOf(beginPass(db, briefId, { question, title: "All" }));

describe("pages of the wall", () => {
  test("have the promised form; what many styles share is sent once", () => {
    const list = found({ sort: "name" });
    expect(StyleList.safeParse(list).error).toBeUndefined();
    expect(list.families).toBe(5);
    expect(Object.keys(list.coverages)).toHaveLength(2);
    for (const i of list.items) expect(list.coverages[i.coverageKey]).toBeDefined();
  });

  test("the same question is answered from what is kept, another brief's words again", () => {
    const before = found({ complete: "true" });
    expect(found({ complete: "true" }).items).toEqual(before.items);
    expect(before.total).toBe(4);
    const other = createBrief(db, { name: "C", lines: [{ text: "Wren", role: "title" }] })!;
    expect(found({ complete: "true", briefId: other.briefId }).total).toBe(5);
  });

  test("most kept first", () => {
    keepStyle(db, briefId, ids[3]!, {});
    const other = createBrief(db, { name: "C" })!;
    keepStyle(db, other.briefId, ids[3]!, {});
    keepStyle(db, other.briefId, ids[1]!, {});
    expect(
      found({ sort: "popular" })
        .items.map((i) => i.family)
        .slice(0, 2),
    ).toEqual(["Kelp", "Voe"]);
  });

  test("items come in the order asked for; those that are gone are left out", () => {
    const brief = findBrief(db, briefId)!;
    expect(listItems(db, brief, [ids[4]!, "s_gone", ids[0]!]).map((i) => i.family)).toEqual(["Brine", "Skerry"]);
  });

  test("suggestions have the promised form", () => {
    const some = listSuggestions(db, "sker");
    expect(Suggestions.safeParse(some).error).toBeUndefined();
    expect(some.suggestions[0]).toMatchObject({ kind: "family", label: "Skerry" });
  });
});

describe("a pass", () => {
  test("holds what was found, without what is kept already", () => {
    keepStyle(db, briefId, ids[2]!, {});
    const pass = begin();
    expect(Pass.safeParse(pass).error).toBeUndefined();
    expect(pass.styleIds).toEqual([ids[4], ids[3], ids[0], ids[1]]);
    expect(pass).toMatchObject({ total: 4, done: 0, next: 0, marks: [] });
    expect(listPassItems(db, briefId, pass.passId, 1, 2)!.map((i) => i.family)).toEqual(["Kelp", "Skerry"]);
  });

  test("marks take effect in the brief at once, and the next place is told", () => {
    const { passId } = begin();
    markPlace(db, briefId, passId, 0, "kept");
    markPlace(db, briefId, passId, 1, "aside");
    markPlace(db, briefId, passId, 2, "left");
    const brief = findBrief(db, briefId)!;
    expect(brief.kept.map((k) => k.styleId)).toEqual([ids[4]]);
    expect(brief.setAside).toEqual([ids[3]]);
    expect(getPass(db, briefId, passId)).toMatchObject({ done: 3, kept: 1, aside: 1, next: 3 });
    expect(listPassSummaries(db, briefId)).toMatchObject([{ done: 3, total: 5 }]);
  });

  test("undoing gives back what was before, also a face that had been set aside or kept otherwise", () => {
    const { passId } = begin("sort=name&aside=show");
    setAside(db, briefId, ids[4]!, true);
    markPlace(db, briefId, passId, 0, "kept");
    expect(findBrief(db, briefId)).toMatchObject({ setAside: [] });
    unmarkPlace(db, briefId, passId, 0);
    expect(findBrief(db, briefId)).toMatchObject({ setAside: [ids[4]], kept: [] });
    keepStyle(db, briefId, ids[3]!, { role: "title" });
    markPlace(db, briefId, passId, 1, "kept");
    unmarkPlace(db, briefId, passId, 1);
    expect(findBrief(db, briefId)!.kept).toMatchObject([{ styleId: ids[3], role: "title" }]);
    expect(unmarkPlace(db, briefId, passId, 1)).toBeNull();
  });

  test("a second mark at a place takes the first one's place", () => {
    const { passId } = begin();
    markPlace(db, briefId, passId, 0, "aside");
    markPlace(db, briefId, passId, 0, "kept");
    expect(findBrief(db, briefId)).toMatchObject({ setAside: [], kept: [{ styleId: ids[4] }] });
    unmarkPlace(db, briefId, passId, 0);
    expect(findBrief(db, briefId)).toMatchObject({ setAside: [], kept: [] });
  });

  test("ended, taken up again, forgotten", () => {
    const { passId } = begin();
    expect(changePass(db, briefId, passId, { ended: true })!.endedAt).not.toBeNull();
    markPlace(db, briefId, passId, 0, "left");
    unmarkPlace(db, briefId, passId, 0);
    expect(getPass(db, briefId, passId)!.endedAt).toBeNull();
    expect(forgetPass(db, "b_other", passId)).toBe(false);
    expect(forgetPass(db, briefId, passId)).toBe(true);
    expect(getPass(db, briefId, passId)).toBeNull();
  });

  test("what cannot be is told apart", () => {
    expect(beginPass(db, "b_gone", { question: "", title: "x" })).toMatchObject({ code: "not-found" });
    expect(beginPass(db, briefId, { question: "limit=many", title: "x" })).toMatchObject({ code: "bad-request" });
    expect(beginPass(db, briefId, { question: "q=blackletter", title: "x" })).toMatchObject({ code: "nothing-found" });
    const { passId } = begin();
    expect(markPlace(db, briefId, passId, 99, "kept")).toBeNull();
    expect(markPlace(db, "b_other", passId, 0, "kept")).toBeNull();
    expect(changePass(db, "b_other", passId, { ended: true })).toBeNull();
    expect(listPassItems(db, "b_other", passId, 0, 5)).toBeNull();
  });
});

describe("words of the user", () => {
  test("are found by, hold for the family, and are taken back", () => {
    expect(tagStyle(db, ids[0]!, "lamplit", true)).toEqual({ tags: [{ tag: "lamplit", holds: true }] });
    expect(found({ q: "lamplit" }).items.map((i) => i.family)).toEqual(["Skerry"]);
    expect(found({ q: "not lamplit" }).total).toBe(4);
    expect(found({ moods: "lamplit" }).facets.moods.lamplit).toBe(1);
    tagStyle(db, ids[0]!, "lamplit", null);
    expect(found({ q: "lamplit" }).understood.ignored).toEqual(["lamplit"]);
    expect(tagStyle(db, "s_gone", "x", true)).toBeNull();
  });

  test("deny what was measured", () => {
    const loud = found({ moods: "loud" }).items;
    expect(loud.length).toBeGreaterThan(0);
    for (const i of loud) tagStyle(db, i.styleId, "loud", false);
    expect(found({ moods: "loud" }).total).toBe(0);
  });
});

describe("words of a library", () => {
  const publication = { libraryId: "open", publicationId: "p" };

  test("are found by, with what is nearest to them behind, until the library or the user says otherwise", () => {
    putKeywords(db, publication, [ids[0]!], ["lamplit", "tea room"]);
    expect(found({ q: "lamplit" }).items.map((i) => i.family)).toEqual(["Skerry"]);
    expect(getStyleDetail(db, ids[0]!, briefId)!.keywords.map((k) => k.keyword)).toEqual(["lamplit", "tea room"]);
    // The user's word counts more.
    tagStyle(db, ids[0]!, "lamplit", false);
    expect(found({ q: "lamplit" }).understood.ignored).toEqual(["lamplit"]);
    tagStyle(db, ids[0]!, "lamplit", null);
    expect(found({ q: "lamplit" }).total).toBe(1);
    putKeywords(db, publication, [ids[0]!], ["tea room"]);
    expect(found({ q: "lamplit" }).understood.ignored).toEqual(["lamplit"]);
    forgetKeywords(db, "open");
    expect(getStyleDetail(db, ids[0]!, briefId)!.keywords).toEqual([]);
  });

  test("said again, they make nothing new", () => {
    const seq = () => db.prepare("SELECT max(seq) FROM styles").pluck().get();
    putKeywords(db, publication, [ids[0]!], ["lamplit"]);
    const before = seq();
    putKeywords(db, publication, [ids[0]!, ids[0]!], ["lamplit", "lamplit"]);
    expect(seq()).toBe(before);
  });
});

describe("saved searches", () => {
  test("the newest first, forgotten once", () => {
    const a = saveSearch(db, { name: "Slabs", address: "q=slab" });
    expect(listSearches(db)).toEqual([a]);
    expect(forgetSearch(db, a.searchId)).toBe(true);
    expect(forgetSearch(db, a.searchId)).toBe(false);
  });
});

describe("likeness", () => {
  test("the nearest first, with differences, in the promised form; itself is not among them", () => {
    const list = listAlike(db, ids[1]!, StyleQuery.parse({ briefId }))!;
    expect(AlikeList.safeParse(list).error).toBeUndefined();
    expect(list.items.map((i) => i.styleId)).not.toContain(ids[1]);
    expect(list.items).toHaveLength(4);
    const distances = list.items.map((i) => i.distance);
    expect(distances).toEqual([...distances].sort((a, b) => a - b));
    expect(list.items[0]!.family).toBe("Skerry");
    expect(listAlike(db, "s_gone", StyleQuery.parse({}))).toBeNull();
  });

  test("with something changed", () => {
    const heavier = listAlike(db, ids[1]!, StyleQuery.parse({ briefId, q: "heavier" }))!;
    expect(heavier.items.map((i) => i.family).sort()).toEqual(["Brine", "Kelp", "Tarn"]);
    expect(heavier.understood.words.map((w) => w.label)).toEqual(["heavier"]);
  });
});

describe("a style", () => {
  test("in the promised form, with its place in the library, its languages and its parts", async () => {
    tagStyle(db, ids[2]!, "harbour", true);
    const detail = getStyleDetail(db, ids[2]!, briefId)!;
    expect(StyleDetail.safeParse(detail).error).toBeUndefined();
    expect(detail.tags).toEqual([{ tag: "harbour", holds: true }]);
    expect(detail.spread.weight!.above).toBeCloseTo(0.4);
    expect(detail.spread.weight!.bins.reduce((a, b) => a + b, 0)).toBe(5);
    expect(detail.notes.confidence.stemEm).toBeGreaterThan(0);
    expect(detail.languages.length).toBeLessThan(detail.languagesOf);
    const anatomy = valueOf(await getAnatomy(db, ids[2]!));
    expect(anatomy.letters.map((l) => l.char)).toContain("h");
    expect(await getAnatomy(db, "s_gone")).toMatchObject({ ok: false, code: "not-found" });
  });

  test("beside another in one letter", async () => {
    const besideR = (query: Record<string, string>) =>
      getBeside(db, ids[0]!, BesideQuery.parse({ letter: "R", ...query }));
    const beside = valueOf(await besideR({ other: ids[2]! }));
    expect(Beside.safeParse(beside).error).toBeUndefined();
    expect(beside.paths[0]).not.toBe(beside.paths[1]);
    for (const query of [
      { other: "s_000000000000", letter: "R" },
      { other: ids[2]!, letter: "字" },
    ])
      expect(await besideR(query)).toMatchObject({ ok: false, code: "not-found" });
    // A face of no axes is the same at any setting.
    expect(valueOf(await besideR({ other: ids[2]!, at: '{"wght":700}', otherAt: "{}" }))).toEqual(beside);
    for (const wrong of [{ letter: "Rx" }, { letter: "R", at: "bold" }, { letter: "R", otherAt: '{"wght":"700"}' }])
      expect(BesideQuery.safeParse({ other: ids[2], ...wrong }).success).toBe(false);
  });

  test("its glyphs by kind", async () => {
    const figures = valueOf(await listGlyphs(db, ids[0]!, { kind: "figures", limit: 50 }));
    expect(figures.total).toBe(10);
    expect(figures.kinds.figures).toBe(10);
    expect(figures.kinds.capitals).toBeGreaterThan(20);
  });

  test("what was measured again is found by, and all else of the style stays", () => {
    const style = findStyle(db, ids[0]!)!;
    updateReading(db, ids[0]!, { traits: { ...style.traits, weight: 777 } });
    expect(findStyle(db, ids[0]!)).toEqual({
      ...style,
      seq: expect.any(Number),
      traits: { ...style.traits, weight: 777 },
    });
    expect(found({ traits: "weight:770~780" }).total).toBe(1);
  });
});

describe("languages", () => {
  test("come from CLDR with their names, and need every letter", () => {
    const { byCode, byName, list } = getLanguages();
    expect(list.length).toBeGreaterThan(200);
    expect(byName.get("icelandic")).toBe("is");
    const german = byCode.get("de")!;
    const has = (text: string) => german.characters.includes(text.codePointAt(0)!);
    expect(["ä", "Ä", "ß", "z"].every(has)).toBe(true);
    expect(setsLanguage([[0x20, 0x7e]], german)).toBe(false);
    expect(setsLanguage([[0x20, 0x17f]], german)).toBe(true);
  });
});
