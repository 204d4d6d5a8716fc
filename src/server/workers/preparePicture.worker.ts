// Worker entry: a picture that somebody gave → an upright JPEG of bounded size, or the code of why not. Nothing is stored here.
import { codeOfDecoder, openPixels } from "./pictureLimits";

export type PreparePictureRequest = { image: Uint8Array };
export type PreparePictureReply =
  | { ok: true; jpeg: Uint8Array; widthPx: number; heightPx: number }
  | {
      ok: false;
      code: "picture-broken" | "picture-too-large" | "picture-too-long" | "busy" | "let-go";
      detail: string;
    };

const LONGEST_PX = 1800;

export default async function preparePicture({ image }: PreparePictureRequest): Promise<PreparePictureReply> {
  try {
    const { open } = await openPixels(image);
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
