// A lettering as HPGL for cutting plotters: 40 units a millimetre, origin lower left, y up, a pen per colour. Curves are taken apart to
// within half a unit. Smaller contours are cut before those around them, so that nothing is cut in a piece that has come loose.
import { areaOf, flattenOutline } from "../../geometry/outline";
import { splitContours } from "../../letter/letterParts";
import { solidOf } from "../../letter/fills";
import type { PaintedLettering } from "../../letter/paintLettering";
import { groupsOf } from "./svg";

export const UNITS_PER_MM = 40;
const STEP_MM = 0.01;

export function writeLetteringHpgl({ sheet, blocks }: PaintedLettering): string {
  const pens = new Map<string, number>();
  const penOf = (colour: string) => {
    if (!pens.has(colour)) pens.set(colour, pens.size + 1);
    return pens.get(colour)!;
  };
  const lines = ["IN;", "PA;"];
  for (const { group, members } of groupsOf(blocks)) {
    if (group !== null) lines.push(`CO "keep together: ${group.replace(/[^\p{L}\p{N} _-]+/gu, "-")}";`);
    for (const { parts } of members)
      for (const { role, outline, paint } of parts) {
        if (role === "shadow") continue;
        lines.push(`SP${penOf(solidOf(paint).slice(0, 7).toLowerCase())};`);
        const polygons = splitContours(outline).flatMap((c) => flattenOutline(c, STEP_MM));
        polygons.sort((a, b) => Math.abs(areaOf(a)) - Math.abs(areaOf(b)));
        lines.push(...polygons.map((p) => writePolygon(p, sheet.heightMm)));
      }
    if (group !== null) lines.push(`CO "end";`);
  }
  lines.push("PU0,0;", "SP0;", "");
  return lines.join("\n");
}

function writePolygon(p: Float64Array, heightMm: number): string {
  const points: string[] = [];
  for (let i = 0; i < p.length; i += 2)
    points.push(`${Math.round(p[i]! * UNITS_PER_MM)},${Math.round((heightMm - p[i + 1]!) * UNITS_PER_MM)}`);
  return `PU${points[0]};\nPD${[...points.slice(1), points[0]].join(",")};`;
}
