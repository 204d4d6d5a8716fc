// What becomes of a font that was read: new, another file of a style that is there, or in the place of a poorer one; and what
// users add to its record. A real database in memory, real fonts of the made-up foundry.
import { beforeAll, beforeEach, describe, expect, test } from "@jest/globals";
import { openDataFolder } from "../../../tests/fixtures/dataFolder";
import { join } from "node:path";
import type { Evidence } from "@/contracts/rights";
import { SANS, type Design } from "../../../demo/foundry/design";
import { drawFace, type Face } from "../../../demo/foundry/face";
import { fontFacts, LETTERS } from "../../../tests/fixtures/fontFacts";
import { writeOpenType, writeTrueType, writeWoff } from "../../../demo/foundry/write/writeFont";
import { openDatabase, type Db } from "../db/open";
import { readStored, storedPath } from "../db/fileStore";
import readFont from "../workers/readFont.worker";
import { putLibrary } from "../queries/libraries";
import { listAlternatives, listChanges, listLog } from "../queries/records";
import { findStyle, listProvenance, setHidden } from "../queries/styles";
import { listFound } from "../usecases/findings";
import {
  addUserEvidence,
  MAX_USER_TEXTS,
  listLog as listLogLines,
  setUserEvidence,
  writeLogCsv,
} from "../usecases/provenance";
import { getStyleDetail, listGlyphs } from "../usecases/styleDetail";
import { takeFont } from "./takeFont";
import { storeReading } from "./storeReading";
import { StyleQuery } from "@/contracts/styles";

openDataFolder("take");

let few: Face;
let more: Face;
let other: Face;
beforeAll(() => {
  const d: Design = { ...SANS, stem: 88 };
  few = drawFace(d, { characters: LETTERS });
  more = drawFace(d, { characters: `${LETTERS}&+-.,:;!?` });
  other = drawFace({ ...d, stem: 120 }, { characters: LETTERS });
});
const facts = (family: string, style = "Regular") => fontFacts({ family, style });

let db: Db;
beforeEach(() => {
  db = openDatabase(":memory:");
  putLibrary(db, "own", "Own", "own", "2026-11-25");
});
const text = (kind: Evidence["kind"], words: string): Evidence => ({
  kind,
  source: `${kind}.txt`,
  date: "2026-11-25",
  text: words,
});
async function take(bytes: Uint8Array, path: string, evidence: Evidence[] = []) {
  const reply = await readFont({ bytes, fallbackFamily: "Unnamed" });
  if (!reply.ok) throw new Error(reply.detail);
  return takeFont(db, bytes, reply.reading, { libraryId: "own", path, statedFamily: null, evidence });
}
/** The font with a wrong checksum in the entry of its glyf table. */
function damage(bytes: Uint8Array): Uint8Array {
  const out = bytes.slice();
  const view = new DataView(out.buffer);
  for (let i = 0; i < view.getUint16(4); i++)
    if (view.getUint32(12 + 16 * i) === 0x676c7966) view.setUint32(16 + 16 * i, view.getUint32(16 + 16 * i) ^ 1);
  return out;
}
const rows = () => listFound(db, StyleQuery.parse({})).total;
const verdictOf = (styleId: string) => findStyle(db, styleId)!.rights.verdicts["goods-for-sale"].verdict;

