// Worker of the page: lays letterings out with the core's own code, so that typing and dragging never wait for the server. It fetches
// fonts by itself and keeps the faces it used last.
import { LRUCache } from "lru-cache";
import type { LetteringDocument } from "@/contracts/lettering";
import type { MovingFace, OpenFace } from "@/core/outlines/openFace";
import { fetchFont } from "../parts/fetchFont";
import type { DrawnForm, Laid, PointsOf } from "./letterTasks";
import type { Moments, MotionTold } from "./move/moveTasks";

/** Style id → where the bare tables of its font are, the main part first. */
export type FontAddresses = Record<string, string[]>;
export type LetterTask =
  | { what: "layOut"; document: LetteringDocument; pointsOf: PointsOf | null; fonts: FontAddresses }
  | { what: "moments"; document: LetteringDocument; timesMs: number[]; store: number; fonts: FontAddresses }
  | { what: "tell"; document: LetteringDocument; lookMm: number; fonts: FontAddresses }
  | { what: "smooth"; points: number[] }
  | { what: "forms"; styleId: string; coordinates: Record<string, number>; text: string; fonts: FontAddresses };
type LetterAsked = { id: number } & LetterTask;
export type LetterAnswer = {
  id: number;
  laid?: Laid;
  forms?: DrawnForm[];
  d?: string | null;
  moments?: Moments;
  told?: MotionTold | null;
  isUnreached?: boolean;
};

const MAX_FACES = 16;
const faces = new LRUCache<string, OpenFace>({ max: MAX_FACES });

// Loaded beside: a module that waits for the shaper would miss what is asked before it is there.
const tasks = import("./letterTasks");
const moving = import("./move/moveTasks");
const opening = import("@/core/outlines/openFace");
const joining = import("@/core/outlines/joinParts");

type Opening = { styleId: string; coordinates?: Record<string, number> };

/**
 * Opens what is not open yet.
 * @param keyOf - under which it is kept. @param open - of the bytes of its fonts, the main part first.
 * @throws where a font is not reached, or not read.
 */
async function openAll<Face extends object>(
  kept: LRUCache<string, Face>,
  asked: readonly Opening[],
  addresses: FontAddresses,
  keyOf: (one: Opening, fonts: string) => string,
  open: (bytes: Uint8Array[], one: Opening) => Face,
): Promise<(one: Opening) => Face> {
  const own = (one: Opening) => keyOf(one, (addresses[one.styleId] ?? []).join());
  for (const one of asked) {
    if (kept.has(own(one))) continue;
    const bytes = await Promise.all((addresses[one.styleId] ?? []).map(fetchFont));
    kept.set(own(one), open(bytes, one));
  }
  return (one) => kept.get(own(one))!;
}

async function openFaces(asked: readonly Opening[], addresses: FontAddresses) {
  const { openFace } = await opening;
  const { joinParts } = await joining;
  const keyOf = ({ coordinates }: Opening, fonts: string) => `${fonts} ${JSON.stringify(coordinates ?? {})}`;
  return openAll(faces, asked, addresses, keyOf, (bytes, { coordinates }) =>
    joinParts(bytes.map((b) => openFace(b, coordinates))),
  );
}

/** Faces whose axes move, by where their fonts are. */
const movingFaces = new LRUCache<string, MovingFace>({ max: MAX_FACES });
/** Numbers of the paths that a store of the page has, by the store's own number. */
const sent = new LRUCache<number, Set<number>>({ max: MAX_FACES });
function sentTo(store: number): Set<number> {
  let numbers = sent.get(store);
  if (!numbers) sent.set(store, (numbers = new Set()));
  return numbers;
}

async function openMoving(asked: readonly Opening[], addresses: FontAddresses) {
  const { openMovingFace } = await opening;
  const { joinMovingParts } = await joining;
  const keyOf = (_: Opening, fonts: string) => fonts;
  return openAll(movingFaces, asked, addresses, keyOf, (bytes) => joinMovingParts(bytes.map((b) => openMovingFace(b))));
}

async function answerMotion(
  id: number,
  task: Extract<LetterTask, { what: "moments" | "tell" }>,
): Promise<LetterAnswer> {
  const { drawMoments, tellMotion } = await moving;
  let faceOf: (one: Opening) => MovingFace;
  try {
    faceOf = await openMoving(task.document.blocks, task.fonts);
  } catch {
    return { id, isUnreached: true };
  }
  try {
    if (task.what === "tell") return { id, told: tellMotion(task.document, faceOf, task.lookMm) };
    return { id, moments: drawMoments(task.document, task.timesMs, faceOf, sentTo(task.store)) };
  } catch {
    return { id, moments: { ok: false, code: "no-size", blockId: "" } };
  }
}

async function answer({ id, ...task }: LetterAsked): Promise<LetterAnswer> {
  const { layOut, drawForms, smoothStroke } = await tasks;
  if (task.what === "smooth") return { id, d: smoothStroke(task.points) };
  if (task.what === "moments" || task.what === "tell") return answerMotion(id, task);
  const asked = task.what === "layOut" ? task.document.blocks : [task];
  let faceOf: (one: Opening) => OpenFace;
  try {
    faceOf = await openFaces(asked, task.fonts);
  } catch {
    return { id, isUnreached: true };
  }
  try {
    if (task.what === "layOut") return { id, laid: layOut(task.document, faceOf, task.pointsOf) };
    return { id, forms: drawForms(faceOf(task), task.text) };
  } catch {
    return { id, laid: { ok: false, code: "face-unread", blockId: "" } };
  }
}

self.addEventListener("message", (event: MessageEvent<LetterAsked>) => {
  void answer(event.data).then((reply) => self.postMessage(reply));
});
