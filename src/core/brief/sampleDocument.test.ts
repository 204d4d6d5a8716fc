// What a face of a kind is set as.
import { describe, expect, test } from "@jest/globals";
import { KINDS } from "@/contracts/traits";
import { documentFor, TIDE_TABLE } from "./sampleDocument";

const LINES = ["Skerrow Light", "Open Night", "Twelve lamps, one tide."];
const face = (kind: (typeof KINDS)[number], weight: number | null = 400) => ({ kinds: [kind], weight });
const textsOf = (kind: (typeof KINDS)[number]) => documentFor(face(kind), LINES).map((l) => l.text);

describe("a document by kind", () => {
  test.each([...KINDS])("%s begins with the brief's first line", (kind) => {
    expect(textsOf(kind)[0]).toBe("Skerrow Light");
  });
  test("fixed widths have a table, text has a column of running words", () => {
    expect(textsOf("monospaced")).toEqual(expect.arrayContaining(TIDE_TABLE));
    const column = documentFor(face("serif"), LINES).find((l) => l.wraps)!;
    expect(column.text.length).toBeGreaterThan(200);
    expect(column.text).toContain("Twelve lamps, one tide. Skerrow Light");
  });
  test("pictures have nothing to read; a script no column of text", () => {
    expect(textsOf("picture")).toHaveLength(1);
    expect(documentFor(face("script"), LINES).some((l) => l.wraps)).toBe(false);
  });
  test("a face too heavy for text is set large", () => {
    expect(documentFor(face("slab", 850), LINES).some((l) => l.wraps)).toBe(false);
    expect(documentFor(face("slab", null), LINES).some((l) => l.wraps)).toBe(true);
  });
  test("a brief without words still gives a line", () => {
    expect(documentFor({ kinds: [], weight: null }, []).length).toBeGreaterThan(0);
  });
});
