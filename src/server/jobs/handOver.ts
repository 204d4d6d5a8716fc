// Job: one archive for a brief: fonts, web files, licences, credits, sources, contact sheet. Only what is inside is credited; what was
// left out is said with its reason. Written beside, then renamed.
import type { Brief } from "@/contracts/brief";
import type { HandoverOptions } from "@/contracts/jobs";
import { FaultError, sentenceOf } from "@/contracts/errors";
import { writeValues } from "@/contracts/words";
import { listScripts, nameScript } from "@/core/unicode/scripts";
import { writeCsv } from "@/core/write/csv";
import { NamesOnce } from "@/core/write/fileNames";
import { getDb, type Db } from "../db/open";
import { readStored } from "../db/fileStore";
import type { StylePart } from "../queries/parts";
import { listDecisions } from "../queries/rounds";
import { findStyle } from "../queries/styles";
import { writeBriefFile, writeTokensFor } from "../usecases/briefFile";
import { oncePerFile, sortForHandover } from "../usecases/handover";
import {
  gatherShortlist,
  writeShortlistCsv,
  writeShortlistCredits,
  writeSheetFor,
  writeSpdxFor,
  type ShortlistStyle,
} from "../usecases/shortlist";
import type { JobContext } from "../queue/queue";
import { addLicences, startArchive, type Add } from "./archiveFile";

type HandoverPayload = { briefId: string; options: HandoverOptions };

export async function handOver({ job, signal, progress }: JobContext): Promise<void> {
  const { briefId, options } = JSON.parse(job.payload) as HandoverPayload;
  const { brief, styles } = gatherShortlist(getDb(), briefId, options.styleIds);
  const { inside, leftOut } = sortForHandover(styles, options.responsibleFor ?? []);
  const notes = leftOut.map(({ style, why }) => `Left out: ${nameOf(style)}. ${why}`);
  const files = oncePerFile(inside);
  const steps = files.length + 2;
  let done = 0;
  const step = () => progress({ done: ++done, total: steps });
  progress({ total: steps, done });
  const archive = startArchive();
  const { add } = archive;
  const names = new NamesOnce();
  const sound: ShortlistStyle[] = [];
  let webFiles = 0;
  for (const s of files) {
    if (signal.aborted) return;
    const put = addFonts(s, options, names.take(nameOf(s)), add);
    if (put.ok) {
      sound.push(s);
      webFiles += put.webFiles;
    } else notes.push(`Left out: ${nameOf(s)}. ${put.why}`);
    step();
  }
  const soundIds = new Set(sound.map((s) => s.record.styleId));
  const handedOver = inside.filter((s) => soundIds.has(s.record.styleId));
  if (options.web && !webFiles) notes.push("No web files: none of the faces came as WOFF2.");
  const licenceOf = options.licences ? addLicences(sound, add) : new Map<string, string>();
  add("credits.txt", writeShortlistCredits(brief, sound));
  add("rights.spdx.json", writeSpdxFor(brief, sound));
  add("sources.csv", writeShortlistCsv(sound, "sources", licenceOf));
  add("shortlist.csv", writeShortlistCsv(styles, "shortlist"));
  addBrief(getDb(), brief, add);
  step();
  if (options.contactSheet && sound.length) {
    const sheet = await writeSheetFor(brief, handedOver);
    if (sheet.ok) add("contact-sheet.pdf", sheet.value);
    else notes.push(`No contact sheet. ${sheet.message}`);
  }
  const told = [...notes, ...handedOver.flatMap(tellSetting), ...sound.flatMap(tellParts)];
  if (told.length) add("notes.txt", `${told.join("\n")}\n`);
  if (signal.aborted) return;
  const path = await archive.finish("handover", job.jobId);
  step();
  const fonts = sound.length === 1 ? "1 face" : `${sound.length} faces`;
  progress({ filePath: path, message: `${fonts} inside${notes.length ? `; ${notes.join(" ")}` : ""}` });
}

