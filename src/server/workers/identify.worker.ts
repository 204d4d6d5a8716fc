// Worker entry: decodes a picture, reads its line, identifies the face over all described styles. Keeps the index between calls.
import { join } from "node:path";
import { decodePicture } from "./decodePicture";
import type { HandCut, HandInk, Identification } from "@/contracts/identify";
import type { RequestFaultCode } from "@/contracts/errors";
import { SignatureIndex } from "@/core/descriptors/extractDescriptors";
import { inlineExecutor, type FullTask, type Executor } from "@/core/identify/executor";
import { facesInTurn, fitText, identifyLine, type IdentifyResult } from "@/core/identify/identifyLine";
import { START, type FaceLoader } from "@/core/identify/registration/fit";
import { partByShape, PARTED_FROM } from "@/core/descriptors/leaders";
import { rankByAdvances, rankByOutlines } from "@/core/descriptors/nearestFaces";
import { nearestToSketch } from "@/core/identify/sketch";
import { readWords } from "@/core/identify/hypotheses/readShapes";
import { cutByHand } from "@/core/picture/cutByHand";
import {
  leanLine,
  readPhotograph,
  type InkLine,
  type InkReadings,
  type PictureFrame,
} from "@/core/picture/readPicture";
import { openDatabase, type Db } from "../db/open";
import { listCoverages, listSignaturesSince, type SignatureRow } from "../queries/signatures";
import { inkNet, warmInkNet } from "./inkNet";
import { listParts } from "../queries/parts";
import { loadStored, openMovingStored } from "./loadStored";
import { relieve } from "./relieve";
import { drawStrip, readLetters, warmReader } from "./readText";
import { sharedExecutor } from "./shareWork";

export type IdentifyRequest = {
  image: Uint8Array;
  text: string | null;
  frame: PictureFrame;
  limit: number;
  /** A line as a person has cut it. */
  cut: HandCut | null;
  /** What a person takes for ink. */
  ink: HandInk | null;
  /** Compare with this style alone. */
  styleId: string | null;
  /** The letters are drawn by hand: the nearest are wanted, no answer. */
  isSketch?: boolean;
  dataFolder: string;
  /** Of the index: what changed since the one that is held is read. */
  version: number;
};
/** What is told before the reply. */
export type IdentifyTold =
  | { step: "seen"; strip: { png: string; widthPx: number; heightPx: number } }
  | { step: "nearer"; share: number; text: string; nearest: string[] };
export type IdentifyReply =
  | {
      ok: true;
      value: Omit<Identification, "tookMs" | "matches" | "byLook"> & {
        matches: Omit<Identification["matches"][number], "family" | "style" | "familyId">[];
      };
    }
  | { ok: false; code: RequestFaultCode; detail?: string; place?: number };

/** Of the way to an answer, how far it is when faces are tried in words that may stand there. */
const SHARE_OF_READING = 0.06;

let db: Db | null = null;
type Held = {
  version: number;
  entries: Map<string, SignatureRow[]>;
  index: SignatureIndex;
  load: FaceLoader;
  files: Map<string, readonly string[]>;
  executor: Executor;
  /** How often letters were described since. */
  described: number;
};
let held: Held | null = null;

/** So that the first picture does not wait for the index, the second thread and the letter reader. */
export async function warmUp(request: Pick<IdentifyRequest, "dataFolder" | "version">): Promise<void> {
  const nothing: FullTask = { kind: "full", laid: [], imaging: START };
  await indexFor(request).executor([nothing, nothing]);
  await Promise.all([warmReader(), warmInkNet()]);
}

