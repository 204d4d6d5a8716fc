// Bundles one TypeScript script and runs it: node scripts/runScript.mjs scripts/eval/identify.ts [options]
import { spawnSync } from "node:child_process";
import { basename } from "node:path";

const [entry, ...options] = process.argv.slice(2);
const built = spawnSync(process.execPath, ["scripts/buildWorkers.mjs", entry], { stdio: "inherit" });
if (built.status) process.exit(built.status);
const ran = spawnSync(process.execPath, [`dist-workers/${basename(entry, ".ts")}.mjs`, ...options], {
  stdio: "inherit",
});
process.exit(ran.status ?? 1);
