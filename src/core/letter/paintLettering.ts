// Shaped blocks → what is painted, from the lowest up: shadows, outlines, fills, each one outline in one colour or gradient. Every file
// format is written from this.
import type { Fill, Gradient, LetteringDocument, Outlined } from "@/contracts/lettering";
import {
  boundsOf,
  flattenOutline,
  IN_PLACE,
  joinOutlines,
  mapOutline,
  middleOf,
  type Bounds,
  type Outline,
} from "../geometry/outline";
import { growPolygons, subtractPolygons } from "../geometry/polygons";
import { fromPolygons } from "../geometry/unitePaths";
import { partsOfLetter } from "./letterParts";
import { FLAT_MM } from "./placeBlock";
import { polygonsOfBlock, type BlockShape } from "./shapeBlock";

/** A gradient with the ends of its line on the sheet. */
export type PlacedGradient = Gradient & { x1: number; y1: number; x2: number; y2: number };
export type Paint = string | PlacedGradient;
export type PaintedPart = {
  role: "shadow" | "outline" | "fill";
  outline: Outline;
  paint: Paint;
  /** Of a shadow: how far its edge fades, 0 for none. */
  blurMm: number;
};
export type PaintedBlock = { id: string; text: string; group: string | null; parts: PaintedPart[]; shape: BlockShape };
export type PaintedLettering = { sheet: LetteringDocument["sheet"]; blocks: PaintedBlock[] };

export function paintLettering({ sheet }: LetteringDocument, shapes: readonly BlockShape[]): PaintedLettering {
  return { sheet, blocks: shapes.map((shape) => paintBlock(shape)) };
}

/** @param ink - what gradients run over; absent: the letters of the shape. */
export function paintBlock(shape: BlockShape, ink?: Bounds | null): PaintedBlock {
  const { block } = shape.placed;
  const inkOf = () => ink ?? boundsOf(shape.letters.flatMap((l) => l.polygons));
  const fills = paintFills(shape, inkOf);
  const { outline, shadow } = block;
  const parts: PaintedPart[] = [];
  const ring = outline && {
    role: "outline" as const,
    outline: ringOf(shape, outline),
    paint: outline.colour,
    blurMm: 0,
  };
  if (shadow) {
    // What throws the shadow is all of the block, its outline too.
    const whole = joinOutlines([...fills.map((f) => f.outline), ...(ring ? [ring.outline] : [])]);
    const moved = mapOutline(whole, { ...IN_PLACE, e: shadow.dxMm, f: shadow.dyMm });
    parts.push({ role: "shadow", outline: moved, paint: shadow.colour, blurMm: shadow.blurMm });
  }
  parts.push(...fills);
  if (ring) parts.push(ring);
  const drawn = parts.filter((p) => p.outline.verbs);
  return { id: block.id, text: block.text, group: block.keepTogether ?? null, parts: drawn, shape };
}

/** Letters as they are filled. Those with colours of their own stand part by part, after the others. */
function paintFills({ placed: { block }, letters, whole }: BlockShape, inkOf: () => Bounds | null): PaintedPart[] {
  const own = new Map((block.letters ?? []).flatMap((l) => (l.fills?.length ? [[l.at, l.fills] as const] : [])));
  const plain = whole ?? joinOutlines(letters.filter((l) => !own.has(l.letter.at)).map((l) => l.outline));
  const fill = (outline: Outline, paint: Paint): PaintedPart => ({ role: "fill", outline, paint, blurMm: 0 });
  const parts = [fill(plain, placeFill(block.fill, inkOf))];
  for (const { letter, outline } of letters) {
    const colours = own.get(letter.at);
    if (!colours) continue;
    partsOfLetter(outline).forEach((part, i) => parts.push(fill(part, colours[i] ?? placeFill(block.fill, inkOf))));
  }
  return parts.filter((p) => p.outline.verbs);
}

function placeFill(fill: Fill, inkOf: () => Bounds | null): Paint {
  if (typeof fill === "string") return fill;
  const box = inkOf() ?? { xMin: 0, yMin: 0, xMax: 1, yMax: 1 };
  const angle = (fill.angleDeg * Math.PI) / 180;
  const [ux, uy] = [Math.cos(angle), Math.sin(angle)];
  // The line is as long as the box is in its direction.
  const half = (Math.abs((box.xMax - box.xMin) * ux) + Math.abs((box.yMax - box.yMin) * uy)) / 2;
  const { x, y } = middleOf(box);
  return { ...fill, x1: x - ux * half, y1: y - uy * half, x2: x + ux * half, y2: y + uy * half };
}

/** An outline as an area of its own, so that every reader draws it alike. */
function ringOf(shape: BlockShape, { widthMm, side = "middle" }: Outlined): Outline {
  const solid = polygonsOfBlock(shape);
  const outward = side === "outside" ? widthMm : side === "middle" ? widthMm / 2 : 0;
  const inward = widthMm - outward;
  const outer = outward ? growPolygons(solid, outward) : solid;
  const inner = inward ? growPolygons(solid, -inward) : solid;
  return fromPolygons(subtractPolygons(outer, inner));
}

/** Box around what is painted; null when nothing is. A shadow's edge counts where it still can be seen. */
export function boundsOfPaint({ blocks }: PaintedLettering): Bounds | null {
  const boxes = blocks.flatMap((b) =>
    b.parts.flatMap(({ outline, blurMm }) => {
      const box = boundsOf(flattenOutline(outline, FLAT_MM));
      const r = blurMm * 1.5;
      return box ? [Float64Array.of(box.xMin - r, box.yMin - r, box.xMax + r, box.yMax + r)] : [];
    }),
  );
  return boundsOf(boxes);
}
