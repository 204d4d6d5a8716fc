// npm run eval:scripts: forty fonts of Debian's packages in eight scripts, each under a family name in its script, from the import to the
// archive: named, found (by the name, in Latin letters, by script and language), set without a box, on the contact sheet with the glyphs of
// `hb-shape`, handed over with the same bytes. Fetches the packages by apt.
import { execFileSync } from "node:child_process";
import { createHash } from "node:crypto";
import { mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { basename, join } from "node:path";
import { unzipSync } from "fflate";
import type { ImportItem } from "../../src/contracts/jobs";
import type { StyleDetail, StyleList } from "../../src/contracts/styles";
import { lineFor } from "../../src/core/brief/ownWords";
import { openFont } from "../../src/core/open/openFont";
import { splitCollection } from "../../src/core/open/container";
import { openFace } from "../../src/core/outlines/openFace";
import { glyphsOf, typesetLine } from "../../src/core/typeset/typesetText";
import { toLatin } from "../../src/core/unicode/transliterate";
import { renameFont } from "../../tests/fixtures/renameFont";
import { freePort, startServer, upload, waitIdle, waitUp, type Server } from "../trust/server";

type Script = {
  name: string;
  language: string;
  families: string[];
  line: string;
  fonts: [pack: string, file: RegExp][];
};
/** Five fonts a script, chosen by name before any was opened; families are places of the made-up coast. */
const SCRIPTS: Script[] = [
  {
    name: "cyrillic",
    language: "russian",
    line: "Маяк у гавани",
    families: ["Гавань", "Маяк Северный", "Прибой", "Старый причал", "Ёлка"],
    fonts: [
      ["fonts-paratype", /PTC55F\.ttf$/],
      ["fonts-dejavu-core", /DejaVuSerif\.ttf$/],
      ["fonts-liberation", /LiberationSans-Regular\.ttf$/],
      ["fonts-cantarell", /Cantarell.*\.otf$/],
      ["fonts-jura", /Jura-Regular\.(ttf|otf)$/],
    ],
  },
  {
    name: "greek",
    language: "greek",
    line: "Φάρος στο λιμάνι",
    families: ["Φάρος", "Λιμάνι", "Αιγιαλός", "Κύμα Μικρό", "Ἄγκυρα"],
    fonts: [
      ["fonts-gfs-didot", /GFSDidot\.(ttf|otf)$/],
      ["fonts-gfs-artemisia", /GFSArtemisia\.(ttf|otf)$/],
      ["fonts-gfs-neohellenic", /GFSNeohellenic\.(ttf|otf)$/],
      ["fonts-gfs-bodoni-classic", /\.(ttf|otf)$/],
      ["fonts-freefont-ttf", /FreeSerif\.ttf$/],
    ],
  },
  {
    name: "arabic",
    language: "arabic",
    line: "منارة الميناء القديم",
    families: ["منارة", "الميناء", "موج البحر", "شراع", "مرسى"],
    fonts: [
      ["fonts-hosny-amiri", /Amiri-Regular\.ttf$/],
      ["fonts-sil-scheherazade", /Scheherazade.*Regular\.ttf$/],
      ["fonts-kacst", /KacstBook\.ttf$/],
      ["fonts-sil-lateef", /Lateef.*Regular\.ttf$/],
      ["fonts-noto-core", /NotoKufiArabic-Regular\.ttf$/],
    ],
  },
  {
    name: "hebrew",
    language: "hebrew",
    line: "מגדלור הנמל הישן",
    families: ["מגדלור", "נמל", "גלים", "עוגן ישן", "מפרש"],
    fonts: [
      ["culmus", /FrankRuehlCLM-Medium\.(ttf|otf)$/],
      ["culmus", /DavidCLM-Medium\.(ttf|otf)$/],
      ["culmus", /MiriamCLM-Book\.(ttf|otf)$/],
      ["culmus-fancy", /\.(ttf|otf)$/],
      ["fonts-noto-core", /NotoSerifHebrew-Regular\.ttf$/],
    ],
  },
  {
    name: "devanagari",
    language: "hindi",
    line: "पुराने बंदरगाह का दीपस्तंभ",
    families: ["दीपस्तंभ", "बंदरगाह", "लहर", "पाल", "किनारा"],
    fonts: [
      ["fonts-lohit-deva", /Lohit-Devanagari\.ttf$/],
      ["fonts-samyak-deva", /\.ttf$/],
      ["fonts-sarai", /\.ttf$/],
      ["fonts-gargi", /gargi\.ttf$/i],
      ["fonts-noto-core", /NotoSerifDevanagari-Regular\.ttf$/],
    ],
  },
  {
    name: "thai",
    language: "thai",
    line: "ประภาคารที่ท่าเรือเก่า",
    families: ["ประภาคาร", "ท่าเรือ", "คลื่น", "ใบเรือ", "ชายฝั่ง"],
    fonts: [
      ["fonts-tlwg-kinnari-ttf", /Kinnari\.ttf$/],
      ["fonts-tlwg-purisa-ttf", /Purisa\.ttf$/],
      ["fonts-tlwg-loma-otf", /Loma\.otf$/],
      ["fonts-tlwg-norasi-otf", /Norasi\.otf$/],
      ["fonts-noto-core", /NotoSerifThai-Regular\.ttf$/],
    ],
  },
  {
    name: "han",
    language: "chinese",
    line: "老港口的灯塔",
    families: ["灯塔黑", "老港口", "海岸宋", "帆船", "波浪楷"],
    fonts: [
      ["fonts-wqy-zenhei", /wqy-zenhei\.ttc$/],
      ["fonts-wqy-microhei", /wqy-microhei\.ttc$/],
      ["fonts-arphic-uming", /uming\.ttc$/],
      ["fonts-arphic-ukai", /ukai\.ttc$/],
      ["fonts-droid-fallback", /DroidSansFallbackFull\.ttf$/],
    ],
  },
  {
    name: "hangul",
    language: "korean",
    line: "오래된 항구의 등대",
    families: ["등대", "항구", "파도체", "돛단배", "바닷가"],
    fonts: [
      ["fonts-nanum", /NanumGothic\.ttf$/],
      ["fonts-nanum", /NanumMyeongjo\.ttf$/],
      ["fonts-nanum-extra", /NanumPen\.ttf$/],
      ["fonts-unfonts-core", /UnBatang\.ttf$/],
      ["fonts-baekmuk", /hline\.ttf$/],
    ],
  },
];

const [folder = join(tmpdir(), "fond-quarry-scripts")] = process.argv.slice(2);

/** The files of a package, unpacked once. */
function unpack(pack: string): string[] {
  const to = join(folder, pack);
  mkdirSync(folder, { recursive: true });
  if (!readdirSync(folder).includes(pack)) {
    execFileSync("apt-get", ["download", pack], { cwd: folder, stdio: "ignore" });
    const deb = readdirSync(folder).find((f) => f.startsWith(`${pack}_`) && f.endsWith(".deb"))!;
    execFileSync("dpkg-deb", ["-x", join(folder, deb), to]);
  }
  return readdirSync(to, { recursive: true })
    .map((f) => join(to, String(f)))
    .sort();
}

type Font = { script: Script; family: string; from: string; bytes: Uint8Array; sfnt: Uint8Array };
async function gather(): Promise<Font[]> {
  const fonts: Font[] = [];
  for (const script of SCRIPTS)
    for (const [i, [pack, file]] of script.fonts.entries()) {
      const path = unpack(pack).find((f) => file.test(f));
      if (!path) throw new Error(`${pack} has no ${file}`);
      const whole = new Uint8Array(readFileSync(path));
      const first = /\.ttc$/i.test(path) ? splitCollection(whole)[0]! : whole;
      const family = script.families[i]!;
      const bytes = renameFont((await openFont(first)).sfnt, family);
      fonts.push({ script, family, from: basename(path), bytes, sfnt: (await openFont(bytes)).sfnt });
    }
  return fonts;
}

const LINE = "Skerrow Light";
const STEPS = [
  "imported",
  "named",
  "found",
  "in Latin letters",
  "by script",
  "by language",
  "set",
  "as hb-shape",
  "handed over",
] as const;
type Result = Record<(typeof STEPS)[number], boolean>;

async function run(server: Server, fonts: Font[]) {
  const { api } = server;
  const results = new Map<Font, Result>();
  const items: (ImportItem | undefined)[] = [];
  for (const font of fonts) {
    const name = `${font.from.replace(/\.\w+$/, "")}.${font.bytes[0] === 0x4f ? "otf" : "ttf"}`;
    const importId = await upload(server, { [name]: font.bytes }).catch((e: Error) => {
      throw new Error(`${name} ${font.bytes.length}: ${e.message}`);
    });
    await waitIdle(server);
    items.push((await api<{ items: ImportItem[] }>(`/imports/${importId}`)).body.items[0]);
  }
  const { body: brief } = await api<{ briefId: string }>("/briefs", {
    method: "POST",
    json: { name: "Scripts", lines: [{ text: LINE, role: "title" }], uses: ["private"] },
  });
  const find = async (q: string) =>
    (await api<StyleList>(`/styles?limit=60&briefId=${brief.briefId}&q=${encodeURIComponent(q)}`)).body;
  const kept: string[] = [];
  for (const [i, font] of fonts.entries()) {
    const item = items[i];
    const id = item?.styleId ?? "";
    const { body: detail } = await api<StyleDetail>(`/styles/${id}`);
    const has = (list: StyleList) => list.items.some((s) => s.styleId === id);
    const byName = await find(font.family);
    const latin = toLatin(font.family)!;
    const byScript = await find(font.script.name);
    // What the page would set: words of its own where it has no letter of the line.
    const line = lineFor(LINE, detail.codePoints ?? [], detail.ownWords).text;
    const asked = byScript.items.find((s) => s.styleId === id);
    const own = asked ? lineFor(LINE, detail.codePoints, byScript.ownWords[asked.coverageKey] ?? null) : null;
    const face = openFace(font.sfnt);
    const isSet = (text: string) => !typesetLine(face, text, { coverage: detail.codePoints }).missing.length;
    if (id) {
      await api(`/briefs/${brief.briefId}/kept/${id}`, { method: "PUT", json: {} });
      kept.push(id);
    }
    results.set(font, {
      imported: item?.outcome === "added",
      named: detail.family === font.family,
      found: byName.items[0]?.styleId === id,
      "in Latin letters": has(await find(latin)),
      "by script": has(byScript),
      "by language": has(await find(font.script.language)),
      set: isSet(line) && (own === null || (own.isOwn && isSet(own.text))),
      "as hb-shape": isAsShaped(font, [line, ...(own ? [own.text] : []), font.script.line]),
      "handed over": false,
    });
  }
  await handOver(server, brief.briefId, kept, results);
  return results;
}

/** Whether our typesetting gives the glyphs and advances of the shaper's own program. */
function isAsShaped({ sfnt, from }: Font, lines: string[]): boolean {
  const path = join(folder, "shaped.font");
  writeFileSync(path, sfnt);
  const face = openFace(sfnt);
  return lines.every((line) => {
    const ours = glyphsOf(typesetLine(face, line)).map((g) => [g.glyphId, g.advanceFu]);
    // By OpenType, as browsers do: where it can, the program sets fonts that have Graphite tables by those.
    const text = execFileSync(
      "hb-shape",
      ["--shapers=ot", "--no-glyph-names", "--output-format=json", "--no-clusters", path, line],
      {
        encoding: "utf8",
      },
    );
    const theirs = (JSON.parse(text) as { g: number; ax: number }[]).map(({ g, ax }) => [g, ax]);
    const isSame = JSON.stringify(ours) === JSON.stringify(theirs);
    if (!isSame)
      console.log(
        `  ${from}: “${line}” ${JSON.stringify(ours).slice(0, 120)} ≠ ${JSON.stringify(theirs).slice(0, 120)}`,
      );
    return isSame;
  });
}

async function handOver({ api, url }: Server, briefId: string, kept: string[], results: Map<Font, Result>) {
  const { body: job } = await api<{ jobId: string }>(`/briefs/${briefId}/handover`, {
    method: "POST",
    json: { responsibleFor: kept, web: false },
  });
  for (let i = 0; i < 600; i++) {
    const { body } = await api<{ state: string }>(`/jobs/${job.jobId}`);
    if (body.state === "done" || body.state === "failed") break;
    await new Promise((r) => setTimeout(r, 200));
  }
  const response = await fetch(`${url}/api/v1/jobs/${job.jobId}/file`);
  if (!response.ok) return console.log(`  no archive: ${response.status}`);
  const files = unzipSync(new Uint8Array(await response.arrayBuffer()));
  const shaOf = (bytes: Uint8Array) => createHash("sha256").update(bytes).digest("hex");
  const shas = new Map(Object.entries(files).map(([name, bytes]) => [shaOf(bytes), name]));
  for (const [font, result] of results) {
    const name = shas.get(shaOf(font.sfnt));
    result["handed over"] = name?.normalize("NFC").includes(font.family.normalize("NFC")) ?? false;
  }
  if (!files["contact-sheet.pdf"]) console.log("  no contact sheet in the archive");
  else writeFileSync(join(folder, "contact-sheet.pdf"), files["contact-sheet.pdf"]);
}

const data = mkdtempSync(join(tmpdir(), "fond-quarry-scripts-data-"));
const fonts = await gather();
const server = await startServer(data, await freePort());
await waitUp(server);
try {
  const results = await run(server, fonts);
  for (const [font, result] of results) {
    const failed = STEPS.filter((s) => !result[s]);
    console.log(
      `${font.script.name.padEnd(11)} ${font.from.padEnd(34)} ${font.family.padEnd(16)} ${failed.join(", ") || "all"}`,
    );
  }
  for (const step of STEPS) {
    const right = [...results.values()].filter((r) => r[step]).length;
    console.log(`${step.padEnd(18)} ${right} of ${results.size}`);
  }
  console.log(`The sheet: ${join(folder, "contact-sheet.pdf")}`);
} finally {
  await server.kill();
  rmSync(data, { recursive: true, force: true });
}
