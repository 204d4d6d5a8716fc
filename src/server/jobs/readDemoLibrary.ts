// Job: reads the demo library into the store, some fonts at a time. Resumable: what is read already is passed over.
import { readFileSync } from "node:fs";
import { PIPELINE_VERSION } from "@/contracts/pipeline";
import type { Evidence } from "@/contracts/rights";
import { getDb } from "../db/open";
import { listDemoFonts, readDemoTerms, type DemoFont } from "../libraries/demoPackages";
import { listReadPaths } from "../queries/styles";
import { storeReading } from "../usecases/storeReading";
import { readFontInWorker } from "./pool";
import type { JobContext } from "./queue";

export const DEMO_LIBRARY = { libraryId: "open-collection", name: "Open collection" } as const;
const AT_ONCE = 4;

export async function readDemoLibrary({ signal, progress }: JobContext): Promise<void> {
  const db = getDb();
  const all = listDemoFonts(process.cwd());
  const read = new Set(listReadPaths(db, DEMO_LIBRARY.libraryId, PIPELINE_VERSION));
  const waiting = inTurn(all.filter((f) => !read.has(f.source)));
  let done = all.length - waiting.length;
  let failed = 0;
  progress({ total: all.length, done });
  const next = async (): Promise<void> => {
    for (let font = waiting.shift(); font && !signal.aborted; font = waiting.shift()) {
      if (!(await readOne(font))) failed++;
      progress({ done: ++done, failed });
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, next));
}

/** One style of every family first, so that the wall is varied while it fills. */
function inTurn(fonts: DemoFont[]): DemoFont[] {
  const seen = new Map<string, number>();
  const rank = (f: DemoFont) => {
    const n = (seen.get(f.family) ?? 0) + 1;
    seen.set(f.family, n);
    return (/-400-normal/.test(f.name) ? 0 : 1) + Math.floor((n - 1) / 3);
  };
  return fonts
    .map((font, i) => ({ font, rank: rank(font), i }))
    .sort((a, b) => a.rank - b.rank || a.i - b.i)
    .map((e) => e.font);
}

async function readOne(font: DemoFont): Promise<boolean> {
  const bytes = new Uint8Array(readFileSync(font.path));
  const reply = await readFontInWorker({ bytes, fallbackFamily: font.family });
  if (!reply.ok) {
    console.error(`${font.source}: ${reply.code}: ${reply.detail}`);
    return false;
  }
  const terms = readDemoTerms(font.packageFolder);
  const date = new Date().toISOString();
  const folder = font.source.split("/").slice(0, 2).join("/");
  const evidence: Evidence[] = [];
  if (terms.licenceText)
    evidence.push({ kind: "licence-file", source: `${folder}/LICENSE`, date, text: terms.licenceText });
  if (terms.statement)
    evidence.push({ kind: "library", source: `${folder}/metadata.json`, date, text: terms.statement });
  await storeReading(getDb(), bytes, reply.reading, {
    libraryId: DEMO_LIBRARY.libraryId,
    path: font.source,
    statedFamily: font.family,
    evidence,
  });
  return true;
}
