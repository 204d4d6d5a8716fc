// Starts a server on fresh data, waits until the whole demo library is read, and gives each of Jest's workers a server, data and
// stand-ins of its own: files of flows run side by side without meeting each other.
import { cpSync, mkdtempSync, openSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { freePort, spawnServer, stopServer } from "../../scripts/server.mjs";
import { drawFoundry, prepareDemo, startLibraries } from "../../scripts/setup.mjs";

const newFolder = () => mkdtempSync(join(tmpdir(), "fond-quarry-e2e-"));

/** @param settings - as `prepareDemo` gives them. */
export function startServer(port, data, settings) {
  const log = openSync(join(data, "server.log"), "a");
  const checked = { FOND_QUARRY_CHECK_ANSWERS: "1", ...settings };
  return spawnServer(port, data, checked, { stdio: ["ignore", log, log] });
}

export async function waitFor(url, isReady, timeoutMs) {
  const end = Date.now() + timeoutMs;
  while (Date.now() < end) {
    const health = await fetch(`${url}/api/v1/health`)
      .then((r) => r.json())
      .catch(() => null);
    if (health && isReady(health)) return health;
    await new Promise((r) => setTimeout(r, 400));
  }
  throw new Error(`The server at ${url} was not ready in ${timeoutMs} ms`);
}

/** A server on a folder with stand-ins, known to worker `number` (from 1) by its environment. */
async function startFor(number, data, libraries, settings) {
  const port = await freePort();
  const url = `http://127.0.0.1:${port}`;
  Object.assign(process.env, {
    [`E2E_URL_${number}`]: url,
    [`E2E_DATA_${number}`]: data,
    [`E2E_STANDINS_${number}`]: libraries.url,
  });
  const server = startServer(port, data, settings);
  const health = await waitFor(url, (h) => h.styles > 700 && h.jobsWaiting === 0, 300_000);
  return { server, data, libraries, health };
}

export default async function setup({ maxWorkers }) {
  const started = Date.now();
  const foundry = await drawFoundry();
  const folder = newFolder();
  const libraries = await startLibraries(0, foundry);
  const settings = await prepareDemo(libraries.url);
  const first = await startFor(1, folder, libraries, settings);
  console.log(`\n${first.health.styles} styles read in ${((Date.now() - started) / 1000).toFixed(0)} s`);
  globalThis.e2eServers = [first];
  if (maxWorkers === 1) return;
  // Copied while nothing writes, and opened again.
  await stopServer(first.server);
  const folders = Array.from({ length: maxWorkers - 1 }, newFolder);
  for (const copy of folders) cpSync(folder, copy, { recursive: true });
  globalThis.e2eServers = [await startFor(1, folder, libraries, settings)];
  for (const [i, copy] of folders.entries()) {
    const own = await startLibraries(0, foundry);
    globalThis.e2eServers.push(await startFor(i + 2, copy, own, await prepareDemo(own.url)));
  }
}
