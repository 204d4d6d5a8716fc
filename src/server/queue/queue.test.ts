// What people wait for goes before reading: the jobs' process is told once when it begins, and once when the last of it is done.
import { afterEach, expect, test } from "@jest/globals";
import { beforeReaders, tellQueue, type JobsMessage } from "./queue";

const told: JobsMessage[] = [];
const open = () => tellQueue((message) => void told.push(message));
afterEach(() => {
  told.length = 0;
  tellQueue(null);
});

test("one after another: told at each beginning and end, and the reply comes through", async () => {
  open();
  expect(await beforeReaders(() => Promise.resolve("first"))).toBe("first");
  await beforeReaders(() => Promise.resolve("second"));
  expect(told).toEqual([{ yields: true }, { yields: false }, { yields: true }, { yields: false }]);
});

test("several at once are told as one, and an end by a fault is an end", async () => {
  open();
  let finish = (): void => {};
  const slow = beforeReaders(() => new Promise<void>((done) => (finish = done)));
  await expect(beforeReaders(() => Promise.reject(new Error("broken")))).rejects.toThrow("broken");
  expect(told).toEqual([{ yields: true }]);
  finish();
  await slow;
  expect(told).toEqual([{ yields: true }, { yields: false }]);
});

test("where nobody is told, the work is done all the same", async () => {
  expect(await beforeReaders(() => Promise.resolve(1))).toBe(1);
});
