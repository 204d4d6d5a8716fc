// npm test: installs what is missing, then format, lint, arrows, types, unit tests, build, browser tests. Ends with one line over all tests.
import { spawn, spawnSync } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, rmSync } from "node:fs";
import { build, cutWords, drawFoundry, installDebian, installPackages } from "./setup.mjs";

const begun = performance.now();
const sinceBegun = () => `${((performance.now() - begun) / 1000).toFixed(0)} s since the start`;

// What the first checks need not wait for is fetched beside them.
const fetched = Promise.allSettled([
  installDebian({
    "chromium-headless-shell": "chromium-headless-shell",
    "ots-sanitize": "opentype-sanitizer",
    pdftoppm: "poppler-utils",
    gs: "ghostscript",
    "hb-shape": "libharfbuzz-bin",
  }),
  cutWords(),
]);
const { compiled } = await installPackages();
console.log(`\n— packages, ${sinceBegun()}`);

let passed = 0;
let failed = 0;

/** A check without tests of its own counts as one. What it says is told when it ends, so that several may run side by side. */
async function check(name, command) {
  const run = spawn(command, { shell: true, stdio: ["ignore", "pipe", "pipe"] });
  const said = [];
  for (const stream of [run.stdout, run.stderr]) stream.on("data", (chunk) => said.push(chunk));
  const status = await new Promise((resolve) => run.on("close", resolve));
  console.log(`\n— ${name}, ended ${sinceBegun()}`);
  process.stdout.write(Buffer.concat(said));
  if (status === 0) passed++;
  else failed++;
}

/** Runs Jest and adds what it counted. A suite that could not run at all counts as one failure. */
function runJest(name, command) {
  console.log(`\n— ${name}, ${sinceBegun()}`);
  mkdirSync(".cache", { recursive: true });
  const report = `.cache/${name.replace(/\W+/g, "-")}.json`;
  rmSync(report, { force: true });
  spawnSync(`${command} --json --outputFile=${report}`, {
    shell: true,
    stdio: "inherit",
  });
  if (!existsSync(report)) {
    failed++;
    return;
  }
  const result = JSON.parse(readFileSync(report, "utf8"));
  passed += result.numPassedTests;
  failed += result.numFailedTests + result.numRuntimeErrorTestSuites;
  if (!result.success && !result.numFailedTests && !result.numRuntimeErrorTestSuites) failed++;
}

let isBuilt = true;
/** Runs one step of setting up; what goes wrong is told, and the browser tests are left out. */
async function setUp(step) {
  try {
    await step;
  } catch (error) {
    console.error(error.message);
    isBuilt = false;
  }
}

// Made of the routes by Next.js, and read by lint, too.
await check("types of routes", "npx next typegen");
await check("workers", "node scripts/buildWorkers.mjs");
// Two lines of work for two cores, of about the same length. The build writes the types of the routes again: it comes when lint and types
// have read them.
await Promise.all([
  (async () => {
    await check("types", "npm run --silent types");
    await setUp(build());
    await setUp(compiled);
  })(),
  (async () => {
    await check("lint", "npm run --silent lint");
    await check("format", "npm run --silent format -- --check");
    await check("arrows", "npm run --silent arrows");
    await setUp(drawFoundry());
  })(),
]);
for (const { reason } of await fetched) if (reason) console.error(reason.message);
console.log(`\nset up, ${sinceBegun()}`);
// Unit tests read fonts, terms and pictures in the real processes, and keep rows in a real database.
runJest("tests of the core", "npm run --silent unit:core --");
runJest("unit tests", "npm run --silent unit:rest --");
if (!isBuilt) failed++;
if (isBuilt) runJest("browser tests", "npm run --silent e2e --");

console.log(`\n${sinceBegun()}`);
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed ? 1 : 0);