describe("twins", () => {
  test("OTF first: the TTF is an alternative, and both files are kept", async () => {
    const [otf, ttf] = [writeOpenType(few, facts("Mole")), writeTrueType(few, facts("Mole"))];
    const first = await take(otf, "Mole.otf");
    const second = await take(ttf, "Mole.ttf");
    expect(first).toMatchObject({ outcome: "added" });
    expect(second).toMatchObject({
      outcome: "already-there",
      code: "less-rich",
      styleId: first.styleId,
      as: "Mole Regular",
    });
    expect(listAlternatives(db, first.styleId).map((a) => a.format)).toEqual(["ttf"]);
    expect(readStored(listAlternatives(db, first.styleId)[0]!.sha256)).toEqual(ttf);
    expect(listProvenance(db, first.styleId).map((p) => p.path)).toEqual(["Mole.otf", "Mole.ttf"]);
    expect(getStyleDetail(db, first.styleId, null)!.formats).toEqual(["otf", "ttf"]);
    expect(rows()).toBe(1);
  });

  test("TTF first: the richer OTF takes its place under the same id; what was kept for a brief stays kept", async () => {
    const first = await take(writeTrueType(few, facts("Mole")), "Mole.ttf");
    const second = await take(writeOpenType(few, facts("Mole")), "Mole.otf");
    expect(second).toMatchObject({ outcome: "added", code: "richer-taken", styleId: first.styleId });
    expect(findStyle(db, first.styleId)!.format).toBe("otf");
    expect(listAlternatives(db, first.styleId).map((a) => a.format)).toEqual(["ttf"]);
    expect(listChanges(db, first.styleId)[0]).toMatchObject({
      what: "file",
      says: expect.stringMatching(/Mole\.otf took the place/),
    });
  });

  test("more characters are richer than a better format", async () => {
    const first = await take(writeOpenType(few, facts("Mole")), "Mole.otf");
    const second = await take(writeTrueType(more, facts("Mole")), "Mole full.ttf");
    expect(second).toMatchObject({ code: "richer-taken", styleId: first.styleId });
    expect(findStyle(db, first.styleId)!.format).toBe("ttf");
  });

  test("the same letters under another name are a style of their own; WOFF of the same is not", async () => {
    const first = await take(writeTrueType(few, facts("Mole")), "Mole.ttf");
    const copy = await take(writeTrueType(few, facts("Quay")), "Quay.ttf");
    expect(copy).toMatchObject({ outcome: "added", code: "letters-of-another", as: "Mole Regular" });
    expect(copy.styleId).not.toBe(first.styleId);
    expect(await take(writeWoff(writeTrueType(few, facts("Mole"))), "Mole.woff")).toMatchObject({ code: "less-rich" });
    expect(rows()).toBe(2);
    const said = (id: string) => findStyle(db, id)!.rights.sameLetters!.map((o) => o.name);
    expect([said(first.styleId), said(copy.styleId)]).toEqual([["Quay Regular"], ["Mole Regular"]]);
  });

  test("a damaged file never replaces a sound one, however much it holds", async () => {
    const first = await take(writeOpenType(few, facts("Mole")), "Mole.otf");
    const bytes = writeTrueType(more, facts("Mole"));
    // A byte of a glyph changed: the checksum of its table no longer holds.
    const reply = await readFont({ bytes: damage(bytes), fallbackFamily: "x" });
    if (!reply.ok) throw new Error(reply.detail);
    expect(reply.reading.opened.health.degree).toBe("with-care");
    const source = { libraryId: "own", path: "Mole full.ttf", statedFamily: null, evidence: [] };
    expect(await takeFont(db, damage(bytes), reply.reading, source)).toMatchObject({ outcome: "already-there" });
    expect(findStyle(db, first.styleId)!.format).toBe("otf");
  });

  test("relatives are no twins: another weight, other letters", async () => {
    await take(writeTrueType(few, facts("Mole")), "Mole.ttf");
    expect(await take(writeTrueType(other, facts("Mole", "Bold")), "Bold.ttf")).toMatchObject({ outcome: "added" });
    const script = drawFace({ ...SANS, stem: 88, storeys: 1 }, { characters: LETTERS });
    expect(await take(writeTrueType(script, facts("Mole One")), "One.ttf")).toMatchObject({ outcome: "added" });
    expect(rows()).toBe(3);
  });

  test("terms that come with an alternative count for the style", async () => {
    const first = await take(writeOpenType(few, facts("Mole")), "Mole.otf");
    expect(verdictOf(first.styleId)).toBe("unread");
    await take(writeTrueType(few, facts("Mole")), "Mole.ttf", [
      text("licence-file", "Licensed under the SIL Open Font License, Version 1.1."),
    ]);
    expect(verdictOf(first.styleId)).toBe("cleared");
    expect(listChanges(db, first.styleId).map((c) => c.what)).toContain("rights");
    await take(writeWoff(writeTrueType(few, facts("Mole"))), "Mole.woff", [text("readme", "Personal use only.")]);
    expect(verdictOf(first.styleId)).toBe("not-for-this-use");
    expect(findStyle(db, first.styleId)!.rights.contradictions!.length).toBeGreaterThan(0);
  });
});

