// What rooms and files keep to, beside the arrows between them.
import { describe, expect, test } from "@jest/globals";
import { spawnSync } from "node:child_process";
import {
  cpSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  symlinkSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
// @ts-expect-error -- plain JavaScript, read by a tool
import { CORE_MAY as MAY } from "../../.dependency-cruiser.mjs";

const CORE_MAY = MAY as Record<string, string[]>;

const files = (folder: string): string[] =>
  readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    if (statSync(path).isDirectory()) return files(path);
    return /\.tsx?$/.test(name) && !/\.test\.tsx?$/.test(name) ? [path] : [];
  });

/** Whether a tool of its own finds a wrong arrow. @param folder - of a tree like ours. */
const arrowsOf = (folder: string) =>
  spawnSync("npx", ["depcruise", "src", "--config", ".dependency-cruiser.mjs"], { cwd: folder, encoding: "utf8" });

describe("arrows between rooms", () => {
  // That our own tree has none is a check of its own: npm run arrows.
  test("a wrong arrow is seen: up, across and in circles", () => {
    const root = mkdtempSync(join(tmpdir(), "fond-quarry-arrows-"));
    const put = (path: string, text: string) => {
      mkdirSync(join(root, dirname(path)), { recursive: true });
      writeFileSync(join(root, path), text);
    };
    for (const file of [".dependency-cruiser.mjs", "tsconfig.json", "package.json"]) cpSync(file, join(root, file));
    symlinkSync(join(process.cwd(), "node_modules"), join(root, "node_modules"));
    put("src/core/find/a.ts", 'import { open } from "../../server/db/open"; export const a = open;');
    put("src/core/open/b.ts", 'import { c } from "../find/c"; export const b = c;');
    put("src/core/find/c.ts", 'import { d } from "./d"; export const c = d;');
    put("src/core/find/d.ts", 'import type { c } from "./c"; export const d = 1 as unknown as typeof c;');
    put("src/server/db/open.ts", 'import { job } from "../jobs/job"; export const open = job;');
    put("src/server/jobs/job.ts", "export const job = 1;");
    const { status, stdout } = arrowsOf(root);
    rmSync(root, { recursive: true, force: true });
    expect(status).not.toBe(0);
    for (const rule of ["error core:", "error core/open:", "error server/db:", "error no-circles:"])
      expect(stdout).toContain(rule);
  });

  test.each(Object.entries(CORE_MAY))("core/%s has a README that names what it imports", (folder, may) => {
    const readme = readFileSync(`src/core/${folder}/README.md`, "utf8");
    expect(readme).toMatch(/Takes: /);
    expect(readme).toMatch(/Main function: `\w+`/);
    for (const other of may) expect(readme).toContain(other);
  });

  test("core knows no clock, randomness or environment", () => {
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
