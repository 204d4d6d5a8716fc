// What a picture may be, and the code of a refusal: shared by the workers that decode pictures.

/** Pictures beyond this are refused before a pixel is decoded. */
export const MOST_PIXELS = 50_000_000;

/** @param detail - what the decoder said. */
export const codeOfDecoder = (detail: string): "picture-too-large" | "picture-broken" =>
  /pixel limit/i.test(detail) ? "picture-too-large" : "picture-broken";
