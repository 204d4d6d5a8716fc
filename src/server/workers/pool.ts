// Pools of processes: whatever parses a stranger's bytes runs there, with limits of time and memory. Each process that asks (the
// server, the jobs' process) has pools of its own; a process of them is started when it is first needed.
import { availableParallelism } from "node:os";
import { join } from "node:path";
import type { FaultCode } from "@/contracts/errors";
import { refuse, succeed, type Outcome } from "@/contracts/errors";
import { IN_BACKGROUND } from "./forkNode";
import { ProcessPool, type Ran, type RunOptions } from "./processPool";
import type { DocumentPictureReply, DocumentPictureRequest, DocumentReply, DocumentRequest } from "./documents.worker";
import type { FaceReply, FaceRequest } from "./faces.worker";
import type {
  FindLinesReply,
  FindLinesRequest,
  IdentifyReply,
  IdentifyRequest,
  IdentifyTold,
  NearReply,
  NearRequest,
} from "./identify.worker";
import type { MapReply, MapRequest } from "./map.worker";
import type { PreparePictureReply, PreparePictureRequest } from "./preparePicture.worker";
import type { QuestionSheetRequest } from "./questionSheet.worker";
import type {
  ReadFontReply,
  ReadFontRequest,
  ReadLaterReply,
  ReadLaterRequest,
  ReadToImportReply,
  ReadToImportRequest,
} from "./readFont.worker";
import type { LetterReply, LetterRequest } from "./letter.worker";
import type { MotionReplies, MotionRequest } from "./motion.worker";
import type { LibraryReply, LibraryRequest } from "./libraries.worker";
import type { TermsReply, TermsRequest } from "./terms.worker";
import type { WebFont } from "@/core/webkit/makeWebFont";
import type { WebFontRequest } from "./webFont.worker";
import type { WriteSheetRequest } from "./writeSheet.worker";

/** Fonts read at a time. */
const READERS = Math.max(2, Math.min(8, availableParallelism()));

/** Frames of a motion are drawn by so many at a time. */
export const MOTION_PROCESSES = Math.max(1, Math.min(4, availableParallelism()));

/** What was freed goes back to the system (mallopt(3)): pictures and encoders come and go by the hundred megabytes. */
const GIVES_BACK = { MALLOC_MMAP_THRESHOLD_: "262144", MALLOC_ARENA_MAX: "2" };

/** Entry, processes, memory in megabytes, places in line. Jobs feed the readers of fonts and terms themselves: those lines have no end. */
const POOLS = {
  fonts: { entry: "readFont", processes: READERS, memoryMb: 768, niceness: IN_BACKGROUND },
  terms: { entry: "terms", processes: 1, memoryMb: 512, niceness: IN_BACKGROUND },
  faces: { entry: "faces", processes: 1, memoryMb: 768, line: 40 },
  identify: { entry: "identify", processes: 1, memoryMb: 3072, line: 8, idleMs: 900_000 },
  motion: { entry: "motion", processes: MOTION_PROCESSES, memoryMb: 1024, line: 40, idleMs: 60_000, env: GIVES_BACK },
  lettering: { entry: "letter", processes: 1, memoryMb: 2048, line: 40 },
  sheets: { entry: "writeSheet", processes: 1, memoryMb: 1024, line: 8 },
  webFonts: { entry: "webFont", processes: 1, memoryMb: 768, line: 40 },
  questions: { entry: "questionSheet", processes: 1, memoryMb: 768, line: 8 },
  pictures: { entry: "preparePicture", processes: 1, memoryMb: 768, line: 8 },
  documents: { entry: "documents", processes: 1, memoryMb: 768, line: 8 },
  map: { entry: "map", processes: 1, memoryMb: 1024, line: 8, idleMs: 30_000, niceness: IN_BACKGROUND },
  libraries: { entry: "libraries", processes: 1, memoryMb: 512, line: 40 },
} as const;
type PoolName = keyof typeof POOLS;

