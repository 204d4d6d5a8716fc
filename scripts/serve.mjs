// The built application as a process of its own, as `npm run demo` and `npm start` serve it. PORT, HOST and FOND_QUARRY_DATA override.
import { join } from "node:path";
import { spawnServer } from "./server.mjs";

/**
 * Serves until the server ends or is asked to.
 * @param {Record<string, string>} settings - its environment beside port, host and folder.
 * @param {() => void} onEnd - what ends with it.
 */
export function serve(settings, onEnd = () => {}) {
  const { PORT, HOST, FOND_QUARRY_DATA, NODE_OPTIONS = "" } = process.env;
  const port = Number(PORT || 4780);
  const host = HOST || "127.0.0.1";
  console.log(`Fond Quarry at http://${host}:${port}`);
  const data = FOND_QUARRY_DATA || join(process.cwd(), "data");
  const server = spawnServer(port, data, { NODE_OPTIONS, ...settings }, { stdio: "inherit" }, host);
  for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => server.kill(signal));
  server.on("exit", (code) => {
    onEnd();
    process.exit(code ?? 0);
  });
}
