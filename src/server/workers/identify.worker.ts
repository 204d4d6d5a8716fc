// Worker entry: decodes a picture, reads its line, identifies the face over all described styles. Keeps the index between calls.
import { join } from "node:path";
import { codeOfDecoder, openPixels } from "./pictureLimits";
import type { HandCut, Identification } from "@/contracts/identify";
import type { RequestFaultCode } from "@/contracts/errors";
import { SignatureIndex } from "@/core/descriptors/extractDescriptors";
import { inlineExecutor, type FullTask, type Executor } from "@/core/identify/executor";
import { fitText, identifyLine } from "@/core/identify/identifyLine";
import { START, type FaceLoader } from "@/core/identify/registration/fit";
import { rankByAdvances, rankByOutlines } from "@/core/descriptors/nearestFaces";
import { nearestToSketch } from "@/core/identify/sketch";
import { readWords } from "@/core/identify/hypotheses/readShapes";
import { findAreas } from "@/core/picture/areas";
import { cutByHand } from "@/core/picture/cutByHand";
import { leanLine, readPicture, type InkLine, type InkReadings, type PictureFrame } from "@/core/picture/readPicture";
import { openDatabase, type Db } from "../db/open";
import { listSignaturesSince, type SignatureRow } from "../queries/signatures";
import { loadStored } from "./loadStored";
import { drawStrip, readLetters, warmReader } from "./readText";
import { sharedExecutor } from "./shareWork";

export type IdentifyRequest = {
  image: Uint8Array;
  text: string | null;
  frame: PictureFrame;
  limit: number;
  /** A line as a person has cut it. */
  cut: HandCut | null;
  /** Compare with this style alone. */
  styleId: string | null;
  /** The letters are drawn by hand: the nearest are wanted, no answer. */
  isSketch?: boolean;
  dataFolder: string;
  /** Of the index: what changed since the one that is held is read. */
  version: number;
};
export type IdentifyReply =
  | {
      ok: true;
      value: Omit<Identification, "tookMs" | "matches"> & {
        matches: Omit<Identification["matches"][number], "family" | "style" | "familyId">[];
      };
    }
  | { ok: false; code: RequestFaultCode; detail?: string; place?: number };

const LONGEST_PX = 2400;

let db: Db | null = null;
type Held = {
  version: number;
  entries: Map<string, SignatureRow[]>;
  index: SignatureIndex;
  load: FaceLoader;
  executor: Executor;
};
let held: Held | null = null;

/** So that the first picture does not wait for the index, the second thread and the letter reader. */
export async function warmUp(request: Pick<IdentifyRequest, "dataFolder" | "version">): Promise<void> {
  const nothing: FullTask = { kind: "full", laid: [], imaging: START };
  await indexFor(request).executor([nothing, nothing]);
  await warmReader();
}

export default async function identify(request: IdentifyRequest, signal?: AbortSignal): Promise<IdentifyReply> {
  const decoded = await decode(request.image, request.frame);
  if (!decoded.ok) return decoded;
  const found = readPicture(decoded.picture, decoded.frame);
  const lines = found && request.cut ? cutLines(found, request.cut) : found;
  if (!lines?.plain.letters.length) return { ok: false, code: "no-ink" };
  const all = indexFor(request);
  const index = request.styleId ? all.index.only(request.styleId) : all.index;
  const executor = request.styleId ? inlineExecutor(index, all.load) : all.executor;
  if (!index.ids.length) return { ok: false, code: request.styleId ? "not-owned" : "no-styles" };
  const given = request.text?.trim();
  const reading = given
    ? { text: given, confidence: 1 }
    : await readWords(lines, index, (line, text, by) => fitText(line, text, executor, by), readLetters);
  signal?.throwIfAborted();
  if (!reading.text) return { ok: false, code: "no-text" };
  const result = request.isSketch
    ? nearestToSketch(lines, reading.text, index, all.load, request.limit)
    : await identifyLine(lines, reading.text, index, executor, request.limit);
  if (!result.matches.length) return { ok: false, code: "text-unknown" };
  const { line } = result;
  const png = await drawStrip(line).png().toBuffer();
  const { widthPx, heightPx } = line.strip;
  const characters = [...reading.text.replace(/\s/g, "")];
  return {
    ok: true,
    value: {
      reading: {
        text: reading.text,
        confidence: reading.confidence,
        given: Boolean(given),
        letters: line.letters.map((b, i) => ({
          char: line.letters.length === characters.length ? characters[i]! : "",
          box: { x: b.left, y: b.top, width: Math.max(0.1, b.right - b.left), height: Math.max(0.1, b.bottom - b.top) },
          confidence: reading.confidence,
        })),
      },
      matches: result.matches.map((m) => ({
        styleId: m.styleId as Identification["matches"][number]["styleId"],
        score: m.score,
        chance: m.chance,
        letters: m.letters,
        coordinates: m.coordinates,
        features: m.features,
        besideFirst: m.besideFirst,
        overlay: { path: m.overlayPath, widthPx, heightPx },
      })),
      notInLibraries: { chance: result.noneChance },
      strip: {
        png: `data:image/png;base64,${png.toString("base64")}`,
        widthPx,
        heightPx,
        slopeDeg: line.slopeDeg,
        cut: line.letters.length === characters.length ? "letters" : "whole-word",
        reading: line.reading,
        taper: result.taper,
        setAs: result.setAs,
        leanTan: result.leanTan,
      },
      areas: decoded.areas,
      compared: result.compared,
    },
  };
}

