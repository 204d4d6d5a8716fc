// npm run trust:hostile [count]: what would stop, crash or fill a server, against a real one: each finding by a case of its own, then a mass of
// damaged fonts, pictures, documents, texts, catalogues and requests. Health must answer throughout, memory stay bounded, a restart be clean.
import { execFileSync } from "node:child_process";
import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { createServer } from "node:http";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { deflateSync, gzipSync } from "node:zlib";
import { zipSync, type Zippable } from "fflate";
import sharp from "sharp";
import { SANS } from "../../demo/foundry/design";
import { drawFace } from "../../demo/foundry/face";
import { seeded } from "../../demo/foundry/treat";
import { writeOpenType, writeTrueType } from "../../demo/foundry/write/writeFont";
import { fontFacts, LETTERS } from "../../tests/fixtures/fontFacts";
import { cutShort, flipBits, int, mutate, putNoise } from "../mutations";
import { cmapOfMany, colourTables, gsubThatMultiplies, withTables } from "./hostileFonts";
import { drawWords } from "./lettering";
import { freePort, startServer, upload, waitIdle, waitUp, watchServer, type Server } from "./server";

const count = Number(process.argv[2] ?? 10_000);
/** Trials whose names hold this; all when absent. */
const only = process.argv[3] ?? "";
const data = mkdtempSync(join(tmpdir(), "fond-quarry-hostile-"));
const port = await freePort();
const say = (line: string) => console.error(line);
const text = (s: string) => new TextEncoder().encode(s);
const faults: string[] = [];
let inputs = 0;

const face = (stem: number) => drawFace({ ...SANS, stem }, { characters: LETTERS });
const ttf = (family: string, stem = 60, style = "Regular") => writeTrueType(face(stem), fontFacts({ family, style }));
let server: Server = await startServer(data, port);
await waitUp(server);
const stopWatching = watchServer(() => server);

