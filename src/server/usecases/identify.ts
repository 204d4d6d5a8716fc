// Identifying a picture: limits checked here, the work in the worker, names added on the way out.
import { MAX_PICTURE_BYTES } from "@/contracts/limits";
import type { HandCut, Identification } from "@/contracts/identify";
import type { FamilyId } from "@/contracts/ids";
import { refuse, succeed, type Outcome } from "@/contracts/errors";
import type { PictureFrame } from "@/core/picture/readPicture";
import { dataFolder, type Db } from "../db/open";
import { identifyInWorker, warmIdentifyInWorker } from "../workers/pool";
import { beforeReaders } from "../queue/queue";
import { lastSignatureVersion } from "../queries/signatures";
import { getRows } from "./findings";

/** Loads index and letter reader, so that the first picture is answered as fast as the next. Failing does no harm. */
export function warmIdentify(db: Db) {
  void warmIdentifyInWorker({ dataFolder: dataFolder(), version: lastSignatureVersion(db) });
}

export async function identify(
  db: Db,
  name: string,
  image: Uint8Array,
  ask: {
    text: string | null;
    frame: PictureFrame;
    limit: number;
    cut: HandCut | null;
    styleId: string | null;
    isSketch: boolean;
  },
  signal?: AbortSignal,
): Promise<Outcome<Identification>> {
  const say = (code: Parameters<typeof refuse>[0], detail?: unknown) =>
    refuse(code, `${name}: ${refuse(code).message}`, detail);
  if (!image.length) return say("picture-empty");
  if (image.length > MAX_PICTURE_BYTES) return say("picture-too-large");
  const started = Date.now();
  const { findRow } = getRows(db);
  const request = { image, ...ask, dataFolder: dataFolder(), version: lastSignatureVersion(db) };
  const reply = await beforeReaders(() => identifyInWorker(request, signal));
  if (!reply.ok) return say(reply.code, reply.place && { place: reply.place });
  return succeed({
    ...reply.value,
    // A style that vanished while the picture was compared is no match.
    matches: reply.value.matches.flatMap((m) => {
      const row = findRow(m.styleId);
      return row ? [{ ...m, familyId: row.familyId as FamilyId, family: row.family, style: row.style }] : [];
    }),
    tookMs: Date.now() - started,
  });
}
