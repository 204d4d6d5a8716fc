// HarfBuzz's subsetter: a font with fewer characters, and with some of its axes held. The package ships it as a WebAssembly program
// without a wrapper. Source: hb-subset.h of HarfBuzz 10.

/** What the program exports, as far as it is used here; pointers are numbers. */
type Exports = {
  memory: WebAssembly.Memory;
  _initialize(): void;
  malloc(bytes: number): number;
  free(at: number): void;
  hb_blob_create(data: number, length: number, mode: number, user: number, destroy: number): number;
  hb_blob_destroy(blob: number): void;
  hb_blob_get_data(blob: number, length: number): number;
  hb_blob_get_length(blob: number): number;
  hb_face_create(blob: number, index: number): number;
  hb_face_destroy(face: number): void;
  hb_face_reference_blob(face: number): number;
  hb_set_add(set: number, value: number): void;
  hb_set_clear(set: number): void;
  hb_set_invert(set: number): void;
  hb_subset_input_create_or_fail(): number;
  hb_subset_input_destroy(input: number): void;
  hb_subset_input_unicode_set(input: number): number;
  hb_subset_input_set(input: number, kind: number): number;
  hb_subset_input_set_flags(input: number, flags: number): void;
  hb_subset_input_pin_axis_location(input: number, face: number, tag: number, value: number): number;
  hb_subset_or_fail(face: number, input: number): number;
};

/** hb_subset_sets_t, hb_subset_flags_t, hb_memory_mode_t. */
const SETS = { nameIds: 4, nameLanguages: 5, features: 6 } as const;
const KEEP_NOTDEF = 0x40;
const MAY_WRITE = 2;

export type SubsetAsked = {
  codePoints: Iterable<number>;
  /** Axis tag → the value it is held at; others stay variable. */
  held?: Readonly<Record<string, number>>;
};

export type Subsetter = (sfnt: Uint8Array, asked: SubsetAsked) => Uint8Array;

/**
 * Makes a subsetter. Every feature and every language system of the font is kept, as far as the characters that stay need it.
 * @param program - bytes of `harfbuzz-subset.wasm`.
 * @returns bytes of the font → bytes of the smaller one. Throws an Error when the program refuses: then the program is not to be used again.
 */
export async function createSubsetter(program: Uint8Array): Promise<Subsetter> {
  const { instance } = await WebAssembly.instantiate(program as BufferSource);
  const hb = instance.exports as unknown as Exports;
  hb._initialize();
  return (sfnt, asked) => subset(hb, sfnt, asked);
}

function subset(hb: Exports, sfnt: Uint8Array, { codePoints, held = {} }: SubsetAsked): Uint8Array {
  const data = hb.malloc(sfnt.length);
  new Uint8Array(hb.memory.buffer).set(sfnt, data);
  const blob = hb.hb_blob_create(data, sfnt.length, MAY_WRITE, 0, 0);
  const face = hb.hb_face_create(blob, 0);
  const input = hb.hb_subset_input_create_or_fail();
  try {
    const kept = hb.hb_subset_input_unicode_set(input);
    for (const code of codePoints) hb.hb_set_add(kept, code);
    for (const kind of Object.values(SETS)) keepAll(hb, hb.hb_subset_input_set(input, kind));
    hb.hb_subset_input_set_flags(input, KEEP_NOTDEF);
    for (const [tag, value] of Object.entries(held))
      if (!hb.hb_subset_input_pin_axis_location(input, face, numberOf(tag), value))
        throw new Error(`The font has no axis ${tag}.`);
    const made = hb.hb_subset_or_fail(face, input);
    if (!made) throw new Error("The font cannot be cut.");
    const out = hb.hb_face_reference_blob(made);
    const at = hb.hb_blob_get_data(out, 0);
    const bytes = new Uint8Array(hb.memory.buffer).slice(at, at + hb.hb_blob_get_length(out));
    hb.hb_blob_destroy(out);
    hb.hb_face_destroy(made);
    return bytes;
  } finally {
    hb.hb_subset_input_destroy(input);
    hb.hb_face_destroy(face);
    hb.hb_blob_destroy(blob);
    hb.free(data);
  }
}

function keepAll(hb: Exports, set: number) {
  hb.hb_set_clear(set);
  hb.hb_set_invert(set);
}

/** A tag of four letters as the number that OpenType writes. */
const numberOf = (tag: string): number => [...tag].reduce((sum, c) => (sum << 8) | c.charCodeAt(0), 0) >>> 0;