/** One case: what it does, within a time, and what it must end in. */
async function trial(name: string, ms: number, run: () => Promise<void | string>) {
  if (!name.includes(only)) return;
  inputs++;
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
type Line = { name: string; outcome: string; code?: string; styleId?: string };
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

await trial("C1 two faces whose names agree in 80 characters, handed over", 30_000, async () => {
  const long = "Lanternrose ".repeat(9).trim();
  await keep(await styleOf({ "a.ttf": ttf(long, 80) }));
  await keep(await styleOf({ "b.ttf": ttf(long, 110, "Bold") }));
  await handOver(brief);
});
for (const [name, words] of [
  ["60,000 <", `<p>${"<".repeat(60_000)}`],
  ["999,000 <", `<p>${"<".repeat(999_000)}`],
  ["<br<br …", "<br".repeat(80_000)],
  ["<script <script …", "<p>" + "<script ".repeat(80_000)],
  ["&#9999999;", "<p>&#9999999; &#x2019; &#xD800;"],
] as const)
  await trial(`C2, H6 readme.html of ${name}`, 30_000, async () => {
    const lines = await bringIn({
      "redos.zip": zipSync({ "readme.html": text(words), "a.ttf": ttf(`Redos ${name.length}`, 61 + name.length) }),
    });
    return lines.some((l) => l.styleId) ? undefined : "the font was not taken in";
  });
for (const [name, words] of [
  ["CC---", `CC${"-".repeat(19_000)}`],
  [", the", ", the ".repeat(3_300)],
  ["plain sentences", "You may use this font for any purpose you like. ".repeat(400)],
  ["lines of a", "a\n".repeat(9_900)],
  ["if if if", "if ".repeat(6_600)],
  ["only for", "only for ".repeat(2_200)],
] as const)
  await trial(`C3 terms of ${name}`, 8_000, async () => {
    const { status } = await server.api(`/styles/${plain}/evidence`, {
      method: "POST",
      json: { kind: "user", text: words.slice(0, 20_000), note: "" },
    });
    return status < 500 ? undefined : `status ${status}`;
  });
await trial("C3 a licence of 399 KB of plain sentences", 25_000, async () => {
  const words = "You may use this font for any purpose you like and enjoy it. ".repeat(6_500);
  await bringIn({ "long.zip": zipSync({ "licence.txt": text(words), "a.ttf": ttf("Long Terms", 66) }) });
});
await trial("C4 four vector pictures, then a plain one", 40_000, async () => {
  const filters = '<feGaussianBlur stdDeviation="40"/>'.repeat(400);
  const svg = text(
    `<svg xmlns="http://www.w3.org/2000/svg" width="7000" height="7000"><filter id="f">${filters}</filter><rect width="7000" height="7000" filter="url(#f)"/></svg>`,
  );
  for (let i = 0; i < 4; i++) {
    const { body } = await identify(svg, "filter.svg");
    if (body.error?.code !== "picture-broken") return `told as ${body.error?.code}`;
  }
  const after = await identify(picture);
  return after.body.error?.code === "picture-too-long" ? "a plain picture is too long now" : undefined;
});
await trial("C5 50,000 characters on one glyph: glyphs, anatomy", 30_000, async () => {
  const id = await styleOf({ "many.ttf": await withTables(ttf("Many", 64), { cmap: cmapOfMany(50_000, 30) }) });
  for (const what of ["glyphs", "anatomy"]) if ((await server.api(`/styles/${id}/${what}`)).status >= 500) return what;
  return healthy();
});
await trial("C5 40 features that turn a letter into 32,768", 60_000, async () => {
  const id = await styleOf({
    "gsub.ttf": await withTables(ttf("Multiplies", 65), { GSUB: gsubThatMultiplies(40, 40) }),
  });
  for (let i = 0; i < 3; i++) await server.api(`/styles/${id}/glyphs`);
  const after = await server.api(`/styles/${plain}/glyphs`);
  return after.status === 200 ? undefined : `glyphs of another style: ${after.status}`;
});
await trial(
  "C6, M8 a folder with a pipe, a device's name, a name that is no UTF-8, a locked folder",
  30_000,
  async () => {
    const folder = join(data, "..", `${data.split("/").pop()}-folder`);
    mkdirSync(join(folder, "locked"), { recursive: true });
    execFileSync("mkfifo", [join(folder, "x.ttf")]);
    writeFileSync(
      Buffer.concat([Buffer.from(`${folder}/`), Buffer.from([0xff, 0xfe]), Buffer.from(".ttf")]),
      ttf("No Utf8", 67),
    );
    writeFileSync(join(folder, "sound.ttf"), ttf("Sound In Folder", 68));
    const { status } = await server.api("/libraries", {
      method: "POST",
      json: { kind: "folder", address: folder, name: "Pipes" },
    });
    await waitIdle(server);
    const found = (await server.api<{ total: number }>("/styles?q=sound%20in%20folder")).body.total;
    rmSync(folder, { recursive: true, force: true });
    return status === 201 && found ? undefined : `status ${status}, ${found} found`;
  },
);

// A catalogue that does not behave.
const open = "http://opds-spec.org/acquisition/open-access";
let pages = 0;
const catalogue = createServer((request, response) => {
  const path = new URL(request.url!, "http://x").pathname;
  const say = (body: unknown, status = 200) => {
    response.writeHead(status, { "content-type": "application/opds+json" });
    response.end(typeof body === "string" || body instanceof Uint8Array ? body : JSON.stringify(body));
  };
  const publication = (id: string, href: string) => ({
    metadata: { identifier: id, title: id },
    links: [{ rel: open, href, type: "application/zip" }],
  });
  const feed = (publications: unknown[], links: unknown[] = []) =>
    say({ metadata: { title: "Hostile" }, links, publications });
  if (path === "/next-self") return feed([], [{ rel: "next", href: "/next-self" }]);
  if (path === "/endless" || path.startsWith("/page")) return feed([], [{ rel: "next", href: `/page${++pages}` }]);
  if (path === "/bad-links")
    return feed([publication("a", "http://["), publication("b", "/%E0%A4%A"), publication("c", "/good.zip")]);
  if (path === "/good.zip") return say(zipSync({ "good.ttf": ttf("From Catalogue", 69) }));
  if (path === "/inner")
    return feed([
      publication("m", "http://169.254.169.254/latest"),
      publication("o", `${server.url}/api/v1/health`),
      publication("r", "/redirect"),
    ]);
  if (path === "/redirect") return response.writeHead(302, { location: `${server.url}/api/v1/briefs` }).end();
  if (path === "/huge") return say(`{"metadata":{"title":"${"x".repeat(9e6)}"}}`);
  if (path === "/deep") return say("[".repeat(200_000));
  if (path === "/slow") return void response.write("{");
  return say("", 404);
});
await new Promise<void>((r) => catalogue.listen(0, "127.0.0.1", r));
const catalogueAt = catalogue.address();
const home = `http://127.0.0.1:${typeof catalogueAt === "object" && catalogueAt ? catalogueAt.port : 0}`;
for (const path of ["/next-self", "/endless", "/bad-links", "/inner", "/huge", "/deep", "/%E0%A4%A"])
  await trial(`H4 to H6 a catalogue at ${path}`, 90_000, async () => {
    const { status } = await server.api("/libraries", {
      method: "POST",
      json: { kind: "opds", address: home + path, name: `Hostile ${path.slice(1, 6)}` },
    });
    await waitIdle(server, 80_000);
    if (path === "/bad-links" && !(await server.api<{ total: number }>("/styles?q=from%20catalogue")).body.total)
      return "the good one was not taken";
    return status < 500 || status === 502 || status === 504 ? healthy() : `status ${status}`;
  });

await trial("H7 a font of coloured layers in the hand-over and contact sheet", 40_000, async () => {
  await keep(await styleOf({ "colr.ttf": await withTables(ttf("Coloured", 70), colourTables()) }));
  if ((await fetch(`${server.url}/api/v1/briefs/${brief}/contact-sheet`)).status !== 200) return "no contact sheet";
  await handOver(brief);
});
await trial("H8 a file that is missing from the store, and one that was changed", 60_000, async () => {
  const [gone, changed] = [ttf("Gone", 90), ttf("Changed", 95)];
  const ids = [await styleOf({ "gone.ttf": gone }), await styleOf({ "changed.ttf": changed })];
  const store = join(data, "store");
  const shaOf = async (id: string) => (await server.api<{ sha256: string }>(`/styles/${id}`)).body.sha256;
  const [a, b] = [await shaOf(ids[0]!), await shaOf(ids[1]!)];
  rmSync(join(store, a.slice(0, 2), a));
  writeFileSync(join(store, b.slice(0, 2), b), "something else");
  const told = await Promise.all(ids.map((id) => server.api<{ error: { code: string } }>(`/styles/${id}/file`)));
  if (told[0]!.body.error?.code !== "file-missing" || told[1]!.body.error?.code !== "file-changed") return "not told";
  const seen = await identify(picture);
  if (seen.status >= 500) return `identification ${seen.status}`;
  await bringIn({ "gone.ttf": gone, "changed.ttf": changed });
  for (const id of ids) if ((await fetch(`${server.url}/api/v1/styles/${id}/file`)).status !== 200) return "not mended";
});
await trial("H9 a second server on the same folder", 20_000, async () => {
  const second = await startServer(data, await freePort());
  try {
    await new Promise((r) => setTimeout(r, 4_000));
    const told = await second.api<{ error: { code: string } }>("/health");
    return told.body?.error?.code === "data-in-use" ? undefined : `it says ${JSON.stringify(told.body)}`;
  } finally {
    await second.kill();
  }
});
await trial("H11 20 identifications at once: answered, or told their place", 120_000, async () => {
  const all = await Promise.all(Array.from({ length: 20 }, () => identify(picture)));
  const odd = all.filter(
    (a) =>
      a.status !== 200 &&
      a.body.error?.code !== "busy" &&
      a.body.error?.code !== "text-unknown" &&
      a.body.error?.code !== "no-ink",
  );
  return odd.length ? `${odd.length}: ${odd[0]!.body.error?.code}` : undefined;
});
await trial("M1 600 MB without a length, 50 MB of JSON", 60_000, async () => {
  const endless = (bytes: number) =>
    new ReadableStream<Uint8Array>({
      pull(controller) {
        if ((bytes -= 1 << 20) < 0) controller.close();
        else controller.enqueue(new Uint8Array(1 << 20));
      },
    });
  const boundary = "x";
  const head = text(`--${boundary}\r\ncontent-disposition: form-data; name="files"; filename="big.ttf"\r\n\r\n`);
  const body = new ReadableStream<Uint8Array>({
    async start(controller) {
      controller.enqueue(head);
      const reader = endless(600 << 20).getReader();
      for (let r = await reader.read(); !r.done; r = await reader.read()) {
        controller.enqueue(r.value);
        await new Promise((next) => setImmediate(next));
      }
      controller.close();
    },
  });
  const big = await fetch(`${server.url}/api/v1/imports`, {
    method: "POST",
    headers: { "content-type": `multipart/form-data; boundary=${boundary}` },
    body,
    duplex: "half",
  } as RequestInit).then(
    (r) => r.status,
    () => 413,
  );
  const json = await fetch(`${server.url}/api/v1/briefs`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: `{"name":"${"x".repeat(50e6)}"}`,
  }).then(
    (r) => r.status,
    () => 413,
  );
  return big >= 400 && big < 500 && json === 413 ? undefined : `${big}, ${json}`;
});
await trial("M2 PDFs that unpack to 900 MB", 90_000, async () => {
  const inner = deflateSync(Buffer.alloc(9e8), { level: 9 });
  const twice = deflateSync(inner);
  const pdf = Buffer.concat([
    Buffer.from(
      `%PDF-1.4\n1 0 obj<</Type/Catalog/Pages 2 0 R>>endobj\n2 0 obj<</Type/Pages/Kids[3 0 R]/Count 1>>endobj\n3 0 obj<</Type/Page/Parent 2 0 R/Contents 4 0 R>>endobj\n4 0 obj<</Length ${twice.length}/Filter[/FlateDecode/FlateDecode]>>stream\n`,
    ),
    twice,
    Buffer.from("\nendstream endobj\ntrailer<</Root 1 0 R>>\n"),
  ]);
  const form = new FormData();
  form.append("document", new File([new Uint8Array(pdf)], "bomb.pdf"));
  await server.api("/documents", { method: "POST", body: form });
  return healthy();
});
await trial("M3 40 archives of 100 in one, and zips of zips", 60_000, async () => {
  const small: Zippable = Object.fromEntries(Array.from({ length: 100 }, (_, i) => [`${i}.txt`, text("x")]));
  const one = zipSync(small);
  const many: Zippable = Object.fromEntries(Array.from({ length: 400 }, (_, i) => [`z${i}.zip`, one]));
  const lines = await bringIn({ "nested.zip": zipSync(many) });
  return lines.length < 6_000 && lines.some((l) => l.code === "archive-too-many") ? undefined : `${lines.length} lines`;
});
await trial("M4 three uploads of one name", 30_000, async () => {
  const form = new FormData();
  for (const stem of [41, 44, 47])
    form.append("files", new File([ttf(`Same Name ${stem}`, stem) as BlobPart], "font.ttf"));
  const { body } = await server.api<{ importId: string }>("/imports", { method: "POST", body: form });
  await waitIdle(server);
  const lines = (await server.api<{ items: Line[] }>(`/imports/${body.importId}`)).body.items;
  return lines.length === 3 ? undefined : `${lines.length} lines`;
});
await trial("M5 names that systems fold into one, and devices", 40_000, async () => {
  for (const [i, family] of ["CASE CLASH", "Case Clash", "case clash", "NUL", "..", "Foo", "Foo+"].entries())
    await keep(await styleOf({ "a.ttf": ttf(family, 120 + 3 * i) }));
  const zip = await handOver(brief);
  const names = [
    ...Buffer.from(zip!)
      .toString("latin1")
      .matchAll(/fonts\/[ -~]+?\.ttf/g),
  ].map((m) => m[0].toLowerCase());
  const odd = names.filter((n) => /\/(?:nul|con)[ .]*\.ttf$|\/[. ]/.test(n));
  return odd.length
    ? odd.join()
    : new Set(names).size * 2 === names.length || new Set(names).size === names.length
      ? undefined
      : "two files of one name";
});
await trial("M6, M7 kept identifications that hold markup, addresses and texts", 20_000, async () => {
  const state = (over: Record<string, unknown>) =>
    JSON.stringify({
      frame: null,
      corners: null,
      text: "a",
      isTyped: false,
      result: {
        reading: { text: "a", confidence: 1, given: true, letters: [] },
        matches: [],
        notInLibraries: { chance: 0 },
        strip: {
          png: "data:image/png;base64,",
          widthPx: 1,
          heightPx: 1,
          slopeDeg: 0,
          cut: "letters",
          reading: "plain",
          leanTan: 0,
          ...over,
        },
        areas: [],
        compared: 0,
        tookMs: 0,
      },
    });
  const send = async (image: Uint8Array, json: string) => {
    const form = new FormData();
    form.append("image", new File([image as BlobPart], "a.png", { type: "image/png" }));
    form.append("state", json);
    return (await server.api(`/briefs/${brief}/identifications`, { method: "POST", body: form })).status;
  };
  const statuses = [
    await send(picture, state({ png: "http://elsewhere.example/x.png" })),
    await send(text("no picture"), state({})),
  ];
  return statuses.every((s) => s === 400) ? undefined : statuses.join();
});
for (const q of [
  "constructor",
  "__proto__",
  "toString valueOf",
  "hasOwnProperty",
  "%",
  "\u0000",
  "𝔊",
  "ع".repeat(200),
  "a".repeat(4000),
])
  await trial(`M11 words “${q.slice(0, 20)}”`, 5_000, async () => {
    const { status } = await server.api(`/styles?q=${encodeURIComponent(q)}&limit=5`);
    return status < 500 ? undefined : `status ${status}`;
  });
