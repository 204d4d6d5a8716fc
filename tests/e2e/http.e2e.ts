// The HTTP interface as scripts use it, answers checked against the schemas; and a server that is killed while it reads.
import { describe, expect, test } from "@jest/globals";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { ChildProcess } from "node:child_process";
import { Brief, Check, Kept } from "@/contracts/brief";
import { Identification } from "@/contracts/identify";
import { Health, Job } from "@/contracts/jobs";
import { GlyphList, StyleDetail, StyleList } from "@/contracts/styles";
import { drawLine } from "../fixtures/drawLine";
import { readDemo } from "../fixtures/demoFont";
import { api, fetchAgain, makeBrief, styleNamed, url } from "./browser";
// @ts-expect-error -- plain JavaScript, shared with Jest's setup
import { startServer, waitFor } from "./globalSetup.mjs";
// @ts-expect-error -- plain JavaScript, shared with Jest's setup
import { freePort } from "../../scripts/server.mjs";
// @ts-expect-error -- plain JavaScript, shared with Jest's setup
import { prepareDemo } from "../../scripts/setup.mjs";

describe("answers have the form that the document promises", () => {
  test("health", async () => {
    const { body } = await api("/health");
    expect(Health.parse(body)).toMatchObject({ status: "ok" });
    expect(Health.parse(body).families).toBeGreaterThanOrEqual(168);
  });

  test("styles, in pages that do not overlap and miss none", async () => {
    const seen = new Set<string>();
    let cursor: string | undefined = "0";
    let total = 0;
    while (cursor !== undefined) {
      const page: StyleList = StyleList.parse((await api(`/styles?sort=name&limit=200&cursor=${cursor}`)).body);
      for (const item of page.items) {
        expect(seen.has(item.styleId)).toBe(false);
        seen.add(item.styleId);
      }
      total = page.total;
      cursor = page.cursor;
    }
    expect(seen.size).toBe(total);
  });

  test("a style, its glyphs, its file", async () => {
    const { styleId } = await styleNamed("alegreya medium italic");
    const detail = StyleDetail.parse((await api(`/styles/${styleId}`)).body);
    expect(detail).toMatchObject({ family: "Alegreya", style: "Medium Italic" });
    expect(detail.coverage.count).toBeGreaterThan(200);
    expect(detail.traits.slantDeg).toBeGreaterThan(4);
    const glyphs = GlyphList.parse((await api(`/styles/${styleId}/glyphs?q=%26`)).body);
    expect(glyphs.glyphs[0]!.codePoints).toContain(0x26);
    const file = await fetchAgain(`${url()}/api/v1/styles/${styleId}/file`);
    expect(file.headers.get("content-type")).toBe("font/woff2");
    expect(new TextDecoder().decode((await file.arrayBuffer()).slice(0, 4))).toBe("wOF2");
    // A style's file may change under its id: it is asked after each time, and sent again only when it did.
    expect(file.headers.get("cache-control")).toBe("private, no-cache");
    const again = { headers: { "if-none-match": file.headers.get("etag")! } };
    expect((await fetchAgain(`${url()}/api/v1/styles/${styleId}/file`, again)).status).toBe(304);
    const other = { headers: { "if-none-match": '"another file"' } };
    expect((await fetchAgain(`${url()}/api/v1/styles/${styleId}/file`, other)).status).toBe(200);
  });

  test("every variable style tells its axes exactly", async () => {
    const { styleId } = await styleNamed("Recursive variable");
    const detail = StyleDetail.parse((await api(`/styles/${styleId}`)).body);
    expect(detail.axes.map((a) => [a.tag, a.min, a.max])).toEqual(
      expect.arrayContaining([
        ["MONO", 0, 1],
        ["CASL", 0, 1],
        ["wght", 300, 1000],
        ["slnt", -15, 0],
        ["CRSV", 0, 1],
      ]),
    );
    expect(detail.instances.length).toBeGreaterThan(5);
  });

  test("briefs, kept, aside, checks", async () => {
    const briefId = await makeBrief({ name: "Script test", uses: ["goods-for-sale", "web"] });
    const { styleId } = await styleNamed("abril fatface");
    const kept = Kept.parse(
      (await api(`/briefs/${briefId}/kept/${styleId}`, { method: "PUT", json: { role: "title", favourite: true } }))
        .body,
    );
    expect(kept).toMatchObject({ role: "title", favourite: true, place: 0 });
    expect(Brief.parse((await api(`/briefs/${briefId}`)).body).kept).toHaveLength(1);
    const { checks } = (await api<{ checks: unknown[] }>(`/briefs/${briefId}/checks?styleId=${styleId}`)).body;
    expect(checks.map((c) => Check.parse(c).check)).toEqual(["characters", "use", "use", "health"]);
    expect((await api(`/briefs/${briefId}/aside/${styleId}`, { method: "PUT" })).status).toBe(200);
    expect((await api(`/briefs/${briefId}/kept/${styleId}`, { method: "DELETE" })).status).toBe(200);
    expect((await api<{ briefs: unknown[] }>("/briefs")).body.briefs.length).toBeGreaterThan(4);
  });

  test("jobs", async () => {
    const { jobs } = (await api<{ jobs: unknown[] }>("/jobs")).body;
    const parsed = jobs.map((j) => Job.parse(j));
    // The newest come first; the reading of the library may be beyond them when other flows ran before.
    const ended = parsed.filter((j) => j.kind === "sync-library");
    expect(ended.length).toBeGreaterThan(0);
    expect(ended.some((j) => j.state === "done")).toBe(true);
  });

  test("the OpenAPI document", async () => {
    const { body } = await api<{ openapi: string; paths: Record<string, unknown> }>("/openapi.json");
    expect(body.openapi).toBe("3.1.0");
    for (const path of [
      "/health",
      "/imports",
      "/styles",
      "/styles/{id}/glyphs",
      "/identify",
      "/briefs/{id}/handover",
      "/jobs",
    ])
      expect(body.paths).toHaveProperty([path]);
  });
});

