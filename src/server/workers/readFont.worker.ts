// Worker entry: one font file through the stages of the pipeline. Nothing is stored here.
import type { FontFaultCode } from "@/contracts/errors";
import { FIRST_STAGES, STAGES, type Stage } from "@/contracts/pipeline";
import type { Traits } from "@/contracts/traits";
import { FontFileError } from "@/core/open/fontFileError";
import {
  isFirst,
  isWhole,
  readFont,
  type FirstReading,
  type FontReading,
  type LaterReading,
  type OpenedReading,
} from "@/core/read/readFont";

export type ReadFontRequest = { bytes: Uint8Array; fallbackFamily: string };
type Refused = { ok: false; code: FontFaultCode; detail: string };
export type ReadFontReply = { ok: true; reading: FontReading } | Refused;

/**
 * @property isFirst - only what the wall needs: the other stages follow.
 * @property mayBePart - a font without the Latin alphabet is only opened: it may be one part of another.
 */
export type ReadToImportRequest = ReadFontRequest & { isFirst: boolean; mayBePart: boolean };
export type ReadToImportReply =
  | { ok: true; isOpenedOnly: false; reading: FirstReading }
  | { ok: true; isOpenedOnly: true; reading: OpenedReading }
  | Refused;

/** @property traits - as they stand in the store, for stages that need them. */
export type ReadLaterRequest = { bytes: Uint8Array; stages: Stage[]; traits: Traits };
export type ReadLaterReply = { ok: true; reading: LaterReading & Partial<Pick<FirstReading, "print">> } | Refused;

/** A font that takes long is described at fewer places on its axes, or none: from the beginning of its reading. */
const VARIED_UNTIL_MS = 3_000;

const lateness = () => {
  const started = performance.now();
  return () => performance.now() > started + VARIED_UNTIL_MS;
};

/** @returns the reading, or the code and detail of why the file is refused. */
export default async function readWhole({ bytes, fallbackFamily }: ReadFontRequest): Promise<ReadFontReply> {
  try {
    const reading = await readFont(bytes, { fallbackFamily, stages: STAGES, isLate: lateness() });
    if (!isWhole(reading)) throw new Error("not all stages were run");
    return { ok: true, reading };
  } catch (error) {
    return refusedFor(error);
  }
}

/** As an import needs it. */
export async function readToImport(request: ReadToImportRequest): Promise<ReadToImportReply> {
  const { bytes, fallbackFamily, mayBePart } = request;
  try {
    const stages = request.isFirst ? FIRST_STAGES : STAGES;
    const reading = await readFont(bytes, { fallbackFamily, stages, mayBePart, isLate: lateness() });
    return isFirst(reading) ? { ok: true, isOpenedOnly: false, reading } : { ok: true, isOpenedOnly: true, reading };
  } catch (error) {
    return refusedFor(error);
  }
}

/** Some stages of a font that is on the wall already. */
export async function readLater({ bytes, stages, traits }: ReadLaterRequest): Promise<ReadLaterReply> {
  try {
    const settings = { fallbackFamily: "", stages, traits, isLate: lateness() };
    const { opened: _opened, stages: _stages, family: _family, ...reading } = await readFont(bytes, settings);
    return { ok: true, reading };
  } catch (error) {
    return refusedFor(error);
  }
}

function refusedFor(error: unknown): Refused {
  if (error instanceof FontFileError) return { ok: false, code: error.code, detail: error.message };
  return { ok: false, code: "reader-failed", detail: String((error as Error).message) };
}
