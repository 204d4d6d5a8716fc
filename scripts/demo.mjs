// npm run demo: installs, builds if needed, loads the demo data and serves. PORT, HOST and FOND_QUARRY_DATA override.
import { spawn } from "node:child_process";
import { build, drawFoundry, installPackages, startLibraries } from "./setup.mjs";

const { compiled } = await installPackages();
const [folder] = await Promise.all([drawFoundry(), compiled, build()]);
const port = process.env.PORT || "4780";
const host = process.env.HOST || "127.0.0.1";
// 0: any free port. The libraries are told to the server by address, so none has to be kept.
const libraries = await startLibraries(process.env.STANDINS_PORT || 0, folder);
console.log(`Stand-in libraries at ${libraries.url}`);
console.log(`Fond Quarry at http://${host}:${port}`);
const server = spawn(process.execPath, ["node_modules/next/dist/bin/next", "start", "-p", port, "-H", host], {
  stdio: "inherit",
  env: {
    ...process.env,
    HOST: host,
    PORT: port,
    FOND_QUARRY_STANDINS: libraries.url,
    FOND_QUARRY_DEMO: process.env.FOND_QUARRY_DEMO ?? "1",
    NEXT_TELEMETRY_DISABLED: "1",
    NODE_ENV: "production",
  },
});
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => server.kill(signal));
server.on("exit", (code) => {
  libraries.stop();
  process.exit(code ?? 0);
});
