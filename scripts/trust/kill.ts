// npm run kill-test [times]: a server is ended with SIGKILL, with all its processes, again and again at random moments of imports, edits,
// identifications, hand-overs, syncs and purchases. At the end everything that was acknowledged is there, once and whole.
import Database from "better-sqlite3";
import { spawn } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { zipSync, type Zippable } from "fflate";
import { SANS } from "../../demo/foundry/design";
import { drawFace } from "../../demo/foundry/face";
import { seededRandom } from "../../src/core/geometry/numbers";
import { writeOpenType, writeTrueType } from "../../demo/foundry/write/writeFont";
import { fontFacts, LETTERS } from "../../tests/fixtures/fontFacts";
import { drawWords } from "./lettering";
import { freePort, startServer, upload, waitIdle, waitUp, type Server } from "./server";

const times = Number(process.argv[2] ?? 200);
const random = seededRandom(50);
const say = (line: string) => console.error(line);
const facts = (family: string) => fontFacts({ family, xHeight: 500, vendor: "KILL" });
const text = (s: string) => new TextEncoder().encode(s);

/** Archives with all that an import meets: pairs of formats, renamed copies, evidence, junk, broken fonts, zips in zips. */
function makeUpload(a: number): Uint8Array {
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
  return zipSync(files);
}
const uploads = new Map(Array.from({ length: 16 }, (_, a) => [`upload ${a}.zip`, makeUpload(a)]));

/** The stand-in libraries, as a process that lives on while servers die. */
const standIns = spawn(process.execPath, ["dist-workers/main.mjs", "0", process.argv[3] ?? foundryFolder()], {
  stdio: ["ignore", "pipe", "inherit"],
  env: { ...process.env, NODE_OPTIONS: "" },
});
function foundryFolder(): string {
  const found = readdirSync(".cache").find((f) => f.startsWith("foundry-"));
  if (!found) throw new Error("draw the foundry first: npm run demo");
  return join(".cache", found);
}
const shops = await new Promise<string>((resolve) =>
  standIns.stdout.on("data", (t: Buffer) => {
    const url = /libraries at (\S+)/.exec(String(t))?.[1];
    if (url) resolve(url);
  }),
);

const port = await freePort();
type Line = { path: string; outcome: string; code?: string; styleId?: string };
type Report = { state: string; items: Line[] };
const reportOf = async (s: Server, id: string) => (await s.api<Report>(`/imports/${id}`)).body;
const linesOf = (reports: Report[]) =>
  reports.flatMap((r) => r.items.map((i) => `${i.path} | ${i.outcome} | ${i.styleId ?? i.code ?? ""}`)).sort();

// What should come out, without any killing.
const control = mkdtempSync(join(tmpdir(), "fond-quarry-control-"));
let server = await startServer(control, port);
await waitUp(server);
const wanted: string[] = [];
for (const [name, bytes] of uploads) wanted.push(await upload(server, { [name]: bytes }));
await waitIdle(server);
const should = linesOf(await Promise.all(wanted.map((id) => reportOf(server, id))));
await server.kill();
say(`without killing: ${should.length} lines`);

const data = mkdtempSync(join(tmpdir(), "fond-quarry-kill-"));
server = await startServer(data, port);
await waitUp(server);
const ids: string[] = [];
for (const [name, bytes] of uploads) ids.push(await upload(server, { [name]: bytes }));
const { briefId } = (await server.api<{ briefId: string }>("/briefs", { method: "POST", json: { name: "Kill" } })).body;
await server.api("/libraries", {
  method: "POST",
  json: { kind: "opds", address: `${shops}/halyard/opds.json`, name: "Shop" },
});
const lettering = drawFace(SANS, { characters: LETTERS });
const picture = await drawWords(writeTrueType(lettering, facts("Lettering")), "Quay");

