// What archives for people are made of: a zip that is written beside its place and then renamed, and the licences of the faces inside.
import { createHash } from "node:crypto";
import { createWriteStream, mkdirSync, renameSync } from "node:fs";
import { join } from "node:path";
import { pipeline } from "node:stream/promises";
import yazl from "yazl";
import { NamesOnce } from "@/core/write/fileNames";
import { dataFolder } from "../db/open";
import type { ShortlistStyle } from "../usecases/shortlist";

export type Add = (path: string, content: Uint8Array | string) => void;

export function startArchive() {
  const zip = new yazl.ZipFile();
  const add: Add = (path, content) => zip.addBuffer(Buffer.from(content as Uint8Array), path);
  /** A file of the disk, as it is: pictures are compressed already. */
  const addFile = (path: string, file: string) => zip.addFile(file, path, { compress: false });
  /** @returns where it lies. */
  const finish = async (folderName: string, name: string): Promise<string> => {
    zip.end();
    const folder = join(dataFolder(), folderName);
    mkdirSync(folder, { recursive: true });
    const path = join(folder, `${name}.zip`);
    await pipeline(zip.outputStream, createWriteStream(`${path}.part`));
    renameSync(`${path}.part`, path);
    return path;
  };
  return { add, addFile, finish };
}

/** Each licence text once; evidence in the font itself is quoted where no file came with it. @returns style id → its file. */
export function addLicences(styles: readonly Pick<ShortlistStyle, "record">[], add: Add): Map<string, string> {
  const names = new NamesOnce();
  const fileOf = new Map<string, string>();
  const byText = new Map<string, string>();
  for (const { record } of styles) {
    const text = record.rights.evidence
      .filter((e) => e.kind !== "fs-type")
      .map((e) => (e.kind === "licence-file" ? e.text : `${e.source}: ${e.text}`))
      .join("\n\n---\n\n");
    if (!text) continue;
    const key = createHash("sha256").update(text).digest("hex");
    let file = byText.get(key);
    if (!file) {
      file = `licences/${names.take(record.family)}.txt`;
      byText.set(key, file);
      add(file, text);
    }
    fileOf.set(record.styleId, file);
  }
  return fileOf;
}