/** Time a single font may take before its process is ended. */
const FONT_TIMEOUT_MS = 9_000;
const TERMS_TIMEOUT_MS = 5_000;
const FACE_TIMEOUT_MS = 9_000;
const IDENTIFY_TIMEOUT_MS = 60_000;
const PICTURE_TIMEOUT_MS = 15_000;
/** Of processor time, for a hundred thousand styles. */
const MAP_TIMEOUT_MS = 60_000;
const LETTER_TIMEOUT_MS = 60_000;
/** A stretch of frames in the largest size, coded, on a busy machine; putting all frames together. */
const MOTION_TIMEOUT_MS = 600_000;
const SHEET_TIMEOUT_MS = 180_000;
/** A whole font of many thousand characters takes some ten seconds to compress. */
const WEB_FONT_TIMEOUT_MS = 90_000;
const QUESTION_TIMEOUT_MS = 30_000;
const DOCUMENT_TIMEOUT_MS = 30_000;
/** Longer than a library may be silent. */
const LIBRARY_TIMEOUT_MS = 60_000;

const shared = globalThis as unknown as { fondQuarryPools?: Map<PoolName, ProcessPool> };

function getPool(name: PoolName): ProcessPool {
  const pools = (shared.fondQuarryPools ??= new Map());
  let pool = pools.get(name);
  if (!pool) {
    const file = (f: string) => join(process.cwd(), "dist-workers", `${f}.mjs`);
    const { entry, ...options } = POOLS[name];
    pool = new ProcessPool({ ...options, entry: file(`${entry}.worker`), program: file("child") });
    pools.set(name, pool);
  }
  return pool;
}

/** Ends every process of every pool: for tests and for a server that stops. */
export function closePools() {
  for (const pool of shared.fondQuarryPools?.values() ?? []) pool.close();
  shared.fondQuarryPools?.clear();
}

/** Their work waits for others: for processes that share it, for a library. All else only computes. */
const WAITING: readonly PoolName[] = ["identify", "motion", "libraries"];

const run = <Request, Reply>(name: PoolName, request: Request, options: RunOptions): Promise<Ran<Reply>> =>
  getPool(name).run<Request, Reply>(request, { ...options, isComputing: !WAITING.includes(name) });

/** While somebody waits for a picture, readers take up nothing new for so long; then one of them goes on beside it. */
const YIELD_MS = 300;
let yielding: NodeJS.Timeout | undefined;

/** Readers make way for what a person waits for, or go on. */
export function yieldReaders(yields: boolean) {
  const readers = getPool("fonts");
  clearTimeout(yielding);
  readers.limitAtOnce(yields ? 0 : READERS);
  if (yields) yielding = setTimeout(() => readers.limitAtOnce(1), YIELD_MS);
}

/** What a caller says of work that gave no reply. Busy and let-go are told as they are; how it ended is told by the work's own code. */
function codeOf<C extends FaultCode>(ran: Extract<Ran<unknown>, { ok: false }>, broken: C, tooLong: C) {
  if (ran.code === "busy" || ran.code === "let-go") return ran.code;
  return ran.code === "reader-failed" ? broken : tooLong;
}

/** Reads one font file. A reader that hangs or runs out of memory gives a refusal, never an exception. */
export async function readFontInWorker(request: ReadFontRequest, signal?: AbortSignal): Promise<ReadFontReply> {
  const ran = await run<ReadFontRequest, ReadFontReply>("fonts", request, { timeoutMs: FONT_TIMEOUT_MS, signal });
  return ran.ok ? ran.value : unread(ran);
}

/** Reads one font file as an import needs it. */
export async function readToImportInWorker(
  request: ReadToImportRequest,
  signal?: AbortSignal,
): Promise<ReadToImportReply> {
  const options = { timeoutMs: FONT_TIMEOUT_MS, signal, name: "readToImport" };
  const ran = await run<ReadToImportRequest, ReadToImportReply>("fonts", request, options);
  return ran.ok ? ran.value : unread(ran);
}