export default async function identify(
  request: IdentifyRequest,
  signal?: AbortSignal,
  tell: (step: IdentifyTold) => void = () => {},
): Promise<IdentifyReply> {
  await relieve();
  const decoded = await decodePicture(request);
  if (!decoded.ok) return decoded;
  const found = await readPhotograph(decoded.picture, decoded.frame, decoded.ink, inkNet);
  const lines = found && request.cut ? await cutLines(found, request.cut) : found;
  if (!lines?.plain.letters.length) return { ok: false, code: "no-ink" };
  tell({ step: "seen", strip: await writeStrip(lines.plain) });
  const given = request.text?.trim();
  const all = await describeLetters(indexFor(request), given ?? "");
  const index = request.styleId ? all.index.only(request.styleId) : all.index;
  const shared = request.styleId ? inlineExecutor(index, all.load) : all.executor;
  // Who asked may have gone: then nothing more is begun.
  const executor: Executor = (tasks, aside) => {
    signal?.throwIfAborted();
    return shared(tasks, aside);
  };
  if (!index.ids.length) return { ok: false, code: request.styleId ? "not-owned" : "no-styles" };
  const nearTo = (text: string) => (entries: number[]) =>
    tell({ step: "nearer", share: SHARE_OF_READING, text, nearest: entries.map((e) => index.ids[e]!) });
  const reading = given
    ? { text: given, confidence: 1 }
    : await readWords(
        lines,
        index,
        (line, text, by) => fitText(line, text, index, executor, by, nearTo(text)),
        readLetters,
      );
  signal?.throwIfAborted();
  if (!reading.text) return { ok: false, code: "no-text" };
  const result = request.isSketch
    ? nearestToSketch(lines, reading.text, index, all.load, request.limit)
    : await identifyLine(lines, reading.text, index, executor, request.limit, (share, nearest) =>
        tell({ step: "nearer", share, text: reading.text, nearest }),
      );
  if (!result.matches.length) return { ok: false, code: "text-unknown" };
  return {
    ok: true,
    value: await writeAnswer(
      result,
      { text: reading.text, confidence: reading.confidence, given: Boolean(given) },
      decoded,
    ),
  };
}

type Read = { text: string; confidence: number; given: boolean };
type Value = Extract<IdentifyReply, { ok: true }>["value"];

async function writeAnswer(
  result: IdentifyResult,
  reading: Read,
  { areas, taken }: Pick<Identification, "areas" | "taken">,
): Promise<Value> {
  const { line } = result;
  const strip = await writeStrip(line);
  const { widthPx, heightPx } = strip;
  const characters = [...reading.text.replace(/\s/g, "")];
  const isCut = line.letters.length === characters.length;
  return {
    reading: {
      ...reading,
      letters: line.letters.map((b, i) => ({
        char: isCut ? characters[i]! : "",
        box: { x: b.left, y: b.top, width: Math.max(0.1, b.right - b.left), height: Math.max(0.1, b.bottom - b.top) },
        confidence: reading.confidence,
      })),
    },
    matches: result.matches.map(({ family: _, overlayPath: path, styleId, ...m }) => ({
      ...m,
      styleId: styleId as Identification["matches"][number]["styleId"],
      overlay: { path, widthPx, heightPx },
    })),
    notInLibraries: { chance: result.noneChance },
    strip: {
      ...strip,
      slopeDeg: line.slopeDeg,
      cut: isCut ? "letters" : "whole-word",
      reading: line.reading,
      taper: result.taper,
      setAs: result.setAs,
      leanTan: result.leanTan,
    },
    areas,
    taken,
    compared: result.compared,
  };
}

/** Lines of lettering in a picture, in its pixels. */
export async function findLines({ image }: FindLinesRequest): Promise<FindLinesReply> {
  const decoded = await decodePicture({ image, frame: {}, ink: null });
  return decoded.ok ? { ok: true, areas: decoded.areas } : decoded;
}
export type FindLinesRequest = { image: Uint8Array };
export type FindLinesReply = { ok: true; areas: Identification["areas"] } | { ok: false; code: RequestFaultCode };

async function writeStrip(line: InkLine) {
  const png = await drawStrip(line).png().toBuffer();
  const { widthPx, heightPx } = line.strip;
  return { png: `data:image/png;base64,${png.toString("base64")}`, widthPx, heightPx };
}

async function* noLines() {}

/** Of all ways to see a picture the first that is wanted. */
async function findLine(lines: InkReadings, isIt: (line: InkLine) => boolean): Promise<InkLine | null> {
  if (isIt(lines.plain)) return lines.plain;
  const inks = [lines.plain];
  for await (const line of lines.others()) {
    if (isIt(line)) return line;
    inks.push(line);
  }
  return inks.flatMap((l) => [...lines.evened(l), ...lines.further(l)]).find(isIt) ?? null;
}

