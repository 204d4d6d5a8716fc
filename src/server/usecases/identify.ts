// Identifying a picture: limits checked here, the work in the worker, names added on the way out.
import type { HandCut, Identification } from "@/contracts/identify";
import type { FamilyId } from "@/contracts/ids";
import { refuse, succeed, type Outcome } from "@/contracts/errors";
import type { PictureFrame } from "@/core/picture/readPicture";
import { dataFolder, type Db } from "../db/open";
import { identifyInWorker } from "../jobs/pool";
import { lastSeq } from "../queries/styles";
import { getRows } from "./findings";

export const MAX_PICTURE_BYTES = 40 * 1024 * 1024;

/** Loads index and letter reader, so that the first picture is answered as fast as the next. Failing does no harm. */
export function warmIdentify(db: Db) {
  void identifyInWorker({
    image: new Uint8Array(0),
    text: null,
    frame: {},
    limit: 1,
    cut: null,
    styleId: null,
    dataFolder: dataFolder(),
    version: lastSeq(db),
    warmUp: true,
  });
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
): Promise<Outcome<Identification>> {
  const say = (code: Parameters<typeof refuse>[0], detail?: string) =>
    refuse(code, `${name}: ${refuse(code).message}`, detail);
  if (!image.length) return say("picture-empty");
  if (image.length > MAX_PICTURE_BYTES) return say("picture-too-large");
  const started = Date.now();
  const { rows } = getRows(db);
  const reply = await identifyInWorker({ image, ...ask, dataFolder: dataFolder(), version: lastSeq(db) });
  if (!reply.ok) return say(reply.code, reply.detail);
  return succeed({
    ...reply.value,
    matches: reply.value.matches.map((m) => {
      const row = rows.get(m.styleId);
      return {
        ...m,
        familyId: (row?.familyId ?? "f_unknown") as FamilyId,
        family: row?.family ?? "",
        style: row?.style ?? "",
      };
    }),
    tookMs: Date.now() - started,
  });
}
