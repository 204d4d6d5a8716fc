// A face that came cut by character: one style whatever the order of its files, with the characters of all of them. Real web fonts.
import { beforeEach, expect, test } from "@jest/globals";
import { openDataFolder } from "../../../tests/fixtures/dataFolder";
import { FIRST_STAGES, STAGES } from "@/contracts/pipeline";
import { hasCodePoint } from "@/core/unicode/blocks";
import { demoPart } from "../../../tests/fixtures/demoFont";
import { openDatabase, type Db } from "../db/open";
import { listStages } from "../queries/stages";
import { listParts } from "../queries/parts";
import { putLibrary } from "../queries/libraries";
import { listAlternatives } from "../queries/records";
import { countStyles, findStyle, findStyleBySha, type StyleRecord } from "../queries/styles";
import { getStyleDetail, listGlyphs } from "../usecases/styleDetail";
import readWhole, { readToImport } from "../workers/readFont.worker";
import { takeFont, takeOpened } from "./takeFont";

openDataFolder("parts");

let db: Db;
beforeEach(() => {
  db = openDatabase(":memory:");
  putLibrary(db, "own", "Own", "own", "2026-11-28");
});

/** As an import takes it: opened only where it may be a part; read whole where no style waits for it. */
async function take(bytes: Uint8Array, path = "font.woff2") {
  const source = { libraryId: "own", path, statedFamily: null, evidence: [] };
  const reply = await readToImport({ bytes, fallbackFamily: "font", isFirst: false, mayBePart: true });
  if (!reply.ok) throw new Error(reply.detail);
  if (!reply.isOpenedOnly) return takeFont(db, bytes, reply.reading, source);
  const taken = await takeOpened(db, bytes, reply.reading, source);
  if (taken) return taken;
  const whole = await readWhole({ bytes, fallbackFamily: "font" });
  if (!whole.ok) throw new Error(whole.detail);
  return takeFont(db, bytes, whole.reading, source);
}
const styleOf = (styleId: string): StyleRecord => findStyle(db, styleId)!;
const covers = (record: StyleRecord, text: string) =>
  [...text].every((c) => hasCodePoint(record.coverage, c.codePointAt(0)!));

const PARTS = ["latin", "latin-ext", "cyrillic", "cyrillic-ext", "vietnamese", "math"];
test.each([
  ["the alphabet first", PARTS],
  ["the alphabet last", [...PARTS].reverse()],
  ["the alphabet in the middle", ["cyrillic", "math", "latin-ext", "latin", "vietnamese", "cyrillic-ext"]],
])("all parts are one style: %s", async (_, order) => {
  const outcomes = [];
  for (const part of order) outcomes.push(await take(demoPart("lora", part), `lora-${part}.woff2`));
  expect(new Set(outcomes.map((o) => o.styleId)).size).toBe(1);
  expect(outcomes.slice(1).map((o) => [o.outcome, o.code])).toEqual(Array(5).fill(["added", "part-added"]));
  expect(countStyles(db)).toEqual({ styles: 1, families: 1 });
  const record = styleOf(outcomes[0]!.styleId);
  expect(covers(record, "Harbour Łódź Гавань Hải cảng ₴ π")).toBe(true);
  expect(covers(record, "漢")).toBe(false);
  // Measured on the part with the alphabet.
  expect(record.facts.glyphCount).toBeGreaterThan(200);
  expect(record.traits.xHeightEm).toBeCloseTo(0.5, 1);
  expect(record.parts).toBe(5);
  expect(listAlternatives(db, record.styleId)).toEqual([]);
  expect(Object.keys(listStages(db, record.styleId)).sort()).toEqual([...STAGES].sort());
});

test("a part is found by its bytes; the same part in another packing is another file of the style", async () => {
  const { styleId } = await take(demoPart("lora", "latin"));
  await take(demoPart("lora", "cyrillic"));
  const [part] = listParts(db, styleId);
  expect(findStyleBySha(db, part!.sha256)).toBe(styleId);
  const again = await take(demoPart("lora", "cyrillic", 400, "normal", "woff"));
  expect([again.outcome, again.styleId]).toEqual(["already-there", styleId]);
  expect(styleOf(styleId).parts).toBe(1);
  expect(listAlternatives(db, styleId).map((a) => a.format)).toEqual(["woff"]);
});

test("other weights, slopes and families keep their own parts", async () => {
  const { styleId } = await take(demoPart("lora", "latin"));
  for (const bytes of [
    demoPart("lora", "cyrillic", 700),
    demoPart("lora", "cyrillic", 400, "italic"),
    demoPart("rubik", "cyrillic"),
  ])
    expect((await take(bytes)).styleId).not.toBe(styleId);
  expect(styleOf(styleId).parts).toBe(0);
  expect(countStyles(db).styles).toBe(4);
});

test("a font is only opened where it may be a part, and read whole otherwise", async () => {
  const request = { fallbackFamily: "font", isFirst: true, mayBePart: true };
  const part = await readToImport({ ...request, bytes: demoPart("lora", "cyrillic") });
  const main = await readToImport({ ...request, bytes: demoPart("lora", "latin") });
  expect(part.ok && [part.isOpenedOnly, part.reading.stages]).toEqual([true, ["opened"]]);
  expect(main.ok && [main.isOpenedOnly, main.reading.stages]).toEqual([false, FIRST_STAGES]);
});

test("its page lists the parts, and its glyphs are those of all of them", async () => {
  const { styleId } = await take(demoPart("lora", "latin"));
  const before = await listGlyphs(db, styleId, { q: "Ж", limit: 5 });
  await take(demoPart("lora", "cyrillic"), "web/lora-cyrillic.woff2");
  const { parts, codePoints } = getStyleDetail(db, styleId, null)!;
  expect(parts).toEqual([
    expect.objectContaining({ format: "woff2", path: "web/lora-cyrillic.woff2", scripts: ["Cyrillic", "Latin"] }),
  ]);
  expect(parts[0]!.unicodeRange).toMatch(/U\+4[01]/);
  expect(hasCodePoint(codePoints, 0x436)).toBe(true);
  const after = await listGlyphs(db, styleId, { q: "Ж", limit: 5 });
  expect(before.ok && before.value.total).toBe(0);
  expect(after.ok && [after.value.total, after.value.glyphs[0]!.path.length > 50]).toEqual([1, true]);
  // Both files have an “A”.
  const shared = await listGlyphs(db, styleId, { q: "A", limit: 5 });
  expect(shared.ok && shared.value.total).toBe(1);
});
