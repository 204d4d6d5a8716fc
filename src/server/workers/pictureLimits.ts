// What a picture may be, and the code of a refusal: shared by the workers that decode pictures.
import sharp, { type Metadata, type Sharp } from "sharp";

/** Pictures beyond this are refused before a pixel is decoded. */
const MAX_PIXELS = 50_000_000;
/** Vector pictures may name files, fetch, and filter for minutes: only pictures of pixels are taken. SVG has its place among documents. */
const FORMATS = ["jpeg", "png", "webp", "gif", "tiff", "avif", "heif"];
const DECODE_SECONDS = 12;

/**
 * Looks at what a picture is before anything of it is drawn.
 * @returns its metadata, and what opens it again and again, each with a limit of time.
 * @throws the decoder's error, or one that says what it is instead.
 */
export async function openPixels(image: Uint8Array): Promise<{ metadata: Metadata; open: () => Sharp }> {
  const open = () =>
    sharp(image, { limitInputPixels: MAX_PIXELS, failOn: "error" }).timeout({ seconds: DECODE_SECONDS });
  // An SVG is text: it is not even begun to be read.
  if (looksLikeText(image)) throw new Error("text is no picture of pixels");
  const metadata = await open().metadata();
  if (!FORMATS.includes(metadata.format)) throw new Error(`${metadata.format} is no picture of pixels`);
  return { metadata, open };
}

/** Every format of pixels has a byte below 9, or one above 126, within its first 32. */
const looksLikeText = (bytes: Uint8Array) => bytes.subarray(0, 32).every((b) => (b >= 9 && b < 127) || b > 191);

/** @param detail - what the decoder said. */
export const codeOfDecoder = (detail: string): "picture-too-large" | "picture-broken" =>
  /pixel limit/i.test(detail) ? "picture-too-large" : "picture-broken";
