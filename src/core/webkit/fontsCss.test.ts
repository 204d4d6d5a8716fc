import { describe, expect, test } from "@jest/globals";
import { quoteCss, writeFontsCss, writeSamplePage, type WebFace } from "./fontsCss";

const face = (over: Partial<WebFace> = {}): WebFace => ({
  family: "Quay",
  style: "Bold",
  weight: 700,
  isItalic: false,
  stretch: null,
  fallback: "serif",
  metrics: { ascentEm: 1, descentEm: 0.25, lineGapEm: 0, meanAdvanceEm: 0.45 },
  files: [
    { codePoints: [32, 65, 66, 67, 97], paths: { woff2: "fonts/Quay-Bold.woff2", woff: "fonts/Quay-Bold.woff" } },
  ],
  variation: {},
  features: {},
  ...over,
});

describe("the style sheet", () => {
  test("names each file with its characters, newest format first", () => {
    const css = writeFontsCss("Open Night", [face()]);
    expect(css).toContain("unicode-range: U+20, U+41-43, U+61;");
    expect(css.indexOf("woff2")).toBeLessThan(css.indexOf('format("woff")'));
    expect(css).toContain('"Quay", "Quay stand-in", serif');
  });

  test("a variable font keeps its range, a face of several files has a rule for each", () => {
    const file = face().files[0]!;
    const css = writeFontsCss("Open Night", [face({ weight: [300, 900], stretch: [75, 125], files: [file, file] })]);
    expect(css.split("font-weight: 300 900;")).toHaveLength(3);
    expect(css).toContain("font-stretch: 75% 125%;");
  });

  test("names that would end a string, the comment or the sheet do not", () => {
    const evil = '"} body{display:none} /* </style><script>*/';
    const css = writeFontsCss(evil, [face({ family: evil })]);
    expect(css).not.toContain("<");
    expect(css.split("*/")[0]).toContain("Fonts of");
    // Outside of strings and the first comment there is no other rule.
    const bare = css.slice(css.indexOf("*/") + 2).replace(/"(?:[^"\\]|\\.)*"/g, '""');
    expect(bare).not.toContain("body");
    expect(quoteCss('a"b\\c\n<')).toBe('"a\\22 b\\5c c\\a \\3c "');
  });
});

test("the sample page shows the words as text", () => {
  const page = writeSamplePage("<b>", ["<script>alert(1)</script>"], [face({ family: "<i>", features: { ss01: 1 } })]);
  expect(page).not.toMatch(/<script|<b>|<i>/);
  expect(page).toContain("font-feature-settings");
});
