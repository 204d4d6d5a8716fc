// npm run demo: installs, builds if needed, loads the demo data and serves. PORT, HOST and FOND_QUARRY_DATA override.
import { serve } from "./serve.mjs";
import { build, drawFoundry, installPackages, prepareDemo, startLibraries } from "./setup.mjs";

const { compiled } = await installPackages();
const [folder] = await Promise.all([drawFoundry(), compiled, build()]);
// 0: any free port. The libraries are told to the server by address, so none has to be kept.
const libraries = await startLibraries(process.env.STANDINS_PORT || 0, folder);
console.log(`Stand-in libraries at ${libraries.url}`);
serve(await prepareDemo(libraries.url), libraries.stop);
