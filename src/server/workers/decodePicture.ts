// A picture as it was sent → pixels, with its frame and what is marked in it, in those pixels.
import type { Corner, HandInk, Identification, PixelBox } from "@/contracts/identify";
import type { RequestFaultCode } from "@/contracts/errors";
import { findAreas } from "@/core/picture/areas";
import type { RgbaPicture } from "@/core/picture/ink";
import type { PictureFrame } from "@/core/picture/readPicture";
import { codeOfDecoder, openPixels } from "./pictureLimits";

const LONGEST_PX = 2400;

/** What was asked, in pixels of the picture as it was sent. */
type Asked = { image: Uint8Array; frame: PictureFrame; ink: HandInk | null };
type Decoded =
  | {
      ok: true;
      picture: RgbaPicture;
      frame: PictureFrame;
      ink: HandInk | null;
      areas: Identification["areas"];
      taken: Identification["taken"];
    }
  | { ok: false; code: RequestFaultCode; detail?: string };

/** Decodes, turns by EXIF, lays on white, and shrinks what is very large; frame and ink shrink with it. */
export async function decodePicture({ image, frame, ink }: Asked): Promise<Decoded> {
  if (!image.length) return { ok: false, code: "picture-empty" };
  try {
    const { metadata: meta, open } = await openPixels(image);
    const turned = (meta.orientation ?? 1) >= 5;
    const width = (turned ? meta.height : meta.width) ?? 0;
    const height = (turned ? meta.width : meta.height) ?? 0;
    if (width < 4 || height < 4) return { ok: false, code: "picture-empty" };
    const region = frame.box ?? { width, height };
    const shrink = Math.min(
      1,
      LONGEST_PX /
        Math.max(frame.corners || frame.baseline ? Math.max(width, height) : Math.max(region.width, region.height)),
    );
    const { data, info } = await open()
      .rotate()
      .flatten({ background: "#ffffff" })
      .resize(Math.max(1, Math.round(width * shrink)), Math.max(1, Math.round(height * shrink)), { fit: "fill" })
      .toColourspace("srgb")
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    const { corners, baseline } = frame;
    const picture = {
      widthPx: info.width,
      heightPx: info.height,
      rgba: new Uint8Array(data.buffer, data.byteOffset, data.length),
    };
    // Who framed a line has chosen already.
    const { areas, isPlain } = frame.box || corners || baseline ? { areas: [], isPlain: true } : findAreas(picture);
    const box = frame.box ? scaleBox(frame.box, shrink) : isPlain || ink ? undefined : areas[0];
    return {
      ok: true,
      picture,
      ink: ink && scaleInk(ink, shrink),
      areas: areas.map((a) => scaleBox(a, 1 / shrink)),
      taken: box && !frame.box ? scaleBox(box, 1 / shrink) : null,
      frame: {
        ...(box && { box }),
        ...(corners && { corners: corners.map((c) => ({ x: c.x * shrink, y: c.y * shrink })) }),
        ...(baseline && { baseline: baseline.map((c) => ({ x: c.x * shrink, y: c.y * shrink })) }),
      },
    };
  } catch (error) {
    const detail = String((error as Error).message);
    return { ok: false, code: codeOfDecoder(detail), detail };
  }
}

const scaleBox = ({ x, y, width, height }: PixelBox, by: number): PixelBox => ({
  x: x * by,
  y: y * by,
  width: width * by,
  height: height * by,
});

function scaleInk(ink: HandInk, by: number): HandInk {
  const scale = (points: Corner[]) => points.map(({ x, y }) => ({ x: x * by, y: y * by }));
  return {
    ...ink,
    letterAt: scale(ink.letterAt),
    groundAt: scale(ink.groundAt),
    strokes: ink.strokes.map((s) => ({ ...s, radiusPx: s.radiusPx * by, points: scale(s.points) })),
  };
}
