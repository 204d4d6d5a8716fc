// Bundles the tests of the core to .cache/core-tests/, from where jest.core.config.mjs runs them.
import { build } from "esbuild";
import { readdirSync, rmSync } from "node:fs";

const outdir = ".cache/core-tests";
rmSync(outdir, { recursive: true, force: true });
await build({
  entryPoints: readdirSync("src/core", { recursive: true })
    .filter((name) => name.endsWith(".test.ts"))
    .map((name) => `src/core/${name}`),
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
