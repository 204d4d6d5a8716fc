// Title cards: a brief's lines laid out on a frame of film, in steps of size, for what titles are used for.
import type { StyleId } from "@/contracts/ids";
import type { Block, LetteringDocument } from "@/contracts/lettering";
import type { Pose } from "@/contracts/poses";
import { readingMs } from "./readingTime";

export const CARDS = ["title", "thin and heavy", "lower third", "end roll"] as const;
export type Card = (typeof CARDS)[number];

/** A face at a place on its axes. */
export type CardFace = { styleId: StyleId; coordinates?: Record<string, number> };
type CardLine = { id: string; text: string };
export type CardFaces = { heavy: CardFace; light: CardFace };

/** A frame of 16 : 9; its millimetres are a measure alone. */
const FRAME = { widthMm: 320, heightMm: 180 };
/** Sizes in steps of a fourth apart: each em is the one before times this. */
const STEP = 4 / 3;
const BASE_MM = 9;
const sizeAt = (step: number) => Math.round(BASE_MM * STEP ** step * 10) / 10;
/** So far from the edges text is safe on every screen, in parts of the frame. */
export const SAFE_SHARE = 0.05;

const wearing = ({ styleId, coordinates }: CardFace) => ({ styleId, ...(coordinates && { coordinates }) });

/** @param lines - with text; the first is the title. @param ink - colour of the letters. */
export function layTitleCard(card: Card, lines: readonly CardLine[], faces: CardFaces, ink: string): LetteringDocument {
  const [title, ...others] = lines;
  const sheet = { ...FRAME, ground: null };
  if (!title) return { version: 1, sheet, blocks: [] };
  if (card === "end roll") return layRoll(lines, faces, ink);
  const blocks =
    card === "lower third" ? layThird(title, others, faces, ink) : layMiddle(card, title, others, faces, ink);
  return { version: 1, sheet, blocks };
}

/** No line is wider than the safe part of the frame: advances are about half an em. */
const fitted = (text: string, emMm: number, share = 1 - 2 * SAFE_SHARE) =>
  Math.round(Math.min(emMm, (FRAME.widthMm * share) / Math.max(1, 0.56 * [...text].length)) * 10) / 10;

function layMiddle(
  card: Card,
  title: CardLine,
  others: readonly CardLine[],
  { heavy, light }: CardFaces,
  ink: string,
): Block[] {
  const xMm = FRAME.widthMm / 2;
  const emMm = fitted(title.text, sizeAt(card === "title" ? 5 : 6));
  const second = others.slice(0, 2);
  const gap = 1.15;
  const first: Block = {
    ...{ ...title, ...wearing(heavy), size: { emMm }, align: "centre", fill: ink },
    at: { xMm, yMm: FRAME.heightMm / 2 + (second.length ? 0 : 0.35 * emMm) },
  };
  let yMm = first.at.yMm;
  const rest = second.map((line): Block => {
    const own = fitted(line.text, sizeAt(card === "title" ? 2 : 3), 0.8);
    yMm += own * gap + (line === second[0] ? 0.25 * emMm : 0);
    const face = card === "title" ? heavy : light;
    return {
      ...line,
      ...wearing(face),
      size: { emMm: own },
      align: "centre",
      at: { xMm, yMm: Math.round(yMm) },
      fill: ink,
    };
  });
  return [first, ...rest];
}

function layThird(title: CardLine, others: readonly CardLine[], { heavy, light }: CardFaces, ink: string): Block[] {
  const xMm = Math.round(FRAME.widthMm * (SAFE_SHARE + 0.02));
  const below = others.slice(0, 1);
  const emMm = fitted(title.text, sizeAt(3), 0.6);
  const yMm = Math.round(FRAME.heightMm * (below.length ? 0.83 : 0.88));
  return [
    { ...title, ...wearing(heavy), size: { emMm }, align: "left", at: { xMm, yMm }, fill: ink },
    ...below.map((line): Block => {
      const own = fitted(line.text, sizeAt(1), 0.6);
      return {
        ...line,
        ...wearing(light),
        size: { emMm: own },
        align: "left",
        at: { xMm, yMm: Math.round(yMm + 1.35 * own) },
        fill: ink,
      };
    }),
  ];
}

const ROLL_LEADING = 1.5;
/** A line is on the screen so long at least while the roll goes by. */
const LEAST_ON_SCREEN_MS = 6000;

/** One block that goes by from below, no faster than it can be read. */
function layRoll(lines: readonly CardLine[], { light }: CardFaces, ink: string): LetteringDocument {
  const emMm = sizeAt(2);
  const text = lines.map((l) => l.text).join("\n");
  const count = text.split("\n").length;
  const heightMm = count * emMm * ROLL_LEADING;
  const id = lines[0]!.id;
  const block: Block = {
    ...{ id, text, ...wearing(light), size: { emMm }, leadingEm: ROLL_LEADING, align: "centre", fill: ink },
    at: { xMm: FRAME.widthMm / 2, yMm: FRAME.heightMm + emMm },
  };
  const wayMm = FRAME.heightMm + heightMm + emMm;
  const durationMs = Math.round(Math.max((wayMm / FRAME.heightMm) * LEAST_ON_SCREEN_MS, readingMs(text)) / 40) * 40;
  const pose = (id2: string, name: string, timeMs: number, dyMm: number): Pose => ({
    ...{ id: id2, name, timeMs, ease: "linear" },
    blocks: dyMm ? { [id]: { dyMm } } : {},
  });
  return {
    version: 1,
    sheet: { ...FRAME, ground: null },
    blocks: [block],
    motion: {
      durationMs,
      fps: 25,
      poses: [pose("p_below", "Below", 0, 0), pose("p_above", "Above", durationMs, -wayMm)],
    },
  };
}
