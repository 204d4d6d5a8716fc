// Worker entry: a picture that somebody gave → an upright JPEG of bounded size, or the code of why not. Nothing is stored here.
import sharp from "sharp";
import { codeOfDecoder, MOST_PIXELS } from "./pictureLimits";

export type PreparePictureRequest = { image: Uint8Array };
export type PreparePictureReply =
  | { ok: true; jpeg: Uint8Array; widthPx: number; heightPx: number }
  | { ok: false; code: "picture-broken" | "picture-too-large"; detail: string };

const LONGEST_PX = 1800;
/** Vector pictures may name files and fetch: only pictures of pixels are taken. */
const FORMATS = ["jpeg", "png", "webp", "gif", "tiff", "avif", "heif"];

export default async function preparePicture({ image }: PreparePictureRequest): Promise<PreparePictureReply> {
  try {
    const open = () => sharp(image, { limitInputPixels: MOST_PIXELS, failOn: "error" });
    const { format } = await open().metadata();
    if (!format || !FORMATS.includes(format))
      return { ok: false, code: "picture-broken", detail: `${format ?? "unknown"} is no picture of pixels` };
    const { data, info } = await open()
      .rotate()
      .resize({ width: LONGEST_PX, height: LONGEST_PX, fit: "inside", withoutEnlargement: true })
      .flatten({ background: "#ffffff" })
      .jpeg({ quality: 84 })
      .toBuffer({ resolveWithObject: true });
    return { ok: true, jpeg: Uint8Array.from(data), widthPx: info.width, heightPx: info.height };
  } catch (error) {
    const detail = String((error as Error).message);
    return { ok: false, code: codeOfDecoder(detail), detail };
  }
}
