// Brings a checkout to where it can run: packages, workers, build. Each step is skipped when its result is newer than what it is made of.
import { spawn, spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { homedir, tmpdir } from "node:os";
import { dirname, join } from "node:path";

const root = process.cwd();
const stampFolder = join(root, ".cache");
const env = { ...process.env, NEXT_TELEMETRY_DISABLED: "1", npm_config_fund: "false", npm_config_audit: "false" };

/** Runs a command and rejects when it fails. */
export function run(command, options = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, { shell: true, stdio: "inherit", cwd: root, env, ...options });
    child.on("exit", (code) => (code === 0 ? resolve() : reject(new Error(`${command} ended with ${code}`))));
  });
}

const stamp = (name) => join(stampFolder, name);
const isDone = (name, print) => existsSync(stamp(name)) && readFileSync(stamp(name), "utf8") === print;
function markDone(name, print) {
  mkdirSync(stampFolder, { recursive: true });
  writeFileSync(stamp(name), print);
}

/** A print of the files a step is made of: names, sizes and times. */
function printOf(...paths) {
  const hash = createHash("sha256");
  const visit = (path) => {
    if (!existsSync(path)) return;
    const s = statSync(path);
    if (s.isDirectory()) for (const name of readdirSync(path).sort()) visit(join(path, name));
    else if (!/\.test\.tsx?$/.test(path))
      hash.update(
        `${path.slice(root.length)} ${s.size} ${createHash("sha256").update(readFileSync(path)).digest("hex")}\n`,
      );
  };
  paths.forEach((p) => visit(join(root, p)));
  return hash.digest("hex");
}

/** Installs packages. The native database is compiled apart, so that the build can go on beside it. @returns { compiled }, a promise for the compiling. */
export async function installPackages() {
  // The lock file names what package.json asks for: another script line there installs nothing again.
  const print = printOf("package-lock.json");
  const native = join(root, "node_modules/better-sqlite3/build/Release/better_sqlite3.node");
  if (!isDone("packages", print) || !existsSync(join(root, "node_modules/next"))) {
    console.log("Installing packages …");
    await run("npm ci --include=dev --ignore-scripts --no-fund --no-audit --loglevel=error");
    markDone("packages", print);
  }
  if (existsSync(native)) return { compiled: Promise.resolve() };
  return { compiled: compileDatabase(native) };
}

/** The native database is compiled once a machine: what was compiled for this version of it and of Node is kept in the user's cache. */
async function compileDatabase(native) {
  const { version } = JSON.parse(readFileSync(join(root, "node_modules/better-sqlite3/package.json"), "utf8"));
  const cache = process.env.XDG_CACHE_HOME || join(homedir(), ".cache");
  const name = `better-sqlite3-${version}-${process.platform}-${process.arch}-${process.versions.modules}.node`;
  const kept = join(cache, "fond-quarry", name);
  if (existsSync(kept)) {
    mkdirSync(dirname(native), { recursive: true });
    copyFileSync(kept, native);
    if (opensDatabase()) return;
    rmSync(native);
  }
  console.log("Compiling the database (about two minutes, once a machine) …");
  // Chatty compilers are read only when they fail.
  await run("npm rebuild better-sqlite3 --loglevel=error", { stdio: ["ignore", "ignore", "inherit"] });
  try {
    mkdirSync(dirname(kept), { recursive: true });
    copyFileSync(native, `${kept}.${process.pid}`);
    renameSync(`${kept}.${process.pid}`, kept);
  } catch {
    // No place for it: it is compiled again next time.
  }
}

/** Asked in a process of its own: a module that does not fit ends it. */
const opensDatabase = () =>
  spawnSync(process.execPath, ["-e", 'new (require("better-sqlite3"))(":memory:").exec("SELECT 1")'], { cwd: root })
    .status === 0;

/** Where the made-up foundry's fonts lie, by what they are drawn from. */
const foundryFolder = () => join(stampFolder, `foundry-${printOf("demo/foundry", "package-lock.json").slice(0, 12)}`);

