// A lettering as DXF: each contour one closed entity in millimetres, y up; curves as splines that are the outline's own curves. A layer
// per block and colour; blocks that are kept together are one block reference.
import {
  DxfWriter,
  LWPolylineFlags,
  point2d,
  point3d,
  SplineFlags,
  TrueColor,
  Units,
  type DxfBlock,
} from "@tarikjabiri/dxf";
import type { Outline } from "../../geometry/outline";
import { splitContours } from "../../letter/letterParts";
import { solidOf } from "../../letter/fills";
import type { PaintedBlock, PaintedLettering } from "../../letter/paintLettering";
import { groupsOf } from "./svg";

/** Where entities are put: on the sheet itself, or into a block. */
type Into = Pick<DxfWriter | DxfBlock, "addSpline" | "addLWPolyline">;

export function writeLetteringDxf({ sheet, blocks }: PaintedLettering): string {
  const writer = new DxfWriter();
  writer.setUnits(Units.Millimeters);
  for (const { group, members } of groupsOf(blocks)) {
    if (group === null) {
      for (const block of members) addBlock(writer, writer, block, sheet.heightMm);
      continue;
    }
    const name = nameOf(group);
    const together = writer.addBlock(name);
    for (const block of members) addBlock(writer, together, block, sheet.heightMm);
    writer.addInsert(name, point3d(0, 0, 0));
  }
  return writer.stringify();
}

/** Names of layers and blocks take letters, digits and a few signs. */
const nameOf = (name: string) => name.replace(/[^\p{L}\p{N} _-]+/gu, "-");

function addBlock(writer: DxfWriter, into: Into, block: PaintedBlock, heightMm: number) {
  for (const { role, outline, paint } of block.parts) {
    // Shadows are for the eye: nothing is cut along them.
    if (role === "shadow") continue;
    const colour = solidOf(paint);
    const layer = nameOf(`${block.id} ${colour.slice(1, 7).toLowerCase()}`);
    if (!writer.document.tables.layerTable.exist(layer))
      writer.addLayer(layer, 7, "CONTINUOUS").trueColor = trueColour(colour);
    for (const contour of splitContours(outline)) addContour(into, contour, heightMm, layer);
  }
}

const trueColour = (colour: string) => {
  const [r, g, b] = [1, 3, 5].map((i) => parseInt(colour.slice(i, i + 2), 16));
  return TrueColor.fromRGB(r!, g!, b!);
};

function addContour(into: Into, { verbs, coords }: Outline, heightMm: number, layerName: string) {
  if (!/[QC]/.test(verbs)) {
    const vertices = [];
    for (let i = 0; i < coords.length; i += 2) vertices.push({ point: point2d(coords[i], heightMm - coords[i + 1]!) });
    into.addLWPolyline(vertices, { flags: LWPolylineFlags.Closed, layerName });
    return;
  }
  const points = cubicPoints(verbs, coords).map(([x, y]) => point3d(x, heightMm - y, 0));
  into.addSpline(
    {
      controlPoints: points,
      degreeCurve: 3,
      flags: SplineFlags.Closed + SplineFlags.Planar,
      knots: knotsFor((points.length - 1) / 3),
    },
    { layerName },
  );
}

type Point = [number, number];

/** Control points of a closed contour as cubic curves on end: one point, and three more per curve; lines are curves too. */
function cubicPoints(verbs: string, coords: Float64Array): Point[] {
  const start: Point = [coords[0]!, coords[1]!];
  const points: Point[] = [start];
  let at = 2;
  const next = (): Point => [coords[at++]!, coords[at++]!];
  const towards = (from: Point, to: Point, share: number): Point => [
    from[0] + share * (to[0] - from[0]),
    from[1] + share * (to[1] - from[1]),
  ];
  const line = (to: Point) => {
    const from = points[points.length - 1]!;
    points.push(towards(from, to, 1 / 3), towards(from, to, 2 / 3), to);
  };
  for (const verb of verbs.slice(1)) {
    const from = points[points.length - 1]!;
    if (verb === "L") line(next());
    else if (verb === "Q") {
      const [control, to] = [next(), next()];
      points.push(towards(from, control, 2 / 3), towards(to, control, 2 / 3), to);
    } else if (verb === "C") points.push(next(), next(), next());
  }
  const [x, y] = points[points.length - 1]!;
  if (Math.hypot(x - start[0], y - start[1]) > 1e-9) line(start);
  return points;
}

/** Each inner joint threefold, so that every curve is the outline's own; the ends fourfold. */
function knotsFor(curves: number): number[] {
  const knots = [0];
  for (let i = 0; i <= curves; i++) knots.push(i, i, i);
  return [...knots, curves];
}
