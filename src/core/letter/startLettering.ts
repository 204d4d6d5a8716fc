// The first document of a brief: its lines as blocks under one another in one face, on a sheet that holds them.
import type { Block, LetteringDocument } from "@/contracts/lettering";
import type { StyleId } from "@/contracts/ids";

type StartLine = { id: string; text: string; role: string };
type StartFace = { styleId: StyleId; coordinates?: Record<string, number>; features?: Record<string, number> };

/** Lines after the title are smaller. */
const SECOND_SHARE = 0.6;
/** Mean advance where nothing was measured yet, in em: a little more than most faces have. */
const ADVANCE_EM = 0.5;
/** Capitals of most faces. */
const CAPITALS_EM = 0.7;
const LINE_EM = 1.35;
const ROUND_MM = 10;

/** From the brief: the size of the title, of its capitals or of the em. */
type StartLook = { sizeMm: number; isByCapitals: boolean; ink: string };

export function startLettering(
  lines: readonly StartLine[],
  face: StartFace,
  { sizeMm, isByCapitals, ink }: StartLook,
): LetteringDocument {
  const written = lines.filter((l) => l.text.trim());
  const sizeOf = (role: string) => sizeMm * (role === "title" ? 1 : SECOND_SHARE);
  const emOf = (role: string) => sizeOf(role) / (isByCapitals ? CAPITALS_EM : 1);
  const up = (v: number) => Math.ceil(v / ROUND_MM) * ROUND_MM;
  const margin = up(sizeMm * 0.4);
  const widest = Math.max(sizeMm, ...written.map((l) => [...l.text].length * ADVANCE_EM * emOf(l.role)));
  const widthMm = up(widest + 2 * margin);
  let yMm = margin;
  const blocks = written.map(({ id, text, role }): Block => {
    const emMm = emOf(role);
    yMm += emMm * LINE_EM;
    return {
      ...{ id, text, styleId: face.styleId, align: "centre" },
      size: isByCapitals ? { capHeightMm: sizeOf(role) } : { emMm },
      ...(Object.keys(face.coordinates ?? {}).length && { coordinates: face.coordinates }),
      ...(Object.keys(face.features ?? {}).length && { features: face.features }),
      at: { xMm: widthMm / 2, yMm: Math.round(yMm - emMm * (LINE_EM - 1)) },
      fill: ink.toLowerCase(),
    };
  });
  return { version: 1, sheet: { widthMm, heightMm: up(yMm + margin), ground: null }, blocks };
}
