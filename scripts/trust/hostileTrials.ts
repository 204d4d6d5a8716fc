// What every hostile trial works with: a real server on a folder of its own, things that people do with it, and what went wrong.
import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { SANS } from "../../demo/foundry/design";
import { drawFace } from "../../demo/foundry/face";
import { writeTrueType } from "../../demo/foundry/write/writeFont";
import { fontFacts, LETTERS } from "../../tests/fixtures/fontFacts";
import { drawWords } from "./lettering";
import { freePort, startServer, upload, waitUp } from "./server";

export const say = (line: string) => console.error(line);
export const text = (s: string) => new TextEncoder().encode(s);
export const face = (stem: number) => drawFace({ ...SANS, stem }, { characters: LETTERS });
export const ttf = (family: string, stem = 60, style = "Regular") =>
  writeTrueType(face(stem), fontFacts({ family, style }));
export type Line = { name: string; outcome: string; code?: string; styleId?: string };
export type Trials = Awaited<ReturnType<typeof openTrials>>;

/** @param only - trials whose names hold this; all when empty. */
export async function openTrials(only: string) {
  const data = mkdtempSync(join(tmpdir(), "fond-quarry-hostile-"));
  const port = await freePort();
  const faults: string[] = [];
  /** Inputs given so far: a trial is one, and adds what more it gave. */
  const inputs = { count: 0 };
  const server = await startServer(data, port);
  await waitUp(server);

  /** One case: what it does, within a time, and what it must end in. */
  async function trial(name: string, ms: number, run: () => Promise<void | string>) {
    if (!name.includes(only)) return;
    inputs.count++;
    const started = performance.now();
    try {
      const late = new Promise<string>((r) => setTimeout(() => r("took too long"), ms).unref());
      const fault = await Promise.race([run(), late]);
      if (fault) faults.push(`${name}: ${fault}`);
    } catch (error) {
      faults.push(`${name}: ${(error as Error).message}`);
    }
    say(
      `${Math.round(performance.now() - started)
        .toString()
        .padStart(6)} ms  ${name}`,
    );
  }
  async function bringIn(files: Record<string, Uint8Array>): Promise<Line[]> {
    const id = await upload(server, files);
    for (;;) {
      const { body } = await server.api<{ state: string; items: Line[] }>(`/imports/${id}`);
      if (body && body.state !== "running") return body.items;
      await new Promise((r) => setTimeout(r, 100));
    }
  }
  const styleOf = async (files: Record<string, Uint8Array>) => {
    const lines = await bringIn(files);
    const line = lines.find((i) => i.styleId);
    if (!line) throw new Error(`not taken in: ${JSON.stringify(lines)}`);
    return line.styleId!;
  };
  const brief = (await server.api<{ briefId: string }>("/briefs", { method: "POST", json: { name: "Hostile" } })).body
    .briefId;
  async function handOver(briefId: string, wants: "done" | "any" = "done"): Promise<Uint8Array | null> {
    const { body } = await server.api<{ jobId: string }>(`/briefs/${briefId}/handover`, {
      method: "POST",
      json: { responsibleFor: kept },
    });
    for (;;) {
      const job = (await server.api<{ state: string; message: string }>(`/jobs/${body.jobId}`)).body;
      if (job.state === "done")
        return new Uint8Array(await (await fetch(`${server.url}/api/v1/jobs/${body.jobId}/file`)).arrayBuffer());
      if (job.state === "failed") {
        if (wants === "done") throw new Error(job.message);
        return null;
      }
      await new Promise((r) => setTimeout(r, 100));
    }
  }
  const kept: string[] = [];
  const keep = async (styleId: string) => {
    kept.push(styleId);
    await server.api(`/briefs/${brief}/kept/${styleId}`, { method: "PUT", json: {} });
  };
  const identify = async (image: Uint8Array, name = "picture") => {
    const form = new FormData();
    form.append("image", new File([image as BlobPart], name));
    form.append("text", "Quay");
    return server.api<{ error?: { code: string } }>("/identify", { method: "POST", body: form });
  };
  const healthy = async () => ((await server.api("/health")).status === 200 ? undefined : "health is gone");

  const plain = await styleOf({ "plain.ttf": ttf("Plain Quay", 72) });
  await keep(plain);
  const picture = await drawWords(ttf("Plain Quay", 72), "Quay");
  return {
    data,
    port,
    server,
    faults,
    inputs,
    trial,
    bringIn,
    styleOf,
    brief,
    handOver,
    keep,
    identify,
    healthy,
    plain,
    picture,
  };
}
