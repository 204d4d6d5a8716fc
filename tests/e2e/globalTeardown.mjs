import { rmSync } from "node:fs";
import { stopServer } from "../../scripts/server.mjs";

export default async function teardown() {
  for (const { server, data, libraries } of globalThis.e2eServers) {
    libraries.stop();
    await stopServer(server);
    rmSync(data, { recursive: true, force: true });
  }
}
