// Folders of fonts by each system's conventions, counted without reading a file.
import { afterAll, expect, test } from "@jest/globals";
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { findSystemFolders, listCandidates } from "./systemFolders";

const home = mkdtempSync(join(tmpdir(), "fond-quarry-home-"));
afterAll(() => rmSync(home, { recursive: true, force: true }));

test.each([
  ["linux", {}, ["/people/ida/.local/share/fonts", "/people/ida/.fonts", "/usr/local/share/fonts", "/usr/share/fonts"]],
  ["linux", { XDG_DATA_HOME: "/data/ida" }, ["/data/ida/fonts"]],
  ["darwin", {}, ["/people/ida/Library/Fonts", "/Library/Fonts", "/System/Library/Fonts"]],
  ["win32", { LOCALAPPDATA: "C:/Ida", WINDIR: "D:/Win" }, ["C:/Ida/Microsoft/Windows/Fonts", "D:/Win/Fonts"]],
] as const)("on %s with %j", (platform, env, paths) =>
  expect(listCandidates({ platform, home: "/people/ida", env }).map((f) => f.path)).toEqual(
    expect.arrayContaining([...paths]),
  ),
);

test("those that hold fonts are offered with their count, at any depth; other files do not count", async () => {
  const fonts = join(home, ".local/share/fonts");
  mkdirSync(join(fonts, "a/b"), { recursive: true });
  for (const name of ["one.ttf", "a/two.OTF", "a/b/three.woff2", "readme.txt", "a/four.ttf.part"])
    writeFileSync(join(fonts, name), "x");
  mkdirSync(join(home, ".fonts"));
  const found = await findSystemFolders({ platform: "linux", home, env: {} });
  expect(found.filter((f) => f.path.startsWith(home))).toEqual([{ path: fonts, name: "Your fonts", fontCount: 3 }]);
});
