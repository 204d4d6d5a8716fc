// The compact descriptors of a style: per character its form (36 numbers) and its box in em. A stage of the pipeline ("described").
import { cellsOf, rasterOutline, sumInk } from "../geometry/raster";
import { boundsOf } from "../geometry/outline";
import { describeCells, FORM_LENGTH } from "../measure/cellForm";
import type { OpenFace } from "../outlines/openFace";

// Taken out of the global object once: the loops below call them millions of times.
const { max, min, round } = Math;

/** Characters that are described. Others are compared in the fine stage only. The order is part of the stored format. */
export const DESCRIBED = [
  ..."ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789&!?.,:;'\"-–()/@#%$€£+*·éèêëáàâäåãíïóòôöõøúüñçßæœÉÖÜÄÅØ’“”",
];
const INDEX_OF = new Map(DESCRIBED.map((c, i) => [c, i]));
/** Bytes per character: 36 form bytes, then left, top, right, bottom, advance as 16-bit numbers of 1/4096 em. */
export const BYTES_PER_CHARACTER = FORM_LENGTH + 10;
export const SIGNATURE_BYTES = DESCRIBED.length * BYTES_PER_CHARACTER;
const EM_STEPS = 4096;
/** Steps of a form's numbers in their byte. */
export const FORM_STEPS = 24;
/** The advance of a character that the style lacks. */
export const ABSENT = -32768;
const DRAW_PX = 40;

/**
 * Describes a face by its letters.
 * @returns Uint8Array, shape [DESCRIBED.length, BYTES_PER_CHARACTER]; an absent character has advance −32768.
 */
export function extractDescriptors(face: OpenFace): Uint8Array {
  const out = new Uint8Array(SIGNATURE_BYTES);
  const view = new DataView(out.buffer);
  DESCRIBED.forEach((char, i) => {
    const base = i * BYTES_PER_CHARACTER;
    const glyphId = face.glyphOf(char.codePointAt(0)!);
    const bounds = glyphId ? boundsOf(face.polygons(glyphId)) : null;
    if (!glyphId || !bounds) {
      view.setInt16(base + FORM_LENGTH + 8, ABSENT, true);
      return;
    }
    const form = describeForm(face, glyphId, bounds);
    form.forEach((v, k) => view.setInt8(base + k, quantize(v)));
    const em = (v: number) => max(-32767, min(32767, round((v / face.unitsPerEm) * EM_STEPS)));
    [bounds.xMin, bounds.yMax, bounds.xMax, bounds.yMin, face.advanceFu(glyphId)].forEach((v, k) =>
      view.setInt16(base + FORM_LENGTH + 2 * k, em(v), true),
    );
  });
  return out;
}

export const quantize = (v: number) => max(-127, min(127, round(v * FORM_STEPS)));

/** The form of a glyph within its box. */
export function describeForm(
  face: OpenFace,
  glyphId: number,
  b: { xMin: number; xMax: number; yMin: number; yMax: number },
) {
  const sx = DRAW_PX / max(1, b.xMax - b.xMin);
  const sy = DRAW_PX / max(1, b.yMax - b.yMin);
  const picture = rasterOutline(
    face.outline(glyphId),
    { a: sx, b: 0, c: 0, d: -sy, e: -b.xMin * sx, f: b.yMax * sy },
    DRAW_PX,
    DRAW_PX,
  );
  return describeCells(cellsOf(sumInk(picture), { left: 0, top: 0, right: DRAW_PX, bottom: DRAW_PX }, 16));
}

/** A box in em, y up from the baseline, and the advance. */
export type GlyphBox = { left: number; top: number; right: number; bottom: number; advance: number };

type DescribedEntry = {
  id: string;
  family: string;
  signature: Uint8Array;
  coordinates?: Record<string, number> | null;
};

/** An index as two threads can hold it: the signatures in memory that both see. */
export type SharedSignatures = Pick<SignatureIndex, "ids" | "families" | "coordinates"> & { bytes: Uint8Array };

/** Signatures of many styles, ready to be compared. `bytes` has shape [ids.length, DESCRIBED.length, BYTES_PER_CHARACTER]. */
export class SignatureIndex {
  ids: string[] = [];
  families: string[] = [];
  /** The location that an entry of a variable font is described at; null: its default. */
  coordinates: (Record<string, number> | null)[] = [];
  private bytes: Uint8Array = new Uint8Array(0);
  private view = new DataView(this.bytes.buffer);

  /** @param rows - one an entry: a style stands in several, under the same id, when it is variable. */
  static of(rows: DescribedEntry[]): SignatureIndex {
    const index = new SignatureIndex();
    index.bytes = new Uint8Array(new SharedArrayBuffer(rows.length * SIGNATURE_BYTES));
    rows.forEach((r, i) => {
      index.ids.push(r.id);
      index.families.push(r.family);
      index.coordinates.push(r.coordinates ?? null);
      index.bytes.set(r.signature.subarray(0, SIGNATURE_BYTES), i * SIGNATURE_BYTES);
    });
    index.view = new DataView(index.bytes.buffer);
    return index;
  }

  /** For another thread; nothing of the signatures is copied. */
  share(): SharedSignatures {
    const { ids, families, coordinates, bytes } = this;
    return { ids, families, coordinates, bytes };
  }

  static from(shared: SharedSignatures): SignatureIndex {
    const index = new SignatureIndex();
    Object.assign(index, shared);
    index.view = new DataView(index.bytes.buffer);
    return index;
  }

  /** The entries of one style alone. */
  only(id: string): SignatureIndex {
    const rows = this.ids.flatMap((own, i) => (own === id ? [i] : []));
    return SignatureIndex.of(
      rows.map((i) => ({
        id,
        family: this.families[i]!,
        coordinates: this.coordinates[i]!,
        signature: this.bytes.subarray(i * SIGNATURE_BYTES, (i + 1) * SIGNATURE_BYTES),
      })),
    );
  }

  /** Position of a character in the signature; −1 when it is not described. */
  static at(char: string): number {
    return INDEX_OF.get(char) ?? -1;
  }

  /** Box of a character; null when the style lacks it. */
  box(style: number, position: number): GlyphBox | null {
    const base = (style * DESCRIBED.length + position) * BYTES_PER_CHARACTER + FORM_LENGTH;
    const advance = this.view.getInt16(base + 8, true);
    if (advance === ABSENT) return null;
    const em = (k: number) => this.view.getInt16(base + 2 * k, true) / EM_STEPS;
    return { left: em(0), top: em(1), right: em(2), bottom: em(3), advance: advance / EM_STEPS };
  }

  /** A character's form, quantized: Int8Array, shape [36]. */
  form(style: number, position: number): Int8Array {
    const base = (style * DESCRIBED.length + position) * BYTES_PER_CHARACTER;
    return new Int8Array(this.bytes.buffer, base, FORM_LENGTH);
  }

  /**
   * Weighted squared distance of a form to a character's.
   * @param form - Int8Array, shape [36], quantized. @param weights - Float32Array, shape [36].
   */
  distance(style: number, position: number, form: Int8Array, weights: Float32Array): number {
    const base = (style * DESCRIBED.length + position) * BYTES_PER_CHARACTER;
    let sum = 0;
    for (let k = 0; k < FORM_LENGTH; k++) {
      const d = form[k]! - ((this.bytes[base + k]! << 24) >> 24);
      sum += weights[k]! * d * d;
    }
    return sum / (FORM_STEPS * FORM_STEPS);
  }
}