describe("identify over HTTP", () => {
  const send = async (options: Parameters<typeof drawLine>[2], fields: Record<string, string>) => {
    const { face } = await readDemo("rozha-one");
    const { widthPx, heightPx, rgba } = drawLine(face, "Fog Bell", options);
    const { default: sharp } = await import("sharp");
    const png = await sharp(Buffer.from(rgba), { raw: { width: widthPx, height: heightPx, channels: 4 } })
      .jpeg({ quality: 85 })
      .toBuffer();
    const form = new FormData();
    form.append("image", new File([new Uint8Array(png)], "bell.jpg"));
    for (const [k, v] of Object.entries(fields)) form.append(k, v);
    const { status, body } = await api("/identify", { method: "POST", body: form });
    expect(status).toBe(200);
    return { result: Identification.parse(body), widthPx, heightPx };
  };

  test("with the text given: first, with letters, chances at most one", async () => {
    const { result } = await send({ turnDeg: 3, noise: 20 }, { text: "Fog Bell", limit: "8" });
    expect(result.matches[0]!.family).toBe("Rozha One");
    expect(result.matches).toHaveLength(8);
    expect(result.matches[0]!.letters.map((l) => l.char).join("")).toBe("FogBell");
    expect(result.reading).toMatchObject({ text: "Fog Bell", given: true });
    const sum = result.matches.reduce((a, m) => a + m.chance, result.notInLibraries.chance);
    expect(sum).toBeLessThanOrEqual(1.0001);
    expect(result.strip.png).toMatch(/^data:image\/png;base64,/);
  });

  test("without text it is read by machine", async () => {
    const { result } = await send({}, {});
    expect(result.reading).toMatchObject({ text: "Fog Bell", given: false });
    expect(result.matches[0]!.family).toBe("Rozha One");
  });

  test("within a box and within corners", async () => {
    const first = await send(
      { marginPx: 60 },
      { text: "Fog Bell", box: JSON.stringify({ x: 40, y: 40, width: 390, height: 150 }) },
    );
    expect(first.result.matches[0]!.family).toBe("Rozha One");
    const { widthPx: w, heightPx: h } = first;
    const corners = [
      { x: 30, y: 30 },
      { x: w - 30, y: 30 },
      { x: w - 30, y: h - 30 },
      { x: 30, y: h - 30 },
    ];
    const second = await send({ marginPx: 60 }, { text: "Fog Bell", corners: JSON.stringify(corners) });
    expect(second.result.matches[0]!.family).toBe("Rozha One");
  });
});

describe("a server killed while it reads", () => {
  test("goes on where it was, with nothing half-read; a cancelled job stops", async () => {
    const data = mkdtempSync(join(tmpdir(), "fond-quarry-kill-"));
    const port = await freePort();
    const demo = await prepareDemo("");
    const at = `http://127.0.0.1:${port}`;
    let server = startServer(port, data, demo) as ChildProcess;
    try {
      const before = (await waitFor(at, (h: { styles: number }) => h.styles > 25, 60_000)) as { styles: number };
      server.kill("SIGKILL");
      await new Promise((r) => server.on("exit", r));
      server = startServer(port, data, demo) as ChildProcess;
      const after = (await waitFor(at, (h: { styles: number }) => h.styles > before.styles + 15, 60_000)) as {
        styles: number;
      };
      expect(after.styles).toBeGreaterThan(before.styles);
      const jobs = (
        (await (await fetch(`${at}/api/v1/jobs`)).json()) as { jobs: { jobId: string; kind: string; state: string }[] }
      ).jobs;
      expect(jobs.filter((j) => j.kind === "sync-library")).toMatchObject([{ state: "running" }]);
      const list = (await (await fetch(`${at}/api/v1/styles?limit=200`)).json()) as StyleList;
      for (const item of list.items.slice(0, 10))
        expect((await fetch(`${at}/api/v1/styles/${item.styleId}/file`)).status).toBe(200);
      const { jobId } = jobs.find((j) => j.kind === "sync-library")!;
      await fetch(`${at}/api/v1/jobs/${jobId}`, { method: "DELETE" });
      await waitFor(at, (h: { jobsWaiting: number }) => h.jobsWaiting === 0, 20_000);
      const ended = (await (await fetch(`${at}/api/v1/jobs/${jobId}`)).json()) as { state: string };
      expect(ended.state).toBe("cancelled");
    } finally {
      server.kill("SIGKILL");
      rmSync(data, { recursive: true, force: true });
    }
  });
});
