// Bundles tests to .cache/tests/, where they share what they import. The last word is what a test has, in seconds, where it says nothing else:
// node scripts/bundleTests.mjs src/core .test.ts 60
import { build } from "esbuild";
import { readdirSync, rmSync } from "node:fs";
import { bundleOptions } from "./bundle.mjs";

const [folder, suffix, seconds] = process.argv.slice(2);
const outdir = `.cache/tests/${folder}`;
rmSync(outdir, { recursive: true, force: true });
await build({
  ...bundleOptions,
  entryPoints: readdirSync(folder, { recursive: true })
    .filter((name) => name.endsWith(suffix))
    .map((name) => `${folder}/${name}`),
  outdir,
  // What several tests import is loaded by the first of them.
  splitting: true,
  sourcemap: true,
  // The runner has what the package exports as globals, but without time limits.
  alias: { ...bundleOptions.alias, "@jest/globals": "./tests/jestGlobals.mjs" },
  define: { LIMIT_MS: String(1000 * Number(seconds)) },
});
