// A library that is a folder on this machine: every font and archive below it is a publication. Looked at again at each sync. Only files
// are opened (no pipes, no devices), nothing outside the folder, and of texts only what states terms by its name.
import { createHash } from "node:crypto";
import { constants } from "node:fs";
import { lstat, open, readdir, realpath } from "node:fs/promises";
import { basename, dirname, join, relative, sep } from "node:path";
import { refuse, succeed, type Outcome } from "@/contracts/errors";
import { MAX_FONT_BYTES } from "@/core/open/container";
import { isTermsName, sortByName } from "../intake/sort";
import type { Connector, Fetched, Publication } from "./connector";

const WANTED = /\.(ttf|otf|ttc|otc|woff2?|zip)$/i;
const MAX_FILES = 50_000;
/** Files and folders looked at, fonts or not. */
const MAX_ENTRIES = 500_000;
const MAX_DEPTH = 12;
const MAX_SECONDS = 60;
const AT_ONCE = 4;

/** @param root - absolute path. */
export function connectFolder(root: string): Connector {
  let listed = new Map<string, Promise<TextFile[]>>();
  return {
    atOnce: AT_ONCE,
    async page() {
      listed = new Map();
      const isThere = await lstat(root)
        .then((s) => s.isDirectory() || s.isSymbolicLink())
        .catch(() => false);
      if (!isThere) return refuse("library-unreachable", `The folder ${root} is not there.`);
      const publications: Publication[] = [];
      for (const path of await listFiles(root)) {
        const publication = await toPublication(root, path).catch(() => null);
        if (publication) publications.push(publication);
      }
      return succeed({ publications, total: publications.length, next: null, title: basename(root) });
    },
    search: null,
    fetch: (url) => fetchFile(root, url, listed),
    setLine: null,
    buy: null,
  };
}

type TextFile = { path: string; isTerms: boolean };
/** Folder → the texts in it, listed once a page: a folder of a thousand fonts is not listed for each of them. */
type Listed = Map<string, Promise<TextFile[]>>;

async function fetchFile(root: string, url: string, listed: Listed): Promise<Outcome<Fetched>> {
  const path = pathOf(url);
  if (!path || !(await isInside(root, path))) return refuse("address-not-allowed");
  const bytes = await readFile(path, MAX_FONT_BYTES * 8);
  if (bytes === "gone") return refuse("not-found", `${path} is not there any more.`);
  if (bytes === "too-large") return refuse("too-large");
  return succeed({ name: relative(root, path), bytes, texts: await textsBeside(root, path, listed) });
}

function pathOf(url: string): string | null {
  try {
    return decodeURIComponent(new URL(url).pathname);
  } catch {
    return null;
  }
}

/** By what the paths really are, so that no link leads out. */
async function isInside(root: string, path: string): Promise<boolean> {
  const [from, to] = await Promise.all([realpath(root).catch(() => null), realpath(path).catch(() => path)]);
  return from !== null && (to === from || to.startsWith(from.endsWith(sep) ? from : from + sep));
}

/** Opened without waiting, and only what is a file. */
async function readFile(path: string, maxBytes: number): Promise<Uint8Array | "gone" | "too-large"> {
  const file = await open(path, constants.O_RDONLY | constants.O_NONBLOCK).catch(() => null);
  if (!file) return "gone";
  try {
    const about = await file.stat();
    if (!about.isFile()) return "gone";
    return about.size > maxBytes ? "too-large" : new Uint8Array(await file.readFile());
  } finally {
    await file.close();
  }
}

/** Fonts and archives below a folder. A folder that cannot be read, or a name that cannot be said, is passed over. */
async function listFiles(root: string): Promise<string[]> {
  const out: string[] = [];
  const waiting = [{ folder: root, depth: 0 }];
  const until = performance.now() + MAX_SECONDS * 1000;
  let looked = 0;
  while (waiting.length && out.length < MAX_FILES && looked < MAX_ENTRIES && performance.now() < until) {
    const { folder, depth } = waiting.shift()!;
    for (const entry of await readdir(folder, { withFileTypes: true }).catch(() => [])) {
      looked++;
      // Links could lead out of the folder, or round in a circle. U+FFFD: not UTF-8, so it could not be opened again.
      if (entry.isSymbolicLink() || entry.name.startsWith(".") || entry.name.includes("\ufffd")) continue;
      const path = join(folder, entry.name);
      if (entry.isDirectory() && depth < MAX_DEPTH) waiting.push({ folder: path, depth: depth + 1 });
      else if (entry.isFile() && WANTED.test(entry.name)) out.push(path);
    }
  }
  return oneOfEachFirst(out.sort());
}

/** A file that by its name is the part of a face with the Latin alphabet: the other parts join it, whatever their names. */
const ALPHABET_PART = /\blatin\b(?!-ext)/i;

/**
 * The first file of every folder, then the second of every one: whoever looks while they are read sees many families. Where files say by
 * their name which part of a face they are, those with the alphabet come before all others: they are the faces.
 */
function oneOfEachFirst(paths: string[]): string[] {
  const count = new Map<string, number>();
  const hasAlphabet = new Set(paths.filter((p) => ALPHABET_PART.test(basename(p))).map((p) => dirname(p)));
  const isLater = (path: string) => hasAlphabet.has(dirname(path)) && !ALPHABET_PART.test(basename(path));
  const turns = paths.map((path) => {
    const place = `${isLater(path)} ${dirname(path)}`;
    const turn = count.get(place) ?? 0;
    count.set(place, turn + 1);
    return { path, turn, rank: Number(isLater(path)) };
  });
  return turns.sort((a, b) => a.rank - b.rank || a.turn - b.turn).map((t) => t.path);
}

const MAX_TEXTS = 12;
const MAX_TEXT_BYTES = 1_000_000;

/** Texts of terms in the file's own folder; above it only those that are named so, up to the root. */
async function textsBeside(root: string, path: string, listed: Listed): Promise<{ name: string; bytes: Uint8Array }[]> {
  const out: { name: string; bytes: Uint8Array }[] = [];
  const own = dirname(path);
  for (let folder = own; !relative(root, folder).startsWith(".."); folder = dirname(folder)) {
    if (!listed.has(folder)) listed.set(folder, listTexts(folder));
    for (const text of await listed.get(folder)!) {
      if (!(text.isTerms || folder === own) || out.length >= MAX_TEXTS) continue;
      const bytes = await readFile(text.path, MAX_TEXT_BYTES);
      if (typeof bytes !== "string") out.push({ name: relative(root, text.path), bytes });
    }
    if (folder === root) break;
  }
  return out;
}

async function listTexts(folder: string): Promise<TextFile[]> {
  const entries = await readdir(folder, { withFileTypes: true }).catch(() => []);
  return entries
    .filter((entry) => entry.isFile() && sortByName(entry.name) === "evidence")
    .map(({ name }) => ({ path: join(folder, name), isTerms: isTermsName(name) }));
}

async function toPublication(root: string, path: string): Promise<Publication | null> {
  const about = await lstat(path);
  if (!about.isFile()) return null;
  return {
    publicationId: relative(root, path),
    title: basename(path),
    digest: createHash("sha256").update(`${about.size} ${about.mtimeMs}`).digest("hex"),
    maker: null,
    // Folders are often named by the family that lies in them.
    family: dirname(path) === root ? null : basename(dirname(path)),
    style: null,
    keywords: [],
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
