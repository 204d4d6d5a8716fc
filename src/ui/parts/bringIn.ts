// Files that are dropped or chosen, folders with all that is in them, sent to the import with their paths.
import { ask } from "./client";

type Chosen = { file: File; path: string };
const MAX_FILES = 5000;

/** Everything of a drop: files, and folders walked through. */
export async function collectFiles(transfer: DataTransfer): Promise<Chosen[]> {
  const entries = [...transfer.items].map((i) => i.webkitGetAsEntry?.() ?? null);
  // Read before anything is awaited: afterwards the list is empty.
  const plain = [...transfer.files];
  if (entries.some((e) => e?.isDirectory)) {
    const out: Chosen[] = [];
    for (const entry of entries) if (entry) await walk(entry, "", out);
    return out;
  }
  return plain.map((file) => ({ file, path: file.webkitRelativePath || file.name }));
}

async function walk(entry: FileSystemEntry, folder: string, out: Chosen[]): Promise<void> {
  if (out.length >= MAX_FILES) return;
  const path = folder + entry.name;
  if (entry.isFile) {
    const file = await new Promise<File>((resolve, reject) => (entry as FileSystemFileEntry).file(resolve, reject));
    out.push({ file, path });
    return;
  }
  const reader = (entry as FileSystemDirectoryEntry).createReader();
  for (;;) {
    const some = await new Promise<FileSystemEntry[]>((resolve, reject) => reader.readEntries(resolve, reject));
    if (!some.length) return;
    for (const inner of some) await walk(inner, `${path}/`, out);
  }
}

/** Starts an import. @returns its id. @throws ApiFault */
export async function sendFiles(chosen: Chosen[]): Promise<string> {
  const form = new FormData();
  for (const { file } of chosen) form.append("files", file);
  form.append("paths", JSON.stringify(chosen.map((c) => c.path)));
  return (await ask("startImport", { form })).importId;
}
