// Where this system keeps fonts, so that an empty library can begin with them. Folders are only counted here, nothing is read.
import { readdir } from "node:fs/promises";
import { join } from "node:path";
import type { SystemFolder } from "@/contracts/libraries";

type System = { platform: NodeJS.Platform; home: string; env: Readonly<Record<string, string | undefined>> };

const FONT = /\.(?:ttf|otf|ttc|otc|woff2?)$/i;
/** Entries looked at per folder: a count beyond is "at least". */
const MAX_ENTRIES = 20_000;
const MAX_DEPTH = 6;

/** Folders by the conventions of each system (XDG base directories and fontconfig, macOS, Windows), one's own first. */
export function listCandidates({ platform, home, env }: System): Omit<SystemFolder, "fontCount">[] {
  if (platform === "darwin")
    return [
      { path: join(home, "Library/Fonts"), name: "Your fonts" },
      { path: "/Library/Fonts", name: "Fonts for all users" },
      { path: "/System/Library/Fonts", name: "System fonts" },
    ];
  if (platform === "win32")
    return [
      { path: join(env.LOCALAPPDATA ?? join(home, "AppData/Local"), "Microsoft/Windows/Fonts"), name: "Your fonts" },
      { path: join(env.WINDIR ?? "C:/Windows", "Fonts"), name: "System fonts" },
    ];
  return [
    { path: join(env.XDG_DATA_HOME || join(home, ".local/share"), "fonts"), name: "Your fonts" },
    { path: join(home, ".fonts"), name: "Your fonts (older place)" },
    { path: "/usr/local/share/fonts", name: "Fonts for all users" },
    { path: "/usr/share/fonts", name: "System fonts" },
  ];
}

/** Those of the candidates that hold fonts. */
export async function findSystemFolders(system: System): Promise<SystemFolder[]> {
  const found = await Promise.all(
    listCandidates(system).map(async (folder) => ({ ...folder, fontCount: await countFonts(folder.path) })),
  );
  return found.filter((f) => f.fontCount > 0);
}

async function countFonts(root: string): Promise<number> {
  let count = 0;
  let seen = 0;
  let level = [root];
  for (let depth = 0; level.length && depth < MAX_DEPTH && seen < MAX_ENTRIES; depth++) {
    const below: string[] = [];
    for (const folder of level)
      for (const entry of await readdir(folder, { withFileTypes: true }).catch(() => [])) {
        if (++seen > MAX_ENTRIES) break;
        if (entry.isDirectory()) below.push(join(folder, entry.name));
        else if (FONT.test(entry.name)) count++;
      }
    level = below;
  }
  return count;
}
