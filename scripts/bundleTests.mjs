// Bundles tests to .cache/tests/, where they share what they import: node scripts/bundleTests.mjs src/core .test.ts
import { build } from "esbuild";
import { readdirSync, rmSync } from "node:fs";

const [folder, suffix] = process.argv.slice(2);
const outdir = `.cache/tests/${folder}`;
rmSync(outdir, { recursive: true, force: true });
await build({
  entryPoints: readdirSync(folder, { recursive: true })
    .filter((name) => name.endsWith(suffix))
    .map((name) => `${folder}/${name}`),
  outdir,
  outExtension: { ".js": ".mjs" },
  bundle: true,
  // What several tests import is loaded once for all of them.
  splitting: true,
  platform: "node",
  format: "esm",
  target: "node20",
  packages: "external",
  sourcemap: true,
  alias: {
    "@": "./src",
    "spdx-license-list/licenses": "./node_modules/spdx-license-list/licenses",
    // The runner has them as globals; the package is only there to say so to TypeScript.
    "@jest/globals": "./tests/jestGlobals.mjs",
  },
  logLevel: "error",
});
