// Starts one server on fresh data and waits until the whole demo library is read.
import { mkdtempSync, openSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { freePort, spawnServer } from "../../scripts/server.mjs";
import { drawFoundry, prepareDemo, startLibraries } from "../../scripts/setup.mjs";

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

export default async function setup() {
  const port = process.env.E2E_PORT ? Number(process.env.E2E_PORT) : await freePort();
  const data = mkdtempSync(join(tmpdir(), "fond-quarry-e2e-"));
  const libraries = await startLibraries(0, await drawFoundry());
  process.env.E2E_STANDINS = libraries.url;
  globalThis.e2eLibraries = libraries;
  const server = startServer(port, data, await prepareDemo(libraries.url));
  process.env.E2E_URL = `http://127.0.0.1:${port}`;
  process.env.E2E_DATA = data;
  globalThis.e2eServer = server;
  const started = Date.now();
  const health = await waitFor(process.env.E2E_URL, (h) => h.styles > 700 && h.jobsWaiting === 0, 300_000);
  console.log(`\n${health.styles} styles read in ${((Date.now() - started) / 1000).toFixed(0)} s`);
}
