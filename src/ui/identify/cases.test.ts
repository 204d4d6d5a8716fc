// Pictures that are open in Identify: opened, found again, shown, closed.
import { describe, expect, test } from "@jest/globals";
import { casesReducer, NO_CASES, openFiles, type CasesAction, type CasesState, type OpenCase } from "./cases";

const open = (key: string): OpenCase => ({ key, file: new File([], `${key}.png`), saved: null });
const after = (...actions: CasesAction[]) => actions.reduce(casesReducer, NO_CASES);
const keysOf = ({ cases, shown }: CasesState) => [cases.map((c) => c.key).join(" "), shown];
const abc: CasesAction = { type: "opened", cases: [open("a"), open("b"), open("c")] };

describe("open pictures", () => {
  test("the first of those that were chosen is shown; choosing none changes nothing", () => {
    expect(keysOf(after(abc))).toEqual(["a b c", "a"]);
    expect(keysOf(after(abc, { type: "opened", cases: [] }))).toEqual(["a b c", "a"]);
    expect(keysOf(after(abc, { type: "opened", cases: [open("d")] }))).toEqual(["a b c d", "d"]);
  });

  test("a kept one that is opened again stands once, as it was kept", () => {
    const again = { ...open("a"), left: null };
    const { cases } = after(abc, { type: "opened", cases: [again] });
    expect(cases.map((c) => c.key)).toEqual(["b", "c", "a"]);
    expect(cases.at(-1)).toBe(again);
  });

  test("those found after a reload stand before one that was opened meanwhile, which stays in view", () => {
    const meanwhile: CasesAction = { type: "opened", cases: [open("new")] };
    const found: CasesAction = { type: "found", cases: [open("a"), open("b")] };
    expect(keysOf(after(meanwhile, found))).toEqual(["a b new", "new"]);
    expect(keysOf(after(found))).toEqual(["a b", "a"]);
    expect(keysOf(after({ type: "found", cases: [] }))).toEqual(["", null]);
  });

  test.each([
    ["the one in view: the next", "b", "b", "c"],
    ["the last, in view: the one before", "c", "c", "b"],
    ["another: the one in view stays", "b", "a", "b"],
  ])("closing %s", (_, shown, closed, then) => {
    const state = after(abc, { type: "shown", key: shown }, { type: "closed", key: closed });
    expect(state.shown).toBe(then);
    expect(state.cases).toHaveLength(2);
  });

  test("closing the only one leads back to choosing", () => {
    expect(keysOf(after({ type: "opened", cases: [open("a")] }, { type: "closed", key: "a" }))).toEqual(["", null]);
  });

  test("the same file chosen twice is two pictures", () => {
    const file = new File(["x"], "sign.png");
    const [one, two] = openFiles([file, file]);
    expect(one!.key).not.toBe(two!.key);
  });
});
