// Bundles the worker entries to dist-workers/, and other TypeScript entries on request: node scripts/buildWorkers.mjs [entry.ts …]
import { build } from "esbuild";
import { readdirSync } from "node:fs";

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
await build({
  entryPoints,
  outdir: "dist-workers",
  outExtension: { ".js": ".mjs" },
  entryNames: "[name]",
  bundle: true,
  platform: "node",
  format: "esm",
  target: "node20",
  packages: "external",
  // Read as data, so bundled: Node takes no JSON without an attribute.
  alias: { "@": "./src", "spdx-license-list/licenses": "./node_modules/spdx-license-list/licenses" },
  logLevel: "error",
});
