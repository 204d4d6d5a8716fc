// Every font of the demo library, measured and read as the server does, as rows to find by: for evaluations without a server.
import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { extractDescriptors } from "../../src/core/descriptors/extractDescriptors";
import { classifyFont } from "../../src/core/kind/classifyFont";
import { measureFont } from "../../src/core/measure/measureFont";
import { measureReach } from "../../src/core/measure/reach";
import { openFont } from "../../src/core/open/openFont";
import { openFace } from "../../src/core/outlines/openFace";
import { readRights } from "../../src/core/rights/readRights";
import { verdictsOf } from "../../src/core/rights/verdicts";
import type { FindRow } from "../../src/core/find/findIndex";
import { listDemoFonts, readDemoTerms } from "../../demo/packages";

/** --again takes what the last run read. */
export async function readRows(): Promise<FindRow[]> {
  const cache = "dist-workers/findRows.json";
  if (process.argv.includes("--again") && existsSync(cache))
    return JSON.parse(readFileSync(cache, "utf8")) as FindRow[];
  const rows: FindRow[] = [];
  const rights = new Map<string, FindRow["verdicts"]>();
  for (const entry of listDemoFonts(process.cwd())) {
    const font = await openFont(readFileSync(entry.path));
    const face = openFace(font.sfnt);
    const measured = measureFont(face);
    const classified = classifyFont({
      measured,
      signature: extractDescriptors(face),
      family: font.family ?? entry.family,
      features: font.features,
    });
    let verdicts = rights.get(entry.packageFolder);
    if (!verdicts) {
      const { licenceText } = readDemoTerms(entry.packageFolder);
      verdicts = verdictsOf(
        readRights([{ kind: "licence-file", source: "LICENSE", date: "", text: licenceText ?? "" }]),
      );
      rights.set(entry.packageFolder, verdicts);
    }
    rows.push({
      styleId: entry.name,
      familyId: entry.family,
      family: entry.family,
      style: font.style,
      library: "open-collection",
      kinds: classified.kinds,
      treatments: classified.treatments,
      moods: classified.moods,
      vox: classified.vox?.value ?? null,
      traits: measured.traits,
      reach: font.axes.length ? measureReach(font.sfnt, font.axes, measured.traits).reach : undefined,
      verdicts,
      coverage: font.codePoints,
      features: font.features,
      axes: Object.fromEntries(font.axes.map((a) => [a.tag, a.default])),
      addedAt: "2026-11-25",
      health: font.health.degree,
      owned: true,
      price: null,
    });
  }
  writeFileSync(cache, JSON.stringify(rows));
  return rows;
}
