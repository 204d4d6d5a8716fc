// A data folder as the program of commit 58a82cd left it (tests/fixtures/dataOf58a82cd.zip, made by that program): it opens, nothing of it is
// lost, and what its pipeline read is read again.
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { unzipSync } from "fflate";
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { PIPELINE } from "@/contracts/pipeline";
import { getDb, isSound, type Db } from "@/server/db/open";
import { finishReading, rereadStyles } from "@/server/jobs/finishReading";
import { listBriefs } from "@/server/queries/briefs";
import { listTags } from "@/server/queries/finding";
import { listJobsIn } from "@/server/queries/jobs";
import { listStages, listStaleStyles } from "@/server/queries/stages";
import { findSignature, findStyle } from "@/server/queries/styles";
import { listKeptItems } from "@/server/usecases/findings";
import { listSearches } from "@/server/usecases/searches";
import { getStyleDetail } from "@/server/usecases/styleDetail";
import { closePools } from "@/server/workers/pool";

const REGULAR = "s_1a130330a1a1980069c7";
const BOLD = "s_2f475f9bbe524013e154";
const HARBOUR = "s_4063f43479ac432a4377";
const VERSIONS = Object.fromEntries(PIPELINE.map((p) => [p.stage, p.version]));

const data = mkdtempSync(join(tmpdir(), "fond-quarry-upgrade-"));
let db: Db;
beforeAll(() => {
  for (const [name, bytes] of Object.entries(unzipSync(readFileSync("tests/fixtures/dataOf58a82cd.zip")))) {
    mkdirSync(join(data, dirname(name)), { recursive: true });
    writeFileSync(join(data, name), bytes);
  }
  process.env.FOND_QUARRY_DATA = data;
  db = getDb();
});
afterAll(() => {
  closePools();
  db.close();
  rmSync(data, { recursive: true, force: true });
});

const briefOfThen = () => listBriefs(db).find((b) => b.name === "Tide tables")!;

describe("a folder of 58a82cd", () => {
  test("opens whole", () => expect(isSound(db)).toBe(true));

  test("has its brief with every field, what is kept and what is set aside", () => {
    const brief = briefOfThen();
    expect(brief).toMatchObject({
      client: "Skerrow Light Trust",
      note: "Before the change",
      uses: ["client-print"],
      size: 30,
      unit: "mm",
      ink: "#1C6B74",
      wanted: "&",
      setAside: [BOLD],
    });
    expect(brief.lines.map((l) => [l.role, l.text])).toEqual([
      ["title", "High water 04:52"],
      ["second", "Low water"],
    ]);
    expect(brief.kept.map((k) => [k.styleId, k.role, k.note, k.favourite, k.location, k.features])).toEqual([
      [REGULAR, "title", "for the heading", true, {}, {}],
      [HARBOUR, "", "", false, {}, {}],
    ]);
  });

  test("has its tags, its searches and the terms that were added", () => {
    expect(listTags(db)).toMatchObject([{ tag: "harbour", holds: true }]);
    expect(listSearches(db)).toMatchObject([{ name: "Heavy ones", address: "q=heavy" }]);
    const { rights } = getStyleDetail(db, HARBOUR, null)!;
    expect(rights.evidence.find((e) => e.kind === "user")).toMatchObject({
      text: "The maker wrote: use it for prints.",
    });
    expect(getStyleDetail(db, REGULAR, null)!.rights.evidence.map((e) => e.kind)).toContain("licence-file");
  });

  test("is read again by a job: the numbers of its pipeline tell nothing of stages", () => {
    expect(listStaleStyles(db).sort()).toEqual([REGULAR, BOLD, HARBOUR]);
    finishReading(db);
    expect(listJobsIn(db, "waiting").map((j) => j.kind)).toEqual(["reread"]);
  });

  test("read again, every stage is of now, and names, terms, tags and what is kept are as they were", async () => {
    const before = [REGULAR, BOLD, HARBOUR].map((id) => getStyleDetail(db, id, null)!);
    await rereadStyles({ job: {} as never, signal: new AbortController().signal, progress: () => {} });
    for (const was of before) {
      const style = findStyle(db, was.styleId)!;
      expect(listStages(db, was.styleId)).toEqual(VERSIONS);
      expect([style.family, style.style]).toEqual([was.family, was.style]);
      expect(style.traits.stemEm).toBeCloseTo(was.traits.stemEm!, 2);
      expect(findSignature(db, was.styleId)!.length).toBeGreaterThan(1000);
      const { rights } = getStyleDetail(db, was.styleId, null)!;
      expect(rights.verdicts).toEqual(was.rights.verdicts);
      expect(rights.evidence.map((e) => e.text).sort()).toEqual(was.rights.evidence.map((e) => e.text).sort());
    }
    expect(listStaleStyles(db)).toEqual([]);
    expect(listKeptItems(db, briefOfThen()).map((i) => i.styleId)).toEqual([REGULAR, HARBOUR]);
    expect(listTags(db)).toHaveLength(1);
  }, 60_000);

  test("of a stage that changes later, only that and what needs it runs again", async () => {
    const before = findStyle(db, REGULAR)!;
    db.prepare("UPDATE style_stages SET version = 1 WHERE stage = 'described' AND style_id = ?").run(REGULAR);
    db.prepare("UPDATE signatures SET signature = x'00' WHERE style_id = ?").run(REGULAR);
    db.prepare("UPDATE styles SET traits = json_set(traits, '$.weight', 555) WHERE style_id = ?").run(REGULAR);
    await rereadStyles({ job: {} as never, signal: new AbortController().signal, progress: () => {} });
    expect(findSignature(db, REGULAR)!.length).toBeGreaterThan(1000);
    // What was not to run did not: the measure that was changed by hand is still there.
    expect(findStyle(db, REGULAR)!.traits.weight).toBe(555);
    expect(findStyle(db, REGULAR)!.addedAt).toBe(before.addedAt);
    expect(listStaleStyles(db)).toEqual([]);
  }, 30_000);
});
