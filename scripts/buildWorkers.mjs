// Bundles the worker entries to dist-workers/, and other TypeScript entries on request: node scripts/buildWorkers.mjs [entry.ts …]
import { build } from "esbuild";
import { readdirSync } from "node:fs";
import { bundleOptions } from "./bundle.mjs";

const folders = ["src/server/workers", "src/server/jobs"];
const asked = process.argv.slice(2);
const entryPoints = asked.length
  ? asked
  : [
      "src/server/workers/child.ts",
      ...folders.flatMap((folder) =>
        readdirSync(folder)
          .filter((f) => /\.(?:worker|process)\.ts$/.test(f))
          .map((f) => `${folder}/${f}`),
      ),
    ];
await build({ ...bundleOptions, entryPoints, outdir: "dist-workers", entryNames: "[name]" });
