// Stands for `@jest/globals` where tests run without a context of their own: the runner's globals, with the time limits that it leaves out.

/** What a test or a hook has if it says nothing else. Set where tests are bundled. */
const limitMs = LIMIT_MS;

/** @param fn - of a test or a hook. @returns one that rejects when its time is over. */
const within =
  (fn, ms = limitMs) =>
  async (...args) => {
    let timer;
    const over = new Promise((_, reject) => {
      timer = setTimeout(() => reject(new Error(`Not done within ${ms / 1000} s`)), ms);
    });
    try {
      return await Promise.race([fn(...args), over]);
    } finally {
      clearTimeout(timer);
    }
  };

const limitTest = (add) => (name, fn, ms) => add(name, within(fn, ms), ms);
const limitHook = (add) => (fn, ms) => add(within(fn, ms), ms);

export const { describe, expect, jest } = globalThis;
export const afterAll = limitHook(globalThis.afterAll);
export const afterEach = limitHook(globalThis.afterEach);
export const beforeAll = limitHook(globalThis.beforeAll);
export const beforeEach = limitHook(globalThis.beforeEach);
export const test = Object.assign(limitTest(globalThis.test), {
  each: (...table) => limitTest(globalThis.test.each(...table)),
});
