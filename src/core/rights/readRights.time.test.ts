// Texts made to be slow: reading terms takes a time that grows with their length, whatever their shape.
import { describe, expect, test } from "@jest/globals";
import { readRights } from "./readRights";

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
  test.each(Object.entries(SHAPES))(
    "%s: twice the length takes less than two and a half times as long",
    (_name, of) => {
      let count = 0;
      const time = (n: number) => {
        // Time of the processor, so that other work on the machine does not count.
        const best = [0, 1, 2, 3].map(() => {
          const before = process.cpuUsage();
          readRights([{ kind: "licence-file", source: `t${count++}`, date: "2026-11-25", text: of(n) }]);
          return process.cpuUsage(before).user / 1000;
        });
        return Math.min(...best);
      };
      time(2_000);
      // Two doublings at once: the same bound, less at the mercy of the machine.
      const [once, fourfold] = [time(12_000), time(48_000)];
      expect(fourfold).toBeLessThan(Math.max(2.5 * 2.5 * once, 60));
      expect(fourfold).toBeLessThan(2_500);
    },
  );
});
