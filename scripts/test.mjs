// npm test: installs what is missing, then format, lint, arrows, types, unit tests, build, browser tests. Ends with one line over all tests.
import { spawn, spawnSync } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, rmSync } from "node:fs";
import { build, drawFoundry, installDebian, installPackages, prepareDemo } from "./setup.mjs";

const { compiled } = await installPackages();
installDebian({
  chromium: "chromium",
  "ots-sanitize": "opentype-sanitizer",
  pdftoppm: "poppler-utils",
  gs: "ghostscript",
  "hb-shape": "libharfbuzz-bin",
});

let passed = 0;
let failed = 0;

/** A check without tests of its own counts as one. */
function check(name, command) {
  console.log(`\n— ${name}`);
  const { status } = spawnSync(command, { shell: true, stdio: "inherit" });
  if (status === 0) passed++;
  else failed++;
  return status === 0;
}

/**
 * Runs Jest and adds what it counted. A suite that could not run at all counts as one failure.
 * @param shard - "1/2": a part of the files, so that several run side by side.
 */
async function runJest(name, config, shard) {
  console.log(`\n— ${name}${shard ? ` ${shard}` : ""}`);
  mkdirSync(".cache", { recursive: true });
  const report = `.cache/${`${name} ${shard ?? ""}`.trim().replace(/\W+/g, "-")}.json`;
  rmSync(report, { force: true });
  const part = shard ? ` --shard=${shard}` : "";
  const run = spawn(`npx jest --config ${config} --json --outputFile=${report}${part}`, {
    shell: true,
    stdio: "inherit",
    env: { ...process.env, NODE_OPTIONS: "--experimental-vm-modules --no-warnings" },
  });
  await new Promise((resolve) => run.on("close", resolve));
  if (!existsSync(report)) {
    failed++;
    return;
  }
  const result = JSON.parse(readFileSync(report, "utf8"));
  passed += result.numPassedTests;
  failed += result.numFailedTests + result.numRuntimeErrorTestSuites;
  if (!result.success && !result.numFailedTests && !result.numRuntimeErrorTestSuites) failed++;
}

check("format", "npx prettier --check --log-level=warn .");
check("lint", "npx eslint .");
check("arrows", "npm run --silent arrows");
check("types", "npx next typegen > /dev/null && npx tsc --noEmit");
// Unit tests read fonts, terms and pictures in the real processes, and keep rows in a real database, compiled beside the checks above.
check("workers", "node scripts/buildWorkers.mjs");
await compiled;
await runJest("unit tests", "jest.config.mjs");
let isBuilt = true;
try {
  await Promise.all([build(), drawFoundry()]);
} catch (error) {
  console.error(error.message);
  isBuilt = false;
  failed++;
}
// Browser tests wait more than they compute: two halves, each with a server, data and libraries of its own, fill two cores.
if (isBuilt) {
  await prepareDemo("");
  await Promise.all(["1/2", "2/2"].map((shard) => runJest("browser tests", "jest.e2e.config.mjs", shard)));
}

console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed ? 1 : 0);