test("glyphs are those of the file that is there now", async () => {
  const asked = { q: "", limit: 200, cursor: undefined, block: undefined, kind: undefined } as never;
  const count = async (id: string) => {
    const page = await listGlyphs(db, id, asked);
    return page.ok && page.value.total;
  };
  const { styleId } = await take(writeTrueType(few, facts("Mole")), "Mole.ttf");
  const before = await count(styleId);
  const bytes = writeTrueType(more, facts("Mole"));
  const reply = await readFont({ bytes, fallbackFamily: "x" });
  if (!reply.ok) throw new Error(reply.detail);
  const source = { libraryId: "own", path: "Mole.ttf", statedFamily: null, evidence: [], styleId: styleId as never };
  await storeReading(db, bytes, reply.reading, source);
  expect(await count(styleId)).toBeGreaterThan(before as number);
});

describe("what users add", () => {
  test("a note is evidence; a permission in writing lifts; both can be taken back, the log keeps all", async () => {
    const { styleId } = await take(writeTrueType(few, facts("Mole")), "Mole.ttf", [
      text("readme", "Free for personal use. For commercial use please ask me."),
    ]);
    expect(verdictOf(styleId)).toBe("ask-maker");
    const added = await addUserEvidence(db, styleId, {
      kind: "receipt",
      text: "You may use it on goods for sale.",
      note: "mail",
    });
    const id = added.ok ? added.value.evidenceId : "";
    expect(verdictOf(styleId)).toBe("cleared");
    const evidence = getStyleDetail(db, styleId, null)!.rights.evidence;
    expect(evidence[0]).toMatchObject({ kind: "receipt", note: "mail", evidenceId: id });
    expect(await setUserEvidence(db, styleId, id, true)).toBe(true);
    expect(await setUserEvidence(db, styleId, id, true)).toBe(false);
    expect(verdictOf(styleId)).toBe("ask-maker");
    expect(await setUserEvidence(db, styleId, id, false)).toBe(true);
    expect(verdictOf(styleId)).toBe("cleared");
    expect(listChanges(db, styleId).filter((c) => c.what === "evidence")).toHaveLength(3);
  });

  test("a note alone can make it stricter, and never lifts a denial", async () => {
    const { styleId } = await take(writeTrueType(few, facts("Mole")), "Mole.ttf", [
      text("readme", "Personal use only."),
    ]);
    await addUserEvidence(db, styleId, { kind: "user", text: "Free for commercial use.", note: "" });
    expect(verdictOf(styleId)).toBe("not-for-this-use");
  });

  test("nothing is added to a style that is gone", async () =>
    expect(await addUserEvidence(db, "s_gone", { kind: "user", text: "abc", note: "" })).toMatchObject({
      code: "not-found",
    }));

  test("only so many texts are added to one font: all are read again with each", async () => {
    const { styleId } = await take(writeTrueType(few, facts("Mole")), "Mole.ttf");
    const add = (i: number) =>
      addUserEvidence(db, styleId, { kind: "user", text: `Free for use ${i}.`, note: "" }).then((a) => a.ok);
    const all = [];
    for (let i = 0; i <= MAX_USER_TEXTS; i++) all.push(await add(i));
    expect(all).toEqual([...Array.from({ length: MAX_USER_TEXTS }, () => true), false]);
    const { evidenceId } = getStyleDetail(db, styleId, null)!.rights.evidence.find((e) => e.evidenceId)!;
    await setUserEvidence(db, styleId, evidenceId!, true);
    expect(await add(99)).toBe(true);
    expect(await setUserEvidence(db, styleId, evidenceId!, false)).toBe(false);
  });

  test("what was added stays when the file is read again", async () => {
    const bytes = writeTrueType(few, facts("Mole"));
    const { styleId } = await take(bytes, "Mole.ttf");
    await addUserEvidence(db, styleId, { kind: "receipt", text: "You may use it on goods for sale.", note: "" });
    const reply = await readFont({ bytes, fallbackFamily: "x" });
    if (reply.ok)
      await storeReading(db, bytes, reply.reading, {
        libraryId: "own",
        path: "Mole.ttf",
        statedFamily: null,
        evidence: [],
      });
    expect(verdictOf(styleId)).toBe("cleared");
  });
});

