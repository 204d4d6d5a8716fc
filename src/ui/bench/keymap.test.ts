// Keys as parts of the interface register them: who goes first, what is not for a part, what is held, what is told.
import { describe, expect, jest, test } from "@jest/globals";
import { Keymap, writeKeys, type Binding } from "./keymap";

const press = (key: string, more: Partial<KeyboardEvent> = {}) =>
  ({ key, altKey: false, ctrlKey: false, metaKey: false, shiftKey: false, target: null, ...more }) as KeyboardEvent;
const binding = (over: Partial<Binding>): Binding => ({ keys: ["u"], run: () => {}, ...over });

describe("keys", () => {
  test("the newest part goes first; what it does not take the next is asked; removed, it is gone", () => {
    const map = new Keymap();
    const everywhere = jest.fn(() => {});
    const here = jest.fn<() => boolean | void>(() => {});
    map.add("Everywhere").put([binding({ run: everywhere })]);
    map.add("Frame", true).put([binding({ run: () => void expect("the frame").toBe("asked last") })]);
    const view = map.add("Review");
    view.put([binding({ run: here })]);
    expect(map.press(press("u"))).toBe(true);
    expect([here.mock.calls.length, everywhere.mock.calls.length]).toEqual([1, 0]);
    here.mockReturnValueOnce(false);
    map.press(press("u"));
    expect([here.mock.calls.length, everywhere.mock.calls.length]).toEqual([2, 1]);
    view.remove();
    map.press(press("u"));
    expect(everywhere).toHaveBeenCalledTimes(2);
    expect(map.press(press("q"))).toBe(false);
  });

  test("Ctrl, Command and Shift are told apart; Alt is the browser's; fields and open menus keep their keys", () => {
    const map = new Keymap();
    const calls: string[] = [];
    map
      .add("x")
      .put([
        binding({ keys: ["z"], mod: true, shift: false, run: () => void calls.push("undo") }),
        binding({ keys: ["z"], mod: true, shift: true, run: () => void calls.push("redo") }),
        binding({ keys: ["z"], run: () => void calls.push("plain") }),
      ]);
    map.press(press("z", { ctrlKey: true }));
    map.press(press("Z", { metaKey: true, shiftKey: true }));
    map.press(press("z"));
    map.press(press("z", { altKey: true }));
    const inside = { closest: (s: string) => (s.includes("menu") ? {} : null) } as unknown as EventTarget;
    map.press(press("z", { target: inside }));
    expect(calls).toEqual(["undo", "redo", "plain"]);
  });

  test("a key that is held is let go of once, by itself or with the window", () => {
    const map = new Keymap();
    const release = jest.fn();
    map.add("x").put([binding({ keys: ["d"], release })]);
    map.press(press("D"));
    map.release("x");
    expect(release).not.toHaveBeenCalled();
    map.release("d");
    map.press(press("d"));
    map.releaseAll();
    map.releaseAll();
    expect(release).toHaveBeenCalledTimes(2);
  });

  test("listeners hear of what is told, not of every drawing", () => {
    const map = new Keymap();
    const listener = jest.fn();
    map.subscribe(listener);
    const part = map.add("x");
    part.put([binding({ legend: "keep" })]);
    part.put([binding({ legend: "keep", run: () => false })]);
    expect(listener).toHaveBeenCalledTimes(1);
    part.put([binding({ legend: "remove" })]);
    expect(listener).toHaveBeenCalledTimes(2);
  });

  test.each([
    [{ keys: [" "] }, "Space"],
    [{ keys: ["x"] }, "X"],
    [{ keys: ["z"], mod: true, shift: true }, "Ctrl Shift Z"],
    [{ keys: ["d"], shown: "Hold D" }, "Hold D"],
    [{ keys: ["Escape"] }, "Esc"],
  ])("%j is written %s", (over, written) => expect(writeKeys(binding(over))).toBe(written));
});
