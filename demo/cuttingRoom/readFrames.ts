// A folder of numbered pictures as an editing program reads it: names without gaps, one size, one kind; the rate as the note beside them says.
import { existsSync, readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { z } from "zod";

type FrameFacts = { widthPx: number; heightPx: number; frames: number; fps: number | null; hasAlpha: boolean };
export type Refusal = { ok: false; code: string; message: string };
const no = (code: string, message: string): Refusal => ({ ok: false, code, message });

const Note = z.object({
  frames: z.number().int(),
  rate: z.object({ num: z.number().positive(), den: z.number().positive() }),
});
const NOTE = "frames.json";
const NUMBERED = /^(.*?)(\d{3,8})\.png$/;

/** @param folder - with nothing but frames, and the note. */
export function readFrames(folder: string): ({ ok: true } & FrameFacts) | Refusal {
  const names = readdirSync(folder).filter((name) => name !== NOTE);
  if (!names.length) return no("empty", "The folder has no frames in it.");
  const frames: { name: string; stem: string; number: number }[] = [];
  for (const name of names) {
    const match = NUMBERED.exec(name);
    if (!match) return no("wrong-name", `“${name}” is not named like a frame: name-00000.png is.`);
    frames.push({ name, stem: match[1]!, number: Number(match[2]) });
  }
  frames.sort((a, b) => a.number - b.number);
  const odd = frames.find((f) => f.stem !== frames[0]!.stem);
  if (odd) return no("wrong-name", `“${odd.name}” belongs to another sequence than “${frames[0]!.name}”.`);
  const gap = frames.findIndex((f, i) => i > 0 && f.number !== frames[i - 1]!.number + 1);
  if (gap > 0)
    return no("missing-frames", `After “${frames[gap - 1]!.name}” comes “${frames[gap]!.name}”: frames are missing.`);
  const note = readNote(folder);
  if (note && note.frames !== frames.length)
    return no("missing-frames", `${frames.length} of ${note.frames} frames are there.`);
  return readPictures(folder, frames, note && note.rate.num / note.rate.den);
}

function readNote(folder: string) {
  const path = join(folder, NOTE);
  if (!existsSync(path)) return null;
  try {
    return Note.parse(JSON.parse(readFileSync(path, "utf8")));
  } catch {
    return null;
  }
}

function readPictures(
  folder: string,
  frames: readonly { name: string }[],
  fps: number | null,
): ({ ok: true } & FrameFacts) | Refusal {
  let first: { widthPx: number; heightPx: number; hasAlpha: boolean } | null = null;
  for (const { name } of frames) {
    const head = readHead(readFileSync(join(folder, name)));
    if (!head) return no("unread", `“${name}” is no picture that can be read.`);
    first ??= head;
    if (head.widthPx !== first.widthPx || head.heightPx !== first.heightPx)
      return no(
        "mixed-sizes",
        `“${name}” is ${head.widthPx} × ${head.heightPx}, those before it ${first.widthPx} × ${first.heightPx}.`,
      );
  }
  return { ok: true, ...first!, frames: frames.length, fps };
}

const SIGNATURE = Buffer.from([137, 80, 78, 71, 13, 10, 26, 10]);
/** Size and alpha of a PNG: its first chunk says both, its last chunk that it is whole. */
export function readHead(bytes: Buffer): { widthPx: number; heightPx: number; hasAlpha: boolean } | null {
  const isWhole =
    bytes.length > 45 && bytes.subarray(0, 8).equals(SIGNATURE) && bytes.subarray(-8, -4).equals(Buffer.from("IEND"));
  if (!isWhole) return null;
  const colourType = bytes[25]!;
  return {
    widthPx: bytes.readUInt32BE(16),
    heightPx: bytes.readUInt32BE(20),
    hasAlpha: colourType === 4 || colourType === 6,
  };
}
