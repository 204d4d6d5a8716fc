// Fonts of samples in the browser: loaded when near the viewport, let go beyond a budget, never with a fallback.
import { useEffect, useState } from "react";
import { addressOf, ask } from "./client";

/** Faces held at once. Those in use are never let go. */
const BUDGET = 140;

type Held = {
  face: FontFace;
  /** Files that add characters, once they were asked for: the browser fetches one when a text has a character of it. */
  parts?: Promise<FontFace[]>;
  partsHere: number;
  state: "loading" | "ready" | "failed";
  users: number;
  lastUsed: number;
  listeners: Set<() => void>;
};
const faces = new Map<string, Held>();

export const familyOf = (styleId: string) => `fq-${styleId}`;

/** One line box for all faces: the baseline stands at the same place in every strip. */
const DESCRIPTORS: FontFaceDescriptors = {
  ascentOverride: "95%",
  descentOverride: "35%",
  lineGapOverride: "0%",
  display: "block",
};

function hold(styleId: string): Held {
  const known = faces.get(styleId);
  if (known) return known;
  const source = `url(${addressOf("getStyleFile", { params: { id: styleId } })})`;
  const face = new FontFace(familyOf(styleId), source, DESCRIPTORS);
  const held: Held = { face, partsHere: 0, state: "loading", users: 0, lastUsed: Date.now(), listeners: new Set() };
  faces.set(styleId, held);
  face.load().then(
    () => takeIn(held, "ready"),
    () => takeIn(held, "failed"),
  );
  letGo();
  return held;
}

/** Each face that the page learns of lays it out again: those that arrive within so many milliseconds are taken in together. */
const TOGETHER_MS = 20;
let arrived: [Held, "ready" | "failed"][] = [];

function takeIn(held: Held, state: "ready" | "failed") {
  arrived.push([held, state]);
  if (arrived.length === 1) setTimeout(takeInArrived, TOGETHER_MS);
}

function takeInArrived() {
  const taken = arrived;
  arrived = [];
  for (const [{ face }, state] of taken) if (state === "ready") document.fonts.add(face);
  for (const [held, state] of taken) {
    held.state = state;
    held.listeners.forEach((tell) => tell());
  }
}

/** Tells the browser of the other files of a style that came cut by character. */
function holdParts(styleId: string, held: Held) {
  held.parts ??= ask("listParts", { params: { id: styleId } }).then(({ parts }) =>
    parts.map(({ sha256, unicodeRange }) => {
      const source = `url(${addressOf("getStyleFile", { params: { id: styleId }, query: { part: sha256 } })})`;
      const part = new FontFace(familyOf(styleId), source, { ...DESCRIPTORS, unicodeRange });
      document.fonts.add(part);
      part.loaded.then(
        () => {
          held.partsHere++;
          held.listeners.forEach((tell) => tell());
        },
        () => {},
      );
      return part;
    }),
  );
  held.parts.catch(() => (held.parts = undefined));
}

function letGo() {
  if (faces.size <= BUDGET) return;
  const idle = [...faces].filter(([, h]) => !h.users).sort((a, b) => a[1].lastUsed - b[1].lastUsed);
  for (const [id, h] of idle.slice(0, faces.size - BUDGET)) {
    document.fonts.delete(h.face);
    h.parts?.then(
      (parts) => parts.forEach((part) => document.fonts.delete(part)),
      () => {},
    );
    faces.delete(id);
  }
}

/** Fetches faces that will be looked at next; they count as not in use until they are. */
export function preloadFaces(styleIds: readonly string[]) {
  for (const id of styleIds) if (!faces.has(id)) hold(id);
}

/**
 * State of a style's font; loads it while the component that asks is shown.
 * @param waits - true: one that is not here yet is not asked for (the wall is scrolled past).
 */
export function useFace(styleId: string, waits = false): Held["state"] {
  const [state, setState] = useState<Held["state"]>(() => faces.get(styleId)?.state ?? "loading");
  // Once here, or asked for, a later wait changes nothing.
  const [isAsked, setAsked] = useState(!waits || faces.has(styleId));
  if (!isAsked && !waits) setAsked(true);
  useEffect(() => {
    if (!isAsked) return;
    const held = hold(styleId);
    const tell = () => setState(held.state);
    held.users++;
    held.listeners.add(tell);
    tell();
    return () => {
      held.users--;
      held.lastUsed = Date.now();
      held.listeners.delete(tell);
    };
  }, [styleId, isAsked]);
  return state;
}

/**
 * How many of the other files of a style are here: what was measured before is measured again when one comes.
 * @param isNeeded - whether the text may have characters of theirs.
 */
export function useFaceParts(styleId: string, isNeeded: boolean): number {
  const [here, setHere] = useState(0);
  useEffect(() => {
    if (!isNeeded) return;
    const held = hold(styleId);
    holdParts(styleId, held);
    const tell = () => setHere(held.partsHere);
    held.listeners.add(tell);
    tell();
    return () => {
      held.listeners.delete(tell);
    };
  }, [styleId, isNeeded]);
  return here;
}

/** Whether a font is here, or on its way. */
export const isHeld = (styleId: string) => faces.has(styleId);
