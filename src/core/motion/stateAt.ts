// What a letter of a block is at a moment: its place on the axes, tracking, place, turn, scale, opacity and colour.
import type { Block, PointMm } from "@/contracts/lettering";
import { SHEET, type Motion, type Track } from "@/contracts/motion";
import { clamp } from "../geometry/numbers";
import { turnsOf } from "./order";
import { valueAt } from "./valueAt";

/** `fill`: null where it is as the block has it. `isAboutLetter`: scale and turn are about the letter's own middle. */
export type LetterState = {
  coordinates: Record<string, number> | undefined;
  trackingEm: number | undefined;
  at: PointMm;
  turnDeg: number;
  scale: number;
  opacity: number;
  fill: string | null;
  isAboutLetter: boolean;
};

/** Tracks that move a block: its own, and those of the sheet that are about letters. */
export const tracksOf = ({ tracks }: Motion, block: Block): Track[] =>
  tracks.filter((t) => t.target === block.id || (t.target === SHEET && isOfLetters(t.property)));
const isOfLetters = (property: string) =>
  property === "trackingEm" || property === "fill" || property.startsWith("axis:");

/** @param lateMs - by how much the letter runs late on a track. */
function stateOf(
  block: Block,
  tracks: readonly Track[],
  timeMs: number,
  lateMs: (track: Track) => number,
): LetterState {
  const state: LetterState = {
    coordinates: block.coordinates,
    trackingEm: block.trackingEm,
    at: { ...block.at },
    turnDeg: block.turnDeg ?? 0,
    scale: 1,
    opacity: 1,
    fill: null,
    isAboutLetter: false,
  };
  for (const track of tracks) put(state, track, valueAt(track.keys, timeMs - lateMs(track)));
  return state;
}

function put(state: LetterState, { property, perLetter }: Track, value: number | string) {
  if (typeof value === "string") state.fill = value;
  else if (property.startsWith("axis:")) state.coordinates = { ...state.coordinates, [property.slice(5)]: value };
  else if (property === "xMm" || property === "yMm") state.at[property] = value;
  else if (property === "opacity") state.opacity *= clamp(value, 0, 1);
  else state[property as "scale" | "turnDeg" | "trackingEm"] = property === "scale" ? Math.max(0, value) : value;
  if (perLetter?.about === "letter" && (property === "scale" || property === "turnDeg")) state.isAboutLetter = true;
}

type Lettered = Parameters<typeof turnsOf>[0][number];

/**
 * @param letters - of the block as it rests.
 * @returns one state for all letters, or one per letter by its index where they do not run together.
 */
export function stateAt(
  block: Block,
  tracks: readonly Track[],
  letters: readonly Lettered[],
  timeMs: number,
): LetterState | Map<number, LetterState> {
  const staggered = tracks.filter((t) => t.perLetter && (t.perLetter.staggerMs > 0 || t.perLetter.about === "letter"));
  if (!staggered.length) return stateOf(block, tracks, timeMs, () => 0);
  const turns = new Map(staggered.map((t) => [t, turnsOf(letters, t.perLetter!)]));
  const late = (at: number) => (track: Track) => (turns.get(track)?.get(at) ?? 0) * (track.perLetter?.staggerMs ?? 0);
  return new Map(letters.map(({ at }) => [at, stateOf(block, tracks, timeMs, late(at))]));
}
