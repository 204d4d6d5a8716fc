// A library that is a folder on this machine: every font and archive below it is a publication. Looked at again at each sync.
import { createHash } from "node:crypto";
import { existsSync, readdirSync, readFileSync, statSync } from "node:fs";
import { basename, dirname, join, relative } from "node:path";
import { refuse, succeed } from "@/contracts/errors";
import { MAX_FONT_BYTES } from "@/core/open/container";
import { sortByName } from "../intake/sort";
import type { Connector, Publication } from "./connector";

const WANTED = /\.(ttf|otf|ttc|otc|woff2?|zip)$/i;
const MOST_FILES = 50_000;
const MOST_DEPTH = 12;

/** @param root - absolute path. */
export function connectFolder(root: string): Connector {
  return {
    async page() {
      if (!existsSync(root) || !statSync(root).isDirectory())
        return refuse("library-unreachable", `The folder ${root} is not there.`);
      const publications = listFiles(root).map((path) => toPublication(root, path));
      return succeed({ publications, total: publications.length, next: null, title: basename(root) });
    },
    search: null,
    async fetch(url) {
      const path = decodeURIComponent(new URL(url).pathname);
      if (relative(root, path).startsWith("..")) return refuse("address-not-allowed");
      if (!existsSync(path)) return refuse("not-found", `${path} is not there any more.`);
      if (statSync(path).size > MAX_FONT_BYTES * 8) return refuse("too-large");
      const bytes = new Uint8Array(readFileSync(path));
      return succeed({ name: relative(root, path), bytes, texts: textsBeside(root, path) });
    },
    setLine: null,
    buy: null,
  };
}

function listFiles(root: string, depth = 0): string[] {
  if (depth > MOST_DEPTH) return [];
  const out: string[] = [];
  for (const entry of readdirSync(root, { withFileTypes: true })) {
    const path = join(root, entry.name);
    // Links could lead out of the folder, or round in a circle.
    if (entry.isSymbolicLink() || entry.name.startsWith(".")) continue;
    if (entry.isDirectory()) out.push(...listFiles(path, depth + 1));
    else if (WANTED.test(entry.name)) out.push(path);
    if (out.length > MOST_FILES) break;
  }
  return out.sort();
}

const MOST_TEXTS = 12;
const MOST_TEXT_BYTES = 1_000_000;

/** Texts in the file's folder and in those above it, up to the root. */
function textsBeside(root: string, path: string): { name: string; bytes: Uint8Array }[] {
  const out: { name: string; bytes: Uint8Array }[] = [];
  for (let folder = dirname(path); !relative(root, folder).startsWith(".."); folder = dirname(folder)) {
    for (const entry of readdirSync(folder, { withFileTypes: true })) {
      const at = join(folder, entry.name);
      if (!entry.isFile() || sortByName(entry.name) !== "evidence" || statSync(at).size > MOST_TEXT_BYTES) continue;
      if (out.length < MOST_TEXTS) out.push({ name: relative(root, at), bytes: new Uint8Array(readFileSync(at)) });
    }
    if (folder === root) break;
  }
  return out;
}

function toPublication(root: string, path: string): Publication {
  const { size, mtimeMs } = statSync(path);
  return {
    publicationId: relative(root, path),
    title: basename(path),
    digest: createHash("sha256").update(`${size} ${mtimeMs}`).digest("hex"),
    maker: null,
    family: null,
    style: null,
    rights: null,
    openUrl: new URL(`file://${encodeURI(path).replace(/[?#]/g, encodeURIComponent)}`).href,
    trialUrl: null,
    coverage: null,
    buyUrl: null,
    settingUrl: null,
    currency: "EUR",
    pricesCents: {},
  };
}
