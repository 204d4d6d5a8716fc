import { beforeEach, describe, expect, test } from "@jest/globals";
import { openDataFolder } from "../../../tests/fixtures/dataFolder";
import { join } from "node:path";
import { BriefFields } from "@/contracts/brief";
import { findStale, FIRST_STAGES, PIPELINE, STAGES } from "@/contracts/pipeline";
import { StyleList, StyleQuery } from "@/contracts/styles";
import { demoBytes } from "../../../tests/fixtures/demoFont";
import { makeFont } from "../../../tests/fixtures/makeFont";
import { migrate, openDatabase, type Db } from "../db/open";
import { readStored, sha256Of, storedPath, storeFile } from "../db/fileStore";
import readFont from "../workers/readFont.worker";
import { changeBrief, checkStyle, createBrief, deleteBrief, keepStyle, letGo, setAside } from "../usecases/briefs";
import { listFound, listKeptItems } from "../usecases/findings";
import { gatherShortlist, writeShortlistCredits, writeShortlistCsv } from "../usecases/shortlist";
import { storeReading } from "../store/storeReading";
import { getStyleDetail, listGlyphs } from "../usecases/styleDetail";
import { findBrief, listBriefs, listKept } from "./briefs";
import { listLibraries, putLibrary } from "./libraries";
import { findJob, insertJob, listImportItems, listJobs, listJobsIn, putImportItem, updateJob } from "./jobs";
import { countStyles, findStyle, findStyleBySha, lastSeq, listProvenance, eachStyleSince } from "./styles";
import { isReadFirst, listStages, listStaleStyles, putStages } from "./stages";
import { lastSignatureVersion, listSignaturesSince } from "./signatures";
import { valueOf } from "../../../tests/fixtures/outcomes";

let db: Db;
const changed = (...asked: Parameters<typeof changeBrief>) => valueOf(changeBrief(...asked));
openDataFolder("unit");

beforeEach(() => {
  db = openDatabase(":memory:");
  putLibrary(db, "open", "Open", "folder", "2026-11-25");
});

/** Takes a font through the whole pipeline into the database, as the jobs do. */
async function store(bytes: Uint8Array, path: string, licence?: string) {
  const reply = await readFont({ bytes, fallbackFamily: "Unnamed" });
  if (!reply.ok) throw new Error(reply.detail);
  const evidence = licence
    ? [{ kind: "licence-file" as const, source: "LICENSE", date: "2026-11-25", text: licence }]
    : [];
  return storeReading(db, bytes, reply.reading, { libraryId: "open", path, statedFamily: null, evidence });
}
const OFL = "This Font Software is licensed under the SIL Open Font License, Version 1.1.";

describe("migrations", () => {
  test("run once, in order", () => {
    expect(migrate(db)).toEqual([]);
    const tables = db
      .prepare<[], { name: string }>(
        "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%' ORDER BY name",
      )
      .all();
    expect(tables.map((t) => t.name)).toEqual([
      "alternatives",
      "answers",
      "basket",
      "brief_pictures",
      "brief_steps",
      "briefs",
      "changes",
      "counters",
      "decisions",
      "evidence",
      "identifications",
      "import_items",
      "jobs",
      "kept",
      "keywords",
      "lettering_steps",
      "letterings",
      "libraries",
      "meta",
      "migrations",
      "orders",
      "outline_prints",
      "parts",
      "pass_marks",
      "passes",
      "provenance",
      "publications",
      "questions",
      "round_choices",
      "rounds",
      "same_letters",
      "saved_searches",
      "set_aside",
      "share_answers",
      "shares",
      "signatures",
      "signed_instances",
      "style_stages",
      "styles",
      "tags",
      "theme_corrections",
    ]);
    expect(db.prepare<[], { name: string }>("SELECT name FROM migrations").all()).toEqual([
      { name: "0001-base.sql" },
      { name: "0002-libraries.sql" },
      { name: "0003-find.sql" },
      { name: "0004-identify.sql" },
      { name: "0005-identifications.sql" },
      { name: "0006-people.sql" },
      { name: "0007-trust.sql" },
      { name: "0008-briefs.sql" },
      { name: "0009-stages.sql" },
      { name: "0010-steps.sql" },
      { name: "0011-themes.sql" },
      { name: "0012-parts.sql" },
      { name: "0013-keywords.sql" },
      { name: "0014-rounds.sql" },
      { name: "0015-shares.sql" },
      { name: "0016-groups.sql" },
      { name: "0017-letterings.sql" },
    ]);
  });
});

