// The mass: damaged fonts, pictures, documents, texts and requests, so many of each.
import { gzipSync } from "node:zlib";
import { zipSync, type Zippable } from "fflate";
import sharp from "sharp";
import { seededRandom } from "../../src/core/geometry/numbers";
import { writeOpenType } from "../../demo/foundry/write/writeFont";
import { fontFacts } from "../../tests/fixtures/fontFacts";
import { cutShort, flipBits, int, mutate, putNoise } from "../mutations";
import { gsubThatMultiplies, withTables } from "./hostileFonts";
import { face, say, text, ttf, type Trials } from "./hostileTrials";

/** @param count - inputs in all, with those that were given before. */
export async function tryMass(
  { server, trial, bringIn, brief, identify, plain, picture, inputs }: Trials,
  count: number,
) {
  const share = (part: number) => Math.round(Math.max(0, count - inputs.count) * part);
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
      inputs.count += Object.keys(files).length - 1;
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
      inputs.count += n - 1;
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
    return (await server.api(`/briefs/${brief}/picture`, { method: "PUT", body: form("image", bytes, "a.png") }))
      .status;
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
    const random = seededRandom(i);
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
  await many("requests", Math.max(0, count - inputs.count), 6, async (i) => {
    const random = seededRandom(i);
    const words = Array.from({ length: 1 + int(random, 30) }, () =>
      String.fromCodePoint(32 + int(random, i % 3 ? 900 : 60_000)),
    ).join("");
    const key = ["q", "sort", "limit", "cursor", "briefId", "letter", "block", "weight"][int(random, 8)]!;
    const url = `${server.url}/api/v1${paths[int(random, paths.length)]}?${key}=${encodeURIComponent(words.toWellFormed())}`;
    return (await fetch(url)).status;
  });
}