/** Draws the fonts of the stand-in libraries, once for each state of the drawing program. @returns their folder. */
export async function drawFoundry() {
  const folder = foundryFolder();
  if (existsSync(folder)) return folder;
  console.log("Drawing the fonts of the stand-in libraries …");
  mkdirSync(stampFolder, { recursive: true });
  for (const old of readdirSync(stampFolder).filter((f) => f.startsWith("foundry-")))
    rmSync(join(stampFolder, old), { recursive: true, force: true });
  await run("node scripts/buildWorkers.mjs demo/foundry/build.ts");
  await run(`node dist-workers/build.mjs "${folder}"`);
  return folder;
}

/** Starts the stand-in libraries as a process of their own. @returns { url, stop } once they answer. */
export function startLibraries(port, folder) {
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, ["dist-workers/main.mjs", String(port), folder], {
      cwd: root,
      stdio: ["ignore", "pipe", "inherit"],
      env: { ...process.env, NODE_OPTIONS: "" },
    });
    child.stdout.on("data", (text) => {
      const url = String(text).match(/libraries at (\S+)/)?.[1];
      if (url) resolve({ url, stop: () => child.kill() });
    });
    child.on("exit", (code) => reject(new Error(`The stand-in libraries ended with ${code}`)));
  });
}

/**
 * What the demo puts into a server: a folder of open-licence fonts, the stand-in libraries and the briefs.
 * @param standIns - address of the stand-ins; "" for none. @returns settings of the server.
 */
export async function prepareDemo(standIns) {
  const fonts = join(
    stampFolder,
    `fonts-${printOf("package-lock.json", "demo/packages.ts", "demo/seed.ts").slice(0, 12)}`,
  );
  if (!existsSync(fonts) && existsSync(stampFolder))
    for (const old of readdirSync(stampFolder).filter((f) => f.startsWith("fonts-")))
      rmSync(join(stampFolder, old), { recursive: true, force: true });
  const seed = join(mkdtempSync(join(tmpdir(), "fond-quarry-seed-")), "seed.json");
  if (!existsSync(join(root, "dist-workers/seed.mjs"))) await run("node scripts/buildWorkers.mjs demo/seed.ts");
  await run(`node dist-workers/seed.mjs "${fonts}" "${standIns}" "${seed}"`);
  return {
    FOND_QUARRY_SEED: seed,
    FOND_QUARRY_DESK: standIns && `${standIns}/desk`,
    FOND_QUARRY_PLOTTER: standIns && `${standIns}/plotter`,
    FOND_QUARRY_CUTTING_ROOM: standIns && `${standIns}/cutting-room`,
  };
}

let words = null;
/** Fetches what is known of words and cuts it, once; may run beside everything else. */
export function cutWords() {
  words ??= (async () => {
    const print = printOf("scripts/buildWords.mjs");
    if (isDone("words", print) && existsSync(join(root, "dist-workers/words.bin"))) return;
    console.log("Cutting the table of words …");
    await run("node scripts/buildWords.mjs");
    markDone("words", print);
  })();
  return words;
}

/** Builds workers and the application. */
export async function build() {
  const print = printOf(
    "src",
    "demo",
    "next.config.mjs",
    "postcss.config.mjs",
    "tsconfig.json",
    "package-lock.json",
    "scripts/buildWorkers.mjs",
  );
  if (isDone("build", print) && existsSync(join(root, ".next/BUILD_ID"))) return cutWords();
  console.log("Building …");
  await run("node scripts/buildWorkers.mjs");
  await run("node scripts/buildWorkers.mjs demo/libraries/main.ts demo/seed.ts");
  await Promise.all([run("npx next build"), cutWords()]);
  markDone("build", print);
}

/** Installs Debian packages that are missing; may run beside everything else. @param wanted - { command: package } */
export async function installDebian(wanted) {
  const missing = Object.entries(wanted).filter(([command]) => !existsSync(`/usr/bin/${command}`));
  if (!missing.length) return;
  console.log(`Installing ${missing.map(([, p]) => p).join(", ")} …`);
  const names = missing.map(([, p]) => p).join(" ");
  const quiet = { stdio: ["ignore", "ignore", "inherit"], env: { ...env, DEBIAN_FRONTEND: "noninteractive" } };
  await run("apt-get update -qq", quiet);
  await run(`apt-get install -y -qq --no-install-recommends ${names}`, quiet);
}
