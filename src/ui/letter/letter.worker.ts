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

async function openAll(asked: readonly Opening[], addresses: FontAddresses) {
  const { openFace } = await opening;
  const { joinParts } = await joining;
  const keyOf = ({ styleId, coordinates }: Opening) =>
    `${(addresses[styleId] ?? []).join()} ${JSON.stringify(coordinates ?? {})}`;
  for (const one of asked) {
    const key = keyOf(one);
    if (faces.has(key)) continue;
    const bytes = await Promise.all((addresses[one.styleId] ?? []).map(fetchFont));
    faces.set(key, joinParts(bytes.map((b) => openFace(b, one.coordinates))));
  }
  return (one: Opening) => faces.get(keyOf(one))!;
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

async function openMoving(styleIds: readonly string[], addresses: FontAddresses) {
  const { openMovingFace } = await opening;
  const { joinMovingParts } = await joining;
  const keyOf = (styleId: string) => (addresses[styleId] ?? []).join();
  for (const styleId of styleIds) {
    if (movingFaces.has(keyOf(styleId))) continue;
    const bytes = await Promise.all((addresses[styleId] ?? []).map(fetchFont));
    movingFaces.set(keyOf(styleId), joinMovingParts(bytes.map((b) => openMovingFace(b))));
  }
  return ({ styleId }: Opening) => movingFaces.get(keyOf(styleId))!;
}

async function answerMotion(
  id: number,
  task: Extract<LetterTask, { what: "moments" | "tell" }>,
): Promise<LetterAnswer> {
  const { drawMoments, tellMotion } = await moving;
  let faceOf: (one: Opening) => MovingFace;
  try {
    faceOf = await openMoving(
      task.document.blocks.map((b) => b.styleId),
      task.fonts,
    );
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
    faceOf = await openAll(asked, task.fonts);
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
