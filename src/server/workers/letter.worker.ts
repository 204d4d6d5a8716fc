// Worker entry: lettering documents laid out, checked in their material, and written as files. Faces that were used last are kept open.
import { LRUCache } from "lru-cache";
import sharp from "sharp";
import type { FaultCode, Outcome } from "@/contracts/errors";
import { refuse, succeed } from "@/contracts/errors";
import type { Block, LetteringCheck, LetteringDocument, LetteringLayout, Material } from "@/contracts/lettering";
import type { LetteringFileRequest } from "@/contracts/operations/letterings";
import { checkLettering } from "@/core/letter/checkLettering";
import { describeLayout, layoutLettering, type PlacedBlock } from "@/core/letter/layoutLettering";
import { paintLettering, type PaintedLettering } from "@/core/letter/paintLettering";
import { shapeBlock } from "@/core/letter/shapeBlock";
import { joinParts } from "@/core/outlines/joinParts";
import { openFace, type OpenFace } from "@/core/outlines/openFace";
import { writeLetteringDxf } from "@/core/write/lettering/dxf";
import { writeLetteringHpgl } from "@/core/write/lettering/hpgl";
import { writeOpenRaster } from "@/core/write/lettering/openRaster";
import { writeLetteringPdf } from "@/core/write/lettering/pdf";
import { writeLetteringSvg, type LiveFont } from "@/core/write/lettering/svg";
import { readStored } from "../db/fileStore";

/** Style id → the digests of its bare fonts, the main part first. */
type Fonts = Record<string, string[]>;
type AboutDocument = { document: LetteringDocument; fonts: Fonts };
export type LetterRequest =
  | ({ what: "layout" } & AboutDocument)
  | ({ what: "canBeDrawn" } & AboutDocument)
  | ({ what: "check"; material: Material } & AboutDocument)
  | ({ what: "write"; title: string; options: Omit<LetteringFileRequest, "document"> } & AboutDocument);
type Replies = { layout: LetteringLayout; canBeDrawn: null; check: LetteringCheck; write: Uint8Array };
export type LetterReply<R extends LetterRequest> = Outcome<Replies[R["what"]]>;
type Asked<W extends LetterRequest["what"]> = Extract<LetterRequest, { what: W }>;

const MAX_FACES = 24;
const opened = new LRUCache<string, OpenFace>({ max: MAX_FACES });

function openBlockFace(fonts: Fonts, { styleId, coordinates }: Block): OpenFace {
  const sfnts = fonts[styleId] ?? [];
  const key = `${sfnts.join()} ${JSON.stringify(coordinates ?? {})}`;
  let face = opened.get(key);
  if (!face) opened.set(key, (face = joinParts(sfnts.map((sha256) => openFace(readStored(sha256), coordinates)))));
  return face;
}

function place({ document, fonts }: AboutDocument): Outcome<PlacedBlock[]> {
  const laid = layoutLettering(document, (block) => openBlockFace(fonts, block));
  if (laid.ok) return succeed(laid.blocks);
  const codes = {
    "path-crosses": "path-crosses-itself",
    "path-unread": "path-unread",
    "no-size": "size-unknown",
  } as const satisfies Record<string, FaultCode>;
  return refuse(codes[laid.code], undefined, { blockId: laid.blockId });
}

export function layout(asked: Asked<"layout">): LetterReply<Asked<"layout">> {
  const placed = place(asked);
  return placed.ok ? succeed(describeLayout(placed.value)) : placed;
}

/** Whether all of it can be laid out, with all its letters. */
export function canBeDrawn(asked: Asked<"canBeDrawn">): LetterReply<Asked<"canBeDrawn">> {
  const placed = place(asked);
  return placed.ok ? refuseMissing(placed.value) : placed;
}

/** Nothing is written with letters that a face lacks. */
function refuseMissing(placed: readonly PlacedBlock[]): Outcome<null> {
  const missing = [...new Set(placed.flatMap((b) => b.missing))];
  if (!missing.length) return succeed(null);
  const said = `No face here has ${missing.join(" ")}. Change the text or its face.`;
  return refuse("letters-missing", said, { missing });
}