describe("stages", () => {
  const versions = Object.fromEntries(PIPELINE.map((p) => [p.stage, p.version]));
  test("what changed runs again, and what needs it; nothing else", () => {
    expect(findStale(versions)).toEqual([]);
    expect(findStale({})).toEqual(STAGES);
    expect(findStale({ ...versions, described: 1 })).toEqual(["described", "classified"]);
    expect(findStale({ ...versions, measured: 99 })).toEqual(["measured", "classified", "varied"]);
    expect(findStale({ ...versions, opened: 1 })).toEqual(STAGES);
    expect(findStale(Object.fromEntries(FIRST_STAGES.map((s) => [s, versions[s]])))).toEqual([
      "measured",
      "described",
      "classified",
      "checked",
      "varied",
    ]);
  });
  test("every stage needs only stages before it", () => {
    PIPELINE.forEach(({ needs }, i) =>
      expect(needs.every((n: string) => STAGES.slice(0, i).includes(n as never))).toBe(true),
    );
  });
  test("a style is listed until all of its stages are done with the versions of now", async () => {
    const id = await store(makeFont(), "quay.otf", OFL);
    expect(listStaleStyles(db)).toEqual([]);
    db.prepare("UPDATE style_stages SET version = 1 WHERE stage = 'described'").run();
    expect(listStaleStyles(db)).toEqual([id]);
    expect(isReadFirst(db, id)).toBe(true);
    putStages(db, id, ["described"]);
    expect(listStaleStyles(db)).toEqual([]);
    // Another file of the style: what was done of the old one does not count.
    putStages(db, id, ["opened"], true);
    expect(listStages(db, id)).toEqual({ opened: versions.opened });
    expect(isReadFirst(db, id)).toBe(false);
  });
});

describe("the file store", () => {
  test("names a file by its hash, keeps it once, reads it back", () => {
    const bytes = new TextEncoder().encode("a lamp");
    const sha = storeFile(bytes);
    expect(sha).toBe(sha256Of(bytes));
    expect(storeFile(bytes)).toBe(sha);
    expect(readStored(sha)).toEqual(bytes);
    expect(storedPath(sha)).toContain(join("store", sha.slice(0, 2), sha));
    expect(() => readStored("0".repeat(64))).toThrow();
  });
});

describe("styles", () => {
  test("a font is stored whole and found by id, hash, sequence", async () => {
    const bytes = makeFont({ family: "Quay Test", without: "&" });
    const id = await store(bytes, "quay.otf", OFL);
    const record = findStyle(db, id)!;
    expect(record).toMatchObject({
      family: "Quay Test",
      style: "Regular",
      format: "otf",
      libraryId: "open",
    });
    expect(record.rights.spdx).toBe("OFL-1.1");
    expect(record.traits.stemEm).toBeCloseTo(0.09, 2);
    expect(readStored(record.sha256)).toEqual(bytes);
    expect(findStyleBySha(db, sha256Of(bytes))).toBe(id);
    expect(listStages(db, id)).toEqual(Object.fromEntries(PIPELINE.map((p) => [p.stage, p.version])));
    expect(findStyleBySha(db, "none")).toBeNull();
    expect(findStyle(db, "s_none")).toBeNull();
    expect([...eachStyleSince(db, 0)]).toHaveLength(1);
    expect([...eachStyleSince(db, lastSeq(db))]).toHaveLength(0);
    expect(countStyles(db)).toEqual({ styles: 1, families: 1 });
    expect(listSignaturesSince(db, 0)[0]).toMatchObject({ id, family: "Quay Test", isGone: false });
    expect(listSignaturesSince(db, lastSignatureVersion(db))).toEqual([]);
    expect(listLibraries(db)[0]).toMatchObject({ libraryId: "open", styles: 1 });
  });

  test("read again it stays one, with the day it first came and both sources", async () => {
    const bytes = makeFont({});
    const first = await store(bytes, "a.otf");
    const before = findStyle(db, first)!;
    expect(await store(bytes, "b.otf")).toBe(first);
    const after = findStyle(db, first)!;
    expect(after.addedAt).toBe(before.addedAt);
    expect(after.seq).toBeGreaterThan(before.seq);
    expect(listProvenance(db, first).map((p) => p.path)).toEqual(["a.otf", "b.otf"]);
  });

  test("the whole page of a style", async () => {
    const id = await store(demoBytes("lora", 700), "lora.woff2", OFL);
    const brief = createBrief(db, { name: "B", lines: [{ text: "☃ Quay", role: "title" }], uses: ["web"] })!;
    const detail = getStyleDetail(db, id, brief.briefId)!;
    expect(detail.missing).toEqual(["☃"]);
    expect(detail.verdict).toBe("cleared-with-credit");
    expect(detail.coverage.blocks).toContainEqual({ name: "Basic Latin", have: 95, of: 95 });
    expect(detail.siblings.map((s) => s.style)).toEqual(["Bold"]);
    expect(detail.formats).toEqual(["woff2"]);
    expect(getStyleDetail(db, "s_gone", null)).toBeNull();
  });

  test.each([
    ["&", "ampersand"],
    ["U+0026", "ampersand"],
    ["u+26", "ampersand"],
    ["ampersand", "ampersand"],
  ])("glyphs: “%s” finds one", async (q, name) => {
    const id = await store(demoBytes("lora"), "lora.woff2");
    const list = valueOf(await listGlyphs(db, id, { q, limit: 50 }));
    expect(list.glyphs.map((g) => g.name)).toContain(name);
    expect(list.total).toBeLessThan(4);
    expect(list.glyphs[0]!.path).toMatch(/^M/);
  });

  test("glyphs come in pages, by block, with the feature that reaches them", async () => {
    const id = await store(demoBytes("lora"), "lora.woff2");
    const all = valueOf(await listGlyphs(db, id, { limit: 200 }));
    expect(all.total).toBeGreaterThan(200);
    const rest = valueOf(await listGlyphs(db, id, { limit: 200, cursor: all.cursor! }));
    expect(all.glyphs.length + rest.glyphs.length).toBe(all.total);
    expect(
      valueOf(await listGlyphs(db, id, { limit: 10, block: "Currency Symbols" })).glyphs.every((g) =>
        g.codePoints.some((c) => c >= 0x20a0 && c <= 0x20cf),
      ),
    ).toBe(true);
    const hidden = [...all.glyphs, ...rest.glyphs].filter((g) => !g.codePoints.length && g.features.length);
    expect(hidden.length).toBeGreaterThan(3);
    expect(await listGlyphs(db, "s_gone", { limit: 1 })).toMatchObject({ ok: false, code: "not-found" });
  });
});

