// Fonts read straight from the packages, or from a folder, for evaluation and fitting without a server. What was read is kept in the
// system's folder for passing files, so that the next run begins at once.
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, statSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { deserialize, serialize } from "node:v8";
import { availableParallelism } from "node:os";
import { isMainThread, parentPort, Worker, workerData } from "node:worker_threads";
import { fileURLToPath } from "node:url";
import { listDemoFonts } from "../../demo/packages";
import { openFont } from "../../src/core/open/openFont";
import { openFace } from "../../src/core/outlines/openFace";
import type { FaceLoader } from "../../src/core/identify/registration/fit";
import { cacheFaces } from "../../src/core/identify/identifyLine";
import { instancesOf, type VariationLocation } from "../../src/core/descriptors/instances";
import { measureLegibility } from "../../src/core/measure/forms";
import { lettersOf } from "../../src/core/measure/letters";
import { SignatureIndex, SIGNATURE_BYTES, extractDescriptors } from "../../src/core/descriptors/extractDescriptors";

/** One style as the evaluation knows it. */
export type EvalStyle = {
  styleId: string;
  family: string;
  name: string;
  sfnt: Uint8Array;
  signature: Uint8Array;
  /** Descriptors of a variable font at its locations. */
  instances: { coordinates: VariationLocation; signature: Uint8Array }[];
  /** Letters of Latin, Greek and Cyrillic and general punctuation that it has. */
  characters: string;
  /** True where letters are pictures: these are not drawn as words. */
  picture: boolean;
};
export type EvalLibrary = {
  styles: EvalStyle[];
  index: SignatureIndex;
  load: FaceLoader;
  secondsToRead: number;
};
type Source = { path: string; styleId: string; family: string | null };

/** Where pictures and read fonts are kept between runs. */
export const EVAL_FOLDER = join(tmpdir(), "fond-quarry-eval");

/** @param folder - fonts below it, or none for the demo library. */
export async function readEvalStyles(folder = ""): Promise<{ styles: EvalStyle[]; secondsToRead: number }> {
  const started = Date.now();
  const sources: Source[] = folder ? listFolder(folder) : listDemo();
  // The bundle holds all code that reads and signs: when it changes, what was kept is old.
  const key = createHash("sha1")
    .update(JSON.stringify([sources, SIGNATURE_BYTES]))
    .update(readFileSync(join("scripts/eval", "library.ts")))
    .update(readFileSync(join("src/core/descriptors", "extractDescriptors.ts")))
    .update(readFileSync(join("src/core/descriptors", "instances.ts")))
    .update(readFileSync(join("src/core/open", "openFont.ts")))
    .digest("hex");
  const kept = join(EVAL_FOLDER, `fonts-${key}.bin`);
  if (!existsSync(kept)) {
    const styles = await readAll(sources);
    mkdirSync(EVAL_FOLDER, { recursive: true });
    writeFileSync(`${kept}.part`, serialize(styles));
    renameSync(`${kept}.part`, kept);
  }
  return { styles: deserialize(readFileSync(kept)) as EvalStyle[], secondsToRead: (Date.now() - started) / 1000 };
}

const listDemo = (): Source[] =>
  listDemoFonts(process.cwd()).map((e) => ({ path: e.path, styleId: e.name, family: e.family }));

function listFolder(folder: string): Source[] {
  return readdirSync(folder, { recursive: true })
    .map(String)
    .filter((f) => /\.(ttf|otf)$/i.test(f) && statSync(join(folder, f)).isFile())
    .sort()
    .map((f) => ({ path: join(folder, f), styleId: f.replace(/^.*\//, ""), family: null }));
}

/** Reads one font; null where it does not open or has no Latin letters. */
async function readOne({ path, styleId, family }: Source): Promise<EvalStyle | null> {
  try {
    const font = await openFont(readFileSync(path));
    const face = openFace(font.sfnt);
    const codes = [...font.characters.keys()].filter((c) => c < 0x530 || (c > 0x2000 && c < 0x20d0));
    if (!codes.includes(0x41) || !codes.includes(0x61)) return null;
    const name = `${font.family ?? styleId} ${font.style}`;
    return {
      styleId,
      family: family ?? font.family ?? styleId,
      name,
      sfnt: font.sfnt,
      signature: extractDescriptors(face),
      instances: instancesOf(font.axes).map((coordinates) => ({
        coordinates,
        signature: extractDescriptors(openFace(font.sfnt, coordinates)),
      })),
      characters: codes.map((c) => String.fromCodePoint(c)).join(""),
      picture: (measureLegibility(lettersOf(face)) ?? 0) < 0.42,
    };
  } catch {
    return null;
  }
}

async function readAll(sources: Source[]): Promise<EvalStyle[]> {
  const threads = availableParallelism();
  const parts = await Promise.all(
    Array.from(
      { length: threads },
      (_, k) =>
        new Promise<(EvalStyle | null)[]>((resolve, reject) => {
          const worker = new Worker(fileURLToPath(import.meta.url), {
            workerData: { evalSources: sources.filter((_, i) => i % threads === k) },
          });
          worker.once("message", resolve).once("error", reject);
        }),
    ),
  );
  const all = sources.map((_, i) => parts[i % threads]![Math.floor(i / threads)]!);
  // The same file twice, or two files of one name: the first counts.
  const seen = new Set<string>();
  return all.filter((s): s is EvalStyle => {
    const key = s && createHash("sha1").update(s.sfnt).digest("hex");
    if (!s || !key || seen.has(key) || seen.has(s.styleId)) return false;
    seen.add(key).add(s.styleId);
    return true;
  });
}

/** This file is bundled into the scripts that use it: a thread of theirs that was given fonts reads them and ends. */
export const isReader = !isMainThread && Boolean((workerData as { evalSources?: Source[] } | null)?.evalSources);
if (isReader) {
  const styles: (EvalStyle | null)[] = [];
  for (const source of (workerData as { evalSources: Source[] }).evalSources) styles.push(await readOne(source));
  parentPort!.postMessage(styles);
  process.exit(0);
}

/** An index over styles, as the server makes it. */
export function indexOf(styles: readonly EvalStyle[]): Pick<EvalLibrary, "index" | "load"> {
  const byId = new Map(styles.map((s) => [s.styleId, s]));
  return {
    index: SignatureIndex.of(
      styles.flatMap(({ styleId: id, family, signature, instances }) => [
        { id, family, signature },
        ...instances.map((i) => ({ id, family, ...i })),
      ]),
    ),
    load: cacheFaces((id, coordinates) => {
      const style = byId.get(id);
      return style ? openFace(style.sfnt, coordinates ?? {}) : null;
    }),
  };
}

export async function readEvalLibrary(folder = ""): Promise<EvalLibrary> {
  const { styles, secondsToRead } = await readEvalStyles(folder);
  return { styles, ...indexOf(styles), secondsToRead };
}