export function check(asked: Asked<"check">): LetterReply<Asked<"check">> {
  const placed = place(asked);
  return placed.ok ? succeed(checkLettering(placed.value.map(shapeBlock), asked.material)) : placed;
}

export async function write(asked: Asked<"write">): Promise<LetterReply<Asked<"write">>> {
  const placed = place(asked);
  if (!placed.ok) return placed;
  const refused = refuseMissing(placed.value);
  if (!refused.ok) return refused;
  const painted = paintLettering(asked.document, placed.value.map(shapeBlock));
  return succeed(await writeFile(painted, asked));
}

const toBytes = (text: string) => new TextEncoder().encode(text);

async function writeFile(painted: PaintedLettering, { title, options, fonts }: Asked<"write">): Promise<Uint8Array> {
  const { format, bleedMm = 0, marks = false } = options;
  if (format === "svg") {
    const fontOf = options.text === "live" ? (block: Block, part: number) => liveFontOf(fonts, block, part) : undefined;
    return toBytes(writeLetteringSvg(painted, { title, fontOf }));
  }
  if (format === "pdf") return writeLetteringPdf(painted, { title, bleedMm, marks });
  if (format === "dxf") return toBytes(writeLetteringDxf(painted));
  if (format === "hpgl") return toBytes(writeLetteringHpgl(painted));
  return writePicture(painted, title, options);
}

function liveFontOf(fonts: Fonts, { styleId }: Block, part: number): LiveFont {
  return { family: `${styleId}-${part}`, base64: Buffer.from(readStored(fonts[styleId]![part]!)).toString("base64") };
}

const DPI = 300;
const MM_PER_INCH = 25.4;
/** A picture of more pixels takes more memory than the process has. */
const MOST_PX = 120_000_000;
const THUMBNAIL_PX = 256;

async function writePicture(
  painted: PaintedLettering,
  title: string,
  { format, widthPx, paper }: Asked<"write">["options"],
): Promise<Uint8Array> {
  const { widthMm, heightMm, ground } = painted.sheet;
  const most = Math.floor(Math.sqrt((MOST_PX * widthMm) / heightMm));
  const width = Math.min(widthPx ?? Math.max(1, Math.round((widthMm / MM_PER_INCH) * DPI)), Math.max(1, most));
  const height = Math.max(1, Math.round((width * heightMm) / widthMm));
  const draw = (only?: string, withGround = true) =>
    drawPng(writeLetteringSvg(painted, { title, only, ground: withGround }), width, height);
  if (format === "jpeg") {
    const flat = sharp(await draw()).flatten({ background: (paper ?? ground ?? "#ffffff").slice(0, 7) });
    return new Uint8Array(await flat.jpeg({ quality: 92, chromaSubsampling: "4:4:4" }).toBuffer());
  }
  const merged = await draw();
  if (format === "png") return merged;
  const layers = [];
  for (const { id } of painted.blocks) layers.push({ name: id, png: await draw(id, false) });
  const small = sharp(merged).resize(THUMBNAIL_PX, THUMBNAIL_PX, { fit: "inside", withoutEnlargement: true });
  const thumbnail = new Uint8Array(await small.png().toBuffer());
  return writeOpenRaster({ widthPx: width, heightPx: height, layers, merged, thumbnail });
}

/** A drawing of true size as a picture of just so many pixels: its size in the file is replaced, its viewBox stays. */
async function drawPng(svg: string, widthPx: number, heightPx: number): Promise<Uint8Array> {
  const sized = svg.replace(
    /width="[\d.]+mm" height="[\d.]+mm"/,
    `width="${widthPx}" height="${heightPx}" preserveAspectRatio="none"`,
  );
  const drawn = sharp(Buffer.from(sized), { density: 72, unlimited: true, limitInputPixels: false });
  return new Uint8Array(await drawn.resize(widthPx, heightPx, { fit: "fill" }).png({ compressionLevel: 6 }).toBuffer());
}
