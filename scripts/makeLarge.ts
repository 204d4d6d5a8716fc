// Fills a data folder with many styles by varying measured records of the ones that are there:
// for the benchmark alone.
// Usage: runScript scripts/makeLarge.ts <data folder> <count>. Every row is a real one, slightly changed, and is set in the real one's file.
import Database from "better-sqlite3";
import { createHash } from "node:crypto";
import { join } from "node:path";
import { seededRandom } from "../src/core/geometry/numbers";
import { ABSENT, BYTES_PER_CHARACTER, SIGNATURE_BYTES } from "../src/core/descriptors/extractDescriptors";
import { FORM_LENGTH } from "../src/core/measure/cellForm";

const [data, wanted] = [process.argv[2]!, Number(process.argv[3] ?? 100_000)];
const db = new Database(join(data, "fond-quarry.db"));
db.pragma("journal_mode = WAL");
db.pragma("synchronous = OFF");

/** Two runs make the same library. */
const random = seededRandom(20261125);
const FIRST =
  "Anchor Beacon Brine Cairn Capstan Cobble Current Dapple Drift Ebb Ferry Fog Gale Gannet Gull Harbour Hawser Heron Inlet Jetty Keel Kelp Lamp Lantern Lee Mast Mist Moor Oar Osprey Pebble Petrel Pier Plover Quay Reef Rill Rope Sable Salt Sand Shoal Skerry Slate Sound Spar Spray Squall Tarn Tern Tide Voe Wake Wharf Wick Wren".split(
    " ",
  );
const SECOND =
  "ama ber con dor el fen gil hart is jor kel lund mar nes or pell quin ros sel tor ul ven wick yar zel bry cass del ess ford".split(
    " ",
  );
const THIRD = ["", "", "", " Display", " Text", " Sans", " Slab", " Script", " Mono", " Soft", " Narrow"];

/** Traits that are numbers move a little; what is none stays. */
function vary(traitsText: string, by: number): string {
  const traits = JSON.parse(traitsText) as Record<string, unknown>;
  for (const [k, v] of Object.entries(traits))
    if (typeof v === "number" && !["storeysA", "storeysG", "connected", "serif"].includes(k)) {
      const moved = v * (1 + by * (random() - 0.5));
      traits[k] = k === "weight" ? Math.round(Math.min(1000, Math.max(1, moved))) : Number(moved.toFixed(4));
    }
  return JSON.stringify(traits);
}

/** Forms and boxes of all letters moved together, so that a copy looks like a face of its own to the coarse stage. */
function varySignature(signature: Uint8Array): Uint8Array {
  const out = signature.slice();
  const view = new DataView(out.buffer);
  const [across, upward] = [0.85 + 0.3 * random(), 0.92 + 0.16 * random()];
  const drift = Array.from({ length: FORM_LENGTH }, () => Math.round(6 * (random() - 0.5)));
  for (let base = 0; base < SIGNATURE_BYTES; base += BYTES_PER_CHARACTER) {
    if (view.getInt16(base + FORM_LENGTH + 8, true) === ABSENT) continue;
    drift.forEach((by, k) => view.setInt8(base + k, Math.max(-127, Math.min(127, view.getInt8(base + k) + by))));
    [across, upward, across, upward, across].forEach((by, k) => {
      const at = base + FORM_LENGTH + 2 * k;
      view.setInt16(at, Math.max(-32767, Math.min(32767, Math.round(view.getInt16(at, true) * by))), true);
    });
  }
  return out;
}

type Row = Record<string, unknown> & { style_id: string; sha256: string; traits: string; family: string };
const base = db.prepare<[], Row>("SELECT * FROM styles WHERE hidden = 0 AND owned = 1").all();
const signatures = new Map(
  db
    .prepare<[], { style_id: string; signature: Uint8Array }>("SELECT * FROM signatures")
    .all()
    .map((r) => [r.style_id, r.signature]),
);
const families = new Map<string, Row[]>();
for (const r of base) families.set(r.family, [...(families.get(r.family) ?? []), r]);
const columns = Object.keys(base[0]!);
const insert = db.prepare(
  `INSERT INTO styles (${columns.join(", ")}) VALUES (${columns.map((c) => `@${c}`).join(", ")})`,
);
const sign = db.prepare("INSERT INTO signatures (style_id, signature) VALUES (?, ?)");
const stage = db.prepare("INSERT INTO style_stages SELECT ?, stage, version FROM style_stages WHERE style_id = ?");
let made = db.prepare<[], { n: number }>("SELECT count(*) AS n FROM styles").get()!.n;
let seq = db.prepare<[], { n: number }>("SELECT max(seq) AS n FROM styles").get()!.n;
const taken = new Set(families.keys());
const groups = [...families.values()];
while (made < wanted) {
  const name = `${FIRST[Math.floor(random() * FIRST.length)]}${SECOND[Math.floor(random() * SECOND.length)]}${SECOND[Math.floor(random() * SECOND.length)]}${THIRD[Math.floor(random() * THIRD.length)]}`;
  if (taken.has(name)) continue;
  taken.add(name);
  const group = groups[Math.floor(random() * groups.length)]!;
  db.transaction(() => {
    for (const row of group) {
      const styleId = `s_${createHash("sha256").update(`${name}${row.sha256}`).digest("hex").slice(0, 20)}`;
      insert.run({
        ...row,
        style_id: styleId,
        family: name,
        family_id: `f_${name.toLowerCase().replace(/[^a-z0-9]+/g, "-")}`,
        traits: vary(row.traits, 0.1),
        seq: ++seq,
      });
      sign.run(styleId, varySignature(signatures.get(row.style_id)!));
      stage.run(styleId, row.style_id);
      made++;
    }
  })();
}
db.pragma("wal_checkpoint(TRUNCATE)");
console.log(`${made} styles of ${taken.size} families`);
db.close();
