// The pure parts of the interface: reducers, key moves, words; and the HTTP document and its guards.
import { describe, expect, test } from "@jest/globals";
import type { Brief, Kept } from "@/contracts/brief";
import { BriefFields } from "@/contracts/brief";
import { FAULT_CODES, refuse, sentenceOf, succeed } from "@/contracts/errors";
import type { Identification } from "@/contracts/identify";
import { validate } from "@readme/openapi-parser";
import { describeInterface } from "@/contracts/operations/openapi";
import type { Operation } from "@/contracts/operations/operation";
import { OPERATIONS } from "@/contracts/operations/table";
import { StyleQuery } from "@/contracts/styles";
import { benchReducer, openBench } from "@/ui/bench/state";
import { writeAnswer, cornersOf, identifyReducer, NOTHING, type Picture } from "@/ui/identify/state";
import { moveFocus } from "@/ui/find/select";
import { writeFault } from "@/ui/messages";

const ASKED = { frame: null, corners: null, baseline: null, ink: null, text: "", isTyped: false };

const entry = (styleId: string, place: number): Kept => ({
  keptId: `k_${styleId.slice(2)}` as Kept["keptId"],
  styleId: styleId as Kept["styleId"],
  location: {},
  features: {},
  role: "",
  group: "",
  note: "",
  favourite: false,
  place,
  keptAt: "",
});
const brief: Brief = {
  ...BriefFields.parse({ name: "B", lines: [{ text: "Quay", role: "title" }] }),
  briefId: "b_b" as Brief["briefId"],
  createdAt: "",
  changedAt: "",
  version: 1,
  kept: [entry("s_a", 0), entry("s_b", 1)],
  setAside: [],
  picture: null,
};
const bench = openBench(brief);

describe("the bench", () => {
  test("keeping puts a face at its place and brings it back from aside", () => {
    const aside = benchReducer(bench, { type: "set aside", styleId: "s_c" as never, aside: true });
    expect(aside.brief.setAside).toEqual(["s_c"]);
    const kept = benchReducer(aside, { type: "kept", entry: entry("s_c", 0) });
    expect(kept.brief.kept.map((k) => [k.styleId, k.place])).toEqual([
      ["s_c", 0],
      ["s_a", 1],
      ["s_b", 2],
    ]);
    expect(kept.brief.setAside).toEqual([]);
    expect(benchReducer(kept, { type: "let go", keptId: "k_a" as never }).brief.kept.map((k) => k.styleId)).toEqual([
      "s_c",
      "s_b",
    ]);
  });

  test("a change touches only what it names", () => {
    const after = benchReducer(bench, { type: "brief arrived", brief: { ...brief, ink: "#000000" } });
    expect(after.brief).toEqual({ ...brief, ink: "#000000" });
    expect(after.facts).toBe(bench.facts);
  });

  test("the tray folds, facts and notices come and go", () => {
    expect(benchReducer(bench, { type: "tray folded" }).trayOpen).toBe(false);
    expect(benchReducer(bench, { type: "facts", facts: ["a"] }).facts).toEqual(["a"]);
    expect(benchReducer(bench, { type: "said", notice: null }).notice).toBeNull();
    expect(benchReducer(bench, { type: "brief arrived", brief: { ...brief, name: "N" } }).brief.name).toBe("N");
  });
});

describe("keys on the wall", () => {
  test.each([
    ["ArrowRight", 0, 1],
    ["ArrowLeft", 0, 0],
    ["ArrowDown", 1, 4],
    ["ArrowUp", 4, 1],
    ["PageDown", 0, 9],
    ["End", 2, 9],
    ["Home", 7, 0],
    ["ArrowDown", 9, 9],
  ])("%s from %i goes to %i", (key, at, to) => expect(moveFocus(key, at, 10, 3, 4)).toBe(to));
  test("other keys do not move, an empty wall neither", () => {
    expect(moveFocus("x", 0, 10, 3, 4)).toBeNull();
    expect(moveFocus("ArrowDown", 0, 0, 3, 4)).toBeNull();
  });
});

