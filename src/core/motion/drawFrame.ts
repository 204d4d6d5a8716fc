// What is drawn at a moment: groups of painted outlines, each with where it lies, how strongly it shows and what it is cut off by. Previews
// and every file format are made from this.
import type { Block, LetteringDocument } from "@/contracts/lettering";
import { SHEET, type Motion, type Track } from "@/contracts/motion";
import { boundsOf, IN_PLACE, joinMaps, mapPolygons, middleOf, type Affine, type Bounds } from "../geometry/outline";
import type { LayoutFault, PlacedBlock } from "../letter/layoutLettering";
import { paintBlock, type PaintedPart } from "../letter/paintLettering";
import { inkOfLetters, type PlacedLetter } from "../letter/placeBlock";
import { shapeBlock } from "../letter/shapeBlock";
import { clamp } from "../geometry/numbers";
import { UNJOINED } from "../letter/setBlock";
import type { MovingFace } from "../outlines/openFace";
import { keyOfForm, layMoving, layTogether } from "./layMoving";
import { stateAt, tracksOf, type LetterState } from "./stateAt";
import { valueAt } from "./valueAt";

/** `name`: the same for the same letters at every moment. `parts`: in mm about the block's place. `clip`: four corners on the sheet, mm. */
export type FrameGroup = {
  name: string;
  blockId: string;
  parts: readonly PaintedPart[];
  by: Affine;
  opacity: number;
  clip: Float64Array | null;
  letters: readonly PlacedLetter[];
  state: LetterState;
  emMm: number;
};
export type Frame = { groups: FrameGroup[]; missing: string[] };

/** What is kept between moments; begun empty, and given with every moment of one document and motion. */
export type FrameMemory = {
  rest: Map<Block, Rest | LayoutFault>;
  shapes: Map<string, Shapes>;
  tracks: Map<Block, Track[]>;
};
export const newFrameMemory = (): FrameMemory => ({ rest: new Map(), shapes: new Map(), tracks: new Map() });

/** The block as the document has it: its letters, and under which line a mask cuts them off. */
type Rest = { ok: true; block: Block; letters: readonly PlacedLetter[]; ink: Bounds | null; bottoms: number[] };
type Shapes = {
  placed: PlacedBlock;
  groups: { name: string; letters: PlacedLetter[]; parts: readonly PaintedPart[] }[];
};

/** Shapes that are kept at once. */
const MOST_SHAPES = 64;

/**
 * @param faceOf - the face of a block, which is moved on its axes here. @param memory - changed.
 * @throws what `faceOf` throws.
 */
export function drawFrame(
  { blocks, sheet }: LetteringDocument,
  motion: Motion,
  timeMs: number,
  faceOf: (block: Block) => MovingFace,
  memory: FrameMemory,
): ({ ok: true } & Frame) | LayoutFault {
  const groups: FrameGroup[] = [];
  const missing = new Set<string>();
  const whole = sheetAt(motion, sheet, timeMs);
  for (const block of blocks) {
    const drawn = drawBlock(block, motion, timeMs, faceOf(block), memory);
    if (!drawn.ok) return drawn;
    drawn.placed.missing.forEach((char) => missing.add(char));
    for (const group of drawn.groups)
      groups.push({
        ...group,
        by: joinMaps(group.by, whole.by),
        opacity: group.opacity * whole.opacity,
        clip: group.clip && mapPolygons([group.clip], whole.by)[0]!,
      });
  }
  return { ok: true, groups, missing: [...missing] };
}

type DrawnBlock = { ok: true; placed: PlacedBlock; groups: FrameGroup[] } | LayoutFault;

function drawBlock(own: Block, motion: Motion, timeMs: number, face: MovingFace, memory: FrameMemory): DrawnBlock {
  let tracks = memory.tracks.get(own);
  if (!tracks) memory.tracks.set(own, (tracks = tracksOf(motion, own)));
  const rest = restOf(own, tracks, face, memory);
  if (!rest.ok) return rest;
  const isMasked = motion.masks?.includes(own.id) ?? false;
  const states = stateAt(rest.block, tracks, rest.letters, timeMs);
  const laid = shapesOf(rest, states, isMasked, face, memory);
  if (!("placed" in laid)) return laid;
  const groups = laid.groups.map(({ name, letters, parts }): FrameGroup => {
    const state = states instanceof Map ? states.get(letters[0]!.at)! : states;
    return {
      ...{ name, letters, state, emMm: laid.placed.emMm },
      blockId: own.id,
      parts: state.fill === null ? parts : parts.map((p) => (isPlainFill(p, own) ? { ...p, paint: state.fill! } : p)),
      by: placeOf(state, own, letters),
      opacity: state.opacity,
      clip: isMasked ? clipOf(own, rest.bottoms[own.path ? 0 : letters[0]!.line] ?? 0) : null,
    };
  });
  return { ok: true, placed: laid.placed, groups };
}

/** Colours of single parts stay. */
const isPlainFill = ({ role, paint }: PaintedPart, { fill }: Block) =>
  role === "fill" && (typeof paint !== "string" || paint === fill);

