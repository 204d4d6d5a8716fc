// Two people at one brief: every merge that must keep both, the conflicts that are asked, and random edits of which no word is lost.
import { describe, expect, test } from "@jest/globals";
import { mergeBrief, mergeWords, type BriefPart } from "./mergeBrief";

const line = (id: string, text: string, role = "title") => ({ id, text, role });
const base = {
  name: "Open Night poster",
  ink: "#20262B",
  uses: ["client-print", "goods-for-sale"],
  lines: [line("l_a", "Skerrow Light"), line("l_b", "Open Night"), line("l_c", "12 lamps & one tide")],
};
const merge = (mine: Partial<typeof base>, theirs: Partial<typeof base>) =>
  mergeBrief<BriefPart>(base, { ...base, ...mine }, { ...base, ...theirs });
const texts = (part: BriefPart) => (part.lines as { text: string }[]).map((l) => l.text);

describe("fields", () => {
  test("mine and theirs, each changed alone, both stand", () => {
    const { merged, conflicts } = merge({ ink: "#000000" }, { name: "Late Night" });
    expect(merged).toMatchObject({ ink: "#000000", name: "Late Night" });
    expect(conflicts).toEqual([]);
  });
  test("the same change is none", () => expect(merge({ ink: "#111111" }, { ink: "#111111" }).conflicts).toEqual([]));
  test("different changes are asked: theirs stands", () => {
    const { merged, conflicts } = merge({ ink: "#111111" }, { ink: "#222222" });
    expect(merged.ink).toBe("#222222");
    expect(conflicts).toEqual([{ field: "ink", mine: "#111111", theirs: "#222222" }]);
  });
  test("uses are a set", () => {
    const { merged } = merge(
      { uses: ["goods-for-sale", "video"] },
      { uses: ["client-print", "goods-for-sale", "web"] },
    );
    expect(merged.uses).toEqual(["goods-for-sale", "web", "video"]);
  });
  test("fields that I did not send are theirs", () =>
    expect(mergeBrief({ ink: "a" }, { ink: "b" }, { ink: "a", paper: "c" }).merged).toEqual({ ink: "b", paper: "c" }));
});

describe("lines", () => {
  const [a, b, c] = base.lines as [(typeof base.lines)[0], (typeof base.lines)[0], (typeof base.lines)[0]];
  test.each([
    [
      "different lines",
      [{ ...a, text: "Skerrow" }, b, c],
      [a, b, { ...c, text: "13 lamps" }],
      ["Skerrow", "Open Night", "13 lamps"],
    ],
    [
      "words of one line",
      [{ ...a, text: "Skerrow Light House" }, b, c],
      [{ ...a, text: "The Skerrow Light" }, b, c],
      ["The Skerrow Light House", "Open Night", "12 lamps & one tide"],
    ],
    [
      "both add at one place",
      [{ ...a, text: "Skerrow Light mine" }, b, c],
      [{ ...a, text: "Skerrow Light theirs" }, b, c],
      ["Skerrow Light theirs mine", "Open Night", "12 lamps & one tide"],
    ],
    [
      "both add a line",
      [a, line("l_m", "Mine"), b, c],
      [a, b, c, line("l_t", "Theirs")],
      ["Skerrow Light", "Mine", "Open Night", "12 lamps & one tide", "Theirs"],
    ],
    ["I remove, they change another", [a, c], [a, b, { ...c, text: "13 lamps" }], ["Skerrow Light", "13 lamps"]],
    [
      "I remove what they changed: it stays",
      [a, c],
      [a, { ...b, text: "Open Nights" }, c],
      ["Skerrow Light", "Open Nights", "12 lamps & one tide"],
    ],
    [
      "I reorder, they change",
      [c, a, b],
      [a, { ...b, text: "Open Nights" }, c],
      ["12 lamps & one tide", "Skerrow Light", "Open Nights"],
    ],
    [
      "they reorder, I add",
      [a, b, line("l_m", "Mine"), c],
      [c, b, a],
      ["12 lamps & one tide", "Open Night", "Mine", "Skerrow Light"],
    ],
  ])("%s", (_name, mine, theirs, wanted) => {
    const { merged, conflicts } = merge({ lines: mine }, { lines: theirs });
    expect(texts(merged)).toEqual(wanted);
    expect(conflicts).toEqual([]);
  });

  test("the same word changed to different ones is asked, with the line", () => {
    const { merged, conflicts } = merge(
      { lines: [{ ...a, text: "Skerrow Lamp" }, b, c] },
      { lines: [{ ...a, text: "Skerrow Beam" }, b, c] },
    );
    expect(texts(merged)[0]).toBe("Skerrow Beam");
    expect(conflicts).toEqual([{ field: "lines.text", id: "l_a", mine: "Skerrow Lamp", theirs: "Skerrow Beam" }]);
  });
});

test("kept faces: notes and roles of different faces, and of one, are put together", () => {
  const kept = (id: string, more = {}) => ({ keptId: id, role: "", note: "", place: 0, ...more });
  const { merged, conflicts } = mergeBrief<BriefPart>(
    { kept: [kept("k_1"), kept("k_2")] },
    { kept: [kept("k_1", { role: "title" }), kept("k_2"), kept("k_3", { place: 2 })] },
    { kept: [kept("k_2", { note: "warm" }), kept("k_1", { note: "sturdy", place: 1 })] },
  );
  expect(conflicts).toEqual([]);
  expect(merged.kept).toMatchObject([
    { keptId: "k_2", note: "warm" },
    { keptId: "k_3" },
    { keptId: "k_1", role: "title", note: "sturdy" },
  ]);
});

test("words: nothing is made up, and spaces stay single", () => {
  expect(mergeWords("", "a", "b")).toBe("b a");
  expect(mergeWords("one two", "one two three", "zero one two")).toBe("zero one two three");
  expect(mergeWords("one two", "one 2", "one deux")).toBeNull();
});

test("500 rounds of random edits of two people: every word that one added and nobody removed is there", () => {
  let seed = 7;
  const random = (n: number) => (seed = (seed * 48_271) % 2_147_483_647) % n;
  let count = 0;
  for (let round = 0; round < 500; round++) {
    const start = { lines: Array.from({ length: 1 + random(4) }, (_, i) => line(`l_${i}`, `word${i} tail${i}`)) };
    const added: string[] = [];
    const edit = (lines: typeof start.lines) => {
      const out = lines.map((l) => ({ ...l }));
      for (let k = 0; k <= random(4); k++) {
        const word = `w${count++}`;
        added.push(word);
        const at = out[random(out.length)]!;
        const words = at.text.split(" ");
        words.splice(random(words.length + 1), 0, word);
        if (random(5)) at.text = words.join(" ");
        else out.splice(random(out.length + 1), 0, line(`l_n${count}`, word));
      }
      return out;
    };
    const { merged, conflicts } = mergeBrief<BriefPart>(
      start,
      { lines: edit(start.lines) },
      { lines: edit(start.lines) },
    );
    expect(conflicts).toEqual([]);
    const all = texts(merged).join(" ").split(" ");
    for (const word of added) expect(all.filter((w) => w === word)).toEqual([word]);
  }
});
