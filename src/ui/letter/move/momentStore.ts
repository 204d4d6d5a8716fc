// Moments of a motion as they are drawn, asked for a little ahead of the time that is shown, and kept for the next round.
import type { LetteringDocument } from "@/contracts/lettering";
import { ARITY, type Outline } from "@/core/geometry/outline";
import { letterInWorker } from "../letterInWorker";
import type { FontAddresses } from "../letter.worker";
import type { DrawnMoment } from "./moveTasks";

/** Moments a second while it plays. */
const PER_S = 60;
/** So far ahead they are asked for, and as many in one question. */
const AHEAD_MS = 500;
const AT_ONCE = 6;
const AGAIN_MS = 2000;
/** So long after a change it begins to look ahead, and so far. */
const REST_MS = 500;
const MOST_AHEAD_MS = 10_000;

type MomentFault = { code: string; blockId: string };

let stores = 0;

export class MomentStore {
  private moments = new Map<number, DrawnMoment>();
  private asked = new Set<number>();
  private readonly paths = new Map<number, Path2D>();
  private readonly number = ++stores;
  private heard = new Set<() => void>();
  private shown: DrawnMoment | null = null;
  private isGone = false;
  private resting: ReturnType<typeof setTimeout> | undefined;
  /** It has begun to look ahead. */
  private isAhead = false;
  fault: MomentFault | null = null;
  /** Grows with every answer. */
  news = 0;

  constructor(
    private readonly document: LetteringDocument,
    private readonly fonts: FontAddresses,
    private before: MomentStore | null,
    private readonly looksAhead: boolean,
  ) {
    // Until the first moment of this document is there, the last one of the document before stands.
    this.shown = before?.shown ?? null;
    if (before) before.before = null;
  }

  /** What was shown last, of this document or the one before. */
  get latest(): DrawnMoment | null {
    return this.shown;
  }
  subscribe = (listener: () => void): (() => void) => {
    this.heard.add(listener);
    return () => this.heard.delete(listener);
  };
  pathOf = (outline: number): Path2D | undefined => this.paths.get(outline) ?? this.before?.paths.get(outline);
  end = () => {
    this.isGone = true;
    clearTimeout(this.resting);
  };

  /** The moment of a time, or the last one that was there, while it is asked for. */
  at(timeMs: number, isPlaying: boolean): DrawnMoment | null {
    const durationMs = this.document.motion?.durationMs ?? 0;
    const key = isPlaying ? keyAt(timeMs) : Math.round(timeMs * 10) / 10;
    const found = this.moments.get(key);
    if (found) this.shown = found;
    const wanted = found ? [] : [key];
    if (isPlaying)
      for (let ms = 0; ms < AHEAD_MS; ms += 1000 / PER_S) wanted.push(keyAt((timeMs + ms) % Math.max(1, durationMs)));
    this.ask(wanted.filter((k) => !this.moments.has(k) && !this.asked.has(k)).slice(0, AT_ONCE));
    return this.shown;
  }

  /** While nothing is asked for, the moments that playing will show are made ready, from the first on. */
  private lookAhead() {
    if (!this.looksAhead) return;
    clearTimeout(this.resting);
    this.resting = setTimeout(
      () => {
        if (this.isGone || this.asked.size) return;
        const durationMs = Math.min(this.document.motion?.durationMs ?? 0, MOST_AHEAD_MS);
        const keys: number[] = [];
        for (let ms = 0; ms < durationMs && keys.length < AT_ONCE; ms += 1000 / PER_S) {
          const key = keyAt(ms);
          if (!this.moments.has(key)) keys.push(key);
        }
        this.isAhead = !this.fault;
        this.ask(keys);
      },
      this.isAhead ? 0 : REST_MS,
    );
  }

  private forget(keys: readonly number[]) {
    if (this.isGone) return;
    keys.forEach((k) => this.asked.delete(k));
    this.tell();
  }

  private tell() {
    this.lookAhead();
    this.news++;
    this.heard.forEach((listener) => listener());
  }

  /** The moment of just this time; asked for where it is not there. */
  peek(timeMs: number): DrawnMoment | null {
    const key = Math.round(timeMs * 10) / 10;
    const found = this.moments.get(key) ?? null;
    if (!found && !this.asked.has(key)) this.ask([key]);
    return found;
  }

  private ask(keys: number[]) {
    if (!keys.length || this.asked.size >= 4 * AT_ONCE) return;
    const timesMs = [...new Set(keys)];
    timesMs.forEach((k) => this.asked.add(k));
    void letterInWorker({
      what: "moments",
      document: this.document,
      timesMs,
      store: this.number,
      fonts: this.fonts,
    }).then(({ moments }) => {
      if (this.isGone) return;
      // Not reached, or not drawable: asked again after a while, not at once.
      if (!moments?.ok) setTimeout(() => this.forget(timesMs), AGAIN_MS);
      else timesMs.forEach((k) => this.asked.delete(k));
      if (moments?.ok) {
        for (const [number, outline] of moments.paths) this.paths.set(number, pathOf(outline));
        for (const moment of moments.moments) this.moments.set(moment.timeMs, moment);
        this.fault = null;
      } else this.fault = moments ?? null;
      this.tell();
    });
  }
}

/** An outline as the canvas fills it. */
function pathOf({ verbs, coords }: Outline): Path2D {
  const path = new Path2D();
  let at = 0;
  for (const verb of verbs) {
    if (verb === "M") path.moveTo(coords[at]!, coords[at + 1]!);
    else if (verb === "L") path.lineTo(coords[at]!, coords[at + 1]!);
    else if (verb === "Q") path.quadraticCurveTo(coords[at]!, coords[at + 1]!, coords[at + 2]!, coords[at + 3]!);
    else if (verb === "C")
      path.bezierCurveTo(
        coords[at]!,
        coords[at + 1]!,
        coords[at + 2]!,
        coords[at + 3]!,
        coords[at + 4]!,
        coords[at + 5]!,
      );
    else path.closePath();
    at += ARITY[verb]!;
  }
  return path;
}

const keyAt = (timeMs: number) => Math.round((Math.round((timeMs * PER_S) / 1000) * 10_000) / PER_S) / 10;
