// npm run kill-test [times]: a server is ended with SIGKILL again and again while it imports. At the end every file must have the line,
// and every style the file and row, that an import without any killing gives.
import { spawn, type ChildProcess } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { zipSync, type Zippable } from "fflate";
import { SANS } from "../demo/foundry/design";
import { drawFace } from "../demo/foundry/face";
import { seeded } from "../demo/foundry/treat";
import { fontFacts, LETTERS } from "../tests/fixtures/fontFacts";
import { writeOpenType, writeTrueType } from "../demo/foundry/write/writeFont";

const times = Number(process.argv[2] ?? 50);
const random = seeded(50);
const say = (line: string) => console.error(line);

const facts = (family: string) => fontFacts({ family, xHeight: 500, vendor: "KILL" });
/** Archives with all that an import meets: pairs of formats, copies, evidence, junk, broken fonts, zips in zips. */
function makeUploads(count: number): Map<string, Uint8Array> {
  const text = (s: string) => new TextEncoder().encode(s);
  const uploads = new Map<string, Uint8Array>();
  for (let a = 0; a < count; a++) {
    const files: Zippable = {
      "OFL.txt": text("Licensed under the SIL Open Font License, Version 1.1."),
      "x.jpg": text("x"),
    };
    for (let i = 0; i < 4; i++) {
      const face = drawFace(
        { ...SANS, stem: 50 + a * 3 + i * 17, width: 0.7 + i * 0.13 + a * 0.011, xHeight: 430 + a * 3 + i * 9 },
        { characters: LETTERS },
      );
      const family = `Kill ${a} ${i}`;
      files[`${family}.ttf`] = writeTrueType(face, facts(family));
      if (i === 1) files[`${family}.otf`] = writeOpenType(face, facts(family));
      if (i === 2) files[`copy of ${family}.ttf`] = writeTrueType(face, facts(`Copy ${a}`));
      if (i === 3) files[`${family} cut.ttf`] = writeTrueType(face, facts(family)).slice(0, 3000);
    }
    files["inner.zip"] = zipSync({ "again.ttf": files[`Kill ${a} 0.ttf`] as Uint8Array });
    uploads.set(`upload ${a}.zip`, zipSync(files));
  }
  return uploads;
}

const port = await new Promise<number>((resolve) => {
  const probe = createServer().listen(0, "127.0.0.1", () => {
    const address = probe.address();
    probe.close(() => resolve(typeof address === "object" && address ? address.port : 0));
  });
});
const url = `http://127.0.0.1:${port}`;
function start(data: string): ChildProcess {
  return spawn(process.execPath, ["node_modules/next/dist/bin/next", "start", "-p", String(port), "-H", "127.0.0.1"], {
    stdio: "ignore",
    detached: true,
    env: {
      ...process.env,
      NODE_ENV: "production",
      HOST: "127.0.0.1",
      PORT: String(port),
      FOND_QUARRY_DATA: data,
      FOND_QUARRY_DEMO: "0",
      FOND_QUARRY_STANDINS: "",
    },
  });
}
async function waitUp() {
  for (let i = 0; i < 300; i++) {
    const up = await fetch(`${url}/api/v1/health`).then(
      (r) => r.ok,
      () => false,
    );
    if (up) return;
    await new Promise((r) => setTimeout(r, 50));
  }
  throw new Error("the server did not come up");
}
/** The whole group: nothing of it may go on working after the kill. */
async function kill(server: ChildProcess) {
  const ended = new Promise((r) => server.once("exit", r));
  process.kill(-server.pid!, "SIGKILL");
  await ended;
}

type Line = { path: string; outcome: string; code?: string; styleId?: string };
type Report = { state: string; items: Line[] };
const reportOf = async (id: string) => (await (await fetch(`${url}/api/v1/imports/${id}`)).json()) as Report;
async function upload(name: string, bytes: Uint8Array): Promise<string> {
  const form = new FormData();
  form.append("files", new File([bytes as BlobPart], name));
  const response = await fetch(`${url}/api/v1/imports`, { method: "POST", body: form });
  return ((await response.json()) as { importId: string }).importId;
}
const linesOf = (reports: Report[]) =>
  reports.flatMap((r) => r.items.map((i) => `${i.path} | ${i.outcome} | ${i.styleId ?? i.code ?? ""}`)).sort();
const idle = async () =>
  ((await (await fetch(`${url}/api/v1/health`)).json()) as { jobsWaiting: number }).jobsWaiting === 0;
async function waitIdle() {
  while (!(await idle())) await new Promise((r) => setTimeout(r, 150));
}

const uploads = makeUploads(24);
// What should come out, without any killing.
const control = mkdtempSync(join(tmpdir(), "fond-quarry-control-"));
let server = start(control);
await waitUp();
const wanted: string[] = [];
for (const [name, bytes] of uploads) wanted.push(await upload(name, bytes));
await waitIdle();
const should = linesOf(await Promise.all(wanted.map(reportOf)));
await kill(server);
say(`without killing: ${should.length} lines`);

const data = mkdtempSync(join(tmpdir(), "fond-quarry-kill-"));
server = start(data);
await waitUp();
const ids: string[] = [];
for (const [name, bytes] of uploads) ids.push(await upload(name, bytes));
let kills = 0;
while (kills < times) {
  await new Promise((r) => setTimeout(r, 50 + random() * 2600));
  await kill(server);
  kills++;
  server = start(data);
  await waitUp();
  if (kills % 10 === 0)
    say(`${kills} kills, ${(await Promise.all(ids.map(reportOf))).flatMap((r) => r.items).length} lines`);
  // All read before the last kill: the same archives once more, so that there is work to interrupt.
  if (await idle()) {
    const round = ids.length / uploads.size;
    for (const [name, bytes] of uploads) ids.push(await upload(`${round} ${name}`, bytes));
  }
}
await waitIdle();
const first = await Promise.all(ids.slice(0, uploads.size).map(reportOf));
const all = await Promise.all(ids.map(reportOf));
const is = linesOf(first);
const problems: string[] = [];
const missing = should.filter((l) => !is.includes(l));
const extra = is.filter((l) => !should.includes(l));
if (missing.length || extra.length)
  problems.push(`lines differ:\n- ${missing.slice(0, 5).join("\n- ")}\n+ ${extra.slice(0, 5).join("\n+ ")}`);
if (all.some((r) => r.state !== "done")) problems.push("an import did not end as done");
// Every file of the store is what its name says; every style's file is there.
for (const name of readdirSync(join(data, "store"), { recursive: true }).map(String)) {
  const path = join(data, "store", name);
  if (!/[0-9a-f]{64}$/.test(name)) {
    if (name.endsWith(".part")) problems.push(`half a file: ${name}`);
    continue;
  }
  const sum = createHash("sha256").update(readFileSync(path)).digest("hex");
  if (!path.endsWith(sum)) problems.push(`damaged file: ${name}`);
}
for (const line of first.flatMap((r) => r.items))
  if (line.styleId) {
    const response = await fetch(`${url}/api/v1/styles/${line.styleId}/file`);
    if (!response.ok || !(await response.arrayBuffer()).byteLength) problems.push(`no file behind ${line.path}`);
  }
if (existsSync(join(data, "incoming")) && readdirSync(join(data, "incoming")).length)
  problems.push("uploads are left behind");
await kill(server);
for (const folder of [control, data]) rmSync(folder, { recursive: true, force: true });
say(
  problems.join("\n") ||
    `${kills} kills during imports: ${is.length} lines, all as without killing; nothing lost, nothing half-read`,
);
process.exit(problems.length ? 1 : 0);