/** The view of the line that was cut by hand, and nothing else. */
function cutLines(lines: InkReadings, { reading, leanTan, letters }: HandCut): InkReadings | null {
  const isIt = (line: InkLine) => line.reading === reading;
  const seen = isIt(lines.plain) ? lines.plain : [...lines.others(), ...lines.further()].find(isIt);
  if (!seen) return null;
  const boxes = letters.map(({ box }) => ({
    left: box.x,
    top: box.y,
    right: box.x + box.width,
    bottom: box.y + box.height,
  }));
  const plain = cutByHand(leanTan ? leanLine(seen, leanTan).line : seen, boxes);
  return plain && { plain, others: () => [], further: () => [] };
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

type Decoded =
  | {
      ok: true;
      picture: { widthPx: number; heightPx: number; rgba: Uint8Array };
      frame: PictureFrame;
      areas: Identification["areas"];
    }
  | { ok: false; code: RequestFaultCode; detail?: string };

/** Decodes, turns by EXIF, lays on white, and shrinks what is very large; the frame shrinks with it. */
async function decode(image: Uint8Array, frame: PictureFrame): Promise<Decoded> {
  if (!image.length) return { ok: false, code: "picture-empty" };
  try {
    const { metadata: meta, open } = await openPixels(image);
    const turned = (meta.orientation ?? 1) >= 5;
    const width = (turned ? meta.height : meta.width) ?? 0;
    const height = (turned ? meta.width : meta.height) ?? 0;
    if (width < 4 || height < 4) return { ok: false, code: "picture-empty" };
    const region = frame.box ?? { width, height };
    const shrink = Math.min(
      1,
      LONGEST_PX /
        Math.max(frame.corners || frame.baseline ? Math.max(width, height) : Math.max(region.width, region.height)),
    );
    const { data, info } = await open()
      .rotate()
      .flatten({ background: "#ffffff" })
      .resize(Math.max(1, Math.round(width * shrink)), Math.max(1, Math.round(height * shrink)), { fit: "fill" })
      .toColourspace("srgb")
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    const { box, corners, baseline } = frame;
    const picture = {
      widthPx: info.width,
      heightPx: info.height,
      rgba: new Uint8Array(data.buffer, data.byteOffset, data.length),
    };
    return {
      ok: true,
      picture,
      // Who framed a line has chosen already.
      areas: (box || corners || baseline ? [] : findAreas(picture)).map((a) => ({
        x: a.x / shrink,
        y: a.y / shrink,
        width: a.width / shrink,
        height: a.height / shrink,
      })),
      frame: {
        ...(box && {
          box: { x: box.x * shrink, y: box.y * shrink, width: box.width * shrink, height: box.height * shrink },
        }),
        ...(corners && { corners: corners.map((c) => ({ x: c.x * shrink, y: c.y * shrink })) }),
        ...(baseline && { baseline: baseline.map((c) => ({ x: c.x * shrink, y: c.y * shrink })) }),
      },
    };
  } catch (error) {
    const detail = String((error as Error).message);
    return { ok: false, code: codeOfDecoder(detail), detail };
  }
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
  const sfnts = new Map(rows.map((r) => [r.id, r.sfntSha256]));
  const load = loadStored(sfnts);
  const index = SignatureIndex.of(rows);
  return (held = { version, entries, index, load, executor: sharedExecutor(index, load, sfnts, version) });
}