/** The view of the line that was cut by hand, and nothing else. */
async function cutLines(lines: InkReadings, { reading, leanTan, letters }: HandCut): Promise<InkReadings | null> {
  const isIt = (line: InkLine) => line.reading === reading;
  const seen = await findLine(lines, isIt);
  if (!seen) return null;
  const boxes = letters.map(({ box }) => ({
    left: box.x,
    top: box.y,
    right: box.x + box.width,
    bottom: box.y + box.height,
  }));
  const plain = cutByHand(leanTan ? leanLine(seen, leanTan).line : seen, boxes);
  return plain && { plain, others: noLines, evened: () => [], further: () => [] };
}

/** Letters that are known otherwise than from a picture: as signed outlines, or by their advances alone. */
export type NearRequest = {
  near: { signature: Uint8Array | null; advancesEm: Readonly<Record<string, number>> | null }[];
  dataFolder: string;
  version: number;
};
export type NearReply = { by: "outlines" | "widths"; faces: { styleId: string; steps: number; isSame: boolean }[] }[];
const NEAR_TOLD = 40;

export function nearFaces(request: NearRequest): NearReply {
  const { index } = indexFor(request);
  return request.near.map(({ signature, advancesEm }) => {
    const ranked = signature ? rankByOutlines(signature, index) : advancesEm ? rankByAdvances(advancesEm, index) : [];
    return {
      by: signature ? "outlines" : "widths",
      faces: ranked
        .slice(0, NEAR_TOLD)
        .map(({ entry, steps, isSame }) => ({ styleId: index.ids[entry]!, steps, isSame })),
    };
  });
}

/** Letters of other scripts are described when they are first asked for: of every style that has them. */
async function describeLetters(from: Held, text: string): Promise<Held> {
  const { index, load, files } = from;
  const letters = [...text.normalize("NFC")].filter((c) => c.trim() && index.at(c) < 0);
  if (!letters.length) return from;
  const coverages = listCoverages(db!);
  const has = (id: string, char: string) => {
    const codePoint = char.codePointAt(0)!;
    return coverages.get(id)?.some(([first, last]) => codePoint >= first && codePoint <= last) ?? false;
  };
  // A face that came cut by character is opened with the parts that have them.
  for (const [id, [main]] of files)
    if (letters.some((char) => has(id, char))) files.set(id, [main!, ...listParts(db!, id).map((p) => p.sfntSha256)]);
  const open = facesInTurn((id) => openMovingStored(files, id));
  const faceOf = (entry: number, char: string) =>
    has(index.ids[entry]!, char) ? open(index.ids[entry]!, index.coordinates[entry]!) : null;
  await index.describeMore(letters, faceOf, relieve);
  // The second thread is sent what the index holds now.
  from.described += 1;
  const version = from.version + from.described / 1e6;
  from.executor = sharedExecutor(index, load, files, version);
  return from;
}

function indexFor({ dataFolder, version }: Pick<IdentifyRequest, "dataFolder" | "version">): Held {
  db ??= openDatabase(join(dataFolder, "fond-quarry.db"));
  if (held?.version === version) return held;
  const entries = held?.entries ?? new Map<string, SignatureRow[]>();
  const changed = listSignaturesSince(db, held?.version ?? 0);
  for (const { id } of changed) entries.delete(id);
  for (const { isGone, ...row } of changed) {
    if (isGone) continue;
    const known = entries.get(row.id);
    if (known) known.push(row);
    else entries.set(row.id, [row]);
  }
  const rows = [...entries.values()].flat();
  const files = new Map(rows.map((r) => [r.id, [r.sfntSha256] as readonly string[]]));
  const load = loadStored(files);
  const index = SignatureIndex.of(rows);
  if (rows.length >= PARTED_FROM) index.leaders = partByShape(index);
  return (held = {
    version,
    entries,
    index,
    load,
    files,
    executor: sharedExecutor(index, load, files, version),
    described: 0,
  });
}