/** What was acknowledged, and must be there at the end. */
const acked = {
  words: new Set<string>(),
  kept: new Set<string>(),
  orders: new Set<string>(),
  evidence: new Map<string, string>(),
};
let styles: string[] = [];
let count = 0;
const pick = <T>(list: readonly T[]): T | undefined => list[Math.floor(random() * list.length)];
const acts: (() => Promise<void>)[] = [
  // a word is added to a line, merged with whatever stands there
  async () => {
    const { body } = await server.api<{ lines: { id: string; text: string; role: string }[] }>(`/briefs/${briefId}`);
    const word = `w${count++}`;
    const lines = body.lines.map((l, i) =>
      i ? l : { ...l, text: `${l.text.split(" ").slice(-40).join(" ")} ${word}` },
    );
    const sent = await server.api(`/briefs/${briefId}`, {
      method: "PATCH",
      json: { lines, base: { lines: body.lines } },
    });
    if (sent.status === 200) {
      acked.words.add(word);
      if (acked.words.size > 40) acked.words.delete([...acked.words][0]!);
    }
  },
  async () => {
    const styleId = pick(styles);
    if (!styleId) return;
    const note = `n${count++}`;
    const sent = await server.api(`/briefs/${briefId}/kept/${styleId}`, { method: "PUT", json: { note } });
    if (sent.status === 200) acked.kept.add(styleId);
  },
  async () => void (await server.api(`/briefs/${briefId}/handover`, { method: "POST", json: {} })),
  async () => {
    const form = new FormData();
    form.append("image", new File([picture as BlobPart], "a.png"));
    await server.api("/identify", { method: "POST", body: form });
  },
  async () => void (await server.api("/libraries/shop/sync", { method: "POST" })),
  async () => {
    const { body } = await server.api<{ items: { styleId: string }[] }>("/styles?owned=to-buy&limit=40");
    const face = pick(body.items);
    if (!face) return;
    await server.api(`/basket/${face.styleId}`, { method: "PUT", json: { uses: ["client-print"] } });
    const key = Array.from({ length: 20 }, () => "0123456789abcdef"[Math.floor(random() * 16)]).join("");
    // Pressed twice, as people do.
    const order = () =>
      server.api<{ orderId: string }>("/orders", { method: "POST", json: { libraryId: "shop", key } });
    const placed = await order();
    if (placed.status === 202) acked.orders.add(placed.body.orderId);
    await order();
  },
  async () => {
    const styleId = pick(styles);
    if (!styleId) return;
    const words = `Permission no. ${count++}: free for private use.`;
    const sent = await server.api<{ evidenceId: string }>(`/styles/${styleId}/evidence`, {
      method: "POST",
      json: { kind: "user", text: words, note: "" },
    });
    if (sent.status < 300) acked.evidence.set(words, styleId);
  },
];
let kills = 0;
let tried = 0;
while (kills < times) {
  const until = Date.now() + 50 + random() * 2_400;
  const working = (async () => {
    while (Date.now() < until) {
      tried++;
      await pick(acts)!().catch(() => {});
    }
  })();
  await new Promise((r) => setTimeout(r, Math.max(0, until - Date.now())));
  await server.kill();
  await working;
  kills++;
  server = await startServer(data, port);
  await waitUp(server);
  const found = await server.api<{ items: { styleId: string }[] }>("/styles?owned=here&limit=60").catch(() => null);
  styles = found?.body?.items?.map((i) => i.styleId) ?? styles;
  // A job that was cut off twice without getting on was set aside: somebody tries it again.
  const { body } = await server.api<{ jobs: { jobId: string; state: string; code: string | null }[] }>("/jobs");
  for (const job of body.jobs.filter((j) => j.code === "job-set-aside"))
    await server.api(`/jobs/${job.jobId}/retry`, { method: "POST" });
  if (kills % 20 === 0)
    say(
      `${kills} kills, ${tried} acts, ${(await Promise.all(ids.map((id) => reportOf(server, id)))).flatMap((r) => r.items).length} lines`,
    );
}
for (let i = 0; i < 5; i++) {
  await waitIdle(server);
  const { body } = await server.api<{ jobs: { jobId: string; state: string; code: string | null }[] }>("/jobs");
  const again = body.jobs.filter((j) => j.code === "job-set-aside");
  if (!again.length) break;
  for (const job of again) await server.api(`/jobs/${job.jobId}/retry`, { method: "POST" });
}
// Orders that a fault held up are fetched again, as the basket offers.
const ordersOf = async () =>
  (await server.api<{ orders: { orderId: string; state: string; lines: { styleId: string }[] }[] }>("/orders")).body
    .orders;