describe("the font log", () => {
  test("is searched by face, file, library and hash; CSV keeps its columns", async () => {
    await take(writeTrueType(few, facts("Mole")), "zips/Mole.ttf");
    await take(writeTrueType(other, facts('Quay, "the"')), "Quay.ttf");
    expect(listLog(db, "", 10, 0).total).toBe(2);
    for (const [q, n] of [
      ["mole", 1],
      ["zips/", 1],
      ["own", 2],
      ["nothing", 0],
    ] as const)
      expect([q, listLogLines(db, q, 10, 0).total]).toEqual([q, n]);
    const sha = listLogLines(db, "mole", 10, 0).lines[0]!.sha256;
    expect(listLogLines(db, sha.slice(0, 16), 10, 0).total).toBe(1);
    expect(listLogLines(db, "", 1, 0)).toMatchObject({ total: 2, cursor: "1" });
    const csv = writeLogCsv(db, "");
    expect(csv.split(/\r?\n/)[0]).toMatch(/^\uFEFF?family,style,library,path/);
    expect(csv).toContain('"Quay, ""the"""');
  });
});

describe("faces that are not owned", () => {
  const offer = {
    publicationId: "p",
    settingUrl: "http://x{?text}",
    buyUrl: "http://x",
    currency: "EUR",
    pricesCents: { "client-print": 2900, logo: 6900 },
  };
  async function trial() {
    const bytes = writeTrueType(few, facts("Lantern"));
    const reply = await readFont({ bytes, fallbackFamily: "x" });
    if (!reply.ok) throw new Error(reply.detail);
    return storeReading(db, bytes, reply.reading, {
      libraryId: "own",
      path: "trial.ttf",
      statedFamily: "Lantern",
      evidence: [text("library", "A licence must be bought for print: 29.00 EUR.")],
      trial: { coverage: [[32, 126]] },
      offer,
    });
  }

  test("are found with their price and stated coverage, hidden and shown with their library", async () => {
    const styleId = await trial();
    const detail = getStyleDetail(db, styleId, null)!;
    expect(detail).toMatchObject({
      owned: false,
      coverage: { count: 95 },
      offer: { currency: "EUR", hasSetting: true },
    });
    expect(listFound(db, StyleQuery.parse({ owned: "to-buy" })).total).toBe(1);
    expect(listFound(db, StyleQuery.parse({ owned: "here" })).total).toBe(0);
    expect(setHidden(db, "own", true)).toBe(1);
    expect(rows()).toBe(0);
    expect(getStyleDetail(db, styleId, null)).toBeNull();
    setHidden(db, "own", false);
    expect(rows()).toBe(1);
  });

  test("are no twins for what comes in", async () => {
    await trial();
    expect(await take(writeTrueType(few, facts("Mole")), "Mole.ttf")).toMatchObject({ outcome: "added" });
  });
});

test("files lie where their hash says", async () => {
  const { styleId } = await take(writeTrueType(few, facts("Mole")), "Mole.ttf");
  const { sha256 } = findStyle(db, styleId)!;
  expect(storedPath(sha256).endsWith(join("store", sha256.slice(0, 2), sha256))).toBe(true);
});
