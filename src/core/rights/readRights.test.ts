import { describe, expect, test } from "@jest/globals";
import { existsSync, readdirSync, readFileSync } from "node:fs";
import type { Evidence } from "@/contracts/rights";
import { USES, type Use, type Verdict } from "@/contracts/traits";
import { readRights, type SameLetters } from "./readRights";
import { statementsOf } from "./statements";
import { strictestVerdict } from "./verdicts";
import { WORDINGS } from "../../../tests/fixtures/rights/wordings";
import { LONG_WORDINGS } from "../../../tests/fixtures/rights/longWordings";
import { FRESH_WORDINGS } from "../../../tests/fixtures/rights/freshWordings";
import { CLOSING_WORDINGS } from "../../../tests/fixtures/rights/closingWordings";
import { CONDITION_WORDINGS } from "../../../tests/fixtures/rights/conditionWordings";
import { HELD_CONDITION_WORDINGS } from "../../../tests/fixtures/rights/conditionWordingsHeld";
import { FIFTH_CONDITION_WORDINGS } from "../../../tests/fixtures/rights/conditionWordingsFifth";
import { FOURTH_CONDITION_WORDINGS } from "../../../tests/fixtures/rights/conditionWordingsFourth";
import { LAST_CONDITION_WORDINGS } from "../../../tests/fixtures/rights/conditionWordingsLast";
import { LAST_WORDINGS, TRAPS } from "../../../tests/fixtures/rights/lastWordings";

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
        const { verdict, quotes } = rights.verdicts[use];
        expect(["cleared", "cleared-with-credit"]).toContain(verdict);
        expect(fold(text)).toContain(quotes[0]!.text);
      }
    }
  });

  test("the quote's line is where it begins", () => {
    const text = licenceOf("lora");
    const { quotes } = readRights([from("licence-file", text)]).verdicts["goods-for-sale"];
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
    expect(rights.verdicts.web.verdict).toBe("cleared-with-credit");
    expect(rights.verdicts.web.quotes[0]!.text).toMatch(/copyright notice and this license/);
    expect(rights.verdicts["goods-for-sale"].verdict).toBe("cleared");
  });
});

