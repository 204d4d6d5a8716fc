// npm run trust:hostile [count]: what would stop, crash or fill a server, against a real one: each finding by a case of its own, then a mass of
// damaged fonts, pictures, documents, texts, catalogues and requests. Health must answer throughout, memory stay bounded, a restart be clean.
import { existsSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { join } from "node:path";
import { tryCatalogues } from "./hostileCatalogue";
import { tryFiles, tryServer } from "./hostileFindings";
import { tryMass } from "./hostileMass";
import { openTrials, say } from "./hostileTrials";
import { startServer, waitIdle, waitUp, watchServer } from "./server";

const count = Number(process.argv[2] ?? 10_000);
const trials = await openTrials(process.argv[3] ?? "");
const { data, port, trial, faults, inputs } = trials;
let { server } = trials;
const stopWatching = watchServer(() => server);
await tryFiles(trials);
await tryCatalogues(trials);
await tryServer(trials);
await tryMass(trials, count);

const watched = await stopWatching();
say("restart …");
await server.kill();
server = await startServer(data, port);
await trial("a restart after all of it", 60_000, async () => {
  await waitUp(server);
  await new Promise((r) => setTimeout(r, 5_000));
  await waitIdle(server, 40_000);
});
const left = existsSync(join(data, "incoming")) ? readdirSync(join(data, "incoming")).length : 0;
if (left) faults.push(`${left} uploads are left behind`);
await server.kill();
const log = readFileSync(join(data, "fond-quarry.db")).length;
rmSync(data, { recursive: true, force: true });
if (watched.late) faults.push(`health was late ${watched.late} times`);
if (watched.p99 > 250) faults.push(`health p99 ${Math.round(watched.p99)} ms`);
if (watched.mostMb > 2_000) faults.push(`${Math.round(watched.mostMb)} MB`);
say(faults.length ? `\nFAULTS\n${faults.join("\n")}` : "\nno fault");
say(
  `${inputs.count} inputs; health asked ${watched.asked} times: median ${watched.p50.toFixed(0)} ms, p99 ${watched.p99.toFixed(0)} ms, longest ${watched.most.toFixed(0)} ms, over a second ${watched.late} times; ${Math.round(watched.mostMb)} MB at most in all processes; database ${Math.round(log / 1e6)} MB`,
);
process.exit(faults.length ? 1 : 0);
