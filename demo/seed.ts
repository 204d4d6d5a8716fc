// Process entry: gathers the open-licence packages into a folder of fonts with their terms beside them, and writes what the demo puts into
// an empty server: node dist-workers/seed.mjs <folder> <address of the stand-ins, or ""> <file to write>.
import { copyFileSync, existsSync, mkdirSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import type { Seed } from "../src/contracts/seed";
import { DEMO_BRIEFS } from "./briefs";
import { listDemoFonts, readDemoTerms } from "./packages";

const STAND_INS = [
  { libraryId: "tidewrack-commons", name: "Tidewrack Commons", path: "commons" },
  { libraryId: "ropewalk-lane", name: "Ropewalk Lane", path: "ropewalk" },
  { libraryId: "halyard-and-lens", name: "Halyard & Lens", path: "halyard" },
];

/** Copies every font, and the terms of its package, below a folder. Whole or not at all. */
function gatherFonts(folder: string) {
  if (existsSync(folder)) return;
  const half = `${folder}.half`;
  rmSync(half, { recursive: true, force: true });
  for (const { name, path, family, packageFolder } of listDemoFonts(process.cwd())) {
    const to = join(half, family);
    if (!existsSync(to)) {
      mkdirSync(to, { recursive: true });
      const { licenceText, statement } = readDemoTerms(packageFolder);
      writeFileSync(join(to, "LICENSE"), licenceText ?? statement);
    }
    copyFileSync(path, join(to, name));
  }
  renameSync(half, folder);
}

const [folder = "", standIns = "", file = ""] = process.argv.slice(2);
gatherFonts(folder);
const seed: Seed = {
  libraries: [
    { libraryId: "open-collection", name: "Open collection", kind: "folder", address: folder },
    ...(standIns
      ? STAND_INS.map(({ path, ...l }) => ({ ...l, kind: "opds" as const, address: `${standIns}/${path}/opds.json` }))
      : []),
  ],
  briefs: DEMO_BRIEFS,
};
writeFileSync(file, JSON.stringify(seed));