describe("finding over the database", () => {
  test("answers have the form of the contract, in pages", async () => {
    for (const stem of [60, 90, 150])
      await store(
        makeFont({ family: `Quay ${stem}`, stem, serif: stem > 100 ? 50 : 0, without: stem === 60 ? "&" : "" }),
        `${stem}.otf`,
        OFL,
      );
    const brief = createBrief(db, {
      name: "B",
      lines: [{ text: "Wren & Tern", role: "title" }],
      uses: ["goods-for-sale"],
    })!;
    const first = listFound(db, StyleQuery.parse({ limit: "2", briefId: brief.briefId, sort: "weight" }));
    expect(StyleList.safeParse(first).error).toBeUndefined();
    expect(first.total).toBe(3);
    expect(first.items.map((i) => i.family)).toEqual(["Quay 60", "Quay 90"]);
    expect(first.items[0]!.missing).toEqual(["&"]);
    const second = listFound(
      db,
      StyleQuery.parse({ limit: 2, cursor: first.cursor, briefId: brief.briefId, sort: "weight" }),
    );
    expect(second.items.map((i) => i.family)).toEqual(["Quay 150"]);
    expect(second.cursor).toBeUndefined();
    expect(listFound(db, StyleQuery.parse({ q: "slab" })).items.map((i) => i.family)).toEqual(["Quay 150"]);
  });

  test("a new style is seen at once", async () => {
    expect(listFound(db, StyleQuery.parse({})).total).toBe(0);
    await store(makeFont({}), "a.otf");
    expect(listFound(db, StyleQuery.parse({})).total).toBe(1);
  });
});

