// Process entry of the stand-in libraries: node dist-workers/main.mjs <port> <folder of drawn fonts>. Says its address when it is ready.
import { startLibraries } from "./server";

const [port = "4781", folder = ".cache/foundry"] = process.argv.slice(2);
const { url } = await startLibraries(Number(port), folder);
process.stdout.write(`libraries at ${url}\n`);
