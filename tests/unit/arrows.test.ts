// The rooms and their arrows, read from the imports themselves: contracts ← core ← server ← app → ui.
import { describe, expect, test } from "@jest/globals";
import { readdirSync, readFileSync, statSync } from "node:fs";
import { dirname, join, normalize } from "node:path";

const files = (folder: string): string[] =>
  readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    if (statSync(path).isDirectory()) return files(path);
    return /\.tsx?$/.test(name) && !/\.test\.tsx?$/.test(name) ? [path] : [];
  });

type Import = { from: string; to: string };
const imports: Import[] = files("src").flatMap((from) =>
  [...readFileSync(from, "utf8").matchAll(/(?:from|import)\s*\(?\s*"([^"]+)"/g)].map(([, target = ""]) => ({
    from,
    to: target.startsWith("@/")
      ? `src/${target.slice(2)}`
      : target.startsWith(".")
        ? normalize(join(dirname(from), target))
        : target,
  })),
);
const roomOf = (path: string) => path.match(/^src\/(contracts|core|server|app|ui|instrumentation)/)?.[1] ?? null;

/** What each room may import of our own. */
const MAY: Record<string, string[]> = {
  contracts: ["contracts"],
  core: ["contracts", "core"],
  server: ["contracts", "core", "server"],
  ui: ["contracts", "core", "ui"],
  app: ["contracts", "core", "server", "ui", "app"],
  instrumentation: ["server"],
};

/** What each folder of core may import of core, as its README names it. */
const CORE_MAY: Record<string, string[]> = {
  geometry: [],
  open: [],
  outlines: ["geometry"],
  shape: ["outlines", "geometry"],
  measure: ["outlines", "shape", "geometry"],
  kind: ["measure"],
  rights: [],
  health: ["open", "outlines", "geometry"],
  brief: ["open", "rights"],
  find: ["brief", "open", "rights", "geometry", "kind"],
  picture: ["geometry"],
  identify: ["picture", "geometry", "outlines", "shape", "measure"],
  write: ["open", "brief", "geometry", "outlines", "shape"],
  describe: [],
  documents: ["open", "outlines", "identify"],
};

describe("arrows between rooms", () => {
  test("imports were found", () => expect(imports.length).toBeGreaterThan(300));

  test("no room imports one it may not", () => {
    const wrong = imports.filter(({ from, to }) => {
      const [a, b] = [roomOf(from), roomOf(to)];
      return a && b && !MAY[a]!.includes(b);
    });
    expect(wrong).toEqual([]);
  });

  test("a wrong arrow would be seen", () => {
    const planted = { from: "src/core/find/findStyles.ts", to: "src/server/db/open" };
    expect(MAY[roomOf(planted.from)!]!.includes(roomOf(planted.to)!)).toBe(false);
  });

  test("folders of core import only the folders their README names", () => {
    const folderOf = (path: string) => path.match(/^src\/core\/([a-z]+)\//)?.[1];
    const wrong = imports.filter(({ from, to }) => {
      const [a, b] = [folderOf(from), folderOf(to)];
      return a && b && a !== b && !CORE_MAY[a]!.includes(b);
    });
    expect(wrong).toEqual([]);
  });

  test.each(Object.entries(CORE_MAY))("core/%s has a README that names what it imports", (folder, may) => {
    const readme = readFileSync(`src/core/${folder}/README.md`, "utf8");
    expect(readme).toMatch(/Takes: /);
    expect(readme).toMatch(/Main function: `\w+`/);
    for (const other of may) expect(readme).toContain(other);
  });

  test("core knows no React, Next, files, SQL, clock or randomness", () => {
    const barred = /^(react|next|node:|fs$|better-sqlite3|sharp|piscina|tesseract)/;
    expect(imports.filter(({ from, to }) => roomOf(from) === "core" && barred.test(to))).toEqual([]);
    for (const file of files("src/core"))
      expect([
        file,
        /\bMath\.random\(|\bDate\.now\(|new Date\(|process\.env|console\./.test(readFileSync(file, "utf8")),
      ]).toEqual([file, false]);
  });

  test("only queries and the database's own files write SQL", () => {
    for (const file of files("src").filter((f) => !/^src\/server\/(queries|db)\//.test(f)))
      expect([
        file,
        /\b(SELECT .* FROM|INSERT INTO|UPDATE \w+ SET|DELETE FROM)\b/.test(readFileSync(file, "utf8")),
      ]).toEqual([file, false]);
  });
});

describe("files", () => {
  const TABLES = /letterForms|characterNames|vocabulary|lexicon\.ts|licences\.ts/;
  test("none is longer than 450 lines, data tables apart", () => {
    expect(files("src").filter((f) => !TABLES.test(f) && readFileSync(f, "utf8").split("\n").length > 450)).toEqual([]);
  });

  test("every file of core, server and contracts opens with what it answers", () => {
    const silent = files("src").filter(
      (f) => /^src\/(core|server|contracts)\//.test(f) && !readFileSync(f, "utf8").startsWith("//"),
    );
    expect(silent).toEqual([]);
  });
});
