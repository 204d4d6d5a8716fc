// Worker entry: one font file through the pipeline (opened, measured, classified, signed). Nothing is stored here.
import type { FontFaultCode } from "@/contracts/errors";
import { checkFont } from "@/core/health/checkFont";
import { instancesOf, type Coordinates } from "@/core/identify/instances";
import { extractDescriptors } from "@/core/identify/signature";
import { classifyFont, type Classification } from "@/core/kind/classifyFont";
import type { MeasureNotes } from "@/contracts/traits";
import { measureFont, type Measured } from "@/core/measure/measureFont";
import { measureReach } from "@/core/measure/reach";
import { FontFileError } from "@/core/open/fontFileError";
import { openFont, type OpenedFont } from "@/core/open/openFont";
import { fingerprintOutlines } from "@/core/measure/fingerprintOutlines";
import { openFace } from "@/core/outlines/openFace";

export type ReadFontRequest = { bytes: Uint8Array; fallbackFamily: string };
export type FontReading = {
  opened: Omit<OpenedFont, "characters">;
  family: string;
  measured: Measured;
  notes: MeasureNotes;
  classified: Classification;
  signature: Uint8Array;
  /** Of a variable font at other settings than its default. */
  signedInstances: { coordinates: Coordinates; signature: Uint8Array }[];
  /** Of its outlines, to find the same style in another file; null when it has too few letters. */
  print: Int16Array | null;
};
export type ReadFontReply = { ok: true; reading: FontReading } | { ok: false; code: FontFaultCode; detail: string };

/** @returns the reading, or the code and detail of why the file is refused. */
export default async function readFont({ bytes, fallbackFamily }: ReadFontRequest): Promise<ReadFontReply> {
  const started = performance.now();
  try {
    const whole = await openFont(bytes);
    const { characters, ...opened } = whole;
    const face = openFace(opened.sfnt);
    if (![...characters.values()].some((glyph) => face.outline(glyph).verbs.length > 0))
      throw new FontFileError("no-outlines", "glyf", 0, "at least one drawn glyph", "none");
    const measured = measureFont(face);
    const family = opened.family ?? fallbackFamily;
    const classified = classifyFont({ measured, family, style: opened.style, features: opened.features });
    // The shaper may hand back a view of a larger buffer: what leaves the thread is a copy of its own.
    return {
      ok: true,
      reading: {
        opened: { ...opened, health: checkFont(whole, face), sfnt: opened.sfnt.slice() },
        family,
        measured,
        notes: { ...measured.notes, ...measureReach(opened.sfnt, opened.axes, measured.traits) },
        classified,
        signature: extractDescriptors(face),
        signedInstances: signInstances(opened, started + INSTANCES_UNTIL_MS),
        print: fingerprintOutlines(face),
      },
    };
  } catch (error) {
    if (error instanceof FontFileError) return { ok: false, code: error.code, detail: error.message };
    return { ok: false, code: "reader-failed", detail: String((error as Error).message) };
  }
}

/** A font that takes long to measure and draw is signed at fewer settings, or none: from the beginning of its reading. */
const INSTANCES_UNTIL_MS = 3_000;

function signInstances(
  { sfnt, axes }: Pick<OpenedFont, "sfnt" | "axes">,
  until: number,
): FontReading["signedInstances"] {
  const signed: FontReading["signedInstances"] = [];
  const all = instancesOf(axes);
  // Every second first: when time runs out, what is signed is spread over the axes.
  for (const coordinates of [...all.filter((_, i) => i % 2 === 0), ...all.filter((_, i) => i % 2 === 1)]) {
    if (performance.now() > until) break;
    signed.push({ coordinates, signature: extractDescriptors(openFace(sfnt, coordinates)) });
  }
  return signed;
}