for (const o of (await ordersOf()).filter((o) => o.state === "placed"))
  await server.api(`/orders/${o.orderId}`, { method: "POST" });
await waitIdle(server);

const problems: string[] = [];
const is = linesOf(await Promise.all(ids.map((id) => reportOf(server, id))));
const missing = should.filter((l) => !is.includes(l));
const extra = is.filter((l) => !should.includes(l));
if (missing.length || extra.length)
  problems.push(`lines differ:\n- ${missing.slice(0, 5).join("\n- ")}\n+ ${extra.slice(0, 5).join("\n+ ")}`);
const brief = (await server.api<{ lines: { text: string }[]; kept: { styleId: string }[] }>(`/briefs/${briefId}`)).body;
const words = brief.lines
  .map((l) => l.text)
  .join(" ")
  .split(" ");
const lostWords = [...acked.words].slice(-30).filter((w) => !words.includes(w));
if (lostWords.length) problems.push(`words lost: ${lostWords.join()}`);
const lostKept = [...acked.kept].filter((id) => !brief.kept.some((k) => k.styleId === id));
if (lostKept.length) problems.push(`kept faces lost: ${lostKept.join()}`);
const orders = await ordersOf();
for (const id of acked.orders) if (!orders.some((o) => o.orderId === id)) problems.push(`order lost: ${id}`);
for (const o of orders) if (o.state === "placed") problems.push(`order left open: ${o.orderId}`);
const faces = orders.filter((o) => o.state === "delivered").flatMap((o) => o.lines.map((l) => `${l.styleId}`));
for (const [words_, styleId] of [...acked.evidence].slice(-40)) {
  const { body } = await server.api<{ rights: { evidence: { text: string }[] } }>(`/styles/${styleId}`);
  if (!body.rights?.evidence.some((e) => e.text === words_)) problems.push(`evidence lost: ${words_}`);
}
await server.kill();
const db = new Database(join(data, "fond-quarry.db"));
const integrity = db.pragma("integrity_check", { simple: true });
if (integrity !== "ok") problems.push(`integrity: ${String(integrity)}`);
if ((db.pragma("foreign_key_check") as unknown[]).length) problems.push("foreign keys are broken");
const stored = db
  .prepare<[], { sha: string }>(
    "SELECT sha256 AS sha FROM styles UNION SELECT sfnt_sha256 FROM styles UNION SELECT sha256 FROM alternatives",
  )
  .all();
db.close();
for (const { sha } of stored) {
  const path = join(data, "store", sha.slice(0, 2), sha);
  if (!existsSync(path)) problems.push(`no file ${sha}`);
  else if (createHash("sha256").update(readFileSync(path)).digest("hex") !== sha) problems.push(`damaged file ${sha}`);
}
if (existsSync(join(data, "incoming")) && readdirSync(join(data, "incoming")).length)
  problems.push("uploads are left behind");
standIns.kill();
for (const folder of [control, data]) rmSync(folder, { recursive: true, force: true });
say(
  `${kills} kills over ${tried} acts (edits, keeping, hand-overs, identifications, syncs, ${acked.orders.size} orders of ${new Set(faces).size} faces, terms) and ${ids.length} imports: ${is.length} lines, ${stored.length} files.`,
);
say(problems.slice(0, 20).join("\n") || "nothing lost, nothing half, integrity clean");
process.exit(problems.length ? 1 : 0);