describe("other evidence", () => {
  test("nothing: unread for every use", () => {
    const rights = readRights([]);
    expect(rights.spdx).toBeUndefined();
    for (const use of USES) expect(rights.verdicts[use]).toEqual({ verdict: "unread", quotes: [] });
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
    expect(rights.verdicts.logo.quotes[0]!.source).toBe("name 13 of the font");
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

/** Texts that are read stricter than a careful reader would: kept here so that a change is seen. */
const STRICTER_THAN_WANTED = new Set(["pd-tongue", "f-both-long", "l-es-nologo", "c-21", "c-22"]);

describe("wordings in several languages", () => {
  const all = [...WORDINGS, ...LONG_WORDINGS, ...FRESH_WORDINGS, ...LAST_WORDINGS, ...CLOSING_WORDINGS];
  const read = (kind: Evidence["kind"], text: string) =>
    readRights([from(kind, text, kind === "name-table" ? "name 13 of the font" : "terms.txt")]);

  test("there are at least 60, half of them not used for the rules", () => {
    expect(all.length).toBeGreaterThanOrEqual(60);
    expect(all.filter((w) => w.held).length).toBeGreaterThanOrEqual(all.length / 2);
  });

  test.each(all.map((w) => [w.id, w] as const))("%s", (id, { kind, text, expect: wanted }) => {
    const { verdicts } = read(kind, text);
    for (const [use, should] of Object.entries(wanted) as [Use, Verdict][]) {
      const { verdict, quotes } = verdicts[use];
      if (!STRICTER_THAN_WANTED.has(id)) expect([use, verdict]).toEqual([use, should]);
      if (!should.startsWith("cleared")) expect(verdict).not.toMatch(/^cleared/);
      // Every verdict but "unread" rests on words that stand in the text.
      if (verdict === "unread") expect(quotes).toEqual([]);
      else expect(fold(text)).toContain(quotes[0]!.text);
    }
  });

  test.each(TRAPS)("%s: “%s” does not clear %s", (kind, text, use) =>
    expect(read(kind, text).verdicts[use].verdict).not.toMatch(/^cleared/),
  );
});

describe("standard licences by their text", () => {
  const textOf = (id: string) =>
    (JSON.parse(readFileSync(`node_modules/spdx-license-list/licenses/${id}.json`, "utf8")) as { licenseText: string })
      .licenseText;
  const wrap = (text: string, width: number) => text.replace(new RegExp(`(.{${width}}\\S*)\\s`, "g"), "$1\n");
  const IDS = [
    "OFL-1.1",
    "Apache-2.0",
    "MIT",
    "CC0-1.0",
    "CC-BY-4.0",
    "CC-BY-SA-4.0",
    "CC-BY-NC-4.0",
    "CC-BY-ND-4.0",
    "CC-BY-NC-SA-4.0",
    "CC-BY-NC-ND-4.0",
    "CC-BY-3.0",
    "CC-BY-SA-3.0",
    "CC-BY-NC-3.0",
    "Ubuntu-font-1.0",
    "Unlicense",
  ];

  test.each(IDS)("%s, with a heading of its own, wrapped anew", (id) => {
    const rights = readRights([
      from("licence-file", `Copyright (c) 2024 Ida Marrable (ida@tidewrack.example)\n\n${wrap(textOf(id), 60)}`),
    ]);
    expect(rights.spdx).toBe(id);
  });

  test.each(IDS)("%s with every twelfth line lost", (id) => {
    const lines = wrap(textOf(id), 80)
      .split("\n")
      .filter((_, i) => i % 12 !== 7);
    expect(readRights([from("licence-file", lines.join("\n"))]).spdx).toBe(id);
  });

  test("GPL with and without the font exception", () => {
    const exception =
      "As a special exception, if you create a document which uses this font, and embed this font or unaltered portions of this font into the document, this font does not by itself cause the resulting document to be covered by the GNU General Public License.";
    const gpl = textOf("GPL-3.0-only");
    expect(readRights([from("licence-file", `${gpl}\n\n${exception}`)]).spdx).toBe(
      "GPL-3.0-or-later WITH Font-exception-2.0",
    );
    expect(readRights([from("licence-file", gpl)]).verdicts.app.verdict).toBe("ask-maker");
  });

  test("a clause put into a standard text counts, and is quoted", () => {
    const text = textOf("MIT").replace(
      "The above copyright",
      "The font may not be used for commercial purposes.\n\nThe above copyright",
    );
    const rights = readRights([from("licence-file", text)]);
    expect(rights.verdicts["goods-for-sale"].verdict).toBe("not-for-this-use");
    expect(rights.verdicts["goods-for-sale"].quotes[0]!.text).toMatch(/may not be used for commercial/);
  });

  test("what NonCommercial leaves open, and what NoDerivatives does to a logo", () => {
    const nc = readRights([from("licence-file", textOf("CC-BY-NC-4.0"))]).verdicts;
    expect([nc.private.verdict, nc["client-print"].verdict]).toEqual(["cleared-with-credit", "not-for-this-use"]);
    const nd = readRights([from("licence-file", textOf("CC-BY-ND-4.0"))]).verdicts;
    expect([nd.video.verdict, nd.logo.verdict]).toEqual(["cleared-with-credit", "ask-maker"]);
  });
});

describe("several sources", () => {
  const OFL = () => from("licence-file", licenceOf("lora"));

  test("a contradiction is listed, the stricter holds", () => {
    const rights = readRights([OFL(), from("readme", "Free for personal use only.", "readme.txt")]);
    expect(rights.verdicts["client-print"].verdict).toBe("not-for-this-use");
    expect(rights.verdicts.private.verdict).toBe("cleared");
    const listed = rights.contradictions!.find((c) => c.use === "client-print")!;
    expect(listed).toMatchObject({ held: "not-for-this-use", others: [{ verdict: "cleared" }] });
    expect(listed.others[0]!.quotes[0]!.source).toBe("LICENSE");
    expect(rights.contradictions!.some((c) => c.use === "private")).toBe(false);
  });

  test("silence contradicts nothing", () => {
    const rights = readRights([OFL(), from("readme", "Freeware by Ida Marrable.", "readme.txt")]);
    expect(rights.verdicts["client-print"].verdict).toBe("cleared");
    expect(rights.contradictions).toBeUndefined();
  });

  test("restricted embedding in the font is stricter than its licence for web and app alone", () => {
    const rights = readRights([OFL(), from("fs-type", "OS/2 fsType 2 (restricted licence embedding)", "OS/2")]);
    expect(rights.verdicts.web.verdict).toBe("ask-maker");
    expect(rights.verdicts["goods-for-sale"].verdict).toBe("cleared");
    expect(readRights([from("fs-type", "OS/2 fsType 0 (installable)", "OS/2")]).verdicts.web.verdict).toBe("unread");
  });

  test("a receipt lifts what had to be bought, for the uses it names", () => {
    const shop = from("library", "A licence must be bought for: print, goods for sale, video.", "shop");
    const receipt = from(
      "receipt",
      "Receipt R-104. This licence permits use in print and on goods for sale.",
      "receipt R-104",
    );
    const before = readRights([shop]).verdicts;
    expect([before["client-print"].verdict, before.video.verdict]).toEqual(["buy-first", "buy-first"]);
    const { verdicts } = readRights([shop, receipt]);
    expect([verdicts["client-print"].verdict, verdicts["goods-for-sale"].verdict, verdicts.video.verdict]).toEqual([
      "cleared",
      "cleared",
      "buy-first",
    ]);
    expect(verdicts["client-print"].quotes[0]!.source).toBe("receipt R-104");
  });

  test("a copyright or trade mark string is no licence", () => {
    const rights = readRights([
      from("name-table", "Copyright 2021 Gethin Trewavas. All rights reserved.", "name 0 of the font"),
    ]);
    for (const use of USES) expect(rights.verdicts[use].verdict).toBe("unread");
  });
});

test("statements keep their words and lines; list items know their heading", () => {
  expect(statementsOf("One two. Three\nfour.\n\nYou may:\n- print it\n- film it\n\nSix seven.")).toEqual([
    { text: "One two.", line: 1, heading: null },
    { text: "Three four.", line: 1, heading: null },
    { text: "You may:", line: 4, heading: null },
    { text: "print it", line: 5, heading: "You may:" },
    { text: "film it", line: 6, heading: "You may:" },
    { text: "Six seven.", line: 8, heading: null },
  ]);
});

const PUT_AWAY = [
  ...HELD_CONDITION_WORDINGS,
  ...LAST_CONDITION_WORDINGS,
  ...FOURTH_CONDITION_WORDINGS,
  ...FIFTH_CONDITION_WORDINGS,
];
describe("conditions are no permissions", () => {
  const read = (w: { kind: Evidence["kind"]; text: string }) =>
    readRights([from(w.kind, w.text, "terms.txt")]).verdicts;

  test.each(CONDITION_WORDINGS.map((w) => [w.id, w] as const))("%s is read as a careful reader does", (_id, w) => {
    for (const [use, should] of Object.entries(w.expect) as [Use, Verdict][])
      expect([use, read(w)[use].verdict]).toEqual([use, should]);
  });

  test.each([...PUT_AWAY].map((w) => [w.id, w] as const))(
    "%s is never cleared where it is narrowed, and quotes what narrows",
    (_id, w) => {
      for (const [use, should] of Object.entries(w.expect) as [Use, Verdict][]) {
        const { verdict, quotes } = read(w)[use];
        if (!should.startsWith("cleared")) expect(verdict).not.toMatch(/^cleared/);
        if (verdict !== "unread") expect(fold(w.text)).toContain(quotes[0]!.text);
      }
    },
  );

  test.each([
    ["OFL pending."],
    ["OFL? Ask the keeper first."],
    ["OFL for members."],
    ["OFL für Mitglieder"],
    ["Apache License 2.0 until March"],
    ["CC0 from 2030 on"],
    ["Public domain in the USA."],
    ["The OFL applies to the regular weight alone."],
  ])("a licence that is granted narrowly, later or in doubt is no grant: %s", (text) => {
    const { verdicts } = readRights([from("readme", text, "readme.txt")]);
    for (const use of USES) expect(verdicts[use].verdict).toBe("ask-maker");
  });

  test.each([
    ["Skerrow Sans, released under the SIL Open Font License. Enjoy!"],
    ["Copyright 2021 The Skerrow Sans Project Authors, licensed under the OFL 1.1"],
    ["https://www.apache.org/licenses/LICENSE-2.0"],
    ["CC0 1.0 Universal (CC0 1.0) Public Domain Dedication"],
  ])("plain grants by name stay grants: %s", (text) => {
    expect(readRights([from("readme", text, "readme.txt")]).verdicts["client-print"].verdict).toBe("cleared");
  });

  test("what may be earned with may be done at home; no credit needed is no credit asked", () => {
    const { verdicts } = readRights([
      from("readme", "Yes, you can use it commercially. No credit needed.", "readme.txt"),
    ]);
    for (const use of ["private", "client-print", "goods-for-sale"] as const)
      expect(verdicts[use].verdict).toBe("cleared");
  });

  test("a sentence of its own narrows what another grants, and is quoted", () => {
    const { verdict, quotes } = readRights([
      from("readme", "Free for commercial use. This applies until the end of 2027.", "readme.txt"),
    ]).verdicts["goods-for-sale"];
    expect(verdict).toBe("ask-maker");
    expect(quotes.map((q) => q.text)).toContain("This applies until the end of 2027.");
  });

  test("a text that is cut short clears nothing by itself; a standard licence does", () => {
    const words = "Free for personal and commercial use.";
    expect(readRights([{ ...from("readme", words), isCut: true }]).verdicts.logo.verdict).toBe("ask-maker");
    expect(readRights([{ ...from("licence-file", licenceOf("lora")), isCut: true }]).verdicts.logo.verdict).toBe(
      "cleared",
    );
  });

  test("no derivatives: what it means for letters that are changed is said, with the words it rests on", () => {
    const rights = readRights([from("licence-file", "This font is licensed under CC BY-ND 4.0.")]);
    expect(rights.spdx).toBe("CC-BY-ND-4.0");
    for (const use of ["cutting", "logo", "web", "app"] as const)
      expect([use, rights.verdicts[use].verdict]).toEqual([use, "ask-maker"]);
    expect(rights.verdicts["client-print"].verdict).toBe("cleared-with-credit");
    expect(rights.notes![0]!.says).toMatch(/lettering.*cutting.*converting/);
    expect(rights.notes![0]!.quotes[0]!.text).toContain("CC BY-ND");
  });
});

describe("styles with the same letters", () => {
  const other = (verdict: Verdict, more: Partial<SameLetters> = {}): SameLetters => ({
    styleId: "s_other",
    name: "Saltmarsh Dot Regular",
    maker: "Tidewrack Type",
    isOtherMaker: true,
    isSold: false,
    verdicts: Object.fromEntries(USES.map((u) => [u, verdict])),
    ...more,
  });
  const OFL_NAME = from("name-table", "Licensed under the SIL Open Font License, Version 1.1.", "name 13 of the font");

  test("their terms clear nothing here", () => {
    const rights = readRights([from("readme", "Personal use only.")], [other("cleared")]);
    expect(rights.verdicts.logo.verdict).toBe("not-for-this-use");
    expect(readRights([], [other("cleared")]).verdicts.logo.verdict).toBe("unread");
  });

  test("stricter terms close what only a third hand opened, and whose letters they are is said", () => {
    const rights = readRights([from("readme", "100% free!!")], [other("buy-first", { isSold: true })]);
    expect(rights.verdicts.private.verdict).not.toMatch(/^cleared/);
    const free = readRights([from("readme", "Free for commercial use.")], [other("buy-first", { isSold: true })]);
    expect(free.verdicts.logo).toMatchObject({ verdict: "ask-maker" });
    expect(free.verdicts.logo.quotes[0]!.text).toBe(
      "The letters are those of Saltmarsh Dot Regular, sold by Tidewrack Type: ask before you use it.",
    );
    expect(free.sameLetters![0]!.says).toMatch(/ask before you use it/);
  });

  test("its own grant stands, and a receipt does; the difference is said", () => {
    const own = readRights([OFL_NAME], [other("not-for-this-use")]);
    expect(own.verdicts.logo.verdict).toBe("cleared");
    expect(own.sameLetters![0]!.says).toMatch(/whose terms differ/);
    const bought = readRights([from("receipt", "This licence permits use for: logo.")], [other("buy-first")]);
    expect(bought.verdicts.logo.verdict).toBe("cleared");
  });

  test("the same terms under another maker are told without alarm", () => {
    const { sameLetters, verdicts } = readRights([OFL_NAME], [other("cleared")]);
    expect(verdicts.logo.verdict).toBe("cleared");
    expect(sameLetters![0]!.says).toMatch(/own terms/);
  });
});