function restOf(own: Block, tracks: readonly Track[], face: MovingFace, { rest }: FrameMemory): Rest | LayoutFault {
  const known = rest.get(own);
  if (known) return known;
  const isSpaced = tracks.some((t) => t.property === "trackingEm");
  // Letters whose tracking moves stand alone throughout, so that none becomes a ligature on its way.
  const block = isSpaced ? { ...own, features: { ...UNJOINED, ...own.features } } : own;
  const laid = layTogether(block, block, face);
  if (!laid.ok) {
    rest.set(own, laid);
    return laid;
  }
  const { letters } = laid.placed;
  const lines = [...new Set(letters.map((l) => l.line))];
  const bottomOf = (some: readonly PlacedLetter[]) => inkOfLetters(some)?.yMax ?? 0;
  const bottoms: number[] = [];
  for (const line of lines) bottoms[line] = bottomOf(block.path ? letters : letters.filter((l) => l.line === line));
  const made: Rest = { ok: true, block, letters, ink: inkOfLetters(letters), bottoms };
  rest.set(own, made);
  return made;
}

/** Letters laid out, shaped and painted: all as one where they move together, by line where a mask cuts lines off, else one by one. */
function shapesOf(
  { block }: Rest,
  states: LetterState | Map<number, LetterState>,
  isMasked: boolean,
  face: MovingFace,
  { shapes }: FrameMemory,
): Shapes | LayoutFault {
  const isOne = !(states instanceof Map);
  const forms = isOne ? keyOfForm(states) : [...states.values()].map(keyOfForm).join();
  const key = `${block.id} ${isMasked} ${isOne} ${forms}`;
  const known = shapes.get(key);
  if (known) return known;
  const laid = isOne ? layTogether(block, states, face) : layMoving(block, states, face);
  if (!laid.ok) return laid;
  const { placed } = laid;
  const ink = typeof block.fill === "string" ? null : inkOfLetters(placed.letters);
  const groups = groupLetters(placed.letters, isOne, isMasked).flatMap(({ name, letters }) => {
    const { parts } = paintBlock(shapeBlock({ ...placed, letters }), ink);
    return parts.length ? [{ name: `${block.id}${name}`, letters, parts }] : [];
  });
  if (shapes.size >= MOST_SHAPES) shapes.delete(shapes.keys().next().value!);
  const made = { placed, groups };
  shapes.set(key, made);
  return made;
}

function groupLetters(letters: PlacedLetter[], isOne: boolean, isMasked: boolean) {
  if (!isOne) return letters.map((letter) => ({ name: `-${letter.at}`, letters: [letter] }));
  if (!isMasked) return letters.length ? [{ name: "", letters }] : [];
  const lines = [...new Set(letters.map((l) => l.line))];
  return lines.map((line) => ({ name: `-line-${line}`, letters: letters.filter((l) => l.line === line) }));
}

const turnAndScale = (turnDeg: number, scale: number): Affine => {
  const turn = (turnDeg * Math.PI) / 180;
  const [a, b] = [Math.cos(turn) * scale, Math.sin(turn) * scale];
  return { a, b, c: -b, d: a, e: 0, f: 0 };
};
const moveTo = (xMm: number, yMm: number): Affine => ({ ...IN_PLACE, e: xMm, f: yMm });

/** From the block's own millimetres to the sheet's. */
function placeOf(state: LetterState, { turnDeg: restDeg = 0 }: Block, letters: readonly PlacedLetter[]): Affine {
  const { at, turnDeg, scale, isAboutLetter } = state;
  const to = moveTo(at.xMm, at.yMm);
  if (!isAboutLetter) return joinMaps(turnAndScale(turnDeg, scale), to);
  const box = inkOfLetters(letters);
  const { x, y } = box ? middleOf(box) : { x: 0, y: 0 };
  const own = joinMaps(joinMaps(moveTo(-x, -y), turnAndScale(turnDeg - restDeg, scale)), moveTo(x, y));
  return joinMaps(joinMaps(own, turnAndScale(restDeg, 1)), to);
}

/** Further than any sheet reaches. */
const FAR_MM = 50_000;
/** All that lies above a line of the block as it rests. */
function clipOf({ at, turnDeg = 0 }: Block, bottomMm: number): Float64Array {
  const by = joinMaps(turnAndScale(turnDeg, 1), moveTo(at.xMm, at.yMm));
  const above = [-FAR_MM, -FAR_MM, FAR_MM, -FAR_MM, FAR_MM, bottomMm, -FAR_MM, bottomMm];
  return mapPolygons([Float64Array.from(above)], by)[0]!;
}

/** What moves the sheet as a whole: it is moved from where it lies, and turns and grows about its middle. */
function sheetAt({ tracks }: Motion, { widthMm, heightMm }: LetteringDocument["sheet"], timeMs: number) {
  const of = (property: string, rest: number) => {
    const track = tracks.find((t) => t.target === SHEET && t.property === property);
    return track ? Number(valueAt(track.keys, timeMs)) : rest;
  };
  const [x, y] = [widthMm / 2, heightMm / 2];
  const about = joinMaps(
    joinMaps(moveTo(-x, -y), turnAndScale(of("turnDeg", 0), Math.max(0, of("scale", 1)))),
    moveTo(x, y),
  );
  return {
    by: joinMaps(about, moveTo(of("xMm", 0), of("yMm", 0))),
    opacity: clamp(of("opacity", 1), 0, 1),
  };
}

/** Around all that a group draws on the sheet, mm; points that guide curves count. Null where it has no ink. */
export const boundsOfGroup = ({ parts, by }: FrameGroup): Bounds | null =>
  boundsOf(
    mapPolygons(
      parts.map((p) => p.outline.coords).filter((c) => c.length),
      by,
    ),
  );