const match = (family: string, chance: number) => ({
  styleId: "s",
  familyId: `f_${family}`,
  family,
  style: "Bold",
  score: 0.9,
  chance,
  letters: [],
  overlay: { path: "", widthPx: 1, heightPx: 1 },
});
const answer = (matches: ReturnType<typeof match>[], none: number) =>
  ({ matches, notInLibraries: { chance: none } }) as unknown as Identification;

describe("the answer", () => {
  test.each([
    [answer([match("Lora", 0.95)], 0.02), "Lora Bold, very likely."],
    [answer([match("Lora", 0.5), match("Lora", 0.4)], 0.02), "Lora, very likely; which style is less sure."],
    [answer([match("Lora", 0.5), match("Gelasio", 0.3)], 0.1), "Perhaps Lora Bold."],
    [answer([match("Lora", 0.2)], 0.2), "Not sure. Lora Bold comes nearest."],
    [answer([match("Lora", 0.2)], 0.8), "Probably not in your libraries."],
    [answer([], 1), "Nothing of yours comes near."],
  ])("%#", (result, sentence) => expect(writeAnswer(result)).toBe(sentence));
});

describe("identify's state", () => {
  const picture = { file: {} as File, url: "blob:x", widthPx: 10, heightPx: 10 } satisfies Picture;
  const chosen = identifyReducer(NOTHING, { type: "picture chosen", picture });

  test("a picture opens into what was kept of it", () => {
    const kept = identifyReducer({ ...NOTHING, text: "Fog", savedAs: "d_1" }, { type: "picture chosen", picture });
    expect(kept).toMatchObject({ picture, text: "Fog", savedAs: "d_1" });
  });

  test("a face tried by name stands once, in focus, and goes with the next answer", () => {
    const tried = (styleId: string) => ({ matches: [{ styleId }] }) as unknown as Identification;
    const once = identifyReducer(chosen, { type: "tried", result: tried("a") });
    const twice = identifyReducer(identifyReducer(once, { type: "tried", result: tried("b") }), {
      type: "tried",
      result: tried("a"),
    });
    expect(twice.tried.map((t) => t.styleId)).toEqual(["a", "b"]);
    expect(twice.focus).toBe(0);
    expect(
      identifyReducer(twice, { type: "tried", result: { matches: [] } as unknown as Identification }).tried,
    ).toHaveLength(2);
    const result = { reading: { text: "Fog" }, matches: [], areas: [] } as unknown as Identification;
    expect(identifyReducer({ ...twice, savedAs: "d_1" }, { type: "answered", asked: ASKED, result })).toMatchObject({
      tried: [],
      savedAs: null,
      asks: 1,
    });
    const fault = { what: "w", now: "n" };
    expect(identifyReducer(twice, { type: "refused", fault, keepsAnswer: true }).tried).toHaveLength(2);
    expect(identifyReducer(twice, { type: "refused", fault, keepsAnswer: false }).tried).toEqual([]);
  });

  test("lines that were found stand while one of them is asked about", () => {
    const area = { x: 1, y: 2, width: 8, height: 3 };
    const answer = (areas: object[]) => ({ reading: { text: "" }, matches: [], areas }) as unknown as Identification;
    const found = identifyReducer(chosen, { type: "answered", asked: ASKED, result: answer([area]) });
    expect(identifyReducer(found, { type: "answered", asked: ASKED, result: answer([]) }).areas).toEqual([area]);
  });

  test("four corners begin at the frame, or a little inside the picture", () => {
    expect(cornersOf(picture, { x: 1, y: 2, width: 5, height: 4 })).toEqual([
      { x: 1, y: 2 },
      { x: 6, y: 2 },
      { x: 6, y: 6 },
      { x: 1, y: 6 },
    ]);
    const inside = cornersOf({ ...picture, widthPx: 1000, heightPx: 500 }, null);
    expect(inside[0]).toEqual({ x: 60, y: 30 });
    expect(inside[2]).toEqual({ x: 940, y: 470 });
  });

  test("what was read fills the field unless a person typed", () => {
    const result = { reading: { text: "Fog" }, matches: [], areas: [] } as unknown as Identification;
    expect(identifyReducer(chosen, { type: "answered", asked: ASKED, result }).text).toBe("Fog");
    const typed = identifyReducer(chosen, { type: "typed", text: "Fog Bell" });
    expect(identifyReducer(typed, { type: "answered", asked: ASKED, result }).text).toBe("Fog Bell");
    expect(identifyReducer(typed, { type: "typed", text: " " }).isTyped).toBe(false);
  });

  test("a refusal ends the waiting and says why", () => {
    const waiting = identifyReducer(chosen, { type: "asked" });
    expect(waiting.busy).toBe(true);
    expect(
      identifyReducer(waiting, { type: "refused", keepsAnswer: false, fault: { what: "w", now: "n" } }),
    ).toMatchObject({
      busy: false,
      fault: { what: "w" },
    });
    expect(identifyReducer(waiting, { type: "cleared" })).toEqual(NOTHING);
    expect(identifyReducer(chosen, { type: "focused", index: 2 }).focus).toBe(2);
    expect(identifyReducer(chosen, { type: "laid", lay: 80 }).lay).toBe(80);
    expect(
      identifyReducer(chosen, { type: "framed", frame: { x: 1, y: 1, width: 2, height: 2 } }).frame,
    ).not.toBeNull();
  });
});

