// Worker entry: writes the contact sheet, which takes seconds for long shortlists.
import sharp from "sharp";
import type { SheetFormat } from "@/contracts/sheet";
import { writeContactSheet, type SheetInput } from "@/core/write/contactSheet";
import { writeContactSheetHtml, writeContactSheetSvg } from "@/core/write/contactSheetOutlines";

export type WriteSheetRequest = SheetInput & { format: SheetFormat };

/** Two pixels a point, unless the sheet would be higher than programs open. */
const PX_PER_PT = 2;
const MOST_HEIGHT_PX = 16_000;
/** At which a unit of SVG is a pixel. */
const DENSITY_1 = 72;

export default async function writeSheet({ format, ...input }: WriteSheetRequest): Promise<Uint8Array> {
  if (format === "pdf") return (await writeContactSheet(input)).pdf;
  if (format === "html") return new TextEncoder().encode(writeContactSheetHtml(input));
  if (format === "svg") return new TextEncoder().encode(writeContactSheetSvg(input));
  const svg = writeContactSheetSvg(input, "");
  const heightPt = Number(/ height="([\d.]+)"/.exec(svg)?.[1] ?? 0);
  const density = DENSITY_1 * Math.min(PX_PER_PT, MOST_HEIGHT_PX / Math.max(1, heightPt));
  return new Uint8Array(await sharp(Buffer.from(svg), { density, unlimited: true }).png().toBuffer());
}
