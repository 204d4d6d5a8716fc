// A server of its own for tests, trials and benchmarks: a free port, and the built application started on a folder.
import { spawn } from "node:child_process";
import { createServer } from "node:net";

/** What a server has to end by itself. */
const STOP_MS = 4000;

/** @returns {Promise<number>} a port on loopback that nobody listens to. */
export const freePort = () =>
  new Promise((resolve) => {
    const probe = createServer().listen(0, "127.0.0.1", () => {
      const { port } = /** @type {import("node:net").AddressInfo} */ (probe.address());
      probe.close(() => resolve(port));
    });
  });

/**
 * Starts the built application, on loopback unless another host is named.
 * @param {number} port
 * @param {string} data - folder of its data.
 * @param {Record<string, string>} settings - its environment beside port, host and folder.
 * @param {import("node:child_process").SpawnOptions} options
 * @param {string} host - that it listens to.
 */
export function spawnServer(port, data, settings, options, host = "127.0.0.1") {
  return spawn(process.execPath, ["node_modules/next/dist/bin/next", "start", "-p", String(port), "-H", host], {
    ...options,
    env: {
      ...process.env,
      NODE_OPTIONS: "",
      NODE_ENV: "production",
      HOST: host,
      PORT: String(port),
      FOND_QUARRY_DATA: data,
      NEXT_TELEMETRY_DISABLED: "1",
      ...settings,
    },
  });
}

/** Asks a server to end, and sees to it after a while. */
export function stopServer(server) {
  return new Promise((resolve) => {
    server.on("exit", resolve);
    server.kill("SIGTERM");
    setTimeout(() => server.kill("SIGKILL"), STOP_MS).unref();
  });
}

/** Requests asked again, and the wait before: what the server closed meanwhile is noticed in it. */
const TRIES = 4;
const BETWEEN_MS = 60;

/**
 * The server closes connections that idle; one that was picked up in that moment is asked again, as a browser does.
 * @param {string} address
 * @param {RequestInit} [init]
 * @returns {Promise<Response>}
 */
export async function fetchAgain(address, init, tries = TRIES) {
  try {
    return await fetch(address, init);
  } catch (error) {
    const { code } = /** @type {{ cause?: { code?: string } }} */ (error).cause ?? {};
    if (tries <= 1 || !["EPIPE", "ECONNRESET", "UND_ERR_SOCKET"].includes(code ?? "")) throw error;
    await new Promise((resolve) => setTimeout(resolve, BETWEEN_MS));
    return fetchAgain(address, init, tries - 1);
  }
}