describe("messages", () => {
  test("every code has a sentence", () => {
    for (const code of FAULT_CODES) expect(sentenceOf(code)).toMatch(/^[A-Z].*\.$/);
  });
  test("what happened and what now", () => {
    expect(writeFault({ code: "no-ink", message: "plate.png: No lettering stands out in the picture." })).toEqual({
      what: "plate.png: No lettering stands out in the picture.",
      now: "Draw the frame tightly around one line of lettering.",
    });
    expect(writeFault({ code: "strange", message: "" }).what).toBe("Something went wrong.");
  });
  test("outcomes are values", () => {
    expect(succeed(3)).toEqual({ ok: true, value: 3 });
    expect(refuse("no-file")).toMatchObject({ ok: false, code: "no-file", message: "No file came with the request." });
  });
});

describe("questions in the address", () => {
  test("lists, flags and numbers are read from text", () => {
    expect(StyleQuery.parse({ kinds: "slab,serif", complete: "true", weightMin: "300", limit: "20" })).toMatchObject({
      kinds: ["slab", "serif"],
      complete: true,
      weightMin: 300,
      limit: 20,
    });
  });
  test.each([{ kinds: "slabby" }, { limit: "500" }, { sort: "colour" }, { cursor: "-3" }, { weightMin: "heavy" }])(
    "%j is refused",
    (query) => {
      expect(StyleQuery.safeParse(query).success).toBe(false);
    },
  );
});

describe("the OpenAPI document", () => {
  const doc = describeInterface();
  const operations: Operation[] = Object.values(OPERATIONS);
  test("is valid OpenAPI 3.1, as another reader sees it", async () => {
    expect(doc.openapi).toBe("3.1.0");
    expect(await validate(JSON.parse(JSON.stringify(doc)) as Parameters<typeof validate>[0])).toMatchObject({
      valid: true,
    });
    // The same reader finds what is wrong with a document.
    const { info: _info, ...broken } = doc;
    expect(await validate(broken as unknown as Parameters<typeof validate>[0])).toMatchObject({ valid: false });
  });
  test("describes every operation once", () => {
    const described = Object.entries(doc.paths).flatMap(([path, methods]) =>
      Object.keys(methods).map((m) => `${m} ${path}`),
    );
    expect(described.sort()).toEqual(operations.map((o) => `${o.method} ${o.path}`).sort());
    expect(new Set(described).size).toBe(described.length);
  });
  test("every operation says what it gives, and every change what it changes", () => {
    for (const [name, op] of Object.entries<Operation>(OPERATIONS)) {
      expect([name, Boolean(op.output ?? op.file)]).toEqual([name, true]);
      if (op.access === "reader") expect([name, op.changes]).toEqual([name, undefined]);
      if (op.method === "get") expect([name, op.access]).toEqual([name, op.access && "reader"]);
    }
  });
  test("parameters in paths are declared, codes are listed", () => {
    const text = JSON.stringify(doc);
    expect(text).not.toContain('"$schema"');
    const styles = doc.paths["/styles/{id}"]!.get as { parameters: { name: string; in: string }[] };
    expect(styles.parameters.map((p) => `${p.in} ${p.name}`)).toEqual(["path id", "query briefId"]);
    expect(doc.info.description).toContain("not-a-font");
  });
});
