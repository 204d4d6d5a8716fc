// npm start: installs, builds if needed, and serves without demo data: an empty library that begins with the fonts of this system.
import { existsSync } from "node:fs";
import { serve } from "./serve.mjs";
import { build, installPackages } from "./setup.mjs";

// Settings of this machine; what the environment says already stands.
if (existsSync(".env")) process.loadEnvFile(".env");
const { compiled } = await installPackages();
await Promise.all([compiled, build()]);
serve({});
