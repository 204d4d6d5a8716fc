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

/** What of a face is described: its letters and how far they advance. */
export type DescribedFace = Pick<OpenFace, "unitsPerEm" | "outline" | "polygons" | "advanceFu" | "glyphOf">;

/**
 * Describes a face by its letters.
 * @returns Uint8Array, shape [DESCRIBED.length, BYTES_PER_CHARACTER]; an absent character has advance −32768.
 */
export function extractDescriptors(face: DescribedFace): Uint8Array {
  const out = new Uint8Array(SIGNATURE_BYTES);
  const view = new DataView(out.buffer);
  DESCRIBED.forEach((char, i) => describeCharacter(face, char, view, i * BYTES_PER_CHARACTER));
  return out;
}

/** Writes one character's form and box; an absent one's advance says so. */
function describeCharacter(face: DescribedFace, char: string, view: DataView, base: number) {
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
}

export const quantize = (v: number) => max(-127, min(127, round(v * FORM_STEPS)));

/** The form of a glyph within its box. */
export function describeForm(
  face: Pick<OpenFace, "outline">,
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

/**
 * Entries of an index that stand for others. The entries that resemble `leaders[i]` are members[starts[i]] up to members[starts[i + 1]], itself
 * among them.
 */
export type Leaders = { leaders: Int32Array; members: Int32Array; starts: Int32Array };

/** An index as two threads can hold it: the signatures in memory that both see. */
export type SharedSignatures = Pick<SignatureIndex, "ids" | "families" | "coordinates" | "leaders"> & {
  bytes: Uint8Array;
  more: ReadonlyMap<string, Uint8Array>;
};

/** Where a character stands: that of entry n at first + n · step. */
type Place = { bytes: Uint8Array; view: DataView; first: number; step: number };

/** Places of the characters of the signatures, then of those that were described later. */
function placesIn(bytes: Uint8Array, more: Iterable<Uint8Array>): Place[] {
  const view = new DataView(bytes.buffer);
  return [
    ...DESCRIBED.map((_, i): Place => ({ bytes, view, first: i * BYTES_PER_CHARACTER, step: SIGNATURE_BYTES })),
    ...[...more].map(placeAlone),
  ];
}
const placeAlone = (bytes: Uint8Array): Place => ({
  ...{ bytes, view: new DataView(bytes.buffer) },
  ...{ first: 0, step: BYTES_PER_CHARACTER },
});

/** Signatures of many styles, ready to be compared. `bytes` has shape [ids.length, DESCRIBED.length, BYTES_PER_CHARACTER]. */
export class SignatureIndex {
  ids: string[] = [];
  families: string[] = [];
  /** The location that an entry of a variable font is described at; null: its default. */
  coordinates: (Record<string, number> | null)[] = [];
  /** Of an index of many entries: those that stand for others (`partByShape`). */
  leaders: Leaders | null = null;
  /** Characters that were described later, each for all entries: bytes of shape [ids.length, BYTES_PER_CHARACTER], in the order of their positions. */
  private more: Map<string, Uint8Array> = new Map();
  private bytes: Uint8Array = new Uint8Array(0);
  private places: Place[] = [];

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
    index.places = placesIn(index.bytes, []);
    return index;
  }

  /** For another thread; nothing of the signatures is copied. */
  share(): SharedSignatures {
    const { ids, families, coordinates, leaders, bytes, more } = this;
    return { ids, families, coordinates, leaders, bytes, more };
  }

  static from(shared: SharedSignatures): SignatureIndex {
    const index = new SignatureIndex();
    Object.assign(index, shared);
    index.places = placesIn(index.bytes, index.more.values());
    return index;
  }

  /**
   * Describes characters of which the index knows nothing yet: they are known when all entries were gone through.
   * @param faceOf - the face of an entry, used up before the next is asked for; null where it lacks the character, or cannot be opened.
   * @param pause - awaited between entries, so that what was opened can be freed.
   * @returns whether anything was added.
   */
  async describeMore(
    characters: Iterable<string>,
    faceOf: (entry: number, char: string) => DescribedFace | null,
    pause: () => Promise<void> = () => Promise.resolve(),
  ): Promise<boolean> {
    const unknown = [...new Set(characters)].filter((c) => c.trim() && this.at(c) < 0);
    const described = unknown.map((char) => {
      const bytes = new Uint8Array(new SharedArrayBuffer(this.ids.length * BYTES_PER_CHARACTER));
      return { char, bytes, place: placeAlone(bytes) };
    });
    if (!described.length) return false;
    // Entry by entry: each face is opened only once.
    for (let entry = 0; entry < this.ids.length; entry++) {
      const base = entry * BYTES_PER_CHARACTER;
      for (const { char, place } of described) {
        const face = faceOf(entry, char);
        if (face) describeCharacter(face, char, place.view, base);
        else place.view.setInt16(base + FORM_LENGTH + 8, ABSENT, true);
      }
      await pause();
    }
    // Another question may have asked for the same meanwhile.
    const added = described.filter(({ char }) => this.at(char) < 0);
    for (const { char, bytes, place } of added) {
      this.more.set(char, bytes);
      this.places.push(place);
    }
    return added.length > 0;
  }

  /** Position of a character in this index; −1 when it is not described. */
  at(char: string): number {
    const known = SignatureIndex.at(char);
    if (known >= 0 || !this.more.has(char)) return known;
    return DESCRIBED.length + [...this.more.keys()].indexOf(char);
  }

  /** The entries of one style alone. */
  only(id: string): SignatureIndex {
    const rows = this.ids.flatMap((own, i) => (own === id ? [i] : []));
    const alone = SignatureIndex.of(
      rows.map((i) => ({
        id,
        family: this.families[i]!,
        coordinates: this.coordinates[i]!,
        signature: this.bytes.subarray(i * SIGNATURE_BYTES, (i + 1) * SIGNATURE_BYTES),
      })),
    );
    for (const [char, bytes] of this.more) {
      const own = new Uint8Array(rows.length * BYTES_PER_CHARACTER);
      rows.forEach((i, k) =>
        own.set(bytes.subarray(i * BYTES_PER_CHARACTER, (i + 1) * BYTES_PER_CHARACTER), k * BYTES_PER_CHARACTER),
      );
      alone.more.set(char, own);
      alone.places.push(placeAlone(own));
    }
    return alone;
  }

  /** Position of a character in the signature; −1 when it is not described. */
  static at(char: string): number {
    return INDEX_OF.get(char) ?? -1;
  }

  /** Box of a character; null when the style lacks it. */
  box(style: number, position: number): GlyphBox | null {
    const { view, first, step } = this.places[position]!;
    const base = first + style * step + FORM_LENGTH;
    const advance = view.getInt16(base + 8, true);
    if (advance === ABSENT) return null;
    const em = (k: number) => view.getInt16(base + 2 * k, true) / EM_STEPS;
    return { left: em(0), top: em(1), right: em(2), bottom: em(3), advance: advance / EM_STEPS };
  }

  /** A character's form, quantized: Int8Array, shape [36]. */
  form(style: number, position: number): Int8Array {
    const { bytes, first, step } = this.places[position]!;
    return new Int8Array(bytes.buffer, first + style * step, FORM_LENGTH);
  }

  /**
   * Weighted squared distance of a form to a character's.
   * @param form - Int8Array, shape [36], quantized. @param weights - Float32Array, shape [36].
   */
  distance(style: number, position: number, form: Int8Array, weights: Float32Array): number {
    const { bytes, first, step } = this.places[position]!;
    const base = first + style * step;
    let sum = 0;
    for (let k = 0; k < FORM_LENGTH; k++) {
      const d = form[k]! - ((bytes[base + k]! << 24) >> 24);
      sum += weights[k]! * d * d;
    }
    return sum / (FORM_STEPS * FORM_STEPS);
  }
}
