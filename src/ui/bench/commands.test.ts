import { describe, expect, test } from "@jest/globals";
import { CommandStack, type Command, type Commands } from "./commands";

const add = (n: number): Command<number> => ({ summary: `add ${n}`, forward: n, backward: -n });
/** A sum that commands are applied to, and where they are kept. */
function open(max = 60) {
  let kept: string | null = null;
  const store = {
    read: () => JSON.parse(kept ?? "null") as Commands<number> | null,
    write: (commands: Commands<number>) => void (kept = JSON.stringify(commands)),
  };
  return { store, stack: new CommandStack<number>(store, max) };
}

describe("commands", () => {
  test("are taken back last first, and done again in their order", () => {
    const { stack } = open();
    let sum = 0;
    for (const n of [1, 10, 100]) {
      sum += n;
      stack.push(add(n));
    }
    const seen: number[] = [];
    for (let c = stack.takeBack(); c; c = stack.takeBack()) seen.push((sum += c.backward));
    for (let c = stack.takeAgain(); c; c = stack.takeAgain()) seen.push((sum += c.forward));
    expect(seen).toEqual([11, 1, 0, 1, 11, 111]);
    expect([stack.takeAgain(), stack.last?.forward, stack.next]).toEqual([null, 100, null]);
  });

  test("outlive a reload, done and undone", () => {
    const { store, stack } = open();
    for (const n of [1, 2, 3]) stack.push(add(n));
    stack.takeBack();
    const again = new CommandStack<number>(store, 60);
    expect([again.last, again.next]).toEqual([add(2), add(3)]);
  });

  test("something new ends what could be done again, here and elsewhere", () => {
    const { stack } = open();
    for (const n of [1, 2]) stack.push(add(n));
    stack.takeBack();
    stack.push(add(5));
    expect([stack.last, stack.next]).toEqual([add(5), null]);
    stack.takeBack();
    stack.forgetUndone();
    expect([stack.last, stack.next]).toEqual([add(1), null]);
  });

  test("the oldest go first when there are too many", () => {
    const { stack } = open(3);
    for (let n = 1; n <= 9; n++) stack.push(add(n));
    expect(stack.list().done.map((c) => c.forward)).toEqual([7, 8, 9]);
  });

  test("tell when something changed, and only then", () => {
    const { stack } = open();
    let told = 0;
    const stop = stack.subscribe(() => told++);
    stack.takeBack();
    stack.forgetUndone();
    stack.push(add(1));
    stack.takeBack();
    stop();
    stack.push(add(1));
    expect(told).toBe(2);
  });
});
