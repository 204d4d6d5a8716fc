// npm run trust:copies [pairs]: renamed copies of one another with terms that differ, taken in in either order. None may be cleared by the
// other's terms, take over its name, or fail to say whose letters it has. Ends with 1 otherwise.
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { SANS } from "../../demo/foundry/design";
import { drawFace } from "../../demo/foundry/face";
import { seededRandom } from "../../src/core/geometry/numbers";
import { writeOpenType, writeTrueType, writeWoff } from "../../demo/foundry/write/writeFont";
import type { Evidence } from "../../src/contracts/rights";
import { USES, type Use, type Verdict } from "../../src/contracts/traits";
import { readRights } from "../../src/core/rights/readRights";
import { openDatabase } from "../../src/server/db/open";
import { closePools, readFontInWorker } from "../../src/server/workers/pool";
import { putLibrary } from "../../src/server/queries/libraries";
import { findStyle } from "../../src/server/queries/styles";
import { takeFont } from "../../src/server/store/takeFont";
import { fontFacts, LETTERS } from "../../tests/fixtures/fontFacts";

const pairs = Number(process.argv[2] ?? 100);
const random = seededRandom(77);
const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
const folder = mkdtempSync(join(tmpdir(), "fond-quarry-copies-"));
process.env.FOND_QUARRY_DATA = folder;

const FREE = [
  "This Font Software is licensed under the SIL Open Font License, Version 1.1.",
  "Free for personal and commercial use.",
  "Licensed under the Apache License, Version 2.0.",
  "Public domain (CC0). Do what you want with it.",
  "100% free!! found on a font forum",
  "Kostenlos für private und kommerzielle Zwecke.",
  "Utilisation libre, personnelle et commerciale.",
];
const STRICT = [
  "Personal use only. Embedding is not allowed.",
  "Commercial use requires a licence. Buy it at the shop.",
  "Nur für den privaten Gebrauch.",
  "Usage personnel uniquement. Pour un usage commercial, contactez-nous.",
  "All rights reserved. Do not use without permission.",
  "",
];
const MAKERS = ["TIDE", "ROPE", "HALY", "IDAM"];
const text = (words: string): Evidence[] =>
  words
    ? [{ kind: pick(["readme", "licence-file"] as const), source: "terms.txt", date: "2026-11-25", text: words }]
    : [];
const opens = (v: Verdict) => v === "cleared" || v === "cleared-with-credit";

const db = openDatabase(join(folder, "fond-quarry.db"));
putLibrary(db, "own", "Own", "own", "2026-11-25");
const faults: string[] = [];
let same = 0;
for (let i = 0; i < pairs; i++) {
  const face = drawFace(
    { ...SANS, stem: 50 + (i % 50) * 2, width: 0.7 + Math.floor(i / 50) * 0.2 },
    { characters: LETTERS },
  );
  const write = (family: string) => {
    const facts = { ...fontFacts({ family }), vendor: pick(MAKERS) };
    const bytes = pick([writeTrueType, writeOpenType])(face, facts);
    return random() < 0.3 ? writeWoff(bytes) : bytes;
  };
  const sides = [
    { family: `Lantern ${i}`, evidence: text(pick(FREE)) },
    { family: `Saltmarsh ${i}`, evidence: text(pick(STRICT)) },
  ];
  if (random() < 0.5) sides.reverse();
  const ids: string[] = [];
  for (const { family, evidence } of sides) {
    const bytes = write(family);
    const reply = await readFontInWorker({ bytes, fallbackFamily: family });
    if (!reply.ok) throw new Error(reply.code);
    const source = { libraryId: "own", path: `${family}/font`, statedFamily: null, evidence };
    ids.push((await takeFont(db, bytes, reply.reading, source)).styleId);
  }
  if (ids[0] === ids[1]) {
    faults.push(`${i}: merged`);
    continue;
  }
  for (const [k, { family, evidence }] of sides.entries()) {
    const record = findStyle(db, ids[k]!)!;
    // What its own terms alone would give: the link may only close.
    const own = readRights([
      ...evidence,
      ...record.rights.evidence.filter((e) => ["name-table", "fs-type"].includes(e.kind)),
    ]);
    for (const use of USES as readonly Use[]) {
      const [is, alone] = [record.rights.verdicts[use].verdict, own.verdicts[use].verdict];
      if (opens(is) && !opens(alone)) faults.push(`${i}: ${family} cleared for ${use} by the other's terms`);
    }
    if (record.family !== family) faults.push(`${i}: ${family} goes by ${record.family}`);
    if (!record.rights.sameLetters?.length) faults.push(`${i}: ${family} does not say whose letters it has`);
    else same++;
  }
}
closePools();
db.close();
rmSync(folder, { recursive: true, force: true });
console.error(faults.slice(0, 20).join("\n"));
console.error(
  `${pairs} pairs of renamed copies: ${faults.length} faults; ${same} of ${2 * pairs} say whose letters they have`,
);
process.exit(faults.length ? 1 : 0);
