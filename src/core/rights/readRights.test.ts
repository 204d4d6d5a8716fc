import { describe, expect, test } from "@jest/globals";
import { existsSync, readdirSync, readFileSync } from "node:fs";
import type { Evidence } from "@/contracts/rights";
import { USES } from "@/contracts/traits";
import { readRights, sentencesOf, strictestVerdict } from "./readRights";

const from = (kind: Evidence["kind"], text: string, source = "LICENSE"): Evidence => ({
  kind,
  source,
  date: "2026-11-25",
  text,
});
const licenceOf = (id: string) => readFileSync(`node_modules/@fontsource/${id}/LICENSE`, "utf8");
const fold = (s: string) => s.replace(/\s+/g, " ");

describe("licences of the demo library", () => {
  const ids = readdirSync("node_modules/@fontsource").filter((id) =>
    existsSync(`node_modules/@fontsource/${id}/LICENSE`),
  );

  test("every one is recognised as its package states it, with a quote for every use that stands in the text", () => {
    expect(ids.length).toBeGreaterThan(150);
    for (const id of ids) {
      const stated = (
        JSON.parse(readFileSync(`node_modules/@fontsource/${id}/metadata.json`, "utf8")) as {
          license: { type: string };
        }
      ).license.type;
      const text = licenceOf(id);
      const rights = readRights([from("licence-file", text)]);
      expect([id, rights.spdx]).toEqual([id, stated]);
      for (const use of USES) {
        const { verdict, quotes } = rights.verdicts[use]!;
        expect(["cleared", "cleared-with-credit"]).toContain(verdict);
        expect(fold(text)).toContain(quotes[0]!.text);
      }
    }
  });

  test("the quote's line is where it begins", () => {
    const text = licenceOf("lora");
    const { quotes } = readRights([from("licence-file", text)]).verdicts["goods-for-sale"]!;
    const line = Number(quotes[0]!.place.replace("line ", ""));
    const there = fold(
      text
        .split("\n")
        .slice(line - 1, line + 6)
        .join("\n"),
    );
    expect(there).toContain(quotes[0]!.text.slice(0, 50));
  });

  test("passing the files on asks for the licence to go along", () => {
    const rights = readRights([from("licence-file", licenceOf("lora"))]);
    expect(rights.verdicts.web!.verdict).toBe("cleared-with-credit");
    expect(rights.verdicts.web!.quotes[0]!.text).toMatch(/copyright notice and this license/);
    expect(rights.verdicts["goods-for-sale"]!.verdict).toBe("cleared");
  });
});

describe("other evidence", () => {
  test("nothing: unread for every use", () => {
    const rights = readRights([]);
    expect(rights.spdx).toBeUndefined();
    for (const use of USES) expect(rights.verdicts[use]).toEqual({ verdict: "unread", quotes: [] });
  });

  test("a free wording that is not known: ask the maker, quoting it, never cleared", () => {
    const rights = readRights([
      from("readme", "Free for personal use. Write to me for anything you sell.", "readme.txt"),
    ]);
    for (const use of USES) {
      expect(rights.verdicts[use]!.verdict).toBe("ask-maker");
      expect(rights.verdicts[use]!.quotes[0]).toEqual({
        text: "Free for personal use.",
        source: "readme.txt",
        place: "line 1",
      });
    }
  });

  test("the font's own licence string counts", () => {
    const rights = readRights([
      from(
        "name-table",
        "This Font Software is licensed under the SIL Open Font License, Version 1.1.",
        "name 13 of the font",
      ),
    ]);
    expect(rights.spdx).toBe("OFL-1.1");
    expect(rights.verdicts.logo!.quotes[0]!.source).toBe("name 13 of the font");
  });

  test("a licence file is trusted before a font's own statement; both are kept", () => {
    const rights = readRights([
      from("name-table", "Licensed under the Apache License, Version 2.0", "name 13"),
      from("licence-file", licenceOf("lora")),
    ]);
    expect(rights.spdx).toBe("OFL-1.1");
    expect(rights.evidence.map((e) => e.kind)).toEqual(["licence-file", "name-table"]);
  });

  test.each([
    [
      "MIT",
      "MIT License\n\nPermission is hereby granted, free of charge, to deal in the Software without restriction. The above notice shall be included in all copies.",
    ],
    ["CC0-1.0", "CC0 1.0 Universal. The person waives all of their rights."],
    ["Apache-2.0", "Licensed under the Apache License, Version 2.0 (the License)."],
  ])("%s", (spdx, text) => expect(readRights([from("licence-file", text)]).spdx).toBe(spdx));
});

describe("several uses", () => {
  test("the strictest verdict holds", () => {
    const verdicts = { private: "cleared", web: "cleared-with-credit", logo: "not-for-this-use" } as const;
    expect(strictestVerdict(verdicts, ["private", "web"])).toBe("cleared-with-credit");
    expect(strictestVerdict(verdicts, ["web", "logo"])).toBe("not-for-this-use");
    expect(strictestVerdict(verdicts, [])).toBe("cleared");
    expect(strictestVerdict(verdicts, ["video"])).toBe("unread");
  });
});

test("sentences keep their words and lines", () => {
  expect(sentencesOf("One two. Three\nfour.\n\nFive: six.")).toEqual([
    { text: "One two.", line: 1 },
    { text: "Three four.", line: 1 },
    { text: "Five:", line: 4 },
    { text: "six.", line: 4 },
  ]);
});