/** Some stages of a font that is on the wall. Fonts that are not there yet go before it. */
export async function readLaterInWorker(request: ReadLaterRequest, signal?: AbortSignal): Promise<ReadLaterReply> {
  const options = { timeoutMs: FONT_TIMEOUT_MS, signal, name: "readLater", canWait: true };
  const ran = await run<ReadLaterRequest, ReadLaterReply>("fonts", request, options);
  return ran.ok ? ran.value : unread(ran);
}

/** Jobs feed the readers one by one: busy and let-go are no answers to a file. */
function unread({ code, detail }: Extract<Ran<unknown>, { ok: false }>) {
  return { ok: false as const, code: code === "busy" || code === "let-go" ? ("reader-failed" as const) : code, detail };
}

/** Texts → terms. Null: they could not be read in time, so nothing is known of them. */
export async function readTermsInWorker<R extends TermsRequest>(request: R): Promise<TermsReply<R> | null> {
  const options = { timeoutMs: TERMS_TIMEOUT_MS, name: request.what };
  const ran = await run<R, TermsReply<R>>("terms", request, options);
  if (!ran.ok) console.error("terms:", ran.code, ran.detail);
  return ran.ok ? ran.value : null;
}

/** Glyphs, anatomy and neighbours of faces that are in the store. */
export async function askFace<R extends FaceRequest>(request: R, signal?: AbortSignal): Promise<Outcome<FaceReply<R>>> {
  const options = { timeoutMs: FACE_TIMEOUT_MS, name: request.what, signal };
  const ran = await run<R, FaceReply<R>>("faces", request, options);
  if (ran.ok) return succeed(ran.value);
  return refuse(codeOf(ran, "face-failed", "face-too-long"), undefined, ran.place && { place: ran.place });
}

/** The map's layout; null when it could not be made. */
export async function layOutInWorker(request: MapRequest): Promise<MapReply | null> {
  const ran = await run<MapRequest, MapReply>("map", request, { timeoutMs: MAP_TIMEOUT_MS });
  if (!ran.ok) console.error("map:", ran.code, ran.detail);
  return ran.ok ? ran.value : null;
}

/** A picture that hangs or breaks its process gives a refusal, never an exception. @param onStep - is told how far it has come. */
export const identifyInWorker = (
  request: IdentifyRequest,
  signal?: AbortSignal,
  onStep?: (step: IdentifyTold) => void,
): Promise<IdentifyReply> =>
  askPicture("default", request, { signal, onStep: onStep as ((step: unknown) => void) | undefined });

export const findLinesInWorker = (request: FindLinesRequest, signal?: AbortSignal): Promise<FindLinesReply> =>
  askPicture("findLines", request, { signal });

async function askPicture<Request, Reply>(name: string, request: Request, options: Partial<RunOptions>) {
  const ran = await run<Request, Reply>("identify", request, { timeoutMs: IDENTIFY_TIMEOUT_MS, name, ...options });
  if (ran.ok) return ran.value;
  if (ran.code !== "busy" && ran.code !== "let-go") console.error("identify:", ran.code, ran.detail);
  const code = codeOf(ran, "picture-broken", "picture-too-long");
  return { ok: false as const, code, ...(ran.place && { place: ran.place }) };
}

export const warmIdentifyInWorker = (request: Pick<IdentifyRequest, "dataFolder" | "version">) =>
  run("identify", request, { timeoutMs: IDENTIFY_TIMEOUT_MS, name: "warmUp" });

/** The process that holds all signatures ranks faces by letters that are known otherwise than from a picture. */
export async function nearFacesInWorker(request: NearRequest, signal?: AbortSignal): Promise<Ran<NearReply>> {
  return run("identify", request, { timeoutMs: IDENTIFY_TIMEOUT_MS, name: "nearFaces", signal });
}

/** A document that hangs or breaks its process gives a refusal, never an exception. */
export async function readDocumentInWorker(request: DocumentRequest, signal?: AbortSignal): Promise<DocumentReply> {
  const options = { timeoutMs: DOCUMENT_TIMEOUT_MS, signal };
  const ran = await run<DocumentRequest, DocumentReply>("documents", request, options);
  return ran.ok ? ran.value : { ok: false, code: codeOf(ran, "document-broken", "document-too-long") };
}

