// Worker threads: fonts are read, pictures identified and sheets written there, with limits of time and memory.
import { availableParallelism } from "node:os";
import { join } from "node:path";
import pLimit, { type LimitFunction } from "p-limit";
import { Piscina } from "piscina";
import type { DocumentReply, DocumentRequest } from "./documents.worker";
import type { IdentifyReply, IdentifyRequest, NearReply, NearRequest } from "./identify.worker";
import type { PreparePictureReply, PreparePictureRequest } from "./preparePicture.worker";
import type { QuestionSheetRequest } from "./questionSheet.worker";
import type { ReadFontReply, ReadFontRequest } from "./readFont.worker";
import type { WriteSheetRequest } from "./writeSheet.worker";

/** Fonts read at a time. */
const READERS = Math.max(2, Math.min(8, availableParallelism()));

type Pools = {
  readers: LimitFunction;
  fonts: Piscina;
  identify: Piscina;
  sheets: Piscina;
  questions: Piscina;
  pictures: Piscina;
  documents: Piscina;
};
const shared = globalThis as unknown as { fondQuarryPools?: Pools };

/** Time a single font may take before its worker is ended. */
export const FONT_TIMEOUT_MS = 9_000;
const IDENTIFY_TIMEOUT_MS = 60_000;
const PICTURE_TIMEOUT_MS = 15_000;
const SHEET_TIMEOUT_MS = 180_000;
const QUESTION_TIMEOUT_MS = 30_000;
const DOCUMENT_TIMEOUT_MS = 30_000;

function getPools(): Pools {
  const make = (file: string, maxThreads: number, memoryMb: number, idleTimeout = 60_000) =>
    new Piscina({
      filename: join(process.cwd(), "dist-workers", file),
      minThreads: 0,
      maxThreads,
      idleTimeout,
      concurrentTasksPerWorker: 1,
      resourceLimits: { maxOldGenerationSizeMb: memoryMb },
    });
  return (shared.fondQuarryPools ??= {
    // The limit of time of a task begins when a thread is free for it, not while it waits.
    readers: pLimit(READERS),
    fonts: make("readFont.worker.mjs", READERS, 512),
    identify: make("identify.worker.mjs", 1, 2048, 900_000),
    sheets: make("writeSheet.worker.mjs", 1, 1024),
    questions: make("questionSheet.worker.mjs", 1, 512),
    pictures: make("preparePicture.worker.mjs", 1, 512),
    documents: make("documents.worker.mjs", 1, 768),
  });
}

/** Runs one task with a limit of time; beyond it the worker is ended. Exported for the test that hangs one. */
export async function run<Request, Reply>(
  pool: Piscina,
  request: Request,
  timeoutMs: number,
  name?: string,
): Promise<Reply> {
  return (await pool.run(request, { signal: AbortSignal.timeout(timeoutMs), ...(name && { name }) })) as Reply;
}

/** Why a worker gave no reply. */
function tellEnd(error: unknown): "took-too-long" | "too-much-memory" | "reader-failed" {
  const { name, message, code } = error as Error & { code?: string };
  if (name === "AbortError" || name === "TimeoutError") return "took-too-long";
  return code === "ERR_WORKER_OUT_OF_MEMORY" || /memory/i.test(message) ? "too-much-memory" : "reader-failed";
}

/** Reads one font file. A worker that hangs or runs out of memory gives a refusal, never an exception. */
export async function readFontInWorker(request: ReadFontRequest): Promise<ReadFontReply> {
  try {
    const { readers, fonts } = getPools();
    return await readers(() => run<ReadFontRequest, ReadFontReply>(fonts, request, FONT_TIMEOUT_MS));
  } catch (error) {
    return { ok: false, code: tellEnd(error), detail: String((error as Error).message) };
  }
}

/** A picture that hangs or breaks the worker gives a refusal, never an exception. */
export async function identifyInWorker(request: IdentifyRequest): Promise<IdentifyReply> {
  try {
    return await run<IdentifyRequest, IdentifyReply>(getPools().identify, request, IDENTIFY_TIMEOUT_MS);
  } catch (error) {
    const detail = String((error as Error).message);
    console.error("identify:", detail);
    return { ok: false, code: tellEnd(error) === "reader-failed" ? "picture-broken" : "picture-too-long", detail };
  }
}

/** The worker that holds all signatures ranks faces by letters that are known otherwise than from a picture. */
export const nearFacesInWorker = (request: NearRequest) =>
  run<NearRequest, NearReply>(getPools().identify, request, IDENTIFY_TIMEOUT_MS, "nearFaces");

/** A document that hangs or breaks the worker gives a refusal, never an exception. */
export async function readDocumentInWorker(request: DocumentRequest): Promise<DocumentReply> {
  try {
    return await run<DocumentRequest, DocumentReply>(getPools().documents, request, DOCUMENT_TIMEOUT_MS);
  } catch (error) {
    return { ok: false, code: "document-too-long", detail: String((error as Error).message) };
  }
}

/** A picture that hangs or breaks the worker gives a refusal, never an exception. */
export async function preparePictureInWorker(request: PreparePictureRequest): Promise<PreparePictureReply> {
  try {
    return await run<PreparePictureRequest, PreparePictureReply>(getPools().pictures, request, PICTURE_TIMEOUT_MS);
  } catch (error) {
    return { ok: false, code: "picture-broken", detail: String((error as Error).message) };
  }
}

export const writeSheetInWorker = (request: WriteSheetRequest) =>
  run<WriteSheetRequest, Uint8Array>(getPools().sheets, request, SHEET_TIMEOUT_MS);

export const writeQuestionSheetInWorker = (request: QuestionSheetRequest) =>
  run<QuestionSheetRequest, Uint8Array>(getPools().questions, request, QUESTION_TIMEOUT_MS);
