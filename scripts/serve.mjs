// The built application as a process of its own, as `npm run demo` and `npm start` serve it. PORT and HOST override where.
import { spawn } from "node:child_process";

/**
 * Serves until the server ends or is asked to.
 * @param {Record<string, string>} settings - its environment beside port and host.
 * @param {() => void} onEnd - what ends with it.
 */
export function serve(settings, onEnd = () => {}) {
  const port = process.env.PORT || "4780";
  const host = process.env.HOST || "127.0.0.1";
  console.log(`Fond Quarry at http://${host}:${port}`);
  const server = spawn(process.execPath, ["node_modules/next/dist/bin/next", "start", "-p", port, "-H", host], {
    stdio: "inherit",
    env: {
      ...process.env,
      ...settings,
      HOST: host,
      PORT: port,
      NEXT_TELEMETRY_DISABLED: "1",
      NODE_ENV: "production",
    },
  });
  for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => server.kill(signal));
  server.on("exit", (code) => {
    onEnd();
    process.exit(code ?? 0);
  });
}
