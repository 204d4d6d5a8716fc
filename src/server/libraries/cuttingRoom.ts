// A cutting room, reached as an editing program is: its folder is laid into, and over HTTP it says what it made of it.
import { createReadStream, createWriteStream, existsSync, mkdirSync, renameSync, rmSync } from "node:fs";
import { join } from "node:path";
import { pipeline } from "node:stream/promises";
import yauzl from "yauzl";
import { ClipReport, CuttingRoom } from "@/contracts/cuttingRoom";
import { refuse, succeed, type Outcome } from "@/contracts/errors";
import { ask, readForm, type Spoken } from "./http";

const MAX_REPLY_BYTES = 8 * 1024 * 1024;

/** Address of the cutting room; null where none is connected. */
export function cuttingRoomUrl(): string | null {
  return process.env.FOND_QUARRY_CUTTING_ROOM || null;
}

const ROOM: Spoken = {
  code: "cutting-room-silent",
  sentences: {
    "library-slow": "The cutting room took too long to answer. The clip lies in its folder: hand it over again.",
    "library-broken": "The cutting room answered with an error. The clip lies in its folder: hand it over again.",
  },
  unread: "The cutting room answered with something that cannot be read.",
};

export async function askCuttingRoom(url: string, signal?: AbortSignal): Promise<Outcome<CuttingRoom>> {
  return readForm(await ask(url, { limitBytes: MAX_REPLY_BYTES }, signal), CuttingRoom, ROOM);
}

/** @param name - of what lies in its folder. */
export async function tellOfClip(
  url: string,
  name: string,
  fonts: readonly string[],
  signal?: AbortSignal,
): Promise<Outcome<ClipReport>> {
  const body = JSON.stringify({ name, fonts });
  const asking = { method: "POST", headers: { "content-type": "application/json" }, body, limitBytes: MAX_REPLY_BYTES };
  return readForm(await ask(`${url}/clips`, asking, signal), ClipReport, ROOM);
}

/** Lays a file into the folder under a name, whole or not at all; frames become a folder of their own. */
export async function layIntoFolder(
  folder: string,
  file: string,
  name: string,
  isFrames: boolean,
): Promise<Outcome<null>> {
  const path = join(folder, name);
  const part = `${path}.part`;
  try {
    if (!existsSync(folder)) return refuse("cutting-room-folder", `The cutting room’s folder is not there: ${folder}`);
    rmSync(part, { recursive: true, force: true });
    if (isFrames) await unpackFrames(file, part);
    else await pipeline(createReadStream(file), createWriteStream(part));
    rmSync(path, { recursive: true, force: true });
    renameSync(part, path);
    return succeed(null);
  } catch (error) {
    rmSync(part, { recursive: true, force: true });
    const { code } = error as NodeJS.ErrnoException;
    if (code === "ENOSPC")
      return refuse("cutting-room-folder", "The disk of the cutting room is full. Nothing was left there.");
    return refuse(
      "cutting-room-folder",
      `The cutting room’s folder cannot be written (${code ?? "unknown"}): ${folder}`,
    );
  }
}

const FRAME = /^(?:frame-\d{5}\.png|frames\.json)$/;

async function unpackFrames(zipPath: string, to: string): Promise<void> {
  mkdirSync(to);
  const zip = await yauzl.openPromise(zipPath, { lazyEntries: true });
  for await (const entry of zip.eachEntry()) {
    if (!FRAME.test(entry.fileName)) continue;
    await pipeline(await zip.openReadStreamPromise(entry), createWriteStream(join(to, entry.fileName)));
  }
}
