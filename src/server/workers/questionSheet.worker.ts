// Worker entry: writes the question sheet of an identification as PDF, PNG or HTML. Pictures are decoded here, within limits.
import sharp from "sharp";
import type { SheetKind } from "@/contracts/people";
import {
  writeQuestionHtml,
  writeQuestionPdf,
  writeQuestionSvg,
  type QuestionInput,
  type SheetPicture,
} from "@/core/write/questionSheet";
import { openPixels } from "./pictureLimits";

export type QuestionSheetRequest = Omit<QuestionInput, "picture" | "strip"> & {
  kind: SheetKind;
  /** As they came: any format that was identified. */
  picture: Uint8Array;
  strip: Uint8Array;
};

/** Longest side of the picture on the sheet. Corners are given in the picture's own pixels, so they shrink with it. */
const LONGEST_PX = 1400;
const PNG_WIDTH_PX = 1240;

export default async function writeQuestionSheet(request: QuestionSheetRequest): Promise<Uint8Array> {
  const { kind, picture: image, strip: line, ...rest } = request;
  const { picture, shrink } = await decode(image);
  const strip = (await decode(line)).picture;
  const framed = rest.framed?.map((p) => ({ x: p.x * shrink, y: p.y * shrink })) ?? null;
  const input = { ...rest, picture, strip, framed };
  if (kind === "pdf") return writeQuestionPdf(input);
  if (kind === "html") return new TextEncoder().encode(writeQuestionHtml(input));
  return new Uint8Array(
    await sharp(Buffer.from(writeQuestionSvg(input)), { density: 150, unlimited: true })
      .resize({ width: PNG_WIDTH_PX })
      .png()
      .toBuffer(),
  );
}

async function decode(bytes: Uint8Array): Promise<{ picture: SheetPicture; shrink: number }> {
  const { metadata, open } = await openPixels(bytes);
  const { width: whole, height, orientation = 1 } = metadata;
  const { data, info } = await open()
    .rotate()
    .flatten({ background: "#fff" })
    .resize({ width: LONGEST_PX, height: LONGEST_PX, fit: "inside", withoutEnlargement: true })
    .png()
    .toBuffer({ resolveWithObject: true });
  const shrink = info.width / ((orientation >= 5 ? height : whole) ?? info.width);
  return { picture: { png: new Uint8Array(data), widthPx: info.width, heightPx: info.height }, shrink };
}
