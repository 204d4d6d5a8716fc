// Where lettering stands in a picture: lines of it, each in a box, so that several faces in one picture are asked about one by one.
import { findInk, type RgbaPicture } from "./ink";
import { findLettering, overlap, type LetteringLine } from "./lettering";
import { dropBorder, dropSpecks, type Piece } from "./pieces";
import { shrinkPicture, widen } from "./straighten";

// Taken out of the global object once: the loops below call them many times.
const { max, min, round } = Math;

type TextArea = { x: number; y: number; width: number; height: number };

/** Longest side of the copy that is looked at. */
const LOOK_PX = 900;
/** Pieces belong to one line when they overlap by this share of the lower one, and stand no further apart than this many heights. */
const OVERLAP = 0.45;
const APART_HEIGHTS = 1.3;
/** A line of less ink than this share of the heaviest is a speck of something else. */
const MIN_INK = 0.03;
const MAX_AREAS = 12;

/** Lines of lettering, and whether what stands out in the picture as a whole is their ink: then it may be read as it is. */
type FoundAreas = { areas: TextArea[]; isPlain: boolean };

/** Boxes that cover each other by this share, of both, are the same line. */
const SAME = 0.45;
/** A part of a line: all in its box, not much lower, not much shorter. */
const PART = { inside: 0.8, width: 0.45, height: 2.3 };
/** Lettering that another line of the picture's does not show is a line of its own when it looks so much like one. */
const SURE_SCORE = 1.6;

/**
 * Finds lines of lettering.
 * @returns boxes in the picture's pixels with a little room around them, the heaviest or likeliest first; none when nothing stands out.
 */
export function findAreas(picture: RgbaPicture): FoundAreas {
  const lettering = findLettering(picture);
  const inked = findInkLines(picture);
  const [likeliest] = lettering;
  if (!likeliest) return { areas: inked, isPlain: true };
  const isPlain = inked.some((a) => isSame(a, likeliest) || isPart(likeliest, a));
  if (!isPlain) return { areas: lettering.map(boxOf), isPlain };
  const more = lettering.filter((l) => l.score > SURE_SCORE && !inked.some((a) => overlap(a, l) > 0));
  return { areas: [...inked, ...more.map(boxOf)].slice(0, MAX_AREAS), isPlain };
}

const boxOf = ({ x, y, width, height }: LetteringLine): TextArea => ({ x, y, width, height });
const sizeOf = ({ width, height }: TextArea) => width * height;
const isSame = (a: TextArea, b: TextArea) => overlap(a, b) > SAME * (sizeOf(a) + sizeOf(b) - overlap(a, b));
const isPart = (part: TextArea, of: TextArea) =>
  overlap(part, of) > PART.inside * sizeOf(part) &&
  part.width > PART.width * of.width &&
  of.height < PART.height * part.height;

/** Lines of what is ink in the picture as a whole, the one with most ink first. */
function findInkLines(picture: RgbaPicture): TextArea[] {
  const scale = min(1, LOOK_PX / max(picture.widthPx, picture.heightPx));
  const small = scale < 1 ? shrinkPicture(picture, scale) : picture;
  const found = findInk(small);
  if (!found) return [];
  const { pieces } = dropSpecks(dropBorder(found));
  const lines = joinLines(pieces);
  const heaviest = max(0, ...lines.map((l) => l.area));
  return lines
    .filter((l) => l.area > MIN_INK * heaviest && l.bottom - l.top > 5)
    .sort((a, b) => b.area - a.area)
    .slice(0, MAX_AREAS)
    .map((l) => {
      const room = max(2, 0.12 * (l.bottom - l.top));
      const [left, top] = [max(0, l.left - room), max(0, l.top - room)];
      return {
        x: round(left / scale),
        y: round(top / scale),
        width: round((min(small.widthPx, l.right + room) - left) / scale),
        height: round((min(small.heightPx, l.bottom + room) - top) / scale),
      };
    });
}

type Line = Pick<Piece, "left" | "right" | "top" | "bottom" | "area">;

/** Joins pieces to lines, and lines to longer ones, until none can be joined. */
function joinLines(pieces: readonly Piece[]): Line[] {
  let lines: Line[] = pieces.map(({ left, right, top, bottom, area }) => ({ left, right, top, bottom, area }));
  for (let joined = true; joined;) {
    joined = false;
    const out: Line[] = [];
    for (const l of lines.sort((a, b) => a.left - b.left)) {
      const to = out.find((o) => isOneLine(o, l));
      if (!to) {
        out.push({ ...l });
        continue;
      }
      widen(to, l);
      to.area += l.area;
      joined = true;
    }
    lines = out;
  }
  return lines;
}

function isOneLine(a: Line, b: Line): boolean {
  const heights = [a.bottom - a.top, b.bottom - b.top] as const;
  const overlap = min(a.bottom, b.bottom) - max(a.top, b.top);
  const gap = max(a.left, b.left) - min(a.right, b.right);
  // A dot or a stroke above a letter: it stands over it and near.
  const above = min(a.right, b.right) - max(a.left, b.left) > 0.5 * min(a.right - a.left, b.right - b.left);
  if (above && overlap > -0.3 * max(...heights) && min(...heights) < 0.45 * max(...heights)) return true;
  return overlap > OVERLAP * min(...heights) && gap < APART_HEIGHTS * max(...heights);
}
