// Worker of the page: lays letterings out with the core's own code, so that typing and dragging never wait for the server. It fetches
// fonts by itself and keeps the faces it used last.
import { LRUCache } from "lru-cache";
import type { LetteringDocument } from "@/contracts/lettering";
import type { OpenFace } from "@/core/outlines/openFace";
import { fetchFont } from "../parts/fetchFont";
import type { DrawnForm, Laid, PointsOf } from "./letterTasks";

/** Style id → where the bare tables of its font are, the main part first. */
export type FontAddresses = Record<string, string[]>;
export type LetterTask =
  | { what: "layOut"; document: LetteringDocument; pointsOf: PointsOf | null; fonts: FontAddresses }
  | { what: "smooth"; points: number[] }
  | { what: "forms"; styleId: string; coordinates: Record<string, number>; text: string; fonts: FontAddresses };
type LetterAsked = { id: number } & LetterTask;
export type LetterAnswer = { id: number; laid?: Laid; forms?: DrawnForm[]; d?: string | null; isUnreached?: boolean };

const MAX_FACES = 16;
const faces = new LRUCache<string, OpenFace>({ max: MAX_FACES });

// Loaded beside: a module that waits for the shaper would miss what is asked before it is there.
const tasks = import("./letterTasks");
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

async function answer({ id, ...task }: LetterAsked): Promise<LetterAnswer> {
  const { layOut, drawForms, smoothStroke } = await tasks;
  if (task.what === "smooth") return { id, d: smoothStroke(task.points) };
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