export async function takeDocumentPictureInWorker(
  request: DocumentPictureRequest,
  signal?: AbortSignal,
): Promise<DocumentPictureReply> {
  const options = { timeoutMs: DOCUMENT_TIMEOUT_MS, name: "takePicture", signal };
  const ran = await run<DocumentPictureRequest, DocumentPictureReply>("documents", request, options);
  return ran.ok ? ran.value : { ok: false, code: codeOf(ran, "document-broken", "document-too-long") };
}

/** A picture that hangs or breaks its process gives a refusal, never an exception. */
export async function preparePictureInWorker(
  request: PreparePictureRequest,
  signal?: AbortSignal,
): Promise<PreparePictureReply> {
  const options = { timeoutMs: PICTURE_TIMEOUT_MS, signal };
  const ran = await run<PreparePictureRequest, PreparePictureReply>("pictures", request, options);
  return ran.ok
    ? ran.value
    : { ok: false, code: codeOf(ran, "picture-broken", "picture-too-long"), detail: ran.detail };
}

/** Asks a library for people who wait: what it answers is a stranger's too. */
export async function askLibrary<R extends LibraryRequest>(request: R, signal?: AbortSignal): Promise<LibraryReply<R>> {
  const options = { timeoutMs: LIBRARY_TIMEOUT_MS, name: request.what, signal };
  const ran = await run<R, LibraryReply<R>>("libraries", request, options);
  return ran.ok ? ran.value : refuse(codeOf(ran, "library-broken", "library-slow"));
}

/** Web fonts of one face; one that breaks the subsetter gives a refusal, never an exception. */
export async function makeWebFontsInWorker(request: WebFontRequest, signal?: AbortSignal): Promise<Outcome<WebFont[]>> {
  const ran = await run<WebFontRequest, WebFont[]>("webFonts", request, { timeoutMs: WEB_FONT_TIMEOUT_MS, signal });
  return ran.ok ? succeed(ran.value) : refuse(codeOf(ran, "web-font-failed", "web-font-too-long"));
}

/** A document that hangs or breaks its process gives a refusal, never an exception. */
export async function askLettering<R extends LetterRequest>(request: R, signal?: AbortSignal): Promise<LetterReply<R>> {
  const options = { timeoutMs: LETTER_TIMEOUT_MS, name: request.what, signal };
  const ran = await run<R, LetterReply<R>>("lettering", request, options);
  return ran.ok ? ran.value : refuse(codeOf(ran, "lettering-failed", "lettering-too-long"));
}

/** A motion that hangs or breaks its process gives a refusal, never an exception. */
export async function askMotion<R extends MotionRequest>(
  request: R,
  signal?: AbortSignal,
): Promise<Outcome<MotionReplies[R["what"]]>> {
  const options = { timeoutMs: MOTION_TIMEOUT_MS, name: request.what, signal };
  const ran = await run<R, MotionReplies[R["what"]]>("motion", request, options);
  if (ran.ok) return succeed(ran.value);
  if (ran.code === "reader-failed") console.error("motion:", ran.detail);
  return refuse(codeOf(ran, "motion-failed", "motion-too-long"));
}

export const writeSheetInWorker = (request: WriteSheetRequest, signal?: AbortSignal) =>
  written(run<WriteSheetRequest, Uint8Array>("sheets", request, { timeoutMs: SHEET_TIMEOUT_MS, signal }));

export const writeQuestionSheetInWorker = (request: QuestionSheetRequest, signal?: AbortSignal) =>
  written(run<QuestionSheetRequest, Uint8Array>("questions", request, { timeoutMs: QUESTION_TIMEOUT_MS, signal }));

async function written(running: Promise<Ran<Uint8Array>>): Promise<Outcome<Uint8Array>> {
  const ran = await running;
  return ran.ok ? succeed(ran.value) : refuse(codeOf(ran, "sheet-failed", "sheet-too-long"));
}
