// Measured against true: every font of the made-up foundry is read as any other file and compared with what it was drawn from.
// npm run eval:foundry [folder]
import { existsSync, readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import type { Truth } from "../../demo/foundry/build";
import { buildFoundry } from "../../demo/foundry/build";
import readFont from "../../src/server/workers/readFont.worker";

const folder = process.argv[2] ?? join(".cache", "foundry");
if (!existsSync(folder)) buildFoundry(folder);
const wrong: string[] = [];
const worst: Record<string, number> = {};
let count = 0;
for (const name of readdirSync(folder)
  .filter((f) => f.endsWith(".json"))
  .sort()) {
  const truth = JSON.parse(readFileSync(join(folder, name), "utf8")) as Truth;
  for (const format of ["ttf", "otf"]) {
    const path = join(folder, name.replace(".json", `.${format}`));
    if (!existsSync(path)) continue;
    count++;
    const reply = await readFont({ bytes: new Uint8Array(readFileSync(path)), fallbackFamily: truth.family });
    const who = `${truth.family} ${truth.style} (${format})`;
    if (!reply.ok) {
      wrong.push(`${who}: refused, ${reply.code}`);
      continue;
    }
    const { traits } = reply.reading.measured;
    const kinds = reply.reading.classified.kinds.map((k) => `${k.value} ${k.confidence.toFixed(2)}`).join(", ");
    const treatments = reply.reading.classified.treatments.map((k) => k.value);
    const say = (what: string) => wrong.push(`${who}: ${what}`);
    if (truth.picture !== traits.picture) say(`picture ${traits.picture}`);
    if (truth.picture) continue;
    for (const key of ["stemEm", "widthEm", "xHeightEm", "capHeightEm"] as const) {
      const [is, should] = [traits[key], truth[key]!];
      const off = is === null ? Infinity : Math.abs(is / should - 1);
      if (is !== null) worst[key] = Math.max(worst[key] ?? 0, off);
      if (off > 0.02) say(`${key} ${is?.toFixed(4)} instead of ${should.toFixed(4)}`);
    }
    const lean = traits.slantDeg === null ? Infinity : Math.abs(traits.slantDeg - truth.slantDeg!);
    if (lean < Infinity) worst.slantDeg = Math.max(worst.slantDeg ?? 0, lean);
    if (lean > 0.5) say(`slant ${traits.slantDeg?.toFixed(2)} instead of ${truth.slantDeg}`);
    if (traits.serif === null || traits.serif >= 0.5 !== truth.serif)
      say(`serif ${traits.serif?.toFixed(2)} instead of ${truth.serif}`);
    if (traits.connected === null || traits.connected >= 0.5 !== truth.connected)
      say(`connected ${traits.connected?.toFixed(2)}`);
    if (traits.monospaced !== truth.monospaced) say(`monospaced ${traits.monospaced}`);
    if (truth.treatment && !treatments.includes(truth.treatment))
      say(`treatments [${treatments.join(" ")}] lack ${truth.treatment}`);
    if (process.argv.includes("--all"))
      console.log(who, kinds, treatments.join(" "), reply.reading.opened.health.degree);
  }
}
console.log(wrong.join("\n"));
console.log(
  `\n${count} fonts; largest deviation: ${Object.entries(worst)
    .map(([k, v]) => (k === "slantDeg" ? `${k} ${v.toFixed(2)}°` : `${k} ${(v * 100).toFixed(1)} %`))
    .join(", ")}; ${wrong.length} outside of 2 % and 0.5°`,
);
