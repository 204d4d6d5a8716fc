// Texts made to be slow: reading terms takes a time that grows with their length, whatever their shape.
import { beforeAll, describe, expect, test } from "@jest/globals";
import { execFileSync } from "node:child_process";
import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { build } from "esbuild";

describe("time", () => {
  // The shapes that took minutes: each is read in a time that grows with its length.
  const SHAPES: Record<string, (n: number) => string> = {
    "CC and dashes": (n) => `CC${"-".repeat(n)}`,
    "CC BY CC BY": (n) => "CC BY-".repeat(n / 6),
    ", the , the": (n) => ", the ".repeat(n / 6),
    "lines of one letter": (n) => "a\n".repeat(n / 2),
    "plain sentences": (n) => "You may use this font for any purpose you like. ".repeat(n / 48),
    "no full stop": (n) => "use the font freely ".repeat(n / 20),
    "sell sell": (n) => "sell ".repeat(n / 5),
    "if if": (n) => "if ".repeat(n / 3),
    "private or private or": (n) => "private or ".repeat(n / 11),
    headings: (n) => "a:\n".repeat(n / 3),
    "names of licences": (n) => "Open Font License ".repeat(n / 18),
    spaces: (n) => `${" ".repeat(n)}x`,
  };

  // In a process of its own: a test runner's grown heap would be measured with it.
  const bundle = path.join(mkdtempSync(path.join(tmpdir(), "read-rights-")), "readRights.cjs");
  beforeAll(() =>
    build({
      stdin: {
        contents: `
          import { readFileSync } from "node:fs";
          import { readRights } from "./readRights";
          const time = (text) => {
            const before = process.cpuUsage();
            readRights([{ kind: "licence-file", source: "t", date: "2026-11-25", text }]);
            return process.cpuUsage(before).user / 1000;
          };
          const texts = JSON.parse(readFileSync(0, "utf8"));
          // In turn, so that an hour in which the machine is slow is slow for both; the best of each counts.
          const runs = [0, 1].map(() => texts.map(time));
          console.log(JSON.stringify(texts.map((_, i) => Math.min(...runs.map((r) => r[i])))));`,
        resolveDir: path.resolve("src/core/rights"),
        loader: "ts",
      },
      bundle: true,
      platform: "node",
      outfile: bundle,
    }),
  );

  test.each(Object.entries(SHAPES))(
    "%s: twice the length takes less than two and a half times as long",
    (_name, of) => {
      const texts = [5_000, 20_000].map(of);
      const times = execFileSync(process.execPath, [bundle], { input: JSON.stringify(texts), encoding: "utf8" });
      // Two doublings at once: the same bound, less at the mercy of the machine.
      const [onceMs, fourfoldMs] = JSON.parse(times) as [number, number];
      expect(fourfoldMs).toBeLessThan(Math.max(2.5 * 2.5 * onceMs, 60));
      expect(fourfoldMs).toBeLessThan(2_500);
    },
  );
});
