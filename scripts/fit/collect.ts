// Opens and measures every font of the demo library and prints one JSON line a style: input of the fitting scripts.
// Run: npm run fit:collect > measured.jsonl
import { readdirSync, readFileSync } from "node:fs";
import { openFont } from "../../src/core/open/openFont";
import { openFace } from "../../src/core/outlines/openFace";
import { measureFont } from "../../src/core/measure/measureFont";
import { extractDescriptors } from "../../src/core/descriptors/extractDescriptors";
import { classifyFont } from "../../src/core/kind/classifyFont";
import { formOf } from "../../src/core/measure/forms";
import { lettersOf } from "../../src/core/measure/letters";

const root = "node_modules/@fontsource";
for (const id of readdirSync(root)) {
  const meta = JSON.parse(readFileSync(`${root}/${id}/metadata.json`, "utf8")) as { category: string };
  for (const file of readdirSync(`${root}/${id}/files`)) {
    const m = file.match(/-latin-(\d+)-(normal|italic)\.woff2$/);
    if (!m) continue;
    const font = await openFont(readFileSync(`${root}/${id}/files/${file}`));
    const face = openFace(font.sfnt);
    const started = process.cpuUsage();
    const measured = measureFont(face);
    const classified = classifyFont({
      measured,
      signature: extractDescriptors(face),
      family: font.family ?? id,
      features: font.features,
    });
    const used = process.cpuUsage(started);
    const letters = lettersOf(face);
    const forms = Object.fromEntries(
      [..."ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz"].flatMap((c) => {
        const l = letters.get(c);
        return l ? [[c, [...formOf(letters, l)].map((v) => Number(v.toFixed(3)))]] : [];
      }),
    );
    const out = {
      id,
      file,
      weightStated: Number(m[1]),
      italic: m[2] === "italic",
      category: meta.category,
      family: font.family,
      style: font.style,
      os2: font.os2,
      italicAngleDeg: font.italicAngleDeg,
      em: font.unitsPerEm,
      features: font.features,
      ms: (used.user + used.system) / 1000,
      ...measured,
      ...classified,
      forms,
    };
    console.log(JSON.stringify(out));
  }
}
