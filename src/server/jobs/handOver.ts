// Job: one archive for a brief: fonts, web files, licences, credits, sources, contact sheet. Written beside, then renamed.
import { createWriteStream, mkdirSync, renameSync } from "node:fs";
import { join } from "node:path";
import { pipeline } from "node:stream/promises";
import yazl from "yazl";
import type { HandoverOptions } from "@/contracts/jobs";
import { getDb, dataFolder } from "../db/open";
import { readStored } from "../db/fileStore";
import {
  gatherShortlist,
  writeShortlistCsv,
  writeShortlistCredits,
  writeSheetFor,
  writeSpdxFor,
  type ShortlistStyle,
} from "../usecases/shortlist";
import type { JobContext } from "./queue";

export type HandoverPayload = { briefId: string; options: HandoverOptions };

const safeName = (s: string) =>
  s
    .replace(/[^\p{L}\p{N}&+ ._-]/gu, "")
    .replace(/\s+/g, " ")
    .trim()
    .slice(0, 80) || "font";

export async function handOver({ job, signal, progress }: JobContext): Promise<void> {
  const { briefId, options } = JSON.parse(job.payload) as HandoverPayload;
  const { brief, styles } = gatherShortlist(getDb(), briefId, options.styleIds);
  const steps = styles.length + 2;
  let done = 0;
  const step = () => progress({ done: ++done, total: steps });
  progress({ total: steps, done });
  const zip = new yazl.ZipFile();
  const add = (path: string, content: Uint8Array | string) => zip.addBuffer(Buffer.from(content as Uint8Array), path);
  const used = new Set<string>();
  for (const s of styles) {
    if (signal.aborted) return;
    if (s.record.owned) addFonts(s, options, used, add);
    step();
  }
  if (options.licences) addLicences(styles, add);
  add("credits.txt", writeShortlistCredits(brief, styles));
  add("rights.spdx.json", writeSpdxFor(brief, styles));
  add("sources.csv", writeShortlistCsv(styles, "sources"));
  add("shortlist.csv", writeShortlistCsv(styles, "shortlist"));
  step();
  if (options.contactSheet) add("contact-sheet.pdf", await writeSheetFor(brief, styles));
  if (signal.aborted) return;
  zip.end();
  const folder = join(dataFolder(), "handover");
  mkdirSync(folder, { recursive: true });
  const path = join(folder, `${job.jobId}.zip`);
  await pipeline(zip.outputStream, createWriteStream(`${path}.part`));
  renameSync(`${path}.part`, path);
  step();
  progress({ filePath: path });
}

function addFonts(
  s: ShortlistStyle,
  options: HandoverOptions,
  used: Set<string>,
  add: (path: string, content: Uint8Array) => void,
) {
  let base = safeName(`${s.record.family} ${s.record.style}`);
  for (let n = 2; used.has(base); n++) base = safeName(`${s.record.family} ${s.record.style} ${n}`);
  used.add(base);
  const sfnt = readStored(s.record.sfntSha256);
  const isCff = sfnt[0] === 0x4f;
  if (options.fonts) add(`fonts/${base}.${isCff ? "otf" : "ttf"}`, sfnt);
  if (options.web && s.record.format === "woff2") add(`web/${base}.woff2`, readStored(s.record.sha256));
}

/** Each licence text once a family; evidence in the font itself is quoted where no file came with it. */
function addLicences(styles: ShortlistStyle[], add: (path: string, content: string) => void) {
  const seen = new Set<string>();
  for (const { record } of styles) {
    const text = record.rights.evidence
      .filter((e) => e.kind !== "fs-type")
      .map((e) => (e.kind === "licence-file" ? e.text : `${e.source}: ${e.text}`));
    const key = record.familyId;
    if (seen.has(key) || !text.length) continue;
    seen.add(key);
    add(`licences/${safeName(record.family)}.txt`, text.join("\n\n---\n\n"));
  }
}
