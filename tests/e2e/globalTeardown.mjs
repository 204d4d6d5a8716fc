import { rmSync } from "node:fs";

export default async function teardown() {
  globalThis.e2eLibraries.stop();
  const server = globalThis.e2eServer;
  await new Promise((resolve) => {
    server.on("exit", resolve);
    server.kill("SIGTERM");
    setTimeout(() => server.kill("SIGKILL"), 4000).unref();
  });
  rmSync(process.env.E2E_DATA, { recursive: true, force: true });
}
