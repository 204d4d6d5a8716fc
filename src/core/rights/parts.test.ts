// The parts that reading rights is made of: statements of a text, references to licences, likeness to standard texts.
import { describe, expect, test } from "@jest/globals";
import mit from "spdx-license-list/licenses/MIT.json" with { type: "json" };
import ofl from "spdx-license-list/licenses/OFL-1.1.json" with { type: "json" };
import { findMentions, withoutNames } from "./mentions";
import { recogniseLicence } from "./similarity";
import { statementsOf } from "./statements";

const texts = (text: string) => statementsOf(text).map((s) => s.text);

describe("statements", () => {
  test.each([
    ["a wrapped sentence", "The font may be used in all kinds of printed\nmatter, at home and at work.", 1],
    ["short lines that end themselves", "Wrackline Script\nFree for personal use\nThank you", 3],
    ["abbreviations", "Use it in print, e.g. Posters or books. Ask me for the rest.", 2],
    ["German abbreviations", "Erlaubt sind z. B. Plakate. Alles andere nicht.", 2],
    ["versions", "Licensed under Version 1.1. Ask first.", 2],
    ["Windows line ends", "One is here.\r\n\r\nTwo is there.", 2],
    ["exclamations and questions", "Free! Really? Yes, it is.", 3],
    ["rules and blank lines", "==========\n\nOnly this counts.\n\n----------", 1],
    ["nothing", "\n \n…\n", 0],
  ])("%s", (_name, text, count) => expect(texts(text)).toHaveLength(count));

  test("lines are those of the text", () => {
    const lines = statementsOf("Title\n\nFirst here. Second\nhere too, as it is long enough to go on.\n\n\nThird.").map(
      (s) => s.line,
    );
    expect(lines).toEqual([1, 3, 3, 7]);
  });

  test.each(["- ", "* ", "• ", "1. ", "2) ", "a) ", "+ ", "✓ "])("“%s” begins an item under its heading", (bullet) => {
    const items = statementsOf(`You may not:\n${bullet}print it\n${bullet}film it`).filter((s) => s.heading);
    expect(items.map((s) => [s.text, s.heading])).toEqual([
      ["print it", "You may not:"],
      ["film it", "You may not:"],
    ]);
  });

  test("a heading holds until something else begins", () => {
    const after = statementsOf("You may:\n- print it\n\nAsk me for films.");
    expect(after[after.length - 1]).toEqual({ text: "Ask me for films.", line: 4, heading: null });
  });
});

describe("references to licences", () => {
  const idsOf = (text: string, isWhole = false) =>
    findMentions(statementsOf(text), isWhole).mentions.map((m) => m.spdx);

  test.each([
    ["Licensed under the SIL Open Font License 1.1.", "OFL-1.1"],
    ["This font is under the OFL.", "OFL-1.1"],
    ["https://openfontlicense.org", "OFL-1.1"],
    ["Released under the Apache License, Version 2.0", "Apache-2.0"],
    ["License: Apache-2.0", "Apache-2.0"],
    ["This typeface is available under CC BY 4.0.", "CC-BY-4.0"],
    ["This work is licensed under CC-BY-SA 3.0.", "CC-BY-SA-3.0"],
    ["Lizenz: Creative Commons Namensnennung - Nicht kommerziell 4.0", "CC-BY-NC-4.0"],
    ["Licensed under a Creative Commons Attribution-NonCommercial-NoDerivs 3.0 licence", "CC-BY-NC-ND-3.0"],
    ["Released under https://creativecommons.org/licenses/by-nc-sa/4.0/", "CC-BY-NC-SA-4.0"],
    ["The font is dedicated to the public with CC0.", "CC0-1.0"],
    ["This font is MIT licensed.", "MIT"],
    ["Released under the GNU General Public License, version 2", "GPL-2.0-or-later"],
    ["Released under the GPL with font exception", "GPL-3.0-or-later WITH Font-exception-2.0"],
    ["Available under the Ubuntu Font Licence 1.0", "Ubuntu-font-1.0"],
    ["This font is in the public domain.", "LicenseRef-public-domain"],
    ["Die Schrift ist gemeinfrei.", "LicenseRef-public-domain"],
    ["Cette police est dans le domaine public.", "LicenseRef-public-domain"],
    ["Esta tipografía es de dominio público.", "LicenseRef-public-domain"],
  ])("%s", (text, id) => expect(idsOf(text)).toEqual([id]));

  test.each([
    "This version is no longer released under the OFL.",
    "The preview pictures are CC0, so use them as you like.",
    "The preview pictures are CC0.",
    "My letters are based on a face, which is under the OFL, by another maker.",
    "The source code of our website is under the MIT License, as everybody knows.",
  ])("none of the font: %s", (text) => expect(idsOf(text)).toEqual([]));

  test("of two things each keeps its own", () =>
    expect(idsOf("The font is licensed under the OFL, the documentation under CC BY-NC 4.0.")).toEqual(["OFL-1.1"]));

  test("what is denied is told apart", () => {
    const { denied } = findMentions(statementsOf("This font is not under the OFL."), false);
    expect(denied).toHaveLength(1);
  });

  test("nothing is asked about the terms of other things", () =>
    expect(findMentions(statementsOf("The preview pictures are CC0."), false)).toEqual({ mentions: [], denied: [] }));

  test("names are taken out of a sentence, the rest stays", () =>
    expect(withoutNames("Under CC BY-NC 4.0, for personal use.").replace(/\s+/g, " ")).toMatch(
      /^Under .*for personal use\.$/,
    ));
});

describe("likeness to standard texts", () => {
  test("the whole text, whatever its case, line ends and headings", () => {
    const shouted = `COPYRIGHT 2025 IDA MARRABLE\r\n\r\n${mit.licenseText.toUpperCase().replace(/\n/g, "\r\n")}`;
    expect(recogniseLicence(shouted)).toMatchObject({ spdx: "MIT" });
    expect(recogniseLicence(ofl.licenseText)!.share).toBeGreaterThan(0.99);
  });

  test("half of it is not it", () => {
    const half = ofl.licenseText.slice(0, ofl.licenseText.length / 2);
    expect(recogniseLicence(half)).toBeNull();
    expect(recogniseLicence("Free for personal use.")).toBeNull();
    expect(recogniseLicence("")).toBeNull();
  });

  test("its own sentences are known, others are not", () => {
    const { isStandard } = recogniseLicence(ofl.licenseText)!;
    const own = statementsOf(ofl.licenseText);
    expect(own.filter((s) => isStandard(s.text)).length).toBe(own.length);
    expect(isStandard("This font may not be used on goods for sale.")).toBe(false);
    expect(isStandard("The fonts may be used, studied and redistributed by members of our club alone.")).toBe(false);
  });
});
