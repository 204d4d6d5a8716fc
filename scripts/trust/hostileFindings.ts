// A trial for each finding of the attack: what would stop, crash or fill a server, by its number there.
import { execFileSync } from "node:child_process";
import { mkdirSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { deflateSync } from "node:zlib";
import { zipSync, type Zippable } from "fflate";
import { cmapOfMany, colourTables, gsubThatMultiplies, withTables } from "./hostileFonts";
import { text, ttf, type Line, type Trials } from "./hostileTrials";
import { freePort, startServer, waitIdle } from "./server";

/** C1 to C6, M8: files and folders. */
export async function tryFiles({
  data,
  server,
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
}: Trials) {
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
    for (const what of ["glyphs", "anatomy"])
      if ((await server.api(`/styles/${id}/${what}`)).status >= 500) return what;
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
}

/** H7 to H11, M1 to M11: what is asked of the server, and what lies in its store. */
export async function tryServer({
  data,
  server,
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
}: Trials) {
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
    for (const id of ids)
      if ((await fetch(`${server.url}/api/v1/styles/${id}/file`)).status !== 200) return "not mended";
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
    return lines.length < 6_000 && lines.some((l) => l.code === "archive-too-many")
      ? undefined
      : `${lines.length} lines`;
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
    const { body } = await server.api<{ briefId: string }>("/briefs", {
      method: "POST",
      json: { name: "half \ud800" },
    });
    await server.api(`/briefs/${body.briefId}/kept/${plain}`, { method: "PUT", json: {} });
    for (const what of ["shortlist", "credits", "spdx", "contact-sheet"])
      if ((await fetch(`${server.url}/api/v1/briefs/${body.briefId}/${what}`)).status >= 500) return what;
  });
}