describe("briefs", () => {
  const fields = BriefFields.parse({ name: "Open Night poster", lines: [{ text: "Skerrow Light", role: "title" }] });

  test("created, changed, deleted, brought back", () => {
    const brief = createBrief(db, fields)!;
    expect(brief.briefId).toMatch(/^b_open-night-poster-/);
    expect(changed(db, brief.briefId, { ink: "#112233" })).toMatchObject({
      ink: "#112233",
      name: "Open Night poster",
    });
    expect(deleteBrief(db, brief.briefId)).toBe(true);
    expect(findBrief(db, brief.briefId)).toBeNull();
    expect(deleteBrief(db, brief.briefId)).toBe(false);
    expect(changed(db, brief.briefId, { deleted: false }).ink).toBe("#112233");
    expect(listBriefs(db)).toHaveLength(1);
    expect(changeBrief(db, "b_gone", { name: "x" })).toMatchObject({ ok: false, code: "not-found" });
  });

  test("a copy takes fields and what is kept, and goes its own way", async () => {
    const id = await store(makeFont({}), "a.otf");
    const brief = createBrief(db, fields)!;
    keepStyle(db, brief.briefId, id, { role: "title", note: "warm" });
    const copy = createBrief(db, { name: "Second", copyOf: brief.briefId })!;
    expect(copy.kept).toMatchObject([{ styleId: id, role: "title", note: "warm" }]);
    expect(copy.lines).toEqual(brief.lines);
    letGo(db, copy.briefId, id);
    expect(findBrief(db, brief.briefId)!.kept).toHaveLength(1);
    expect(createBrief(db, { name: "x", copyOf: "b_gone" as never })).toBeNull();
  });

  test("kept faces keep their order without gaps", async () => {
    const ids = [];
    for (const stem of [50, 80, 110, 140]) ids.push(await store(makeFont({ family: `F${stem}`, stem }), `${stem}.otf`));
    const brief = createBrief(db, fields)!;
    for (const id of ids) keepStyle(db, brief.briefId, id, {});
    keepStyle(db, brief.briefId, ids[3]!, { place: 0 });
    keepStyle(db, brief.briefId, ids[0]!, { place: 3, role: "text" });
    letGo(db, brief.briefId, ids[1]!);
    const kept = listKept(db, brief.briefId);
    expect(kept.map((k) => k.styleId)).toEqual([ids[3], ids[2], ids[0]]);
    expect(kept.map((k) => k.place)).toEqual([0, 1, 2]);
    expect(kept[2]!.role).toBe("text");
    expect(keepStyle(db, brief.briefId, "s_gone", {})).toBeNull();
    expect(letGo(db, brief.briefId, "s_gone")).toBe(false);
    expect(listKeptItems(db, findBrief(db, brief.briefId)!).map((i) => i.styleId)).toEqual([ids[3], ids[2], ids[0]]);
  });

  test("set aside and kept exclude each other", async () => {
    const id = await store(makeFont({}), "a.otf");
    const brief = createBrief(db, fields)!;
    expect(setAside(db, brief.briefId, id, true)).toBe(true);
    expect(findBrief(db, brief.briefId)!.setAside).toEqual([id]);
    keepStyle(db, brief.briefId, id, {});
    expect(findBrief(db, brief.briefId)!.setAside).toEqual([]);
    expect(setAside(db, brief.briefId, "s_gone", true)).toBe(false);
    expect((await checkStyle(db, brief.briefId, id))!.length).toBe(2);
    expect(await checkStyle(db, "b_gone", id)).toBeNull();
  });
});

describe("the shortlist as lists", () => {
  test("CSV, sources and credits tell the same faces", async () => {
    const id = await store(makeFont({ family: "Quay, the Slab", without: "&" }), "zip/quay.otf", OFL);
    const brief = createBrief(db, { name: "B", lines: [{ text: "a & b", role: "text" }], uses: ["web"] })!;
    keepStyle(db, brief.briefId, id, { role: "title", note: 'say "yes"' });
    const { styles } = gatherShortlist(db, brief.briefId);
    const csv = writeShortlistCsv(styles, "shortlist");
    expect(csv).toContain('"Quay, the Slab","Regular","title","say ""yes""",,"Cleared with credit","OFL-1.1","&",');
    expect(writeShortlistCsv(styles, "sources")).toContain(`zip/quay.otf`);
    expect(writeShortlistCredits(brief, styles)).toContain("Licence: OFL-1.1");
    expect(() => gatherShortlist(db, "b_gone")).toThrow();
  });
});

describe("jobs", () => {
  test("wait, run, end; items of an import are kept once a path", () => {
    insertJob(db, { jobId: "j_1", kind: "import", title: "Import", payload: "{}", briefId: null }, "2026-11-25");
    expect(listJobsIn(db, "waiting").map((j) => j.jobId)).toEqual(["j_1"]);
    updateJob(db, "j_1", { state: "running", done: 2, total: 5, filePath: "/x" });
    expect(findJob(db, "j_1")).toMatchObject({ state: "running", done: 2, total: 5, filePath: "/x" });
    expect(listJobsIn(db, "waiting")).toEqual([]);
    putImportItem(db, "j_1", { name: "a.otf", path: "a.otf", outcome: "refused", code: "not-a-font", reason: "no" });
    putImportItem(db, "j_1", { name: "a.otf", path: "a.otf", outcome: "added" });
    expect(listImportItems(db, "j_1")).toEqual([{ name: "a.otf", path: "a.otf", outcome: "added" }]);
    expect(findJob(db, "j_2")).toBeNull();
  });
});

test("a job that was set aside or still waits is listed, however many came after it", () => {
  const put = (jobId: string, at: string) =>
    insertJob(db, { jobId, kind: "handover", title: jobId, payload: "{}", briefId: null }, at);
  put("j_aside", "2026-11-25T00:00:00Z");
  put("j_waits", "2026-11-25T00:00:01Z");
  put("j_over", "2026-11-25T00:00:02Z");
  updateJob(db, "j_aside", { state: "failed", code: "job-set-aside" });
  updateJob(db, "j_over", { state: "done" });
  for (let i = 0; i < 5; i++) {
    put(`j_new${i}`, `2026-11-26T00:00:0${i}Z`);
    updateJob(db, `j_new${i}`, { state: "done" });
  }
  expect(listJobs(db, 2).map((j) => j.jobId)).toEqual(["j_new4", "j_new3", "j_waits", "j_aside"]);
});
