// Reads a DXF for cutting: polylines with their arcs, splines, lines, circles, and block references, whose lines are kept together.
import DxfParser, { type IEntity, type IInsertEntity, type ILwpolylineEntity, type ISplineEntity } from "dxf-parser";
import { closeLine, refuseFile, type CutFile, type CutLine } from "./cutFile";
import { turnOver } from "./readHpgl";

type Point = { x: number; y: number };
type Place = (p: Point) => Point;
type Block = { entities?: IEntity[]; position?: Point };
/** Of `$INSUNITS`: inches, millimetres, centimetres. */
const MM: Record<number, number> = { 1: 25.4, 4: 1, 5: 10 };
const MOST_DEPTH = 8;
const STEPS = 24;

export function readDxf(text: string): CutFile {
  let read: ReturnType<DxfParser["parseSync"]>;
  try {
    read = new DxfParser().parseSync(text);
  } catch {
    read = null;
  }
  if (!read) return refuseFile("unread", "This is no DXF drawing, or it is damaged.");
  const scale = MM[Number(read.header?.$INSUNITS)];
  if (!scale) return refuseFile("unread", "The drawing does not say in which unit it is measured.");
  const blocks = read.blocks as Record<string, Block>;
  const lines: CutLine[] = [];
  const walk = (entities: readonly IEntity[], place: Place, group: string | null, depth: number) => {
    for (const entity of entities) {
      if (entity.type === "INSERT") {
        const insert = entity as IInsertEntity;
        const block = blocks[insert.name];
        if (block?.entities && depth < MOST_DEPTH)
          walk(block.entities, (p) => place(inInsert(insert, block, p)), group ?? insert.name, depth + 1);
        continue;
      }
      const line = readLine(entity);
      if (line)
        lines.push(
          closeLine(
            line.points.map(place).flatMap((p) => [p.x, p.y]),
            line.isClosed,
            group,
          ),
        );
    }
  };
  walk(read.entities, (p) => ({ x: p.x * scale, y: p.y * scale }), null, 0);
  return read.entities.some((e) => e.type === "TEXT" || e.type === "MTEXT")
    ? refuseFile("has-text", "The drawing has text. Save it as outlines: a plotter has no fonts.")
    : { ok: true, lines: turnOver(lines) };
}

function inInsert(
  { position, xScale = 1, yScale = 1, rotation = 0 }: IInsertEntity,
  { position: base }: Block,
  p: Point,
) {
  const turn = (rotation * Math.PI) / 180;
  const [x, y] = [(p.x - (base?.x ?? 0)) * xScale, (p.y - (base?.y ?? 0)) * yScale];
  return {
    x: position.x + x * Math.cos(turn) - y * Math.sin(turn),
    y: position.y + x * Math.sin(turn) + y * Math.cos(turn),
  };
}

/** @returns null for what is no line. */
function readLine(entity: IEntity): { points: Point[]; isClosed: boolean } | null {
  if (entity.type === "LWPOLYLINE" || entity.type === "POLYLINE" || entity.type === "LINE") {
    const { vertices, shape } = entity as ILwpolylineEntity;
    const isClosed = Boolean(shape);
    return {
      points: vertices.flatMap((v, i) => withBulge(v, vertices[i + 1] ?? (isClosed ? vertices[0] : undefined))),
      isClosed,
    };
  }
  if (entity.type === "SPLINE") {
    const spline = entity as ISplineEntity;
    return { points: sampleSpline(spline), isClosed: spline.closed };
  }
  if (entity.type === "CIRCLE" || entity.type === "ARC") {
    const arc = entity as IEntity & { center: Point; radius: number; startAngle?: number; endAngle?: number };
    const isClosed = entity.type === "CIRCLE";
    const from = isClosed ? 0 : arc.startAngle!;
    let sweep = isClosed ? 2 * Math.PI : arc.endAngle! - from;
    if (sweep <= 0) sweep += 2 * Math.PI;
    const count = 4 * STEPS;
    const points = Array.from({ length: isClosed ? count : count + 1 }, (_, i) => {
      const angle = from + (sweep * i) / count;
      return { x: arc.center.x + arc.radius * Math.cos(angle), y: arc.center.y + arc.radius * Math.sin(angle) };
    });
    return { points, isClosed };
  }
  return null;
}

/** A corner, and the arc to the next one where its bulge is a quarter of the tangent of its angle. */
function withBulge(from: Point & { bulge?: number }, to: Point | undefined): Point[] {
  const { bulge } = from;
  if (!bulge || !to) return [from];
  const sweep = 4 * Math.atan(bulge);
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const away = (1 - bulge * bulge) / (4 * bulge);
  const middle = { x: (from.x + to.x) / 2 - dy * away, y: (from.y + to.y) / 2 + dx * away };
  const [rx, ry] = [from.x - middle.x, from.y - middle.y];
  return Array.from({ length: STEPS }, (_, i) => {
    const [c, s] = [Math.cos((sweep * i) / STEPS), Math.sin((sweep * i) / STEPS)];
    return { x: middle.x + rx * c - ry * s, y: middle.y + rx * s + ry * c };
  });
}

/** Points along a B-spline (de Boor), the same number between any two knots. */
function sampleSpline({ controlPoints = [], knotValues, degreeOfSplineCurve: degree }: ISplineEntity): Point[] {
  const points: Point[] = [];
  const at = (k: number, t: number): Point => {
    const d: Point[] = Array.from({ length: degree + 1 }, (_, j) => ({ ...controlPoints[j + k - degree]! }));
    for (let r = 1; r <= degree; r++)
      for (let j = degree; j >= r; j--) {
        const [low, high] = [knotValues[j + k - degree]!, knotValues[j + 1 + k - r]!];
        const share = high > low ? (t - low) / (high - low) : 0;
        d[j] = { x: d[j - 1]!.x + share * (d[j]!.x - d[j - 1]!.x), y: d[j - 1]!.y + share * (d[j]!.y - d[j - 1]!.y) };
      }
    return d[degree]!;
  };
  for (let k = degree; k < controlPoints.length; k++) {
    const [from, to] = [knotValues[k]!, knotValues[k + 1]!];
    if (!(to > from)) continue;
    for (let i = 0; i < STEPS; i++) points.push(at(k, from + ((to - from) * i) / STEPS));
  }
  const last = controlPoints[controlPoints.length - 1];
  return last ? [...points, { x: last.x, y: last.y }] : points;
}
