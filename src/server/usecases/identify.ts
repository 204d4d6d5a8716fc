// Identifying a picture: limits checked here, the work in the worker, names added on the way out.
import { MAX_PICTURE_BYTES } from "@/contracts/limits";
import {
  PROBABLY_NOT_HERE,
  type FaceGroup,
  type Identification,
  type IdentifyStep,
  type LayoutStep,
} from "@/contracts/identify";
import type { FamilyId, StyleId } from "@/contracts/ids";
import { refuse, succeed, type FaultCode, type Outcome } from "@/contracts/errors";
import { groupLines, type LineAnswer } from "@/core/identify/answer/groupLines";
import { orderByLook } from "@/core/identify/answer/orderByLook";
import { dataFolder, type Db } from "../db/open";
import type { IdentifyRequest, IdentifyTold } from "../workers/identify.worker";
import { findLinesInWorker, identifyInWorker, warmIdentifyInWorker } from "../workers/pool";
import { beforeReaders } from "../queue/queue";
import { lastSignatureVersion } from "../queries/signatures";
import { getRows } from "./findings";

/** Loads index and letter reader, so that the first picture is answered as fast as the next. Failing does no harm. */
export function warmIdentify(db: Db) {
  void warmIdentifyInWorker({ dataFolder: dataFolder(), version: lastSignatureVersion(db) });
}

/** A question with a picture. */
type Question = Pick<IdentifyRequest, "text" | "frame" | "limit" | "cut" | "ink" | "styleId" | "isSketch">;
type SentPicture = { name: string; bytes: Uint8Array };
/** What is told before the answer. */
type Told = Exclude<IdentifyStep, { step: "answered" | "refused" }>;

const refusePicture = (name: string, code: FaultCode, detail?: unknown) =>
  refuse(code, `${name}: ${refuse(code).message}`, detail);

function refuseSize({ name, bytes }: SentPicture) {
  if (!bytes.length) return refusePicture(name, "picture-empty");
  return bytes.length > MAX_PICTURE_BYTES ? refusePicture(name, "picture-too-large") : null;
}

/** A style with its names; none for one that vanished while a picture was compared. */
function nameStyles(db: Db) {
  const { findRow } = getRows(db);
  return <T extends { styleId: string }>(face: T) => {
    const row = findRow(face.styleId);
    const { family, style, familyId } = row ?? {};
    return row
      ? [{ ...face, styleId: face.styleId as StyleId, familyId: familyId as FamilyId, family: family!, style: style! }]
      : [];
  };
}

/** @param tell - is told what comes nearest so far. */
export async function identify(
  db: Db,
  picture: SentPicture,
  question: Question,
  signal?: AbortSignal,
  tell?: (told: Told) => void,
): Promise<Outcome<Identification>> {
  const refused = refuseSize(picture);
  if (refused) return refused;
  const started = Date.now();
  const named = nameStyles(db);
  const request = { image: picture.bytes, ...question, dataFolder: dataFolder(), version: lastSignatureVersion(db) };
  const onStep = (told: IdentifyTold) =>
    tell?.(told.step === "seen" ? told : { ...told, nearest: told.nearest.flatMap((styleId) => named({ styleId })) });
  const reply = await beforeReaders(() => identifyInWorker(request, signal, tell && onStep));
  if (!reply.ok) return refusePicture(picture.name, reply.code, reply.place && { place: reply.place });
  const matches = reply.value.matches.flatMap(named);
  return succeed({
    ...reply.value,
    matches,
    byLook: reply.value.notInLibraries.chance > PROBABLY_NOT_HERE ? lookOf(db, matches) : null,
    tookMs: Date.now() - started,
  });
}

function lookOf(db: Db, matches: readonly { styleId: StyleId; score: number }[]): Identification["byLook"] {
  const { findRow } = getRows(db);
  const { kind, treatments, faces } = orderByLook(
    matches.map(({ styleId, score }) => {
      const row = findRow(styleId);
      const values = <T>(guesses: readonly { value: T }[] = []) => guesses.map((g) => g.value);
      return { styleId, score, kinds: values(row?.kinds), treatments: values(row?.treatments) };
    }),
  );
  return { kind, treatments, styleIds: faces.map((f) => f.styleId) };
}

/** Every line of a picture, one after the other, then the faces that they share. @param tell - is told each as it comes. */
export async function identifyLayout(
  db: Db,
  picture: SentPicture,
  signal: AbortSignal,
  tell: (told: Exclude<LayoutStep, { step: "grouped" | "refused" }>) => void,
): Promise<Outcome<FaceGroup[]>> {
  const refused = refuseSize(picture);
  if (refused) return refused;
  const found = await beforeReaders(() => findLinesInWorker({ image: picture.bytes }, signal));
  if (!found.ok) return refusePicture(picture.name, found.code);
  if (!found.areas.length) return refusePicture(picture.name, "no-ink");
  tell({ step: "lines", areas: found.areas });
  const plain = { text: null, limit: FACES_OF_LINE, cut: null, ink: null, styleId: null, isSketch: false };
  const lines: LineAnswer[] = [];
  for (const [at, box] of found.areas.entries()) {
    if (signal.aborted) return refuse("let-go");
    const answer = await identify(db, picture, { ...plain, frame: { box } }, signal);
    lines.push(
      answer.ok
        ? { matches: answer.value.matches, noneChance: answer.value.notInLibraries.chance }
        : { matches: [], noneChance: 1 },
    );
    tell(
      answer.ok
        ? { step: "line", at, answer: { ...answer.value, matches: answer.value.matches.slice(0, FACES_TOLD) } }
        : { step: "line refused", at, error: { code: answer.code, message: answer.message } },
    );
  }
  const named = nameStyles(db);
  const groups = groupLines(lines).map((g) => ({ ...g, matches: g.matches.flatMap(named) }));
  // All of a group's faces may have vanished meanwhile.
  return succeed(groups.filter((g) => g.matches.length));
}
/** Faces of a line that are weighed against those of the others, and how many are told of each. */
const FACES_OF_LINE = 40;
const FACES_TOLD = 12;
