// npm run demo: installs, builds if needed, loads the demo data and serves. PORT, HOST and FOND_QUARRY_DATA override.
import { spawn } from "node:child_process";
import { build, installPackages } from "./setup.mjs";

const { compiled } = await installPackages();
await Promise.all([compiled, build()]);
const port = process.env.PORT || "4780";
const host = process.env.HOST || "127.0.0.1";
console.log(`Fond Quarry at http://${host}:${port}`);
const server = spawn(process.execPath, ["node_modules/next/dist/bin/next", "start", "-p", port, "-H", host], {
  stdio: "inherit",
  env: {
    ...process.env,
    HOST: host,
    PORT: port,
    FOND_QUARRY_DEMO: process.env.FOND_QUARRY_DEMO ?? "1",
    NEXT_TELEMETRY_DISABLED: "1",
    NODE_ENV: "production",
  },
});
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => server.kill(signal));
server.on("exit", (code) => process.exit(code ?? 0));