/** The brief itself: as a file that can be read in again, its typography as design tokens, what was decided and which faces go together. */
function addBrief(db: Db, { briefId, pairs }: Brief, add: Add) {
  add("brief.json", `${JSON.stringify(writeBriefFile(db, briefId), null, 2)}\n`);
  const tokens = writeTokensFor(db, briefId);
  if (tokens) add("tokens.json", tokens.json);
  const decisions = listDecisions(db, briefId);
  if (decisions.length)
    add(
      "decisions.csv",
      writeCsv(
        ["when", "who", "what"],
        [...decisions].reverse().map(({ at, by, says }) => [at, by, says]),
      ),
    );
  const name = (styleId: string) => {
    const style = findStyle(db, styleId);
    return style ? `${style.family} ${style.style}` : "";
  };
  if (pairs.length)
    add(
      "pairs.csv",
      writeCsv(
        ["first", "as", "second", "as", "size of the first to the second", "note"],
        pairs.map(({ faces: [a, b], sizeRatio, note }) => [
          ...[name(a.styleId), a.role, name(b.styleId), b.role],
          ...[Number(sizeRatio.toFixed(2)), note],
        ]),
      ),
    );
}

/** A face that was chosen at a place of its own is set there by whoever gets the file. */
function tellSetting(style: ShortlistStyle): string[] {
  const { location, features } = style.kept;
  const axes = writeValues(location);
  const alternates = writeValues(features);
  return [
    ...(axes ? [`${nameOf(style)} was chosen at ${axes}. Its file is variable: set its axes to these values.`] : []),
    ...(alternates ? [`${nameOf(style)} was chosen with these OpenType features: ${alternates}.`] : []),
  ];
}

const nameOf = ({ record }: Pick<ShortlistStyle, "record">) => `${record.family} ${record.style}`;

type Added = { ok: true; webFiles: number } | { ok: false; why: string };
/** A face whose file the store has lost is left out; the others are handed over. */
function addFonts({ record, parts }: ShortlistStyle, options: HandoverOptions, name: string, add: Add): Added {
  try {
    // Read before anything is added: a face goes in whole or not at all.
    const files = [record, ...parts].map((file) => ({
      sfnt: readStored(file.sfntSha256),
      web: options.web && file.format === "woff2" ? readStored(file.sha256) : null,
    }));
    const names = [name, ...namesOfParts(name, parts)];
    for (const [i, { sfnt, web }] of files.entries()) {
      const isCff = sfnt[0] === 0x4f;
      if (options.fonts) add(`fonts/${names[i]}.${isCff ? "otf" : "ttf"}`, sfnt);
      if (web) add(`web/${names[i]}.woff2`, web);
    }
    return { ok: true, webFiles: files.filter((f) => f.web).length };
  } catch (error) {
    if (!(error instanceof FaultError)) throw error;
    return { ok: false, why: sentenceOf(error.code) };
  }
}

/** Files of one face beside its main file, by what they are for: "Lora Regular - Cyrillic". */
function namesOfParts(name: string, parts: readonly StylePart[]): string[] {
  const names = new NamesOnce();
  return parts.map(({ coverage }) => {
    const [script] = listScripts(coverage);
    return names.take(`${name} - ${script ? nameScript(script) : "signs"}`);
  });
}

/** A face that came cut by character is not one font to other programs; where the whole one may be is said. */
function tellParts({ record, parts }: ShortlistStyle): string[] {
  if (!parts.length) return [];
  const name = nameOf({ record });
  const whole = whereWhole(record.names);
  return [
    `${name} came as web fonts cut by character: ${parts.length + 1} files that each hold some of its characters, under one name. ` +
      `On a web page they work together (unicode-range). To install it, or to print with it, get the whole font${whole ? ` from ${whole}` : " from its maker"}.`,
  ];
}

/** The address that a font states of its project, its maker or its designer. */
const whereWhole = (names: Readonly<Record<string, string>>): string | null => {
  for (const id of ["0", "11", "12"]) {
    const address = /https?:\/\/[^\s()<>"']{4,200}/.exec(names[id] ?? "")?.[0];
    if (address) return address;
  }
  return null;
};
