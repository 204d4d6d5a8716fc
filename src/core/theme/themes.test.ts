// Themes: any word reads through the anchors nearest to it in meaning, ranks what it fits, and never keeps out what fits a little.
import { describe, expect, test } from "@jest/globals";
import { rowOf, traitsOf } from "../../../tests/fixtures/rows";
import { indexStyles } from "../find/findIndex";
import { findStyles } from "../find/findStyles";
import { THEMES } from "./anchors";
import type { LookName, ThemeLooks } from "@/contracts/themes";
import { lookDegrees, LOOKS } from "./looks";
import { fitTheme, leanTowards, listLooks, readTheme, writeTheme } from "./readTheme";
import { cosine, WordTable } from "./wordTable";

/** A table of words along three directions: old ghosts, machines, sweets. */
function makeTable(words: Record<string, [number, number, number]>, compounds: string[] = []): Uint8Array {
  const names = Object.keys(words);
  const head = new Uint8Array(Uint32Array.of(names.length, 3).buffer);
  const vectors = new Uint8Array(Int8Array.from(Object.values(words).flat()).buffer);
  const flags = Uint8Array.from(names, (name) => Number(name !== "lora"));
  const text = Buffer.from(`${names.join("\n")}\n\n${compounds.join("\n")}`);
  return new Uint8Array(Buffer.concat([head, vectors, flags, text]));
}
const TABLE = makeTable(
  {
    haunted: [127, 0, 0],
    spectre: [120, 30, 0],
    robot: [0, 127, 0],
    gearwheel: [0, 120, 20],
    candy: [0, 0, 127],
    lollipop: [10, 0, 120],
    fog: [-80, -80, -60],
    metal: [90, 90, 0],
    color: [0, 60, 100],
    lora: [60, 60, 60],
  },
  ["heavy metal"],
);
const words = WordTable.parse(TABLE)!;

describe("a table of word vectors", () => {
  test("its words come the most used first", () => expect(words.mostUsed(2)).toEqual(["haunted", "spectre"]));

  test("words of one direction are near, others are not", () => {
    expect(cosine(words.of("haunted")!, words.of("spectre")!)).toBeGreaterThan(0.9);
    expect(cosine(words.of("haunted")!, words.of("candy")!)).toBeCloseTo(0);
    expect(words.of("constructor")).toBeNull();
    expect(words.has("fog")).toBe(true);
  });

  test("words of the language are told from names, and compounds are known", () => {
    expect([words.isCommon("fog"), words.isCommon("lora"), words.isCommon("qwrtzk")]).toEqual([true, false, false]);
    expect([words.isCompound("heavy metal"), words.isCompound("heavy fog")]).toEqual([true, false]);
  });

  test.each([
    ["robots", "robot"],
    ["colour", "color"],
    ["colours", "color"],
    ["candies", "candy"],
    ["foggy", "fog"],
    ["lolipop", "lollipop"],
    ["gaerwheel", "gearwheel"],
    ["qwrtzkp", null],
    ["fgo", null],
  ])("“%s” is a form of %s", (typed, word) => expect(words.findForm(typed)).toBe(word));

  test.each([
    ["nothing", new Uint8Array()],
    ["a head alone", TABLE.slice(0, 8)],
    ["a table that was cut off", TABLE.slice(0, 20)],
    ["fewer words than it says", TABLE.slice(0, TABLE.length - 24)],
  ])("%s is refused", (_, bytes) => expect(WordTable.parse(bytes)).toBeNull());
});

describe("reading", () => {
  const weightOf = (phrase: string, look: LookName) =>
    readTheme(phrase.split(" "), words)!.weights[LOOKS.findIndex((l) => l.name === look)]!;

  test("an anchor reads as its own theme, a word near it alike", () => {
    for (const word of ["haunted", "spectre"]) {
      expect(weightOf(word, "broken letters")).toBe(1);
      expect(weightOf(word, "fat and round")).toBe(0);
      expect(writeTheme(readTheme([word], words)!)).toMatch(/^ghost\b.*: .*broken letters/);
    }
    expect(weightOf("lollipop", "fat and round")).toBe(1);
  });

  test("several words mix", () => {
    const { near, weights } = readTheme(["robot", "candy"], words)!;
    const named = near.slice(0, 2).map((n) => n.theme.words[0]);
    expect(named.sort()).toEqual(["robot", "sweets"]);
    expect(near.reduce((sum, n) => sum + n.share, 0)).toBeCloseTo(1, 6);
    expect(Math.max(...weights)).toBe(1);
  });

  test("unknown words, and words that are near nothing, are no theme", () => {
    expect(readTheme(["qwrtzk"], words)).toBeNull();
    expect(readTheme(["lora"], WordTable.parse(makeTable({ lora: [0, 0, -127], robot: [0, 127, 0] }))!)).toBeNull();
    expect(readTheme([], words)).toBeNull();
  });

  test("every theme names looks that there are, each with a full one, and no word twice", () => {
    const names = new Set<string>(LOOKS.map((l) => l.name));
    for (const { look, because } of THEMES) {
      expect(Object.keys(look).filter((name) => !names.has(name))).toEqual([]);
      expect(Math.max(...Object.values(look))).toBeGreaterThanOrEqual(0.8);
      expect(because).not.toBe("");
    }
    const all = THEMES.flatMap((t) => t.words);
    expect(all.filter((w, i) => all.indexOf(w) !== i)).toEqual([]);
  });
});

