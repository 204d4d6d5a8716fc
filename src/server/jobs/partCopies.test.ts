// Data of an earlier version, where a file with the same letters had become another file of a style: parted again, with the texts that came
// with each.
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Evidence } from "@/contracts/rights";
import { SANS } from "../../../demo/foundry/design";
import { drawFace, type Face } from "../../../demo/foundry/face";
import { writeOpenType, writeTrueType } from "../../../demo/foundry/write/writeFont";
import { fontFacts, LETTERS } from "../../../tests/fixtures/fontFacts";
import { storeFile } from "../db/fileStore";
import { getDb } from "../db/open";
import { putLibrary } from "../queries/libraries";
import { findMeta, listAlternatives, listSameLetters, putAlternative } from "../queries/records";
import { findStyle, listProvenance, putProvenance } from "../queries/styles";
import { storeReading, styleIdOf } from "../store/storeReading";
import { PART_COPIES, partCopies } from "./partCopies";
import { closePools } from "../workers/pool";
import readFont from "../workers/readFont.worker";

const data = mkdtempSync(join(tmpdir(), "fond-quarry-part-"));
process.env.FOND_QUARRY_DATA = data;
let face: Face;
beforeAll(() => {
  face = drawFace({ ...SANS, stem: 88 }, { characters: LETTERS });
  putLibrary(getDb(), "own", "Own", "own", "2026-11-27");
});
afterAll(() => {
  closePools();
  getDb().close();
  rmSync(data, { recursive: true, force: true });
});

const at = "2026-11-27T10:00:00.000Z";
const text = (source: string, words: string): Evidence => ({ kind: "readme", source, date: at, text: words });
const FREE = text("saltmarsh.zip/readme.txt", "Free for personal and commercial use.");
const PRIVATE = text("lantern.zip/readme.txt", "For personal use only.");

/** A style as the earlier version left it: `shown` is its file, `merged` another that was put to it, the texts of both together. */
async function merge(shown: [string, Uint8Array], merged: [string, Uint8Array], styleId?: string) {
  const [path, bytes] = shown;
  const reply = await readFont({ bytes, fallbackFamily: "Unnamed" });
  if (!reply.ok) throw new Error(reply.detail);
  const source = { libraryId: "own", path, statedFamily: null, evidence: [FREE, PRIVATE] };
  const id = await storeReading(getDb(), bytes, reply.reading, {
    ...source,
    ...(styleId && { styleId: styleId as never }),
  });
  const sha256 = storeFile(merged[1]);
  putAlternative(getDb(), { styleId: id, sha256, format: "ttf", name: merged[0], addedAt: at });
  putProvenance(getDb(), id, { library: "own", path: merged[0], sha256, importedAt: at });
  return { id, sha256 };
}
const run = () => partCopies({ job: {} as never, signal: new AbortController().signal, progress: () => {} });
const goods = (id: string) => findStyle(getDb(), id)!.rights.verdicts["goods-for-sale"].verdict;
const sources = (id: string) =>
  findStyle(getDb(), id)!
    .rights.evidence.filter((e) => e.kind === "readme")
    .map((e) => e.source);

test("a copy of another name gets a style, a path and terms of its own; neither clears the other", async () => {
  const own = writeTrueType(face, fontFacts({ family: "Saltmarsh" }));
  const copy = writeTrueType(face, fontFacts({ family: "Lantern Muse" }));
  const { id, sha256 } = await merge(["saltmarsh.zip/a.ttf", own], ["lantern.zip/b.ttf", copy]);
  await run();
  const parted = styleIdOf(sha256);
  expect([findStyle(getDb(), id)!.family, findStyle(getDb(), parted)!.family]).toEqual(["Saltmarsh", "Lantern Muse"]);
  expect(listAlternatives(getDb(), id)).toEqual([]);
  expect(listSameLetters(getDb(), id)).toEqual([parted]);
  expect([sources(id), sources(parted)]).toEqual([[FREE.source], [PRIVATE.source]]);
  expect(listProvenance(getDb(), parted).map((p) => p.path)).toEqual(["lantern.zip/b.ttf"]);
  expect([goods(id), goods(parted)]).toEqual(["ask-maker", "not-for-this-use"]);
  expect(findMeta(getDb(), PART_COPIES)).toBe("done");
});

test("a style that had taken over the name of its copy gets its own file and name back, under the same id", async () => {
  const own = writeTrueType(face, fontFacts({ family: "Tarn" }));
  const copy = writeTrueType(face, fontFacts({ family: "Weir" }));
  const id = styleIdOf(storeFile(own));
  await merge(["lantern.zip/weir.ttf", copy], ["saltmarsh.zip/tarn.ttf", own], id);
  expect(findStyle(getDb(), id)!.family).toBe("Weir");
  await run();
  expect(findStyle(getDb(), id)!.family).toBe("Tarn");
  expect(findStyle(getDb(), styleIdOf(storeFile(copy)))!.family).toBe("Weir");
});

test("another format of the same style stays with it", async () => {
  const names = fontFacts({ family: "Culvert" });
  const { id } = await merge(["c.zip/c.otf", writeOpenType(face, names)], ["c.zip/c.ttf", writeTrueType(face, names)]);
  await run();
  expect(listAlternatives(getDb(), id)).toHaveLength(1);
  expect(listSameLetters(getDb(), id)).toEqual([]);
});