await trial("M11 a brief with half a character in its name", 10_000, async () => {
  const { body } = await server.api<{ briefId: string }>("/briefs", { method: "POST", json: { name: "half \ud800" } });
  await server.api(`/briefs/${body.briefId}/kept/${plain}`, { method: "PUT", json: {} });
  for (const what of ["shortlist", "credits", "spdx", "contact-sheet"])
    if ((await fetch(`${server.url}/api/v1/briefs/${body.briefId}/${what}`)).status >= 500) return what;
});

/** The mass: so many of each, by the hundred. */
const share = (part: number) => Math.round(Math.max(0, count - inputs) * part);
const fonts = share(0.42);
const bases = [
  ttf("Base", 60),
  writeOpenType(face(75), fontFacts({ family: "Base" })),
  await withTables(ttf("Base", 63), { GSUB: gsubThatMultiplies(3, 30, 2, 2) }),
];
const mutations = [flipBits(12), putNoise(400), cutShort];
say(`${fonts} damaged fonts …`);
for (let from = 0; from < fonts; from += 100) {
  const files: Zippable = {};
  for (let i = from; i < Math.min(fonts, from + 100); i++) files[`${i}.ttf`] = mutate(bases, mutations, i);
  await trial(`fonts ${from}`, 300_000, async () => {
    const lines = await bringIn({ [`fonts ${from}.zip`]: zipSync(files) });
    inputs += Object.keys(files).length - 1;
    return lines.length === Object.keys(files).length
      ? undefined
      : `${lines.length} lines for ${Object.keys(files).length} files`;
  });
}
const images = await Promise.all(
  (["png", "jpeg", "webp", "gif", "tiff", "avif"] as const).map(
    async (f) => new Uint8Array(await sharp(picture).toFormat(f).toBuffer()),
  ),
);
const many = async (name: string, n: number, atOnce: number, one: (i: number) => Promise<number>) => {
  say(`${n} ${name} …`);
  let next = 0;
  await trial(name, 3_000_000, async () => {
    const odd: string[] = [];
    await Promise.all(
      Array.from({ length: atOnce }, async () => {
        while (next < n) {
          const i = next++;
          const status = await one(i).catch((e: Error) => (odd.push(`${i}: ${e.message}`), 0));
          if (status === 500) odd.push(`${i}: 500`);
        }
      }),
    );
    inputs += n - 1;
    return odd.length ? odd.slice(0, 3).join("; ") : undefined;
  });
};
const form = (field: string, bytes: Uint8Array, name: string) => {
  const f = new FormData();
  f.append(field, new File([bytes as BlobPart], name));
  return f;
};
await many("pictures", share(0.25), 3, async (i) => {
  const bytes = mutate(images, mutations, i);
  if (i % 12 === 0) return (await identify(bytes)).status;
  return (await server.api(`/briefs/${brief}/picture`, { method: "PUT", body: form("image", bytes, "a.png") })).status;
});
const html = text(
  "<html><style>@font-face{font-family:Lora;src:url(a.woff2)}p{font:12px Lora}</style><p>Quay</p></html>",
);
const docs = [
  html,
  text("%PDF-1.4\n1 0 obj<</Type/Catalog>>endobj\ntrailer<</Root 1 0 R>>"),
  zipSync({ "word/document.xml": html, "[Content_Types].xml": html }),
  new Uint8Array(gzipSync(html)),
];
await many(
  "documents",
  share(0.3),
  3,
  async (i) =>
    (
      await server.api("/documents", {
        method: "POST",
        body: form("document", mutate(docs, mutations, i), ["a.html", "a.pdf", "a.docx", "a.svg"][i % 4]!),
      })
    ).status,
);
const terms = [
  "You may use this font for personal projects only. Commercial use requires a licence.",
  "Licensed under the SIL Open Font License, Version 1.1.",
  "<p>Frei für <b>private</b> Zwecke.</p>",
].map(text);
await many("texts", share(0.5), 2, async (i) => {
  const random = seeded(i);
  const words = new TextDecoder().decode(mutate(terms, mutations, i)).repeat(1 + int(random, 40));
  const { status, body } = await server.api<{ evidenceId?: string }>(`/styles/${plain}/evidence`, {
    method: "POST",
    json: { kind: "user", text: words.slice(0, 20_000), note: "" },
  });
  // More than a dozen are refused: what was read makes place for the next.
  if (body.evidenceId)
    await server.api(`/styles/${plain}/evidence/${body.evidenceId}`, { method: "PATCH", json: { removed: true } });
  return status;
});
const paths = [
  "/styles",
  `/styles/${plain}`,
  `/styles/${plain}/glyphs`,
  `/styles/${plain}/alike`,
  "/suggestions",
  "/log",
  `/briefs/${brief}`,
  `/briefs/${brief}/checks`,
  "/jobs/x",
  "/libraries/x/search",
];
await many("requests", Math.max(0, count - inputs), 6, async (i) => {
  const random = seeded(i);
  const words = Array.from({ length: 1 + int(random, 30) }, () =>
    String.fromCodePoint(32 + int(random, i % 3 ? 900 : 60_000)),
  ).join("");
  const key = ["q", "sort", "limit", "cursor", "briefId", "letter", "block", "weight"][int(random, 8)]!;
  const url = `${server.url}/api/v1${paths[int(random, paths.length)]}?${key}=${encodeURIComponent(words.toWellFormed())}`;
  return (await fetch(url)).status;
});
catalogue.close();

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
  `${inputs} inputs; health asked ${watched.asked} times: median ${watched.p50.toFixed(0)} ms, p99 ${watched.p99.toFixed(0)} ms, longest ${watched.most.toFixed(0)} ms, over a second ${watched.late} times; ${Math.round(watched.mostMb)} MB at most in all processes; database ${Math.round(log / 1e6)} MB`,
);
process.exit(faults.length ? 1 : 0);
