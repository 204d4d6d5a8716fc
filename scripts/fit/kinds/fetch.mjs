// Fetches the fonts that kinds are fitted to, for fitting alone: node scripts/fit/kinds/fetch.mjs <folder>. Families of scripts/fit/kinds/labels.tsv are
// npm packages of the scope @fontsource; of each the Latin files near weights 300, 400 and 700, and the italic, are kept.
import { execFile } from "node:child_process";
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { promisify } from "node:util";

const run = promisify(execFile);
const [folder] = process.argv.slice(2);
const ABREAST = 8;
const families = readFileSync("scripts/fit/kinds/labels.tsv", "utf8")
  .split("\n")
  .filter((line) => line && !line.startsWith("#"))
  .map((line) => line.split("\t")[0]);
mkdirSync(folder, { recursive: true });

await Promise.all(
  Array.from({ length: ABREAST }, async () => {
    for (let family; (family = families.shift());)
      await fetchFamily(family).catch((error) => console.error(family, error.message));
  }),
);

async function fetchFamily(family) {
  const out = join(folder, family);
  if (existsSync(out)) return;
  const { dist } = await (await fetch(`https://registry.npmjs.org/@fontsource/${family}/latest`)).json();
  const own = mkdtempSync(join(tmpdir(), "fond-quarry-family-"));
  writeFileSync(join(own, "package.tgz"), Buffer.from(await (await fetch(dist.tarball)).arrayBuffer()));
  await run("tar", ["-xzf", join(own, "package.tgz"), "-C", own]);
  const files = join(own, "package", "files");
  const latin = readdirSync(files).flatMap((name) => {
    const parts = name.match(/-latin-(\d+)-(normal|italic)\.woff2$/);
    return parts ? [{ name, weight: Number(parts[1]), isItalic: parts[2] === "italic" }] : [];
  });
  const nearest = (weight, isItalic) =>
    latin
      .filter((f) => f.isItalic === isItalic)
      .sort((a, b) => Math.abs(a.weight - weight) - Math.abs(b.weight - weight))[0]?.name;
  const kept = new Set([nearest(400, false), nearest(300, false), nearest(700, false), nearest(400, true)]);
  mkdirSync(join(out, "files"), { recursive: true });
  for (const name of kept) if (name) renameSync(join(files, name), join(out, "files", name));
  rmSync(own, { recursive: true });
}