const broken = rowOf("Gravel", { kinds: [{ value: "blackletter", confidence: 0.9 }] });
const square = rowOf("Servo", {
  kinds: [{ value: "monospaced", confidence: 0.9 }],
  traits: traitsOf({ width: 7, contrast: 1.1 }),
});
const soft = rowOf("Toffee", {
  kinds: [{ value: "display", confidence: 0.9 }],
  traits: traitsOf({ weight: 820, roundness: 0.6, contrast: 1.3 }),
});
const picture = rowOf("Signs", { traits: traitsOf({ picture: true }) });

describe("what somebody says of words", () => {
  test("comes before what was read, and adds what was not", () => {
    const weightOf = (name: LookName, looks: ThemeLooks) =>
      readTheme(["haunted"], words, looks)!.weights[LOOKS.findIndex((l) => l.name === name)]!;
    expect(weightOf("broken letters", { "broken letters": 0 })).toBe(0);
    expect(weightOf("wide", { wide: 0.7 })).toBeCloseTo(0.7);
    expect(weightOf("dripping", { wide: 0.7 })).toBeGreaterThan(0.3);
    expect(readTheme(["qwrtzk"], words, { wide: 1 })!.near).toEqual([]);
  });

  test("rather like a face: its looks come in, what it has nothing of is halved, the rest stays", () => {
    const asked = Float32Array.from(LOOKS, ({ name }) => ({ slab: 1, wide: 0.4, worn: 0.5 })[name as string] ?? 0);
    const face = LOOKS.map(({ name }) => ({ woodtype: 0.9, wide: 0.2, worn: 0.5 })[name as string] ?? 0);
    expect(leanTowards(asked, face)).toEqual({ slab: 0.5, woodtype: 0.9 });
  });

  test("the looks of a reading are listed with their reasons, what weighs most first", () => {
    const { near, looks } = listLooks(readTheme(["haunted"], words)!);
    expect(near[0]).toBe("ghost");
    expect(looks[0]).toMatchObject({ name: "broken letters", weight: 1 });
    expect(looks.map((l) => l.weight)).toEqual([...looks.map((l) => l.weight)].sort((a, b) => b - a));
    for (const { because } of looks) expect(because).not.toBe("");
  });

  test("the name of a look is that look and nothing else", () =>
    expect(listLooks(readTheme(["brush", "script"], words)!).looks.map((l) => l.name)).toEqual(["brush script"]));
});

describe("fitting", () => {
  const looks = (row: typeof broken) => Uint8Array.from(lookDegrees(row), (d) => Math.round(255 * d));
  const fit = (word: string, row: typeof broken) => fitTheme(readTheme([word], words)!.weights, looks(row))[0]!;

  test("what has a look of the theme fits, what has none does not, and pictures never do", () => {
    expect(fit("haunted", broken)).toBeGreaterThan(0.85);
    expect(fit("haunted", soft)).toBeLessThan(0.3);
    expect(fit("candy", soft)).toBeGreaterThan(0.85);
    expect(fit("haunted", picture)).toBe(0);
  });

  test("a question in words of a theme ranks, says what it read, and leaves out what has nothing of it", () => {
    const index = indexStyles([square, soft, broken, picture]);
    const around = { lexicon: { tags: new Set<string>(), languages: new Map<string, string>(), words } };
    const ask = (q: string) => {
      const found = findStyles(index, { q }, null, around);
      return { ...found, families: Array.from(found.order, (_, k) => found.at(k).row.family) };
    };
    expect(ask("spectre").families[0]).toBe("Gravel");
    expect(ask("lollipop").families[0]).toBe("Toffee");
    expect(ask("gearwheel").families[0]).toBe("Servo");
    expect(ask("spectre").families).not.toContain("Signs");
    expect(ask("spectre").understood.words[0]).toMatchObject({ from: "spectre" });
    expect(ask("spectre").understood.words[0]!.label).toMatch(/^spectre → ghost\b.*: /);
    expect(ask("spectre qwrtzk").understood.words[0]!.from).toBe("spectre qwrtzk");
    expect(ask("qwrtzk").understood.ignored).toEqual(["qwrtzk"]);
    // A family that is called just so stands first, the theme below it.
    const named = findStyles(indexStyles([square, soft, broken, rowOf("Robot")]), { q: "robot" }, null, around);
    expect(Array.from(named.order, (_, k) => named.at(k).row.family).slice(0, 2)).toEqual(["Robot", "Servo"]);
    expect(named.at(0).fit!.because).toContain("its name");
    expect(named.named).toHaveLength(1);
  });
});
